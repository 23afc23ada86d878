import {
  addBefore,
  addBehind,
  addDecision,
  addFirstStep,
  addParallel,
  addPath,
  changeSplit,
  leadTo,
  moveRow,
  moveRowBehind,
  readAmount,
  removeRow,
  type StepRow,
} from "@/core/capture";
import { say } from "@/core/messages";
import type { Id } from "@/core/model";
import { text } from "../../messages";
import { type Column, type NewRow, useSheetStore } from "./sheetStore";
import type { Sheet } from "./useSheet";

/** Rows are shown anew after a change; what is to be chosen then is found by its element. */
function goTo(element: Id | undefined, column?: Column): void {
  if (element !== undefined) useSheetStore.getState().go(element, column);
}

/** Writes a new row into the model. Gives the element of the row, or null where it was refused. */
export function writeNewRow(sheet: Sheet, { row, where }: NewRow, name: string): Id | null {
  const at = sheet.indexOf(row);
  const done = sheet.run((draft) => {
    if (at < 0) return addFirstStep(draft, sheet.process, sheet.diagram, name);
    const task = { type: "task" } as const;
    switch (where) {
      case "behind":
        return addBehind(draft, sheet.rows, at, task, name);
      case "before":
        return addBefore(draft, sheet.rows, at, task, name);
      case "decision":
        return addDecision(draft, sheet.rows, at, { question: name, usual: text.steps.yes, other: text.steps.no });
      case "parallel":
        return addParallel(draft, sheet.rows, at, name);
      case "path":
        return addPath(draft, splitOf(sheet.rows[at] as StepRow), name);
    }
  });
  if (!done) return null;
  goTo(done.focus, "step");
  return done.focus ?? null;
}

/** The step whose path a row heads, or the step itself. */
function splitOf(row: StepRow): Id {
  return row.kind === "path" ? row.of : row.kind === "step" || row.kind === "stop" ? row.element : row.to;
}

export function startRow(where: NewRow["where"]): void {
  const { row, set } = useSheetStore.getState();
  set({ newRow: { row, where }, editing: null });
}

export function removeChosen(sheet: Sheet): void {
  const at = sheet.indexOf(useSheetStore.getState().row);
  if (at < 0) return;
  const next =
    sheet.rows.slice(at + 1).find((row) => row.kind === "step") ??
    sheet.rows.slice(0, at).findLast((row) => row.kind === "step");
  const done = sheet.run((draft) => {
    removeRow(draft, sheet.rows, at);
    return undefined;
  });
  if (done && next) useSheetStore.getState().go(next.id);
}

export function moveChosen(sheet: Sheet, direction: "up" | "down"): void {
  const at = sheet.indexOf(useSheetStore.getState().row);
  if (at < 0) return;
  goTo(sheet.run((draft) => moveRow(draft, sheet.process, sheet.rows, at, direction))?.focus);
}

/** Puts a row's step behind another row: what dragging it there means. */
export function moveBehind(sheet: Sheet, row: string, behind: string): void {
  const at = sheet.indexOf(row);
  if (at < 0 || row === behind) return;
  goTo(sheet.run((draft) => moveRowBehind(draft, sheet.process, sheet.rows, at, behind))?.focus);
}

/** Writes what a step takes, as it is typed; an empty cell takes it off. */
export function estimate(sheet: Sheet, step: Id, column: "time" | "cost", typed: string): void {
  sheet.run((draft) => {
    if (column === "time") draft.do({ type: "setEstimate", id: step, time: typed === "" ? null : typed });
    else {
      const cost = typed === "" ? null : readAmount(typed);
      if (cost === undefined) return draft.refuse("no-amount", say`${text.steps.noAmount(typed)}`);
      draft.do({ type: "setEstimate", id: step, cost });
    }
    return step;
  });
}

const ways = ["exclusiveGateway", "parallelGateway", "inclusiveGateway"] as const;

/** The chosen split's ways are taken one, all, or some: each time the next of these. */
export function turnWays(sheet: Sheet): void {
  const row = sheet.rows[sheet.indexOf(useSheetStore.getState().row)];
  if (!row || row.kind === "jump" || row.kind === "stop") return;
  sheet.run((draft) => {
    const split = splitOf(row);
    const type = draft.element(split).type;
    const at = (ways as readonly string[]).indexOf(type);
    if (at < 0) return draft.refuse("no-split", say`Choose a question, or one of the ways out of it.`);
    changeSplit(draft, split, ways[(at + 1) % ways.length] as (typeof ways)[number]);
    return split;
  });
}

export function leadChosen(sheet: Sheet, to: Id | "end"): void {
  const at = sheet.indexOf(useSheetStore.getState().row);
  if (at < 0) return;
  sheet.run((draft) => {
    leadTo(draft, sheet.rows, at, to);
    return undefined;
  });
}

/** One row or column further; stays at the edge of the sheet. Tells whether there was somewhere to go. */
export function step(sheet: Sheet, byRow: number, byColumn: number): boolean {
  const { row, column, shown, go } = useSheetStore.getState();
  const next = shown[shown.indexOf(column) + byColumn];
  if (!next) return false;
  // Within the row, it need not be known where that stands: it may just have been written.
  if (byRow === 0 && row !== null) {
    go(row, next);
    return true;
  }
  const from = sheet.indexOf(row);
  const to = sheet.rows[from < 0 ? 0 : Math.max(0, Math.min(sheet.rows.length - 1, from + byRow))];
  if (!to) return false;
  go(to.id, next);
  return true;
}
