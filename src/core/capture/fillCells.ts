import { say } from "../messages";
import { type Id, isActivity, type Model, nameOf } from "../model";
import type { TableRows } from "../table";
import type { Draft } from "./draft";
import { furnish, type ListedStep, listOf } from "./list";
import type { Resolve } from "./readSheet";
import type { StepRow } from "./stepRow";

/** The columns of a sheet that can be filled downwards, in the order they stand in. */
export type FilledColumn = Exclude<keyof ListedStep, "step">;

/** The steps that pasted lines fall on: from a row downwards, one a line. */
export function filledRows(model: Model, rows: readonly StepRow[], at: number, lines: number): readonly Id[] {
  return rows
    .slice(at)
    .flatMap((row) =>
      row.kind === "step" && isActivity(model.elements.get(row.element)?.type ?? "") ? [row.element] : [],
    )
    .slice(0, lines);
}

/** What pasted cells say of the steps they fall on, each with its step. */
export function filledSteps(
  model: Model,
  steps: readonly Id[],
  table: TableRows,
  columns: readonly FilledColumn[],
): readonly { readonly step: Id; readonly listed: ListedStep }[] {
  const map = { step: 0, ...Object.fromEntries(columns.map((column, at) => [column, at + 1])) };
  return steps.flatMap((step, at) => {
    const [listed] = listOf([[nameOf(model, step) || "…", ...(table[at] ?? [])]], map);
    return listed ? [{ step, listed }] : [];
  });
}

/** Writes pasted cells into the sheet as it stands: a column, or a block of columns, from a row downwards. */
export function fillCells(
  draft: Draft,
  filled: readonly { readonly step: Id; readonly listed: ListedStep }[],
  resolve: Resolve,
): Id | undefined {
  if (filled.length === 0)
    return draft.refuse("nothing-to-fill", say`No step stands here to write this into. Choose a step's cell first.`);
  for (const { step, listed } of filled) furnish(draft, step, listed, resolve);
  return filled[0]?.step;
}
