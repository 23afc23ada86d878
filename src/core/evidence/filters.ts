import { z } from "zod";
import { type Said, say } from "../messages";
import { countsIn, doneIn, type EventLog, variantsOf, wordAt } from "./logs/eventLog";

const moment = z.number().min(-8.64e15).max(8.64e15);
const word = z.string().max(2_000);
/** What traces are kept by: each is a sentence, and all of them hold. */
export const filterSchema = z.discriminatedUnion("kind", [
  /** Those that began from a moment on, and before another. */
  z.object({ kind: z.literal("period"), from: moment.nullable(), until: moment.nullable() }),
  z.object({ kind: z.literal("attribute"), name: word, value: word, is: z.boolean() }),
  /** Those with an event of which this is said. */
  z.object({ kind: z.literal("eventAttribute"), name: word, value: word, is: z.boolean() }),
  /** Those in which just this was done, in this order. */
  z.object({ kind: z.literal("variant"), activities: z.array(word).max(10_000), is: z.boolean() }),
  /** Those that go the ways most of them go. */
  z.object({ kind: z.literal("common"), variants: z.number().int().min(1) }),
  /** Milliseconds from the first event to the last. */
  z.object({ kind: z.literal("duration"), least: z.number().nullable(), most: z.number().nullable() }),
  z.object({ kind: z.literal("passes"), activity: word, is: z.boolean() }),
  z.object({ kind: z.literal("follows"), first: word, next: word, isDirect: z.boolean(), is: z.boolean() }),
]);
export type LogFilter = z.infer<typeof filterSchema>;

/**
 * The part of a log that its filters keep, in the order of the log; it shares the columns. A filter by what most traces do looks at what
 * those before it left. O(filters × events).
 */
export function filtered(log: EventLog, filters: readonly LogFilter[]): EventLog {
  const kept = tracesKept(log, filters);
  return kept.length === log.from.length ? log : part(log, kept);
}

/** The others: what the filters leave out. */
export function leftOutBy(log: EventLog, filters: readonly LogFilter[]): EventLog {
  const kept = new Set(tracesKept(log, filters));
  return part(
    log,
    [...log.cases.keys()].filter((trace) => !kept.has(trace)),
  );
}

function tracesKept(log: EventLog, filters: readonly LogFilter[]): number[] {
  let kept = [...log.cases.keys()];
  let left = log;
  for (const filter of filters) {
    const keeps = keeper(left, filter);
    const places = [...kept.keys()].filter(keeps);
    if (places.length === kept.length) continue;
    kept = places.map((place) => kept[place] as number);
    left = part(log, kept);
  }
  return kept;
}

/** Some traces of a log, by their places. */
export function part(log: EventLog, traces: readonly number[]): EventLog {
  const own = (column: Uint32Array) => Uint32Array.from(traces, (trace) => column[trace] as number);
  return {
    ...log,
    cases: traces.map((trace) => log.cases[trace] as string),
    from: own(log.from),
    until: own(log.until),
    attributes: log.attributes.map((one) => ({ ...one, of: own(one.of) })),
  };
}

/** When a trace began, and when it ended: the first and the last of its times; NaN where it has none. */
export function spanOf(log: EventLog, trace: number): readonly [from: number, until: number] {
  let [from, until] = [Number.NaN, Number.NaN];
  for (let event = log.from[trace] as number; event < (log.until[trace] as number); event++) {
    const at = log.at[event] as number;
    if (!(at >= from)) from = Number.isNaN(at) ? from : at;
    if (!(at <= until)) until = Number.isNaN(at) ? until : at;
  }
  return [from, until];
}

function keeper(log: EventLog, filter: LogFilter): (trace: number) => boolean {
  switch (filter.kind) {
    case "period":
      return (trace) => {
        const [began] = spanOf(log, trace);
        return (filter.from === null || began >= filter.from) && (filter.until === null || began < filter.until);
      };
    case "duration":
      return (trace) => {
        const [from, until] = spanOf(log, trace);
        const took = until - from;
        return (filter.least === null || took >= filter.least) && (filter.most === null || took <= filter.most);
      };
    case "attribute": {
      const attribute = log.attributes.find(({ name }) => name === filter.name);
      const value = attribute?.words.indexOf(filter.value) ?? -1;
      return (trace) => (attribute !== undefined && attribute.of[trace] === value) === filter.is;
    }
    case "eventAttribute": {
      const attribute = log.eventAttributes.find(({ name }) => name === filter.name);
      const value = attribute?.words.indexOf(filter.value) ?? -1;
      return (trace) => {
        const own = attribute?.of.subarray(log.from[trace], log.until[trace]);
        return (value >= 0 && own?.includes(value) === true) === filter.is;
      };
    }
    case "common": {
      const kept = new Set(
        variantsOf(log)
          .slice(0, filter.variants)
          .flatMap(({ traces }) => traces),
      );
      return (trace) => kept.has(trace);
    }
    case "variant": {
      const wanted = filter.activities.join("\u0000");
      const of = namesIn(log);
      return (trace) => (of(trace).join("\u0000") === wanted) === filter.is;
    }
    case "passes": {
      const activity = log.activity.words.indexOf(filter.activity);
      const of = placesIn(log);
      return (trace) => of(trace).includes(activity) === filter.is;
    }
    case "follows": {
      const [first, next] = [log.activity.words.indexOf(filter.first), log.activity.words.indexOf(filter.next)];
      const of = placesIn(log);
      return (trace) => {
        const done = of(trace);
        const does = filter.isDirect
          ? done.some((one, at) => one === first && done[at + 1] === next)
          : done.includes(first) && done.indexOf(next, done.indexOf(first) + 1) >= 0;
        return does === filter.is;
      };
    }
  }
}

function placesIn(log: EventLog): (trace: number) => number[] {
  const counts = countsIn(log);
  return (trace) => doneIn(log, trace, counts).map((event) => log.activity.of[event] as number);
}

function namesIn(log: EventLog): (trace: number) => string[] {
  const counts = countsIn(log);
  return (trace) => doneIn(log, trace, counts).map((event) => wordAt(log.activity, event));
}

/** How a moment and a length of time are said, which is the business of whoever shows them. */
export interface WordsOfTime {
  readonly moment: (at: number) => string;
  readonly duration: (milliseconds: number) => string;
}

/** A filter as a sentence. */
export function filterSentence(filter: LogFilter, { moment: at, duration }: WordsOfTime): Said {
  switch (filter.kind) {
    case "period":
      if (filter.from === null) return say`began before ${at(filter.until ?? 0)}`;
      return filter.until === null
        ? say`began on ${at(filter.from)} or later`
        : say`began from ${at(filter.from)} to before ${at(filter.until)}`;
    case "duration":
      if (filter.least === null) return say`took ${duration(filter.most ?? 0)} at most`;
      return filter.most === null
        ? say`took ${duration(filter.least)} or longer`
        : say`took ${duration(filter.least)} to ${duration(filter.most)}`;
    case "attribute":
      return filter.is ? say`${filter.name} is ${filter.value}` : say`${filter.name} is not ${filter.value}`;
    case "eventAttribute":
      return filter.is
        ? say`have something done whose ${filter.name} is ${filter.value}`
        : say`have nothing done whose ${filter.name} is ${filter.value}`;
    case "common":
      return filter.variants === 1
        ? say`went the way most of them go`
        : say`went one of the ${String(filter.variants)} commonest ways`;
    case "variant":
      return filter.is
        ? say`went just this way: ${shortened(filter.activities)}`
        : say`did not go this way: ${shortened(filter.activities)}`;
    case "passes":
      return filter.is ? say`did “${filter.activity}”` : say`did not do “${filter.activity}”`;
    case "follows": {
      const { first, next, isDirect, is } = filter;
      if (isDirect)
        return is ? say`did “${next}” straight after “${first}”` : say`did not do “${next}” straight after “${first}”`;
      return is ? say`did “${next}” after “${first}”` : say`did not do “${next}” after “${first}”`;
    }
  }
}

const shortened = (activities: readonly string[]): string =>
  activities.length <= 4
    ? activities.join(", ")
    : `${activities.slice(0, 2).join(", ")}, … ${activities.at(-1)} (${activities.length})`;
