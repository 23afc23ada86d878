import type { KeyboardEvent } from "react";
import { sheets, type TableSheet } from "@/core/decisions";
import { text } from "../messages";
import type { At } from "./TableView";

const words = text.decisions;

interface Sheet {
  readonly sheet: TableSheet;
  readonly at: At;
  readonly setAt: (at: At) => void;
  readonly put: (label: string, sheet: TableSheet) => boolean;
}

/** What a key does in the sheet of rules, while no cell is being written. */
export function rulesKey(event: KeyboardEvent, { sheet, at, setAt, put }: Sheet): void {
  const { target } = event;
  // Heads and cells that are being written have keys of their own.
  if (at.editing || !(target instanceof HTMLElement) || target.dataset.rule === undefined) return;
  // The line behind the last rule is for a new one.
  const last = { rule: sheet.rules.length, column: sheets.columnCount(sheet) - 1 };
  const go = (rule: number, column: number, editing: At["editing"] = null) => {
    setAt({
      rule: Math.max(0, Math.min(last.rule, rule)),
      column: Math.max(0, Math.min(last.column, column)),
      editing,
    });
    event.preventDefault();
  };
  const change = (label: string, next: TableSheet, rule: number) => {
    put(label, next);
    setAt({ rule: Math.max(0, Math.min(next.rules.length, rule)), column: at.column, editing: null });
    event.preventDefault();
  };
  const isCommand = event.ctrlKey || event.metaKey;
  if (isCommand && event.key === "ArrowUp")
    return change(words.editing.moveRule, sheets.withMoved(sheet, at.rule, -1), at.rule - 1);
  if (isCommand && event.key === "ArrowDown")
    return change(words.editing.moveRule, sheets.withMoved(sheet, at.rule, 1), at.rule + 1);
  if (isCommand && event.key.toLowerCase() === "d")
    return change(words.editing.copyRule, sheets.withCopy(sheet, at.rule), at.rule + 1);
  if (isCommand && (event.key === "Delete" || event.key === "Backspace"))
    return change(words.editing.removeRule, sheets.withoutRule(sheet, at.rule), at.rule);
  if (isCommand && event.key === "Enter")
    return change(words.editing.addRule, sheets.withRule(sheet, at.rule + 1), at.rule + 1);
  if (isCommand || event.altKey) return;
  switch (event.key) {
    case "ArrowUp":
      return go(at.rule - 1, at.column);
    case "ArrowDown":
      return go(at.rule + 1, at.column);
    case "ArrowLeft":
      return go(at.rule, at.column - 1);
    case "ArrowRight":
      return go(at.rule, at.column + 1);
    case "Home":
      return go(at.rule, 0);
    case "End":
      return go(at.rule, last.column);
    case "Tab": {
      // The sheet is left at its ends.
      const next = at.column + (event.shiftKey ? -1 : 1);
      const isInside = next >= 0 && next <= last.column;
      if (isInside) return go(at.rule, next);
      const rule = at.rule + (event.shiftKey ? -1 : 1);
      if (rule < 0 || rule > last.rule) return;
      return go(rule, event.shiftKey ? last.column : 0);
    }
    case "Enter":
    case "F2":
      return go(at.rule, at.column, { start: null });
    case "Delete":
    case "Backspace": {
      const isInput = sheets.placeOf(sheet, at.column).kind === "input";
      return change(words.editing.cell, sheets.withCell(sheet, at.rule, at.column, isInput ? "-" : ""), at.rule);
    }
    default:
      if (event.key.length === 1) go(at.rule, at.column, { start: event.key });
  }
}
