import { create } from "zustand";

export const columns = ["step", "by", "uses", "needs", "gives", "guidance", "time", "cost"] as const;
export type Column = (typeof columns)[number];
/** Time and cost are shown when they are wanted. */
const usualColumns: readonly Column[] = ["step", "by", "uses", "needs", "gives", "guidance"];
const withEstimates: readonly Column[] = columns;

/** A row being written that the model does not have yet. */
export interface NewRow {
  readonly row: string | null;
  readonly where: "behind" | "before" | "decision" | "parallel" | "path" | "meanwhile";
  /** What was typed to begin with. */
  readonly start: string;
}

interface SheetState {
  readonly process: string | null;
  /** The cell the keyboard is at. */
  readonly row: string | null;
  readonly column: Column;
  /** What the present cell's editor begins with; null while nothing is edited. */
  readonly editing: { readonly start: string | null } | null;
  /** The cell's editor asks where the row's path leads, whatever the row is. */
  readonly leading: boolean;
  readonly newRow: NewRow | null;
  /** What was typed into a cell and cannot be read, with the reason; it stays there until it is put right. */
  readonly unread: { readonly [cell: string]: { readonly typed: string; readonly reason: string } };
  readonly estimates: boolean;
  readonly shown: readonly Column[];
  readonly showEstimates: (shown: boolean) => void;
  readonly go: (row: string | null, column?: Column) => void;
  readonly edit: (start: string | null) => void;
  readonly write: (newRow: NewRow) => void;
  readonly setUnread: (cell: string, unread: { typed: string; reason: string } | undefined) => void;
  readonly set: (change: Partial<Pick<SheetState, "process" | "editing" | "leading" | "newRow">>) => void;
}

/** Where one is in the sheet. Nothing here is part of the model. */
export const useSheetStore = create<SheetState>((set, get) => ({
  process: null,
  row: null,
  column: "step",
  editing: null,
  leading: false,
  newRow: null,
  unread: {},
  estimates: false,
  shown: usualColumns,
  showEstimates: (estimates) =>
    set({ estimates, shown: estimates ? withEstimates : usualColumns, ...(!estimates && { column: "step" }) }),
  go: (row, column) => set({ row, column: column ?? get().column, editing: null, leading: false, newRow: null }),
  edit: (start) => set({ editing: { start }, leading: false, newRow: null }),
  // What is written becomes a step; the row above it stays chosen until then.
  write: (newRow) => set({ newRow, column: "step", editing: null, leading: false }),
  setUnread: (cell, unread) =>
    set(({ unread: { [cell]: _, ...others } }) => ({ unread: unread ? { ...others, [cell]: unread } : others })),
  set: (change) => set(change),
}));
