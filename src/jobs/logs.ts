import { readBpmn, writeBpmn } from "@/core/bpmn";
import { drawMissingPages } from "@/core/commands";
import {
  classifiersIn,
  columnsIn,
  type DottedChart,
  discover,
  dottedChart,
  type EventLog,
  eventAt,
  eventCount,
  type FollowMap,
  filtered,
  followMap,
  type GroupsCompared,
  groupsCompared,
  type LeftOut,
  type LogFacts,
  type LoggedEvent,
  type LogOverview,
  leftOutBy,
  mapFile,
  openedLog,
  overviewOf,
  packedLog,
  pseudonymised,
  readLogCsv,
  readXes,
  rowsOf,
  type SaidOfTable,
  type SaidOfXes,
  spanOf,
  type ToldColumns,
  textPieces,
  treeFile,
  variantsOf,
} from "@/core/evidence";
import { type Model, type Problem, type StoredModel, spanWords, toStored } from "@/core/model";
import type { Job, Tell } from "./job";
import { notHeld, type OfLog } from "./ofLog";

/** The one log that is looked at, and the one that is being imported: more are not held at once. */
const held = new Map<string, EventLog>();
let looked: { readonly log: EventLog; readonly filters: string; readonly part: EventLog } | undefined;

function hold(name: string, log: EventLog): void {
  held.clear();
  held.set(name, log);
}

/** The traces of a log that its filters keep. */
export async function logOf({ log: name, packed, filters }: OfLog): Promise<EventLog> {
  if (packed && !held.has(name)) {
    const opened = openedLog(await through(packed, new DecompressionStream("gzip")));
    if (!opened.ok) throw new Error(opened.problems[0]?.message);
    hold(name, opened.value);
  }
  const log = held.get(name);
  if (!log) throw new Error(notHeld);
  const key = JSON.stringify(filters);
  if (looked?.log !== log || looked.filters !== key) looked = { log, filters: key, part: filtered(log, filters) };
  return looked.part;
}

/** More than this a packed file may not become. */
const mostBytes = 1_500_000_000;

async function through(bytes: Uint8Array, stream: CompressionStream | DecompressionStream): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  let size = 0;
  const source = new ReadableStream<Uint8Array>({
    start: (control) => {
      control.enqueue(bytes);
      control.close();
    },
  }).pipeThrough(stream as ReadableWritablePair<Uint8Array, Uint8Array>);
  const reader = source.getReader();
  for (let next = await reader.read(); !next.done; next = await reader.read()) {
    size += next.value.length;
    if (size > mostBytes) throw new Error("It unpacks to more than is read.");
    parts.push(next.value);
  }
  const all = new Uint8Array(size);
  let place = 0;
  for (const part of parts) {
    all.set(part, place);
    place += part.length;
  }
  return all;
}

export interface LogFile {
  /** Under which name the log is held then. */
  readonly log: string;
  readonly name: string;
  readonly bytes: Uint8Array;
  readonly said?: SaidOfTable & SaidOfXes;
}

export interface ReadFile {
  /** Of a table: its first rows, and what its columns are taken for. */
  readonly table?: { readonly rows: readonly (readonly string[])[]; readonly columns: ToldColumns };
  /** Of XES: by what it says events can be named. */
  readonly classifiers?: readonly string[];
  /** What stands in the way; where it is only that columns are not told, a person can say what they are. */
  readonly problem?: Problem;
  readonly facts?: ReadFacts;
  readonly leftOut?: NotUsed;
}

/** What of a file could not be used: the first of it, how much in all; and what was corrected by hand. */
export interface NotUsed {
  readonly count: number;
  readonly first: readonly LeftOut[];
  readonly corrected: number;
}
const notUsedOf = (log: EventLog): NotUsed => ({ count: log.leftOut, first: log.left, corrected: log.corrected });

/** What a log holds, and how many people it names. */
export interface ReadFacts extends LogFacts {
  readonly people: number;
}

/** So many rows of a table are shown, to say what its columns are. */
const rowsShown = 6;

/** Reads a file as a log, and holds it. */
export const readLog: Job<LogFile, ReadFile> = async (_, { log: name, name: file, bytes, said = {} }, tell) => {
  const isPacked = bytes[0] === 0x1f && bytes[1] === 0x8b;
  const plain = isPacked ? await through(bytes, new DecompressionStream("gzip")) : bytes;
  const [beginning = ""] = textPieces(plain.subarray(0, 100_000));
  const isXml = /\.xes(?:\.gz)?$/i.test(file) || /^\s*</.test(beginning);
  const rows = isXml ? [] : firstRows(beginning);
  const table = rows.length === 0 ? undefined : { rows, columns: columnsIn(rows[0] ?? []) };
  const pieces = told(textPieces(plain), plain.length, tell);
  const result = isXml ? readXes(pieces, said) : readLogCsv(pieces, said);
  const classifiers = isXml ? classifiersIn(beginning).map((one) => one.name) : [];
  if (!result.ok) return { ...(table && { table }), problem: result.problems[0] as Problem };
  const log = result.value;
  hold(name, log);
  return {
    ...(table && { table }),
    ...(classifiers.length > 0 && { classifiers }),
    facts: factsOf(log),
    leftOut: notUsedOf(log),
  };
};

/** The first rows of a table; of one whose quotation marks do not close, none. */
function firstRows(text: string): string[][] {
  const rows: string[][] = [];
  try {
    for (const { cells } of rowsOf([text])) {
      rows.push([...cells]);
      if (rows.length === rowsShown) break;
    }
  } catch {
    // A cell that goes on beyond what is looked at: reading the whole tells.
  }
  return rows;
}

/** Tells how much of a text was read. */
function* told(pieces: Iterable<string>, size: number, tell: Tell): Generator<string> {
  let read = 0;
  for (const piece of pieces) {
    yield piece;
    read += piece.length;
    tell(Math.min(1, read / Math.max(1, size)));
  }
}

function factsOf(log: EventLog): ReadFacts {
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let trace = 0; trace < log.from.length; trace++) {
    const [from, until] = spanOf(log, trace);
    if (from < first) first = from;
    if (until > last) last = until;
  }
  const isTimed = first <= last;
  return {
    cases: log.cases.length,
    events: eventCount(log),
    first: isTimed ? first : null,
    last: isTimed ? last : null,
    people: log.who.words.length - 1,
  };
}

/** The log that is held as it is to be kept: compressed, with other names for people if wished. */
export const packLog: Job<{ readonly log: string; readonly isPseudonymised: boolean }, Uint8Array> = async (
  _,
  { log, isPseudonymised },
) => {
  const whole = await logOf({ log, filters: [] });
  const own = isPseudonymised ? pseudonymised(whole) : whole;
  hold(log, own);
  return through(packedLog(own), new CompressionStream("gzip"));
};

export interface Overviewed {
  readonly whole: ReadFacts;
  readonly overview: LogOverview;
  readonly leftOut: NotUsed;
}

/** What the part of a log holds that its filters keep. */
export const overviewLog: Job<OfLog, Overviewed> = async (_, of) => {
  const whole = await logOf({ ...of, filters: [] });
  const overview = overviewOf(await logOf(of));
  return { whole: factsOf(whole), overview, leftOut: notUsedOf(whole) };
};

export const dotsOfLog: Job<OfLog, DottedChart> = async (_, of) => dottedChart(await logOf(of));

export interface TraceRow {
  readonly case: string;
  readonly events: number;
  readonly from: number | null;
  readonly until: number | null;
}
export interface TracesAsked extends OfLog {
  readonly start: number;
  readonly count: number;
  /** Letters that the name of the case has. */
  readonly sought: string;
}

/** Some traces of a log, in its order. */
export const tracesOfLog: Job<TracesAsked, { readonly rows: readonly TraceRow[]; readonly total: number }> = async (
  _,
  { start, count, sought, ...of },
) => {
  const log = await logOf(of);
  const wanted = sought.toLowerCase();
  const found = [...log.cases.keys()].filter((trace) => (log.cases[trace] as string).toLowerCase().includes(wanted));
  const known = (at: number) => (Number.isNaN(at) ? null : at);
  return {
    total: found.length,
    rows: found.slice(start, start + count).map((trace) => {
      const [from, until] = spanOf(log, trace);
      return {
        case: log.cases[trace] as string,
        events: (log.until[trace] as number) - (log.from[trace] as number),
        from: known(from),
        until: known(until),
      };
    }),
  };
};

/** The events of one case. */
export const traceOfLog: Job<OfLog & { readonly case: string }, readonly LoggedEvent[]> = async (_, of) => {
  const log = await logOf(of);
  const trace = log.cases.indexOf(of.case);
  const events: LoggedEvent[] = [];
  if (trace >= 0)
    for (let event = log.from[trace] as number; event < (log.until[trace] as number); event++)
      events.push(eventAt(log, event));
  return events;
};

export interface MappedLog {
  readonly model: StoredModel;
  readonly map: FollowMap;
}

/** What directly followed what, laid out to be looked at. */
export const mapOfLog: Job<OfLog & { readonly activities: number; readonly paths: number }, MappedLog> = async (
  _,
  { activities, paths, ...of },
) => {
  const map = followMap(await logOf(of), activities, paths);
  return { model: toStored(drawn(mapFile(map))), map };
};

/**
 * The process that the log tells of, as a file with a drawing, and with the id it is to have there; with a noise of more than 0 what is seldom is not looked at.
 */
export const discoverLog: Job<
  OfLog & { readonly noise: number; readonly name: string; readonly process?: string },
  Uint8Array
> = async (_, { noise, name, process, ...of }) => {
  const traces = variantsOf(await logOf(of)).flatMap(({ activities, traces: own }) => own.map(() => activities));
  return new TextEncoder().encode(writeBpmn(drawn(treeFile(discover(traces, noise), name, process))));
};

function drawn(file: string): Model {
  const read = readBpmn(new TextEncoder().encode(file));
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return drawMissingPages(read.value);
}

export interface CompareInput extends OfLog {
  /** Cases that began before a moment against those that began later; else what the filters keep against all others. */
  readonly before: number | null;
}

/** Two groups of cases beside each other. */
export const compareGroups: Job<CompareInput, GroupsCompared> = async (_, { before, ...of }) => {
  const whole = await logOf({ ...of, filters: [] });
  const kept = await logOf(of);
  const period = (from: number | null, until: number | null) => filtered(kept, [{ kind: "period", from, until }]);
  return before === null
    ? groupsCompared(kept, leftOutBy(whole, of.filters), durationWords)
    : groupsCompared(period(before, null), period(null, before), durationWords);
};

const durationWords = (milliseconds: number): string => spanWords(milliseconds / 1_000);
