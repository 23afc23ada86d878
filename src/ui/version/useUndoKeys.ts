"use client";
import { useEffect } from "react";
import { useVersionStore } from "./VersionContext";

/** Ctrl+Z and Ctrl+Shift+Z or Ctrl+Y reach the whole page; fields and the canvas have their own. */
export function useUndoKeys(): void {
  const store = useVersionStore();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (target.closest("input, textarea, [contenteditable], [role=dialog], [data-canvas]")) return;
      if (!(event.ctrlKey || event.metaKey)) return;
      const key = event.key.toLowerCase();
      if (key !== "z" && key !== "y") return;
      event.preventDefault();
      if (key === "y" || event.shiftKey) store.getState().redo();
      else store.getState().undo();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [store]);
}
