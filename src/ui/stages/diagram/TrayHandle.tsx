"use client";
import { chakra } from "@chakra-ui/react";
import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import { text } from "../../messages";
import { useDiagram } from "../../version/diagramStore";

const lowest = 96;
/** The page keeps at least this much of the stage's height. */
const leftForPage = 240;
const step = 24;

/**
 * The tray's upper edge: dragged, or moved with the arrow keys, it makes the tray higher or lower; a double click, or Enter, lets
 * it be as high as what it holds again.
 */
export function TrayHandle() {
  const kept = useDiagram((state) => state.trayHeight);
  const from = useRef<{ readonly y: number; readonly height: number } | null>(null);
  const handle = useRef<HTMLDivElement>(null);
  /** As high as it is now, whoever said so. */
  const heightNow = () => kept ?? handle.current?.nextElementSibling?.clientHeight ?? lowest;
  const setHeight = (wanted: number) =>
    useDiagram.getState().set({
      trayHeight: Math.round(Math.max(lowest, Math.min(wanted, window.innerHeight - leftForPage))),
    });
  return (
    <chakra.div
      role="separator"
      aria-orientation="horizontal"
      aria-label={text.diagram.trayHeight}
      ref={handle}
      aria-valuenow={kept ?? lowest}
      aria-valuetext={kept === null ? text.diagram.trayByItself : undefined}
      aria-valuemin={lowest}
      aria-valuemax={typeof window === "undefined" ? undefined : window.innerHeight - leftForPage}
      tabIndex={0}
      h="5px"
      flexShrink={0}
      bg="sheet"
      borderTopWidth="1px"
      borderColor="line"
      cursor="ns-resize"
      touchAction="none"
      _hover={{ bg: "accentSoft" }}
      _focusVisible={{ bg: "accent", outline: "none" }}
      onPointerDown={(event: PointerEvent<HTMLDivElement>) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = { y: event.clientY, height: heightNow() };
      }}
      onPointerMove={(event: PointerEvent) => {
        if (from.current) setHeight(from.current.height + from.current.y - event.clientY);
      }}
      onPointerUp={() => {
        from.current = null;
      }}
      onDoubleClick={() => useDiagram.getState().set({ trayHeight: null })}
      onKeyDown={(event: KeyboardEvent) => {
        if (event.key === "ArrowUp") setHeight(heightNow() + step);
        else if (event.key === "ArrowDown") setHeight(heightNow() - step);
        else if (event.key === "Enter") useDiagram.getState().set({ trayHeight: null });
        else if (event.key === "Home") setHeight(lowest);
        else if (event.key === "End") setHeight(window.innerHeight);
        else return;
        event.preventDefault();
      }}
    />
  );
}
