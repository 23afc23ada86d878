import { say } from "../messages";
import { handlesData, type Id, isActivity, scopeOf } from "../model";
import type { TableRows } from "../table";
import { addAfter, addBehind } from "./addRows";
import type { Draft } from "./draft";
import { addFirstStep } from "./firstStep";
import { giveRole, type NamedEntry } from "./giveRole";
import type { ColumnMap } from "./headings";
import type { StepRow } from "./stepRow";

/** A step of a plain list: what somebody has in a spreadsheet. */
export interface ListedStep {
  readonly step: string;
  readonly by: readonly string[];
  readonly uses: readonly string[];
  readonly needs: readonly string[];
  readonly gives: readonly string[];
  readonly guidance: string;
  readonly time: string;
  readonly cost: string;
}

/** In lists, several names stand in a cell with semicolons, line breaks or commas between them. */
const parted = (cell: string) =>
  cell
    .split(/[;\n]|,\s/)
    .map((name) => name.trim().slice(0, 200))
    .filter((name) => name !== "");

/** The steps of a table, by what its columns mean; rows without a step are passed over. */
export function listOf(rows: TableRows, map: ColumnMap): readonly ListedStep[] {
  const cell = (row: readonly string[], column: number | undefined) =>
    column === undefined ? "" : (row[column] ?? "");
  return rows.flatMap((row): ListedStep[] => {
    const step = cell(row, map.step).replace(/\s+/g, " ").slice(0, 500);
    if (step === "") return [];
    return [
      {
        step,
        by: parted(cell(row, map.by)),
        uses: parted(cell(row, map.uses)),
        needs: parted(cell(row, map.needs)),
        gives: parted(cell(row, map.gives)),
        guidance: cell(row, map.guidance),
        time: cell(row, map.time),
        cost: cell(row, map.cost),
      },
    ];
  });
}

/** Writes a list of steps behind a row of a sheet, or into an empty one. Gives the last step. */
export function writeList(
  draft: Draft,
  steps: readonly ListedStep[],
  place: {
    readonly row: number;
    readonly rows: readonly StepRow[];
    readonly process: Id;
    readonly resolve: (kind: "role" | "system" | "document", name: string) => NamedEntry;
  },
): Id | undefined {
  let last: Id | undefined;
  const diagram = [...draft.model.diagrams].sort((a, b) => a.order - b.order)[0]?.id as Id;
  for (const listed of steps) {
    if (last !== undefined) last = addAfter(draft, last, { type: "task" }, listed.step);
    else if (place.row >= 0) last = addBehind(draft, place.rows, place.row, { type: "task" }, listed.step);
    else last = addFirstStep(draft, place.process, diagram, listed.step);
    furnish(draft, last, listed, place.resolve);
  }
  return last;
}

/** Gives a step what its row says besides its name. */
export function furnish(
  draft: Draft,
  step: Id,
  listed: ListedStep,
  resolve: (kind: "role" | "system" | "document", name: string) => NamedEntry,
): void {
  const [first, ...others] = listed.by;
  // What is no activity has no people of its own, but a lane to stand in.
  const stands = draft.element(step).type !== "boundaryEvent" && scopeOf(draft.model, step)?.type === "process";
  if (first && (stands || isActivity(draft.element(step).type))) giveRole(draft, step, resolve("role", first));
  const own = others.length > 0 ? listed.by : [];
  if (isActivity(draft.element(step).type)) {
    for (const name of own) {
      const role = resolve("role", name);
      draft.do({ type: "assignRole", step, role, part: "responsible", id: draft.newId("role") });
    }
  }
  for (const [direction, names] of [
    ["in", listed.needs],
    ["out", listed.gives],
  ] as const) {
    if (!handlesData(draft.element(step).type, direction)) continue;
    for (const name of names) {
      const document = resolve("document", name);
      const id = draft.newId("paper");
      draft.do({ type: "giveDocument", diagram: draft.pageOf(step), step, document, direction, id });
    }
  }
  for (const name of listed.uses) {
    const [, bare = name, use] = /^(.*?)(?: \((reads|writes|runs on)\))?$/s.exec(name) ?? [];
    draft.do({ type: "useSystem", step, system: resolve("system", bare), use: (use ?? "writes") as "writes" });
  }
  if (isActivity(draft.element(step).type) && (listed.time || listed.cost))
    draft.do({
      type: "setEstimate",
      id: step,
      ...(listed.time && { time: listed.time }),
      ...(listed.cost && { cost: amountOf(draft, listed) }),
    });
  if (listed.guidance) draft.do({ type: "describe", id: step, text: listed.guidance });
}

/** An amount of money as it is written: "12.50", "1,200.00", "12,50 EUR". */
export function readAmount(text: string): number | undefined {
  const digits = text.replace(/[^\d.,-]/g, "");
  const decimal = /[.,]\d{1,2}$/.exec(digits)?.[0];
  const whole = (decimal ? digits.slice(0, -decimal.length) : digits).replace(/[.,]/g, "");
  const amount = Number(`${whole}${decimal ? `.${decimal.slice(1)}` : ""}`);
  return digits === "" || Number.isNaN(amount) || amount < 0 ? undefined : amount;
}

function amountOf(draft: Draft, { step, cost }: ListedStep): number {
  return (
    readAmount(cost) ??
    draft.refuse(
      "no-amount",
      say`The cost of "${step}" is "${cost}", which is no amount. Write a number, such as 12.50.`,
    )
  );
}
