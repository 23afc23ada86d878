import { z } from "zod";
import { type DirectoryEntry, directoryEntrySchema, type EntryKind, entryKinds } from "../directory";
import { say } from "../messages";
import { failure, ok, type Problem, problem, type Result } from "../model";
import { readTable, writeTable } from "../table";

/** An entry as a file has it: the unit by its name, no id. */
export interface FiledEntry extends Omit<DirectoryEntry, "id" | "unit"> {
  readonly unit: string | null;
}

const fileFormat = "lucid-lane-directory-1";
const columns = [
  "Kind",
  "Name",
  "Description",
  "Part of",
  "Hue",
  "Headcount",
  "Cost per hour",
  "Hours per week",
] as const;

const filed = directoryEntrySchema.omit({ id: true });
const fileSchema = z.object({ format: z.literal(fileFormat), entries: z.array(z.unknown()).max(20_000) });

const withUnitNames = (entries: readonly DirectoryEntry[]): FiledEntry[] => {
  const names = new Map(entries.map((entry) => [entry.id, entry.name]));
  return entries.map(({ id: _, unit, ...rest }) => ({
    ...rest,
    unit: unit === null ? null : (names.get(unit) ?? null),
  }));
};

/** The directory as a table for a spreadsheet (RFC 4180); nothing in it runs as a formula. */
export function writeDirectoryCsv(entries: readonly DirectoryEntry[]): string {
  const number = (value: number | null) => (value === null ? "" : String(value));
  return writeTable([
    [...columns],
    ...withUnitNames(entries).map((entry) => [
      entry.kind,
      entry.name,
      entry.description,
      entry.unit ?? "",
      entry.hue ?? "",
      number(entry.headcount),
      number(entry.costPerHour),
      number(entry.hoursPerWeek),
    ]),
  ]);
}

export function writeDirectoryJson(entries: readonly DirectoryEntry[]): string {
  return `${JSON.stringify({ format: fileFormat, entries: withUnitNames(entries) }, null, 2)}\n`;
}

/** Entries of a file, JSON or CSV told apart by their content; or everything that is wrong with it, row by row. */
export function readDirectoryFile(text: string): Result<FiledEntry[]> {
  return /^\s*\{/.test(text) ? readJson(text) : readCsv(text);
}

function readJson(text: string): Result<FiledEntry[]> {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    return failure({ code: "not-json", message: say`This is not valid JSON.` });
  }
  const file = fileSchema.safeParse(parsed);
  if (!file.success)
    return failure({
      code: "not-a-directory",
      message: say`This JSON is no directory: it needs "format": "${fileFormat}" and "entries".`,
    });
  return all(file.data.entries.map((entry, at) => [`Entry ${at + 1}`, entry]));
}

function readCsv(text: string): Result<FiledEntry[]> {
  const table = readTable(text);
  if (!table.ok) return table;
  const [headings = [], ...rows] = table.value;
  const at = new Map(columns.map((column) => [column, indexOfHeading(headings, column)]));
  if (at.get("Kind") === -1 || at.get("Name") === -1)
    return failure({
      code: "no-headings",
      message: say`The first row has to name the columns; Kind and Name are needed, ${columns.slice(2).join(", ")} may follow.`,
      line: 1,
    });
  return all(
    rows.map((row, index) => {
      const cell = (column: (typeof columns)[number]) => row[at.get(column) ?? -1] ?? "";
      const number = (column: (typeof columns)[number]) => {
        const typed = cell(column)
          .replace(/\s/g, "")
          .replace(/,(\d{1,2})$/, ".$1");
        return typed === "" ? null : Number(typed);
      };
      return [
        `Row ${index + 2}`,
        {
          kind: kindOf(cell("Kind")),
          name: cell("Name"),
          description: cell("Description"),
          unit: cell("Part of") || null,
          hue: cell("Hue") || null,
          headcount: number("Headcount"),
          costPerHour: number("Cost per hour"),
          hoursPerWeek: number("Hours per week"),
        },
      ];
    }),
  );
}

const indexOfHeading = (headings: readonly string[], column: string) =>
  headings.findIndex((heading) => heading.trim().toLowerCase() === column.toLowerCase());

/** "Role", "IT system", "systems": whoever wrote the table meant one of the five. */
const kindOf = (word: string): EntryKind | string =>
  entryKinds.find((kind) =>
    word
      .trim()
      .toLowerCase()
      .split(/\s+/)
      .some((part) => part === kind || part === `${kind}s`),
  ) ?? word;

function all(rows: readonly (readonly [place: string, entry: unknown])[]): Result<FiledEntry[]> {
  const problems: Problem[] = [];
  const entries: FiledEntry[] = [];
  for (const [place, row] of rows) {
    const read = filed.safeParse(row);
    if (read.success) entries.push(read.data);
    else {
      const [issue] = read.error.issues;
      const [where, what] = [issue?.path.join(".") ?? "", issue?.message ?? ""];
      problems.push(problem({ code: "bad-entry", message: say`${place}: ${where}: ${what}` }));
    }
  }
  return problems.length > 0 ? { ok: false, problems } : ok(entries);
}
