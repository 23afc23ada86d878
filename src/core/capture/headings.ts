import type { TableRows } from "../table";

/** What a column of a step list can mean. */
export const columnMeanings = [
  "number",
  "level",
  "kind",
  "step",
  "by",
  "uses",
  "needs",
  "gives",
  "guidance",
  "time",
  "cost",
] as const;
export type ColumnMeaning = (typeof columnMeanings)[number];

/** Which column means what; what is not mapped is not read. */
export type ColumnMap = { readonly [meaning in ColumnMeaning]?: number };

/** Headings as they are usually written, in the order they are tried. */
const words: { readonly [meaning in ColumnMeaning]: readonly string[] } = {
  number: ["no", "nr", "#", "number", "id", "step no", "step number"],
  level: ["level", "indent"],
  kind: ["kind", "type", "element type"],
  step: ["step", "activity", "task", "what", "process step", "name", "action"],
  by: ["by", "who", "role", "responsible", "actor", "performer", "owner", "lane", "done by"],
  uses: ["uses", "system", "systems", "it system", "it systems", "application", "tool", "with what"],
  needs: ["needs", "input", "inputs", "documents in", "document in", "document", "documents"],
  gives: ["gives", "output", "outputs", "documents out", "document out", "result"],
  guidance: ["guidance", "how", "instructions", "instruction", "notes", "note", "description", "comment", "remarks"],
  time: ["time", "duration", "how long", "processing time", "effort", "working time"],
  cost: ["cost", "costs", "price", "fixed cost"],
};

const folded = (heading: string) =>
  heading
    .toLowerCase()
    .replace(/[.:()]/g, " ")
    .replace(/\s+/g, " ")
    .trim();

export interface RecognisedHeadings {
  readonly hasHeadings: boolean;
  readonly map: ColumnMap;
  /** Every column that has content is told by its heading. */
  readonly isClear: boolean;
}

/** Tells what the columns of a table mean by its first row, as far as that tells. */
export function recogniseHeadings(rows: TableRows): RecognisedHeadings {
  const first = (rows[0] ?? []).map(folded);
  const map: { [meaning in ColumnMeaning]?: number } = {};
  for (const meaning of columnMeanings) {
    for (const word of words[meaning]) {
      const at = first.indexOf(word);
      if (at < 0 || Object.values(map).includes(at)) continue;
      map[meaning] = at;
      break;
    }
  }
  const width = Math.max(0, ...rows.map((row) => row.length));
  const hasHeadings = map.step !== undefined && (width < 2 || Object.keys(map).length > 1);
  if (!hasHeadings) {
    // A single column can only be the steps.
    const used = Array.from({ length: width }, (_, at) => at).filter((at) => rows.some((row) => row[at]));
    return {
      hasHeadings: false,
      map: used.length === 1 ? { step: used[0] as number } : {},
      isClear: used.length === 1,
    };
  }
  const mapped = new Set(Object.values(map));
  const isClear = first.every((_, at) => mapped.has(at) || rows.slice(1).every((row) => !row[at]));
  return { hasHeadings, map, isClear };
}
