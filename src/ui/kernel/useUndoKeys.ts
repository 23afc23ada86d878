"use client";
import { useEffect } from "react";
import { redoLast, type Turned, undoLast } from "./history";

/** Ctrl+Z and Ctrl+Shift+Z or Ctrl+Y reach every page; fields have their own. `told` says what was taken back, or why it could not be. */
export function useUndoKeys(
  told: (turned: Turned | undefined, isRedo: boolean) => void,
  refused: (error: unknown) => void,
): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      // A cell in which nothing was typed has nothing of its own to take back.
      const field = target.closest?.("input:not([data-untouched]), textarea, [contenteditable], [role=dialog]");
      if (event.defaultPrevented || field) return;
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      const key = event.key.toLowerCase();
      if (key !== "z" && key !== "y") return;
      event.preventDefault();
      const isRedo = key === "y" || event.shiftKey;
      (isRedo ? redoLast() : undoLast()).then((turned) => told(turned, isRedo), refused);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [told, refused]);
}
