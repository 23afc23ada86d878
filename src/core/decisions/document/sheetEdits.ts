import { typedTests, typedValue, wordsOfTests, wordsOfValue } from "../cellWords";
import type { InputColumn, NoteColumn, OutputColumn, SheetRule, TableSheet } from "./sheet";

/** A column of a sheet: of which kind, and its place among those. Sheets number all columns from the left. */
export interface ColumnPlace {
  readonly kind: "input" | "output" | "note";
  readonly at: number;
}
const cellsOfKind = { input: "inputs", output: "outputs", note: "notes" } as const;

export const columnCount = ({ inputs, outputs, notes }: TableSheet): number =>
  inputs.length + outputs.length + notes.length;

export function placeOf({ inputs, outputs }: TableSheet, column: number): ColumnPlace {
  if (column < inputs.length) return { kind: "input", at: column };
  if (column < inputs.length + outputs.length) return { kind: "output", at: column - inputs.length };
  return { kind: "note", at: column - inputs.length - outputs.length };
}

export const cellText = (sheet: TableSheet, rule: number, column: number): string => {
  const { kind, at } = placeOf(sheet, column);
  return sheet.rules[rule]?.[cellsOfKind[kind]][at] ?? "";
};

/** A cell in plain words. */
export function shownCell(text: string, kind: ColumnPlace["kind"] = "input"): string {
  if (kind === "input") return text === "-" || text === "" ? "–" : wordsOfTests(text);
  return kind === "output" ? wordsOfValue(text) : text;
}

/** What is typed into a cell as it is kept: read as words where it is no FEEL; what is neither is kept as typed, and told. */
export function keptCell(sheet: TableSheet, column: number, typed: string, known: readonly string[]): string {
  const { kind, at } = placeOf(sheet, column);
  if (kind === "note") return typed;
  const read =
    kind === "input"
      ? typedTests(typed, sheet.inputs[at]?.type ?? "", known)
      : typedValue(typed, sheet.outputs[at]?.type ?? "", known);
  return "text" in read ? read.text : typed.trim();
}

const replaced = <Of>(list: readonly Of[], at: number, by: Of): Of[] =>
  list.map((one, place) => (place === at ? by : one));

/** A cell with other words; the row below the last one is a new rule. */
export function withCell(sheet: TableSheet, rule: number, column: number, text: string): TableSheet {
  const grown = rule < sheet.rules.length ? sheet : withRule(sheet, sheet.rules.length);
  const { kind, at } = placeOf(grown, column);
  const cells = cellsOfKind[kind];
  const before = grown.rules[rule] as SheetRule;
  return { ...grown, rules: replaced(grown.rules, rule, { ...before, [cells]: replaced(before[cells], at, text) }) };
}

/** A rule of its own that takes everything and says nothing. */
export const emptyRule = ({ inputs, outputs, notes }: TableSheet): SheetRule => ({
  inputs: inputs.map(() => "-"),
  outputs: outputs.map(() => ""),
  notes: notes.map(() => ""),
});

export const withRule = (sheet: TableSheet, at: number, rule: SheetRule = emptyRule(sheet)): TableSheet => ({
  ...sheet,
  rules: [...sheet.rules.slice(0, at), rule, ...sheet.rules.slice(at)],
});
export const withoutRule = (sheet: TableSheet, at: number): TableSheet => ({
  ...sheet,
  rules: sheet.rules.filter((_, place) => place !== at),
});
/** The same rule once more, below it: what a file says of the first stays with that. */
export function withCopy(sheet: TableSheet, at: number): TableSheet {
  const rule = sheet.rules[at];
  if (!rule) return sheet;
  const { inputs, outputs, notes } = rule;
  return withRule(sheet, at + 1, { inputs, outputs, notes });
}
export const withMoved = (sheet: TableSheet, at: number, by: 1 | -1): TableSheet => ({
  ...sheet,
  rules: moved(sheet.rules, at, by),
});
function moved<Of>(list: readonly Of[], at: number, by: 1 | -1): readonly Of[] {
  const [one, other] = [list[at], list[at + by]];
  return one === undefined || other === undefined ? list : replaced(replaced(list, at, other), at + by, one);
}

/** Rules by the words of a column, numbers by their value; those that are alike keep their order. */
export function sortedBy(sheet: TableSheet, column: number): TableSheet {
  const { kind, at } = placeOf(sheet, column);
  const keys = new Map(sheet.rules.map((rule) => [rule, sortKey(rule[cellsOfKind[kind]][at] ?? "")]));
  const order = new Intl.Collator("en", { numeric: true });
  const rules = [...sheet.rules].sort((a, b) => {
    const [[first, one], [second, other]] = [keys.get(a) ?? [0, ""], keys.get(b) ?? [0, ""]];
    return first - second || order.compare(one, other);
  });
  return { ...sheet, rules };
}
/** The first number in a cell's words tells where it stands; "under 5" before "5" before "over 5"; whatever takes all is last. */
function sortKey(text: string): readonly [number, string] {
  if (text === "-") return [Number.POSITIVE_INFINITY, ""];
  const [found] = /-?\d+(\.\d+)?/.exec(text.replace(/"[^"]*"/g, "")) ?? [];
  const nudge = /^\s*<[^=]/.test(text) ? -1e-6 : /^\s*(>[^=]|[(\]])/.test(text) ? 1e-6 : 0;
  return [found === undefined ? 0 : Number(found) + nudge, text];
}

/** A new column at the end of its kind, with nothing in its cells. */
export function withColumn(sheet: TableSheet, kind: ColumnPlace["kind"], name = ""): TableSheet {
  const empty = { type: "", allowed: "", label: "" };
  const column = { input: { ...empty, expression: name }, output: { ...empty, name, usual: "" }, note: { name } }[kind];
  const cells = cellsOfKind[kind];
  return {
    ...sheet,
    [cells]: [...sheet[cells], column],
    rules: sheet.rules.map((rule) => ({ ...rule, [cells]: [...rule[cells], kind === "input" ? "-" : ""] })),
  };
}
export function withoutColumn(sheet: TableSheet, column: number): TableSheet {
  const { kind, at } = placeOf(sheet, column);
  const cells = cellsOfKind[kind];
  const without = <Of>(list: readonly Of[]) => list.filter((_, place) => place !== at);
  return {
    ...sheet,
    [cells]: without<InputColumn | OutputColumn | NoteColumn>(sheet[cells]),
    rules: sheet.rules.map((rule) => ({ ...rule, [cells]: without(rule[cells]) })),
  };
}
/** A column one place to a side, among its kind. */
export function withMovedColumn(sheet: TableSheet, column: number, by: 1 | -1): TableSheet {
  const { kind, at } = placeOf(sheet, column);
  const cells = cellsOfKind[kind];
  return {
    ...sheet,
    [cells]: moved<InputColumn | OutputColumn | NoteColumn>(sheet[cells], at, by),
    rules: sheet.rules.map((rule) => ({ ...rule, [cells]: moved(rule[cells], at, by) })),
  };
}
/** What a column's head says otherwise. */
export function withHead(
  sheet: TableSheet,
  column: number,
  head: Partial<InputColumn & OutputColumn & NoteColumn>,
): TableSheet {
  const { kind, at } = placeOf(sheet, column);
  const cells = cellsOfKind[kind];
  return { ...sheet, [cells]: sheet[cells].map((one, place) => (place === at ? { ...one, ...head } : one)) };
}

const folded = (words: string) =>
  words
    .trim()
    .toLowerCase()
    .replace(/[\s_-]+/g, " ");
/** What a column is called. */
export function headOf(sheet: TableSheet, column: number): string {
  const { kind, at } = placeOf(sheet, column);
  if (kind === "input") return sheet.inputs[at]?.label || (sheet.inputs[at]?.expression ?? "");
  if (kind === "output") return sheet.outputs[at]?.label || (sheet.outputs[at]?.name ?? "");
  return sheet.notes[at]?.name ?? "";
}

/**
 * Lines of a spreadsheet put into a sheet from a cell on. Where the first line holds headings of the sheet, the columns are found by those;
 * what is pasted into a table without any column makes them: all but the last are inputs.
 */
export function pastedInto(
  sheet: TableSheet,
  rule: number,
  column: number,
  lines: readonly (readonly string[])[],
  known: readonly string[],
): TableSheet {
  const [first = [], ...rest] = lines;
  if (sheet.inputs.length === 0 && sheet.rules.length === 0 && first.length > 1) {
    const begun = first.slice(0, -1).reduce((one, name) => withColumn(one, "input", name.trim()), sheet);
    const named = begun.outputs[0]
      ? withHead(begun, begun.inputs.length, { label: (first.at(-1) ?? "").trim() })
      : begun;
    return linesInto(
      named,
      0,
      first.map((_, at) => at),
      rest,
      known,
    );
  }
  const heads = Array.from({ length: columnCount(sheet) }, (_, at) => folded(headOf(sheet, at)));
  const byHead = first.map((name) => heads.indexOf(folded(name)));
  const isHeaded = byHead.filter((at) => at >= 0).length > first.length / 2;
  if (isHeaded) return linesInto(sheet, rule, byHead, rest, known);
  return linesInto(
    sheet,
    rule,
    first.map((_, at) => (column + at < columnCount(sheet) ? column + at : -1)),
    lines,
    known,
  );
}

function linesInto(
  sheet: TableSheet,
  rule: number,
  columns: readonly number[],
  lines: readonly (readonly string[])[],
  known: readonly string[],
): TableSheet {
  return lines.reduce(
    (whole, line, down) =>
      line.reduce((one, words, at) => {
        const column = columns[at] ?? -1;
        return column < 0 ? one : withCell(one, rule + down, column, keptCell(one, column, words, known));
      }, whole),
    sheet,
  );
}
