import { type RefObject, useEffect, useState } from "react";
import { type Id, shapeOn } from "@/core/model";
import type { CanvasHandle } from "../../canvas/Canvas";
import type { VersionStore } from "../../version/versionStore";

/** Milliseconds that the tray keeps back when it opens: a double click must not land on it. */
const doubleClick = 260;

/** Whether the tray is shown: it goes at once, and comes when the hand has rested. */
export function useShownTray(isWanted: boolean): boolean {
  const [isShown, setShown] = useState(isWanted);
  useEffect(() => {
    if (!isWanted) return setShown(false);
    const timer = setTimeout(() => setShown(true), doubleClick);
    return () => clearTimeout(timer);
  }, [isWanted]);
  return isWanted && isShown;
}

/** Moves up what alone is chosen, where the tray comes to lie over it. */
export function useUncovered(
  store: VersionStore,
  diagram: Id,
  canvas: RefObject<CanvasHandle | null>,
  selection: readonly Id[],
  trayShown: boolean,
): void {
  useEffect(() => {
    const [only, another] = selection;
    if (!only || another !== undefined || !trayShown) return;
    let takeBack: (() => void) | undefined;
    const uncover = () => {
      const shape = shapeOn(store.getState().model, diagram, only);
      if (shape) canvas.current?.viewport.uncover(shape.bounds);
    };
    // Once the page knows its new height. What is being dragged stays under the pointer.
    const timer = setTimeout(() => {
      takeBack = canvas.current?.viewport.whenFree(uncover);
    }, 60);
    return () => {
      clearTimeout(timer);
      takeBack?.();
    };
  }, [canvas, selection, trayShown, diagram, store]);
}
