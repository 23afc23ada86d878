import Papa from "papaparse";

/** What the columns of a table are, by their places; undefined where there is none. */
export interface LogColumns {
  readonly case: number;
  readonly activity: number;
  /** When it was complete; or, where there is only one time, when it happened. */
  readonly at: number | undefined;
  /** When it began, where a row tells both. */
  readonly began: number | undefined;
  readonly lifecycle: number | undefined;
  readonly role: number | undefined;
  readonly who: number | undefined;
}
export type LogColumn = keyof LogColumns;
/** Which column each is, as far as it can be told. */
export type ToldColumns = { readonly [column in LogColumn]: number | undefined };

/** Names that columns of logs go by in practice (common practice), in small letters without signs between. */
const names: { readonly [column in LogColumn]: readonly string[] } = {
  case: [
    "case",
    "caseid",
    "casename",
    "caseconceptname",
    "trace",
    "traceid",
    "caseno",
    "casenumber",
    "order",
    "orderid",
  ],
  activity: ["activity", "activityname", "conceptname", "event", "eventname", "task", "step", "action"],
  began: [
    "start",
    "starttime",
    "starttimestamp",
    "started",
    "startedat",
    "begin",
    "began",
    "begun",
    "from",
    "startdate",
  ],
  at: [
    "timestamp",
    "timetimestamp",
    "time",
    "completetimestamp",
    "completetime",
    "completedat",
    "complete",
    "completed",
    "endtime",
    "endtimestamp",
    "ended",
    "end",
    "until",
    "enddate",
    "date",
    "datetime",
    "at",
  ],
  lifecycle: ["lifecycle", "lifecycletransition", "transition", "eventtype"],
  role: ["role", "orgrole", "department", "group", "lane"],
  who: ["resource", "orgresource", "user", "who", "member", "person", "performer"],
};
const plain = (name: string) => name.toLowerCase().replace(/[^\p{L}\p{N}]/gu, "");

/**
 * Which column is which, by its name. Where only one time is there, it is when something happened.
 * @param head the first row
 */
export function columnsIn(head: readonly string[]): ToldColumns {
  const heads = head.map(plain);
  const taken = new Set<number>();
  const find = (column: LogColumn): number | undefined => {
    for (const name of names[column]) {
      const at = heads.findIndex((one, place) => one === name && !taken.has(place));
      if (at < 0) continue;
      taken.add(at);
      return at;
    }
    return undefined;
  };
  const [of, activity, at, began] = [find("case"), find("activity"), find("at"), find("began")];
  return {
    case: of,
    activity,
    at: at ?? began,
    began: at === undefined ? undefined : began,
    lifecycle: find("lifecycle"),
    role: find("role"),
    who: find("who"),
  };
}

/** The same, where both columns that a log cannot do without are told; else undefined. */
export const columnsOf = (head: readonly string[]): LogColumns | undefined => whole(columnsIn(head));

export const whole = (told: ToldColumns): LogColumns | undefined =>
  told.case === undefined || told.activity === undefined ? undefined : (told as LogColumns);

/** The rows of a table, with the line that each begins in; a cell may hold line ends. */
export interface TableRow {
  readonly line: number;
  readonly cells: readonly string[];
}

/** Of a table as it is read: what its cells are parted by. */
const separators = [",", ";", "\t", "|"];

/** A quotation mark that opens a cell is not closed. */
export class UnclosedQuote extends Error {
  constructor(readonly line: number) {
    super(`A quotation mark that opens a cell in line ${line} is not closed.`);
  }
}

/**
 * The rows of a table (RFC 4180, or with semicolons, tabs or bars) from its text in pieces: no more than a piece is held at once. Empty
 * lines are passed over. O(text).
 * @throws {UnclosedQuote}
 */
export function* rowsOf(pieces: Iterable<string>): Generator<TableRow> {
  let rest = "";
  let line = 1;
  let separator: string | undefined;
  const parsed = (text: string): string[][] => {
    separator ??= separatorOf(text);
    const { data, errors } = Papa.parse<string[]>(text, { delimiter: separator, skipEmptyLines: false });
    const broken = errors.find((error) => error.type === "Quotes");
    if (broken) throw new UnclosedQuote(line + linesIn(data.slice(0, broken.row ?? 0)));
    return data;
  };
  const told = function* (text: string): Generator<TableRow> {
    for (const cells of parsed(text)) {
      const own = line;
      line += 1 + cells.reduce((sum, cell) => sum + (cell.match(/\r\n|\r|\n/g)?.length ?? 0), 0);
      if (cells.length > 1 || (cells[0] ?? "").trim() !== "") yield { line: own, cells };
    }
  };
  for (const piece of pieces) {
    rest += rest === "" && line === 1 && piece.startsWith("\uFEFF") ? piece.slice(1) : piece;
    separator ??= separatorOf(rest);
    const end = lastRowEnd(rest, separator);
    if (end <= 0) continue;
    // Without the line's end: a last empty row would be one too many.
    yield* told(rest.slice(0, end).replace(/\r?\n$/, ""));
    rest = rest.slice(end);
  }
  if (rest !== "") yield* told(rest.replace(/\r?\n$/, ""));
}

const linesIn = (rows: readonly (readonly string[])[]): number =>
  rows.reduce((sum, cells) => sum + 1 + cells.reduce((own, cell) => own + (cell.match(/\n/g)?.length ?? 0), 0), 0);

/** What parts the cells: what most of the first rows have the same number of. */
function separatorOf(text: string): string {
  const { meta } = Papa.parse<string[]>(text.slice(0, 100_000), { delimitersToGuess: separators, preview: 20 });
  return separators.includes(meta.delimiter) ? meta.delimiter : ",";
}

/** Behind the last line end that no quotation marks hold; 0 where there is none. A quotation mark opens a cell only where one begins. */
function lastRowEnd(text: string, separator: string): number {
  const parting = separator.charCodeAt(0);
  let isOpen = false;
  let begins = true;
  let end = 0;
  for (let at = 0; at < text.length; at++) {
    const letter = text.charCodeAt(at);
    if (isOpen) {
      if (letter === 34 && text.charCodeAt(at + 1) === 34) at++;
      else if (letter === 34) isOpen = false;
      continue;
    }
    if (letter === 34 && begins) isOpen = true;
    if (letter === 10) end = at + 1;
    begins = letter === 10 || letter === parting;
  }
  return end;
}
