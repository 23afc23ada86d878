import type { Said } from "../../messages";

/** One line of a log: something was begun or done for a case. */
export interface LoggedEvent {
  readonly activity: string;
  /** Milliseconds since 1970; undefined where the log has no time. */
  readonly at: number | undefined;
  /** As the log has it, in small letters: "start", "complete"; empty where it says none. */
  readonly lifecycle: string;
  readonly role: string;
  readonly who: string;
}

export interface LoggedTrace {
  readonly case: string;
  readonly events: readonly LoggedEvent[];
}

/** A row or an event that cannot be used, and why; never silently. */
export interface LeftOut {
  readonly line: number;
  readonly why: Said;
  /** Of a row of a table: its cells, so that it can be corrected by hand. */
  readonly cells?: readonly string[];
}

/** Words that are said of many things: each once, and which of them is said of each. */
export interface WordColumn {
  readonly words: readonly string[];
  readonly of: Uint32Array;
}

/** What else a log says of its cases, or of its events: of each one word, the empty one where it says nothing. */
export interface CaseAttribute extends WordColumn {
  readonly name: string;
}

/**
 * A log, by columns: millions of events are some numbers each, not an object each. The events of a trace stand together, in their order;
 * a part of a log (see `filtered`) shares the columns and has fewer traces.
 */
export interface EventLog {
  /** Of each trace: what its case is called, and where its events begin and end in the columns. */
  readonly cases: readonly string[];
  readonly from: Uint32Array;
  readonly until: Uint32Array;
  readonly activity: WordColumn;
  /** Milliseconds since 1970, NaN where the log has no time. */
  readonly at: Float64Array;
  readonly lifecycle: WordColumn;
  readonly role: WordColumn;
  readonly who: WordColumn;
  readonly attributes: readonly CaseAttribute[];
  /** What it says of its events one by one, where that differs within cases: of each event one word. */
  readonly eventAttributes: readonly CaseAttribute[];
  /** The first of what was left out, and how much it was in all. */
  readonly left: readonly LeftOut[];
  readonly leftOut: number;
  /** Rows that were not to be used as they stood, and were corrected by hand before they were read. */
  readonly corrected: number;
}

/** So much of what was left out is named. */
export const mostNamed = 100;

/** Gathers what is left out: counted all, named the first. */
export class Leaving {
  readonly left: LeftOut[] = [];
  count = 0;

  leave(line: number, why: Said, cells?: readonly string[]): void {
    this.count++;
    if (this.left.length < mostNamed) this.left.push({ line, why, ...(cells && { cells }) });
  }
}

/** The word that a column has at a place. */
export const wordAt = ({ words, of }: WordColumn, place: number): string => words[of[place] as number] ?? "";

/** One event in words. */
export function eventAt(log: EventLog, event: number): LoggedEvent {
  const at = log.at[event] as number;
  return {
    activity: wordAt(log.activity, event),
    at: Number.isNaN(at) ? undefined : at,
    lifecycle: wordAt(log.lifecycle, event),
    role: wordAt(log.role, event),
    who: wordAt(log.who, event),
  };
}

/** One trace in words. */
export function traceAt(log: EventLog, trace: number): LoggedTrace {
  const events: LoggedEvent[] = [];
  for (let event = log.from[trace] as number; event < (log.until[trace] as number); event++)
    events.push(eventAt(log, event));
  return { case: log.cases[trace] ?? "", events };
}

/** How many events the traces of a log have. */
export function eventCount({ from, until }: EventLog): number {
  let count = 0;
  for (let trace = 0; trace < from.length; trace++) count += (until[trace] as number) - (from[trace] as number);
  return count;
}

/** Tells whether an event, by its place, says that its activity was done, and is not only about it. */
export type Counts = (event: number) => boolean;

/**
 * What counts in a log: of each activity its completions, where the log has any; else its beginnings; else the one thing that is told of it
 * most often. So each time it was done is one. O(events).
 */
export function countsIn({ from, until, activity, lifecycle }: EventLog): Counts {
  const kinds = lifecycle.words.length;
  // By activity and kind in one number: there may be very many of both, and few pairs of them.
  const told = new Map<number, number>();
  for (let trace = 0; trace < from.length; trace++)
    for (let event = from[trace] as number; event < (until[trace] as number); event++) {
      const pair = (activity.of[event] as number) * kinds + (lifecycle.of[event] as number);
      told.set(pair, (told.get(pair) ?? 0) + 1);
    }
  const byActivity = new Map<number, [kind: number, times: number][]>();
  for (const [pair, times] of told) {
    const own = byActivity.get(Math.floor(pair / kinds)) ?? [];
    byActivity.set(Math.floor(pair / kinds), own);
    own.push([pair % kinds, times]);
  }
  const isCompletion = lifecycle.words.map((word) => word === "complete" || word === "");
  const start = lifecycle.words.indexOf("start");
  const counts = new Set<number>();
  for (const [name, own] of byActivity) {
    const complete = own.filter(([kind]) => isCompletion[kind]);
    const [often] = [...own].sort(([, one], [, other]) => other - one);
    const begun = own.find(([kind]) => kind === start) ?? often;
    for (const [kind] of complete.length > 0 ? complete : begun ? [begun] : []) counts.add(name * kinds + kind);
  }
  return (event) => counts.has((activity.of[event] as number) * kinds + (lifecycle.of[event] as number));
}

/** What was done in a trace, in its order, each time once: the places of the events. */
export function doneIn({ from, until }: EventLog, trace: number, counts: Counts): number[] {
  const done: number[] = [];
  for (let event = from[trace] as number; event < (until[trace] as number); event++)
    if (counts(event)) done.push(event);
  return done;
}

/** Of each activity of a trace, by its number: when it was begun, each time it is told. */
export function begunIn({ from, until, activity, lifecycle, at }: EventLog, trace: number): Map<number, number[]> {
  const begun = new Map<number, number[]>();
  const start = lifecycle.words.indexOf("start");
  if (start < 0) return begun;
  for (let event = from[trace] as number; event < (until[trace] as number); event++) {
    if (lifecycle.of[event] !== start || Number.isNaN(at[event])) continue;
    const name = activity.of[event] as number;
    const own = begun.get(name);
    if (own) own.push(at[event] as number);
    else begun.set(name, [at[event] as number]);
  }
  return begun;
}

/** Traces in which the same was done in the same order. */
export interface LogVariant {
  readonly activities: readonly string[];
  /** Which traces of the log they are. */
  readonly traces: readonly number[];
}

/** The variants of a log, what most traces show first. O(events). */
export function variantsOf(log: EventLog, counts: Counts = countsIn(log)): LogVariant[] {
  const found = new Map<string, { activities: readonly string[]; traces: number[] }>();
  for (let trace = 0; trace < log.from.length; trace++) {
    let key = "";
    for (let event = log.from[trace] as number; event < (log.until[trace] as number); event++)
      if (counts(event)) key += `${log.activity.of[event]},`;
    const known = found.get(key);
    if (known) known.traces.push(trace);
    else
      found.set(key, {
        activities: doneIn(log, trace, counts).map((event) => wordAt(log.activity, event)),
        traces: [trace],
      });
  }
  return [...found.values()].sort((one, other) => other.traces.length - one.traces.length);
}
