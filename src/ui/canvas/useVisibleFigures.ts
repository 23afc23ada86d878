"use client";
import { startTransition, useEffect, useMemo, useRef, useState } from "react";
import type { Figure, Scene } from "@/core/drawing";
import type { Bounds } from "@/core/model";
import type { Viewport } from "./useViewport";

/** Pages of up to this many figures are drawn at once. */
const drawnAtOnce = 150;
/** Pages of up to this many figures are drawn whole: all of it is there, for the eye and for assistive technology. */
const drawnWhole = 1_200;
/** How much more than what is in view is drawn, in views to each side, so that moving seldom draws anew. */
const margin = 0.6;

/** A page is opened at its upper left; until the view is known, it is taken to be as large as a large screen. */
const firstView = { width: 2_400, height: 1_500 };
/** Milliseconds without a change before what is out of view is drawn anew too: nobody's next key waits for it. */
const rest = 250;

/**
 * The figures of a page that are to be drawn, in their order. Of a page of some size those in view are drawn as they are at once, and
 * the others as they were until there is time (600 elements, a step near the start: 2,700 parts of figures change, 500 in view). Of a
 * large page only those in and around the view are drawn; which these are changes only when the view leaves what is drawn.
 */
export function useVisibleFigures(scene: Scene, viewport: Viewport): readonly Figure[] {
  const isLarge = scene.figures.length > drawnWhole;
  const isSmall = scene.figures.length <= drawnAtOnce;
  const [area, setArea] = useState<Bounds | null>(null);
  useEffect(() => {
    if (!isLarge) return setArea(null);
    return viewport.onMove((view) =>
      setArea((drawn) => (drawn && holds(drawn, view) && drawn.width < view.width * 6 ? drawn : around(view))),
    );
  }, [isLarge, viewport]);
  const drawn = useRef<readonly Figure[]>([]);
  const [settled, setSettled] = useState<Scene | null>(null);
  const isWhole = isSmall || settled === scene;
  const figures = useMemo(() => {
    if (isWhole && !isLarge) return scene.figures;
    if (isLarge) return area ? scene.figures.filter((figure) => isWithin(figure, area)) : [];
    const view = viewNow(viewport);
    const seen = view.width > 0 ? around(view, 0.15) : { ...scene.bounds, ...firstView };
    const before = new Map(drawn.current.map((figure) => [figure.id, figure]));
    return scene.figures.flatMap((figure) => {
      const last = before.get(figure.id);
      // What went out of view goes at once too: it would stand over what came in its place.
      return isWithin(figure, seen) || (last && isWithin(last, seen)) ? figure : (last ?? []);
    });
  }, [isWhole, isLarge, scene, area, viewport]);
  useEffect(() => {
    const isFirst = drawn.current.length === 0;
    drawn.current = figures;
    if (isWhole || isLarge) return;
    const timer = setTimeout(() => startTransition(() => setSettled(scene)), isFirst ? 0 : rest);
    return () => clearTimeout(timer);
  }, [figures, isWhole, isLarge, scene]);
  return figures;
}

function viewNow(viewport: Viewport): Bounds {
  let now: Bounds = { x: 0, y: 0, width: 0, height: 0 };
  viewport.onMove((view) => {
    now = view;
  })();
  return now;
}

/** Whether something of a figure, or its name, is in an area. */
function isWithin({ bounds, label }: Figure, area: Bounds): boolean {
  const meets = ({ x, y, width, height }: Bounds) =>
    x <= area.x + area.width && area.x <= x + width && y <= area.y + area.height && area.y <= y + height;
  return meets(bounds) || (label !== undefined && meets(label.bounds));
}

const holds = (outer: Bounds, inner: Bounds) =>
  outer.x <= inner.x &&
  outer.y <= inner.y &&
  outer.x + outer.width >= inner.x + inner.width &&
  outer.y + outer.height >= inner.y + inner.height;

/** An area with as much more to each side, in its own size. */
const around = ({ x, y, width, height }: Bounds, more = margin): Bounds => ({
  x: x - width * more,
  y: y - height * more,
  width: width * (1 + 2 * more),
  height: height * (1 + 2 * more),
});
