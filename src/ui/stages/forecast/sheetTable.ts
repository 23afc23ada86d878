import type { Command } from "@/core/commands";
import type { Scenario } from "@/core/scenario";
import { readTable, writeTable } from "@/core/table";
import { text, worded } from "../../messages";
import { commandsFor, shown } from "../../version/figures/figureText";
import type { CellName, SheetRow } from "../../version/figures/sheetRows";

const words = text.forecast.sheet;

/** The first three columns of the sheet in a file, which say what a row is about. */
const about = { id: "Id", name: "What", by: "Who" } as const;
/** The others. A file goes from hand to hand: its headings are the same in every language of the interface. */
const columns: readonly (readonly [heading: string, parameter: CellName])[] = [
  ["A case comes", "interval"],
  ["Working time", "processing"],
  ["Waits before", "wait"],
  ["Each costs", "fixedCost"],
  ["Takes", "selection"],
  ["Share", "probability"],
  ["How many", "quantity"],
  ["An hour costs", "unitCost"],
  ["Hours", "availability"],
  ["Site", "site"],
  ["On the way", "delay"],
  ["At once", "capacity"],
  ["Spread over cases", "drawn"],
];

/** The scenario sheet as CSV, a row an element, figures in the words of their cells. */
export function writeSheetTable(rows: readonly SheetRow[], scenario: Scenario): string {
  return writeTable([
    [about.id, about.name, about.by, ...columns.map(([heading]) => heading)],
    ...rows.map((row) => [
      row.element,
      row.name,
      row.by,
      ...columns.map(([, parameter]) => (row.says.includes(parameter) ? shown(row, parameter, scenario) : "")),
    ]),
  ]);
}

export interface ReadSheetTable {
  readonly commands: readonly Command[];
  /** What of the file was not taken, in words. */
  readonly problems: readonly string[];
}

/** Reads such a file: rows by their id, else by a name that occurs once; only what differs is said anew, an empty cell says nothing. */
export function readSheetTable(csv: string, rows: readonly SheetRow[], scenario: Scenario): ReadSheetTable {
  const read = readTable(csv);
  if (!read.ok) return { commands: [], problems: read.problems.map(({ said }) => worded(said)) };
  const [head = [], ...lines] = read.value;
  const at = (heading: string) => head.findIndex((cell) => cell.trim().toLowerCase() === heading.toLowerCase());
  const [idAt, nameAt] = [at(about.id), at(about.name)];
  if (idAt < 0 && nameAt < 0) return { commands: [], problems: [words.noHeadings] };
  const commands: Command[] = [];
  const problems: string[] = [];
  for (const [number, line] of lines.entries()) {
    const id = (line[idAt] ?? "").trim();
    const name = (line[nameAt] ?? "").trim();
    const named = rows.filter((row) => row.name === name);
    const row = rows.find(({ element }) => element === id) ?? (named.length === 1 ? named[0] : undefined);
    if (!row) {
      if (id !== "" || name !== "") problems.push(words.noRow(number + 2, name || id));
      continue;
    }
    for (const [heading, parameter] of columns) {
      const typed = (line[at(heading)] ?? "").trim();
      if (typed === "" || !row.says.includes(parameter)) continue;
      if (typed === shown(row, parameter, scenario)) continue;
      const made = commandsFor(row, parameter, typed, scenario);
      if (typeof made === "string") problems.push(words.inLine(number + 2, made));
      else commands.push(...made);
    }
  }
  return { commands, problems };
}
