import Papa from "papaparse";
import { say } from "../messages";
import { failure, ok, type Result } from "../model";

/** What a step list may be at most; more is no list somebody means to draw. */
export const tableLimits = { characters: 5_000_000, rows: 5_000, columns: 60 } as const;

/** Cells of a table, row by row; trimmed, without empty rows. */
export type TableRows = readonly (readonly string[])[];

/**
 * Reads a table as spreadsheets give it: comma-, semicolon- or tab-separated, quoted cells with line breaks in them, any line
 * ends, with or without a byte-order mark. Source of the format: RFC 4180. What was written to keep a formula from running
 * loses its apostrophe again.
 */
export function readTable(text: string): Result<TableRows> {
  if (text.length > tableLimits.characters)
    return failure({
      code: "too-large",
      message: say`This is too long for a list of steps. Paste the rows that are wanted.`,
    });
  const clean = text.startsWith("﻿") ? text.slice(1) : text;
  const parsed = Papa.parse<string[]>(clean, { skipEmptyLines: "greedy", delimiter: delimiterOf(clean) });
  const broken = parsed.errors.find((error) => error.type === "Quotes");
  if (broken) {
    const line = (broken.row ?? 0) + 1;
    return failure({
      code: "open-quote",
      message: say`Row ${line}: a quotation mark is opened and not closed. Close it, or double it if it belongs to the text.`,
      line,
    });
  }
  if (parsed.data.length > tableLimits.rows)
    return failure({
      code: "too-many-rows",
      message: say`${parsed.data.length} rows are more than the ${tableLimits.rows} a sheet takes.`,
    });
  return ok(parsed.data.map((row) => row.slice(0, tableLimits.columns).map((cell) => bare(cell.trim()))));
}

/** Whichever of tab, semicolon and comma stands most often in the first line outside of quotes. */
function delimiterOf(text: string): string {
  const counts = new Map([
    ["\t", 0],
    [";", 0],
    [",", 0],
  ]);
  let quoted = false;
  for (const letter of text.slice(0, 4_000)) {
    if (letter === '"') quoted = !quoted;
    else if (letter === "\n" && !quoted) break;
    else if (!quoted && counts.has(letter)) counts.set(letter, (counts.get(letter) as number) + 1);
  }
  const [best] = [...counts].sort((a, b) => b[1] - a[1]);
  return best && best[1] > 0 ? best[0] : ",";
}

/** Cells that a spreadsheet would take for a formula (common practice: = + - @, tab and carriage return in front). */
const formula = /^'*[=+\-@\t\r]/;

/** One apostrophe is put in front of them, also of those that have some themselves, so that reading takes off just that one. */
const bare = (cell: string) => (cell.startsWith("'") && formula.test(cell) ? cell.slice(1) : cell);

/** Writes rows as RFC 4180 has it, line ends included; no cell of it is run as a formula. */
export function writeTable(rows: TableRows): string {
  return `${Papa.unparse(
    rows.map((row) => row.map((cell) => (formula.test(cell) ? `'${cell}` : cell))),
    { newline: "\r\n" },
  )}\r\n`;
}
