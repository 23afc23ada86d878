import { create } from "zustand";

export const columns = ["step", "by", "uses", "needs", "gives", "guidance", "time", "cost"] as const;
export type Column = (typeof columns)[number];
/** Time and cost are shown when they are wanted. */
const usualColumns: readonly Column[] = ["step", "by", "uses", "needs", "gives", "guidance"];
const withEstimates: readonly Column[] = columns;

/** A row being written that the model does not have yet. */
export interface NewRow {
  readonly row: string | null;
  readonly where: "behind" | "before" | "decision" | "parallel" | "path";
}

interface SheetState {
  readonly process: string | null;
  /** The cell the keyboard is at. */
  readonly row: string | null;
  readonly column: Column;
  /** What the present cell's editor begins with; null while nothing is edited. */
  readonly editing: { readonly start: string | null } | null;
  readonly newRow: NewRow | null;
  readonly estimates: boolean;
  readonly shown: readonly Column[];
  readonly showEstimates: (shown: boolean) => void;
  readonly go: (row: string | null, column?: Column) => void;
  readonly edit: (start: string | null) => void;
  readonly set: (change: Partial<Pick<SheetState, "process" | "editing" | "newRow">>) => void;
}

/** Where one is in the sheet. Nothing here is part of the model. */
export const useSheetStore = create<SheetState>((set, get) => ({
  process: null,
  row: null,
  column: "step",
  editing: null,
  newRow: null,
  estimates: false,
  shown: usualColumns,
  showEstimates: (estimates) =>
    set({ estimates, shown: estimates ? withEstimates : usualColumns, ...(!estimates && { column: "step" }) }),
  go: (row, column) => set({ row, column: column ?? get().column, editing: null, newRow: null }),
  edit: (start) => set({ editing: { start }, newRow: null }),
  set: (change) => set(change),
}));
