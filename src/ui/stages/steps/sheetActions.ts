import {
  addBefore,
  addBehind,
  addDecision,
  addFirstStep,
  addMeanwhile,
  addParallel,
  addPath,
  changeSplit,
  type Happening,
  leadTo,
  moveRow,
  moveRowBehind,
  type PathGoal,
  readAmount,
  removeRow,
  type StepRow,
} from "@/core/capture";
import { say } from "@/core/messages";
import { type Id, nameOf, readDuration, readTimer } from "@/core/model";
import { tell } from "../../controls/notices";
import { today } from "../../kernel/today";
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
      case "meanwhile":
        return draft.refuse("no-happening", say`Choose what it is that happens.`);
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

/** Writes what may happen while the chosen step is under way, with a path of its own. */
export function writeMeanwhile(sheet: Sheet, { row }: NewRow, happening: Happening, typed: string): void {
  const chosen = sheet.rows[sheet.indexOf(row)];
  const done = sheet.run((draft) => {
    if (chosen?.kind !== "step")
      return draft.refuse("no-step", say`Choose a step; what happens meanwhile is then written below it.`);
    return addMeanwhile(draft, chosen.element, happening, { typed, today: today() });
  });
  goTo(done?.focus, "step");
}

export function startRow(where: NewRow["where"], start = ""): void {
  const { row, write } = useSheetStore.getState();
  write({ row, where, start });
}

export function removeChosen(sheet: Sheet): void {
  const at = sheet.indexOf(useSheetStore.getState().row);
  if (at < 0) return;
  const chosen = sheet.rows[at] as StepRow;
  let along: readonly string[] = [];
  let next: StepRow | undefined;
  const done = sheet.run((draft) => {
    removeRow(draft, sheet.rows, at);
    const stays = (row: StepRow) => row.kind === "step" && draft.model.elements.has(row.element);
    along = goneAlong(sheet, chosen, (element) => draft.model.elements.has(element));
    next = sheet.rows.slice(at + 1).find(stays) ?? sheet.rows.slice(0, at).findLast(stays);
    return undefined;
  });
  if (!done) return;
  if (next) useSheetStore.getState().go(next.id);
  if (along.length > 0) tell({ description: text.steps.removedAlong(along) });
}

/** The steps that went with a row that was deleted, by name: what only it led to. */
function goneAlong(sheet: Sheet, chosen: StepRow, isThere: (element: Id) => boolean): readonly string[] {
  return sheet.rows.flatMap((row) => {
    if (row.kind !== "step" || row.number === "" || row.id === chosen.id || isThere(row.element)) return [];
    return [nameOf(sheet.model, row.element) || text.steps.unnamed];
  });
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

/** Why what is typed into a column cannot be read; undefined where it can, or where the cell is emptied. */
export function unreadable(column: "time" | "cost" | "waits", typed: string): string | undefined {
  if (typed === "") return undefined;
  if (column === "cost") return readAmount(typed) === undefined ? text.steps.noAmount(typed) : undefined;
  if (column === "time") return readDuration(typed) === undefined ? text.steps.noDuration(typed) : undefined;
  return readTimer(typed, today()) === undefined ? text.steps.noTime(typed) : undefined;
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

/** Leads the path of the chosen row on, or to its end; the row stays chosen, or the one that now stands for it. */
export function leadChosen(sheet: Sheet, goal: PathGoal): void {
  const { row, go } = useSheetStore.getState();
  const at = sheet.indexOf(row);
  if (at < 0) return;
  const chosen = sheet.rows[at] as StepRow;
  const source = sourceOf(sheet, chosen);
  let stays = false;
  const done = sheet.run((draft) => {
    leadTo(draft, sheet.rows, at, goal);
    stays = chosen.kind === "path" || (chosen.kind === "step" && draft.model.elements.has(chosen.element));
    return undefined;
  });
  // A row that said where the path went is another now: the keyboard goes to what it stood behind.
  if (done && !stays && source) go(source, "step");
}

/** The row a path's last row stands behind. */
function sourceOf(sheet: Sheet, row: StepRow): string | undefined {
  const before = sheet.rows.slice(0, sheet.indexOf(row.id));
  return before.findLast((other) => other.kind === "path" || other.kind === "step")?.id;
}

/** Begins to look up where the chosen row's path leads. */
export function askWhere(sheet: Sheet): void {
  const { row, set } = useSheetStore.getState();
  if (sheet.indexOf(row) >= 0) set({ leading: true, editing: { start: "" }, newRow: null });
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
