import Papa from "papaparse";
import { say } from "../../messages";
import { failure, ok, type Result } from "../../model";
import { type EventLog, Leaving, type LoggedEvent } from "./eventLog";
import { formOfMoments, type MomentForm, momentFrom } from "./moments";

/** What the columns of a table are, by their places; undefined where there is none. */
export interface LogColumns {
  readonly case: number;
  readonly activity: number;
  readonly at: number | undefined;
  readonly lifecycle: number | undefined;
  readonly role: number | undefined;
  readonly who: number | undefined;
}

/** Names that columns of logs go by in practice (common practice), in small letters without signs between. */
const names: { readonly [column in keyof LogColumns]: readonly string[] } = {
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
  at: ["timestamp", "timetimestamp", "time", "completetimestamp", "completedat", "endtime", "date", "datetime", "at"],
  lifecycle: ["lifecycle", "lifecycletransition", "transition", "eventtype"],
  role: ["role", "orgrole", "department", "group", "lane"],
  who: ["resource", "orgresource", "user", "who", "member", "person", "performer"],
};
const plain = (name: string) => name.toLowerCase().replace(/[^\p{L}\p{N}]/gu, "");

/**
 * Which column is which, by its name. Where there is no column for cases or activities, undefined.
 * @param head the first row
 */
export function columnsOf(head: readonly string[]): LogColumns | undefined {
  const heads = head.map(plain);
  const taken = new Set<number>();
  const find = (column: keyof LogColumns): number | undefined => {
    for (const name of names[column]) {
      const at = heads.findIndex((one, place) => one === name && !taken.has(place));
      if (at < 0) continue;
      taken.add(at);
      return at;
    }
    return undefined;
  };
  const [of, activity] = [find("case"), find("activity")];
  if (of === undefined || activity === undefined) return undefined;
  return { case: of, activity, at: find("at"), lifecycle: find("lifecycle"), role: find("role"), who: find("who") };
}

/** Times that are looked at to tell how they are written. */
const mostLooked = 1_000;

/**
 * Reads a log from a table (RFC 4180, or with semicolons or tabs): a row an event, told by the names of its columns unless they are given.
 * Events of a case stand in the order of their times, those of the same time in that of the rows. A row without a case or an activity, or
 * with a time that is none, is left out and counted with its line. O(text).
 */
export function readLogCsv(text: string, given?: LogColumns): Result<EventLog> {
  const clean = text.startsWith("\uFEFF") ? text.slice(1) : text;
  const parsed = Papa.parse<string[]>(clean, { delimitersToGuess: [",", ";", "\t", "|"], skipEmptyLines: false });
  const broken = parsed.errors.find((error) => error.type === "Quotes");
  if (broken)
    return failure({
      code: "bad-table",
      message: say`A quotation mark that opens a cell is not closed.`,
      line: (broken.row ?? 0) + 1,
    });
  const [head, ...rows] = parsed.data;
  const columns = given ?? columnsOf(head ?? []);
  if (!columns)
    return failure({
      code: "no-columns",
      message: say`The first row names no column for cases and none for activities. Call them "case" and "activity".`,
      line: 1,
    });
  const cell = (row: readonly string[], at: number | undefined) => (at === undefined ? "" : (row[at] ?? "").trim());
  const form = formIn(rows.map((row) => cell(row, columns.at)));
  const leaving = new Leaving();
  const traces = new Map<string, LoggedEvent[]>();
  for (const [place, row] of rows.entries()) {
    if (row.length === 1 && row[0] === "") continue;
    const line = place + 2;
    const [of, activity, time] = [cell(row, columns.case), cell(row, columns.activity), cell(row, columns.at)];
    const at = time === "" ? undefined : momentFrom(time, form);
    if (of === "") leaving.leave(line, "the row names no case");
    else if (activity === "") leaving.leave(line, "the row names no activity");
    else if (time !== "" && at === undefined) leaving.leave(line, `“${time}” is no time`);
    else {
      const own = traces.get(of) ?? [];
      own.push({
        activity,
        at,
        lifecycle: cell(row, columns.lifecycle).toLowerCase(),
        role: cell(row, columns.role),
        who: cell(row, columns.who),
      });
      traces.set(of, own);
    }
  }
  return ok({
    traces: [...traces].map(([name, events]) => ({ case: name, events: inOrder(events) })),
    left: leaving.left,
    leftOut: leaving.count,
  });
}

/** How most of the times are written. */
function formIn(cells: readonly string[]): MomentForm {
  const looked = cells.slice(0, mostLooked).filter((cell) => cell !== "");
  const whole = formOfMoments(looked);
  if (whole) return whole;
  // Some are broken: what the others are written in.
  const readable = looked.filter((cell) => formOfMoments([cell]) !== undefined);
  return formOfMoments(readable) ?? (readable[0] ? (formOfMoments([readable[0]]) ?? "iso") : "iso");
}

/** By time, where all have one; those of one time as they stood. */
const inOrder = (events: LoggedEvent[]): LoggedEvent[] =>
  events.every(({ at }) => at !== undefined) ? events.sort((a, b) => (a.at as number) - (b.at as number)) : events;
