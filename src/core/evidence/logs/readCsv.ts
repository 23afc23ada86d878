import { type Said, say } from "../../messages";
import { failure, ok, type Result } from "../../model";
import { LogBuilder } from "./building";
import type { EventLog } from "./eventLog";
import { columnsOf, type LogColumns, rowsOf, type TableRow, type ToldColumns, UnclosedQuote, whole } from "./logTable";
import { formOfMoments, type MomentForm, momentFrom } from "./moments";

/** Times that are looked at to tell how they are written. */
const mostLooked = 1_000;

/** What a person has said of a table, where it is not told by the table itself. */
export interface SaidOfTable {
  readonly columns?: ToldColumns;
  readonly form?: MomentForm;
  /** Minutes that the clock of times without a zone is ahead of UTC. */
  readonly ahead?: number;
  /** Rows as they were corrected by hand, by the line they begin in. */
  readonly corrected?: { readonly [line: number]: readonly string[] };
}

/**
 * Reads a log from a table, from its text in pieces: a row an event, told by the names of its columns unless they are given. A row with
 * two times is a beginning and a completion. Events of a case stand in the order of their times, those of the same time in that of the
 * rows. A row without a case or an activity, with a time that is none, or that ends before it begins, is left out and counted with its line,
 * unless it was corrected by hand. Columns that say the same in every row of a case are attributes of the case, others of its events. O(text).
 */
export function readLogCsv(pieces: Iterable<string>, said: SaidOfTable = {}): Result<EventLog> {
  try {
    const rows = rowsOf(pieces);
    const head = rows.next();
    const names = head.done ? [] : head.value.cells.map((name) => name.trim());
    const columns = said.columns ? whole(said.columns) : columnsOf(names);
    if (!columns)
      return failure({
        code: "no-columns",
        message: say`The first row names no column for cases and none for activities. Call them "case" and "activity".`,
        line: 1,
      });
    const reading = new TableReading(names, columns, said);
    let corrected = 0;
    for (const row of rows) {
      const cells = said.corrected?.[row.line];
      if (cells) corrected++;
      reading.row(cells ? { ...row, cells } : row);
    }
    return ok({ ...reading.end(), corrected });
  } catch (error) {
    if (!(error instanceof UnclosedQuote)) throw error;
    return failure({
      code: "bad-table",
      message: say`A quotation mark that opens a cell is not closed.`,
      line: error.line,
    });
  }
}

class TableReading {
  readonly #builder = new LogBuilder();
  readonly #more: readonly (readonly [number, string])[];
  /** The first rows, until it is told how times are written. */
  #waiting: TableRow[] | undefined = [];
  #form: MomentForm | undefined;
  readonly #ahead: number;

  constructor(
    names: readonly string[],
    private readonly columns: LogColumns,
    said: SaidOfTable,
  ) {
    const known = new Set(Object.values(columns));
    this.#more = [...names.entries()].filter(([place, name]) => name !== "" && !known.has(place));
    this.#form = said.form;
    this.#ahead = (said.ahead ?? 0) * 60_000;
    if (said.form) this.#waiting = undefined;
  }

  row(row: TableRow): void {
    if (!this.#waiting) return this.#keep(row);
    this.#waiting.push(row);
    if (this.#waiting.length === mostLooked) this.#tell();
  }

  end(): EventLog {
    this.#tell();
    return this.#builder.end(true);
  }

  /** Tells how times are written, and keeps the rows that waited for it. */
  #tell(): void {
    const rows = this.#waiting ?? [];
    this.#waiting = undefined;
    const { at, began } = this.columns;
    this.#form ??= formIn(rows.flatMap((row) => [cellOf(row, at), cellOf(row, began)]));
    for (const row of rows) this.#keep(row);
  }

  #moment(text: string): number | undefined {
    const at = text === "" ? undefined : momentFrom(text, this.#form ?? "iso");
    return at === undefined || /(?:Z|[+-]\d{2}:?\d{2})$/i.test(text) ? at : at - this.#ahead;
  }

  #keep(row: TableRow): void {
    const { columns } = this;
    const leave = (why: Said) => this.#builder.leaving.leave(row.line, why, row.cells);
    const [name, activity] = [cellOf(row, columns.case), cellOf(row, columns.activity)];
    const [time, beginning] = [cellOf(row, columns.at), cellOf(row, columns.began)];
    const [at, began] = [this.#moment(time), this.#moment(beginning)];
    if (name === "") leave(say`the row names no case`);
    else if (activity === "") leave(say`the row names no activity`);
    else if (time !== "" && at === undefined) leave(say`“${time}” is no time`);
    else if (beginning !== "" && began === undefined) leave(say`“${beginning}” is no time`);
    else if (at !== undefined && began !== undefined && latest(time, at) < began)
      leave(say`it ends (“${time}”) before it begins (“${beginning}”)`);
    else {
      const of = this.#builder.case(name);
      const lifecycle = cellOf(row, columns.lifecycle).toLowerCase();
      const event = { activity, role: cellOf(row, columns.role), who: cellOf(row, columns.who) };
      const add = (at: number | undefined, lifecycle: string) => {
        this.#builder.event(of, { ...event, at, lifecycle });
        for (const [place, attribute] of this.#more) this.#builder.eventAttribute(attribute, cellOf(row, place));
      };
      if (began !== undefined) add(began, "start");
      add(at, began === undefined ? lifecycle : "complete");
      for (const [place, attribute] of this.#more) this.#builder.attribute(of, attribute, cellOf(row, place));
    }
  }
}

/** The end of what a cell tells: a day without a time of day is all of it. */
const latest = (cell: string, at: number): number => (cell.includes(":") ? at : at + 86_400_000 - 1);

const cellOf = ({ cells }: TableRow, at: number | undefined): string =>
  at === undefined ? "" : (cells[at] ?? "").trim();

/** How most of the times are written. */
function formIn(cells: readonly string[]): MomentForm {
  const looked = cells.filter((cell) => cell !== "");
  const whole = formOfMoments(looked);
  if (whole) return whole;
  // Some are broken: what the others are written in.
  const readable = looked.filter((cell) => formOfMoments([cell]) !== undefined);
  return formOfMoments(readable) ?? (readable[0] ? (formOfMoments([readable[0]]) ?? "iso") : "iso");
}
