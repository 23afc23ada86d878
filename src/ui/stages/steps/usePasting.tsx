"use client";
import { type ReactNode, type RefObject, useEffect, useRef, useState } from "react";
import { type ColumnMap, type FilledColumn, recogniseHeadings } from "@/core/capture";
import { readTable, type TableRows } from "@/core/table";
import { useEntries } from "../../controls/entries";
import { complain, tell } from "../../controls/notices";
import { text } from "../../messages";
import { PasteDialog } from "./PasteDialog";
import { hasLines } from "./pastedLines";
import { pasteCells, pasteRows } from "./pasteRows";
import { useSheetStore } from "./sheetStore";
import type { Sheet } from "./useSheet";

/** Whether what has the focus takes what is pasted itself: a field that is no cell of the sheet, or a cell and a single value. */
function takesItself(target: EventTarget | null, pasted: string): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target.closest("[role=dialog]")) return true;
  const isField = target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName);
  return isField && !(target.dataset.sheetCell !== undefined && hasLines(pasted));
}

/**
 * Pasting anywhere on the stage writes into the sheet: lines become steps; on a cell of another column they fill that column
 * downwards; a single value takes a cell's place. Gives the dialog that asks what columns mean, while it is open.
 */
export function usePasting(current: RefObject<Sheet>): ReactNode {
  const [unclear, setUnclear] = useState<TableRows | null>(null);
  const { create } = useEntries();
  const insert = async (rows: TableRows, map: ColumnMap) => {
    try {
      const count = await pasteRows(current.current, rows, map, create);
      if (count !== null) tell({ description: text.steps.pasted(count) });
    } catch (error) {
      complain(error);
    }
  };
  const fill = async (rows: TableRows, columns: readonly FilledColumn[]) => {
    try {
      const count = await pasteCells(current.current, rows, columns, create);
      if (count !== null && count < rows.length) tell({ description: text.steps.filled(count, rows.length) });
    } catch (error) {
      complain(error);
    }
  };
  const paste = (pasted: string) => {
    const table = readTable(pasted);
    if (!table.ok) return complain(new Error(table.problems[0]?.message));
    const { value: rows } = table;
    if (rows.length === 0) return complain(new Error(text.steps.pasteNoSteps));
    const { isClear, hasHeadings, map } = recogniseHeadings(rows);
    const { row, column, shown, edit } = useSheetStore.getState();
    const isOnRow = current.current.indexOf(row) >= 0;
    if (isOnRow && column !== "step" && !hasHeadings)
      return void fill(rows, shown.slice(shown.indexOf(column)) as FilledColumn[]);
    if (isOnRow && !hasLines(pasted)) return edit(pasted.trim());
    if (isClear) void insert(hasHeadings ? rows.slice(1) : rows, map);
    else setUnclear(rows);
  };
  const latest = useRef(paste);
  latest.current = paste;
  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      const pasted = event.clipboardData?.getData("text/plain") ?? "";
      if (pasted.trim() === "" || takesItself(event.target, pasted)) return;
      event.preventDefault();
      // A cell that was being written is kept first, and the sheet drawn with it.
      setTimeout(() => latest.current(pasted));
    };
    document.addEventListener("paste", onPaste);
    return () => document.removeEventListener("paste", onPaste);
  }, []);
  return (
    unclear && (
      <PasteDialog
        rows={unclear}
        onClose={() => setUnclear(null)}
        onInsert={(rows, map) => {
          setUnclear(null);
          void insert(rows, map);
        }}
      />
    )
  );
}
