import {
  type ColumnMap,
  type FilledColumn,
  fillCells,
  filledRows,
  filledSteps,
  type ListedStep,
  listOf,
  type NamedEntry,
  type Resolve,
  writeList,
} from "@/core/capture";
import { type EntryKind, foldedName } from "@/core/directory";
import type { TableRows } from "@/core/table";
import { text } from "../../messages";
import { inWorker } from "../../version/tidyPage";
import { useSheetStore } from "./sheetStore";
import type { Sheet } from "./useSheet";

/** Lists of more rows take longer than one would like to wait without being told. */
const writtenAtOnce = 60;

type Create = (kind: EntryKind, name: string) => Promise<{ id: string; name: string }>;

const keyOf = (kind: EntryKind, name: string) => `${kind}\n${foldedName(name)}`;

/** The directory's entries for all names in a list; those that it does not know are entered first. */
async function entriesFor(steps: readonly ListedStep[], create: Create): Promise<ReadonlyMap<string, NamedEntry>> {
  const known = new Map<string, NamedEntry>();
  for (const step of steps) {
    const named = [
      ...step.by.map((name) => ["role", name] as const),
      ...step.uses.map((name) => ["system", name] as const),
      ...[...step.needs, ...step.gives].map((name) => ["document", name] as const),
    ];
    for (const [kind, name] of named) {
      if (known.has(keyOf(kind, name))) continue;
      const entry = await create(kind, name);
      known.set(keyOf(kind, name), { entry: entry.id, name: entry.name });
    }
  }
  return known;
}

const resolver =
  (known: ReadonlyMap<string, NamedEntry>): Resolve =>
  (kind, name) =>
    known.get(keyOf(kind, name)) as NamedEntry;

/**
 * Writes pasted rows behind the present one, as one undo step. Names that the directory does not know are entered there first.
 * Gives the number of steps written; null where the sheet refused them.
 */
export async function pasteRows(sheet: Sheet, rows: TableRows, map: ColumnMap, create: Create): Promise<number | null> {
  const steps = listOf(rows, map);
  const known = await entriesFor(steps, create);
  const at = sheet.indexOf(useSheetStore.getState().row);
  if (steps.length > writtenAtOnce) return pasteLongList(sheet, steps, known);
  const done = sheet.run((draft) =>
    writeList(draft, steps, {
      row: at < 0 ? sheet.rows.findLastIndex((row) => row.kind === "step") : at,
      rows: sheet.rows,
      process: sheet.process,
      resolve: resolver(known),
    }),
  );
  if (!done) return null;
  if (done.focus !== undefined) useSheetStore.getState().go(done.focus, "step");
  return steps.length;
}

/** Writes pasted cells into the steps from the present row downwards, beginning with the present column. */
export async function pasteCells(
  sheet: Sheet,
  table: TableRows,
  columns: readonly FilledColumn[],
  create: Create,
): Promise<number | null> {
  const at = sheet.indexOf(useSheetStore.getState().row);
  const filled = filledSteps(sheet.model, filledRows(sheet.model, sheet.rows, at, table.length), table, columns);
  const known = await entriesFor(
    filled.map(({ listed }) => listed),
    create,
  );
  const done = sheet.run((draft) => fillCells(draft, filled, resolver(known)));
  return done && filled.length;
}

/** Longer lists are written in a worker, with a way to call it off. */
async function pasteLongList(
  sheet: Sheet,
  steps: readonly ListedStep[],
  known: ReadonlyMap<string, NamedEntry>,
): Promise<number | null> {
  const entries = new Map(
    steps.flatMap((step) => [
      ...step.by.map((name) => entryFor("role", name, known)),
      ...step.uses.map((name) => entryFor("system", name, known)),
      ...[...step.needs, ...step.gives].map((name) => entryFor("document", name, known)),
    ]),
  );
  const at = sheet.indexOf(useSheetStore.getState().row);
  const row = at < 0 ? sheet.rows.findLastIndex((one) => one.kind === "step") : at;
  const tidy = sheet.isKeptTidy() ? sheet.diagram : undefined;
  const answer = await inWorker(text.steps.inserting(steps.length), (runner) =>
    runner.run("writeSteps", { model: sheet.model }, { process: sheet.process, row, steps, entries, tidy }),
  );
  if (answer === null) return null;
  if (answer.problems.length > 0) throw new Error(answer.problems.map((problem) => problem.message).join(" "));
  if (!sheet.takeEdits(answer.edits, text.steps.insertLabel(steps.length), tidy !== undefined)) return null;
  if (answer.focus !== undefined) useSheetStore.getState().go(answer.focus, "step");
  return steps.length;
}

const entryFor = (kind: EntryKind, name: string, known: ReadonlyMap<string, NamedEntry>) =>
  [`${kind}\n${name}`, known.get(keyOf(kind, name)) as NamedEntry] as const;
