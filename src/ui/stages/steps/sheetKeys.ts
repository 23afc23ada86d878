import type { KeyboardEvent } from "react";
import { askWhere, leadChosen, moveChosen, removeChosen, startRow, step, turnWays } from "./sheetActions";
import { useSheetStore } from "./sheetStore";
import type { Sheet } from "./useSheet";

/** Keys of the sheet while no cell is edited. Tells whether the key meant something. */
export function onSheetKey(event: KeyboardEvent, sheet: Sheet): boolean {
  const { go, edit } = useSheetStore.getState();
  if (event.altKey && onGesture(event, sheet)) return true;
  if (event.altKey || event.ctrlKey || event.metaKey) return false;
  switch (event.key) {
    case "ArrowDown":
      return step(sheet, 1, 0) || true;
    case "ArrowUp":
      return step(sheet, -1, 0) || true;
    case "ArrowRight":
      return step(sheet, 0, 1) || true;
    case "ArrowLeft":
      return step(sheet, 0, -1) || true;
    case "PageDown":
      return step(sheet, 12, 0);
    case "PageUp":
      return step(sheet, -12, 0);
    case "Home":
      go(sheet.rows[0]?.id ?? null);
      return true;
    case "End":
      go(sheet.rows.at(-1)?.id ?? null);
      return true;
    case "Tab":
      return step(sheet, 0, event.shiftKey ? -1 : 1);
    case "Enter":
      startRow(event.shiftKey ? "before" : "behind");
      return true;
    case "F2":
      edit(null);
      return true;
    case "Delete":
      removeChosen(sheet);
      return true;
  }
  if (event.key.length !== 1 || event.key === " ") return false;
  if (sheet.rows.length === 0) startRow("behind", event.key);
  else edit(event.key);
  return true;
}

/** Alt with a letter or arrow: also while a cell is being written. */
export function onGesture(event: KeyboardEvent, sheet: Sheet): boolean {
  if (!event.altKey) return false;
  switch (event.code) {
    case "KeyD":
      startRow("decision");
      return true;
    case "KeyP":
      startRow("parallel");
      return true;
    case "KeyA":
      startRow("path");
      return true;
    case "KeyW":
      turnWays(sheet);
      return true;
    case "KeyE":
      leadChosen(sheet, { end: "" });
      return true;
    case "KeyL":
      askWhere(sheet);
      return true;
    case "KeyM":
      startRow("meanwhile");
      return true;
    case "ArrowUp":
      moveChosen(sheet, "up");
      return true;
    case "ArrowDown":
      moveChosen(sheet, "down");
      return true;
    default:
      return false;
  }
}
