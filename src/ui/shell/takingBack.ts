"use client";
import { complain, tell } from "../controls/notices";
import { nextInHistory, redoLast, type Turned, undoLast } from "../kernel/history";
import { useUndoKeys } from "../kernel/useUndoKeys";
import { text } from "../messages";
import type { PaletteCommand } from "./paletteStore";

/** Says what was taken back where it is not seen: it may have been done on another page. */
function tellUndone(turned: Turned | undefined, isRedo: boolean): void {
  if (!turned || turned.isSeen) return;
  const words = isRedo ? text.shell.redone(turned.label) : text.shell.undone(turned.label);
  tell({ description: words, duration: 4000 });
}

/** Taking back and bringing again, by name, for Ctrl+K. */
export function historyCommands(): PaletteCommand[] {
  const { undo, redo } = nextInHistory();
  const run = (turn: typeof undoLast, isRedo: boolean) => () =>
    void turn().then((turned) => tellUndone(turned, isRedo), complain);
  return [
    ...(undo === undefined
      ? []
      : [{ id: "undo", isFirst: true, title: text.version.undo(undo), keys: "Ctrl Z", run: run(undoLast, false) }]),
    ...(redo === undefined
      ? []
      : [{ id: "redo", isFirst: true, title: text.version.redo(redo), keys: "Ctrl Y", run: run(redoLast, true) }]),
  ];
}

/** Ctrl+Z and its like, on every page and on the way from one to the next: between two pages there is no row 1, but a hand that corrects itself. */
export function UndoKeys() {
  useUndoKeys(tellUndone, complain);
  return null;
}
