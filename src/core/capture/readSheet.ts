import type { Kind } from "../commands";
import { say } from "../messages";
import {
  type ElementType,
  emptyModel,
  eventDefinitionTypes,
  failure,
  isElementType,
  isFlowNode,
  type Model,
  ok,
  type Problem,
  problem,
  type Result,
} from "../model";
import { readTable, type TableRows } from "../table";
import { Draft, type NewId, PlanRefusal } from "./draft";
import type { NamedEntry } from "./giveRole";
import { type ColumnMap, recogniseHeadings } from "./headings";
import { type ListedStep, listOf } from "./list";
import { SheetBuilder } from "./sheetBuilder";

/** What a name in a cell is in the directory; made where it is new. */
export type Resolve = (kind: "role" | "system" | "document", name: string) => NamedEntry;

/** A row of a sheet in a file, with the line it stands in. */
export interface SheetLine {
  readonly line: number;
  readonly number: string;
  readonly level: number;
  readonly kind: "process" | "path" | "main path" | "continues at" | "stops" | Kind;
  readonly isDefault: boolean;
  readonly step: string;
  readonly by: readonly string[];
  readonly uses: readonly string[];
  readonly needs: readonly string[];
  readonly gives: readonly string[];
  readonly guidance: string;
  readonly time: string;
  readonly cost: string;
}

/**
 * Makes a model from a step sheet in a file. With the columns Level and Kind it is read as a sheet that was written by this
 * project, branches and all (docs/step-sheet.md); without them, as a plain list of steps, one after the other.
 */
export function readSheet(text: string, title: string, newId: NewId, resolve: Resolve): Result<Model> {
  const table = readTable(text);
  if (!table.ok) return table;
  const { hasHeadings, map } = recogniseHeadings(table.value);
  if (map.step === undefined) {
    return failure({
      code: "no-steps",
      message: say`No column is called "Step" (or Activity, Task, What). Name the column of the steps in the first row.`,
      line: 1,
    });
  }
  const rows = hasHeadings ? table.value.slice(1) : table.value;
  const first = hasHeadings ? 2 : 1;
  const start = emptyModel(
    { definitions: newId("definitions"), process: newId("process"), diagram: newId("page") },
    title,
  );
  try {
    const draft = new Draft(start, newId, true);
    if (map.level !== undefined && map.kind !== undefined) {
      const lines = sheetLines(rows, map, first);
      if (!lines.ok) return lines;
      new SheetBuilder(draft, resolve).build(lines.value);
    } else new SheetBuilder(draft, resolve).build(linesOfList(listOf(rows, map), first));
    return ok(tidied(draft));
  } catch (error) {
    if (error instanceof PlanRefusal) return { ok: false, problems: error.problems };
    throw error;
  }
}

/** A plain list as a sheet: one step after the other, between a start and an end. */
function linesOfList(steps: readonly ListedStep[], first: number): SheetLine[] {
  const bare = { level: 0, number: "", isDefault: false };
  const event = { ...bare, step: "", uses: [], needs: [], gives: [], guidance: "", time: "", cost: "" };
  const last = steps.at(-1);
  return [
    { ...event, line: first, kind: { type: "startEvent" }, by: steps[0]?.by.slice(0, 1) ?? [] },
    ...steps.map((step, at): SheetLine => ({ ...bare, ...step, line: first + at, kind: { type: "task" } })),
    { ...event, line: first + steps.length, kind: { type: "endEvent" }, by: last?.by.slice(0, 1) ?? [] },
  ];
}

function tidied(draft: Draft): Model {
  for (const diagram of [...draft.model.diagrams]) draft.do({ type: "tidy", diagram: diagram.id });
  return draft.model;
}

/** Names in one cell, parted by semicolons. */
export function namesIn(cell: string): string[] {
  return [...cell.matchAll(/((?:\\.|[^;\\])*)(?:;|$)/g)]
    .map(([, name]) => (name ?? "").replace(/\\(.)/g, "$1").trim())
    .filter((name) => name !== "");
}

function sheetLines(rows: TableRows, map: ColumnMap, first: number): Result<SheetLine[]> {
  const problems: Problem[] = [];
  const lines = rows.flatMap((row, at): SheetLine[] => {
    const line = first + at;
    const cell = (column: number | undefined) => (column === undefined ? "" : (row[column] ?? ""));
    const [word = "", ...more] = cell(map.kind)
      .split(",")
      .map((part) => part.trim());
    const kind = kindOfWords(word, more);
    const level = Number(cell(map.level) || 0);
    if (!kind) {
      problems.push(
        problem({
          code: "unknown-kind",
          message: say`Row ${line}: "${cell(map.kind)}" is no kind of row. Write userTask, exclusiveGateway, path, or another that docs/step-sheet.md lists.`,
          line,
        }),
      );
      return [];
    }
    if (!Number.isInteger(level) || level < 0 || level > 200) {
      problems.push(
        problem({
          code: "level",
          message: say`Row ${line}: the level "${cell(map.level)}" is no whole number from 0.`,
          line,
        }),
      );
      return [];
    }
    return [
      {
        line,
        number: cell(map.number),
        level,
        kind,
        isDefault: more.includes("default"),
        step: cell(map.step),
        by: namesIn(cell(map.by)),
        uses: namesIn(cell(map.uses)),
        needs: namesIn(cell(map.needs)),
        gives: namesIn(cell(map.gives)),
        guidance: cell(map.guidance),
        time: cell(map.time),
        cost: cell(map.cost),
      },
    ];
  });
  return problems.length > 0 ? { ok: false, problems } : ok(lines);
}

function kindOfWords(word: string, more: readonly string[]): SheetLine["kind"] | undefined {
  switch (word) {
    case "process":
    case "path":
    case "main path":
    case "continues at":
    case "stops":
      return word;
    case "":
      return { type: "task" };
  }
  if (!isElementType(word) || !isFlowNode(word as ElementType)) return undefined;
  const trigger = eventDefinitionTypes.find((type) => more.includes(type));
  return {
    type: word as ElementType,
    ...(trigger && { trigger }),
    ...(more.includes("non-interrupting") && { cancelActivity: false }),
    ...(more.includes("event") && { triggeredByEvent: true }),
  };
}
