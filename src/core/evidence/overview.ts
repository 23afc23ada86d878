import { spanOf } from "./filters";
import { begunIn, countsIn, doneIn, type EventLog, eventCount, variantsOf, wordAt } from "./logs/eventLog";

/** Half of them, nine of ten, and their mean; zeros where there are none. */
export interface Spread {
  readonly count: number;
  readonly median: number;
  readonly ninth: number;
  readonly mean: number;
}

export interface ActivityRow {
  readonly name: string;
  /** How often it was done, and in how many traces. */
  readonly times: number;
  readonly traces: number;
  /** Milliseconds from its beginning to its completion, where the log tells both. */
  readonly working: Spread;
  /** Milliseconds from when the step before it in its case was complete until it began, or was complete where no beginning is told. */
  readonly waiting: Spread;
}

export interface Counted {
  readonly name: string;
  readonly count: number;
}

/** How often somebody did what followed what another did. */
export interface HandOver {
  readonly from: string;
  readonly to: string;
  readonly count: number;
}

export interface VariantRow {
  readonly activities: readonly string[];
  readonly traces: number;
  /** Milliseconds from the first event to the last, half of them; NaN without times. */
  readonly median: number;
}

/** What a log holds, before any model. */
export interface LogOverview {
  readonly cases: number;
  readonly events: number;
  readonly first: number;
  readonly last: number;
  /** Milliseconds from the first event of a case to its last. */
  readonly durations: Spread;
  readonly activities: readonly ActivityRow[];
  readonly starts: readonly Counted[];
  readonly ends: readonly Counted[];
  readonly people: readonly Counted[];
  readonly roles: readonly Counted[];
  /** By people, or by roles where no people are told. */
  readonly handOvers: readonly HandOver[];
  readonly attributes: readonly { readonly name: string; readonly values: readonly Counted[] }[];
  /** What is said of events one by one: in how many cases of at least one. */
  readonly eventAttributes: readonly { readonly name: string; readonly values: readonly Counted[] }[];
  /** What most traces do, and how many ways there are. */
  readonly variants: readonly VariantRow[];
  readonly variantCount: number;
}

/** So many lines of each list are told. */
const mostListed = 200;

/** The middle of some numbers and where nine of ten lie: of an even number of them the mean of the two in the middle. O(n log n). */
export function spreadOf(values: readonly number[]): Spread {
  if (values.length === 0) return { count: 0, median: 0, ninth: 0, mean: 0 };
  const sorted = Float64Array.from(values).sort();
  const middle = sorted.length / 2;
  const [low, high] = [sorted[Math.ceil(middle) - 1] as number, sorted[Math.floor(middle)] as number];
  return {
    count: sorted.length,
    median: sorted.length === 1 ? low : (low + high) / 2,
    ninth: sorted[Math.ceil(sorted.length * 0.9) - 1] as number,
    mean: sorted.reduce((sum, value) => sum + value, 0) / sorted.length,
  };
}

class Tally {
  readonly #counts = new Map<string, number>();

  add(name: string): void {
    if (name !== "") this.#counts.set(name, (this.#counts.get(name) ?? 0) + 1);
  }

  ranked(): Counted[] {
    return [...this.#counts]
      .map(([name, count]) => ({ name, count }))
      .sort((one, other) => other.count - one.count || one.name.localeCompare(other.name))
      .slice(0, mostListed);
  }
}

/** What a log holds. O(events log events). */
export function overviewOf(log: EventLog): LogOverview {
  const counts = countsIn(log);
  const gathered = log.activity.words.map(() => ({
    times: 0,
    traces: 0,
    seen: -1,
    working: [] as number[],
    waiting: [] as number[],
  }));
  const [starts, ends, people, roles] = [new Tally(), new Tally(), new Tally(), new Tally()];
  const acting = log.who.words.length > 1 ? log.who : log.role;
  const hands = new Map<number, number>();
  const durations: number[] = [];
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let trace = 0; trace < log.from.length; trace++) {
    const done = doneIn(log, trace, counts);
    const [from, until] = spanOf(log, trace);
    if (!Number.isNaN(from)) {
      durations.push(until - from);
      first = Math.min(first, from);
      last = Math.max(last, until);
    }
    const begun = begunIn(log, trace);
    let before = from;
    for (const [place, event] of done.entries()) {
      const activity = log.activity.of[event] as number;
      const own = gathered[activity];
      if (!own) continue;
      own.times++;
      if (own.seen !== trace) own.traces++;
      own.seen = trace;
      const at = log.at[event] as number;
      const begin = begun.get(activity)?.shift();
      if (begin !== undefined && at >= begin) own.working.push(at - begin);
      const until_ = begin ?? at;
      if (place > 0 && until_ >= before) own.waiting.push(until_ - before);
      if (!Number.isNaN(at)) before = at;
      people.add(wordAt(log.who, event));
      roles.add(wordAt(log.role, event));
      const [who, next] = [acting.of[event] as number, acting.of[done[place + 1] ?? -1]];
      if (next === undefined || who === 0 || next === 0) continue;
      const key = who * acting.words.length + next;
      hands.set(key, (hands.get(key) ?? 0) + 1);
    }
    if (done.length > 0) {
      starts.add(wordAt(log.activity, done[0] as number));
      ends.add(wordAt(log.activity, done.at(-1) as number));
    }
  }
  const variants = variantsOf(log, counts);
  return {
    cases: log.cases.length,
    events: eventCount(log),
    first,
    last,
    durations: spreadOf(durations),
    activities: gathered
      .flatMap(({ times, traces, working, waiting }, place): ActivityRow[] =>
        times === 0
          ? []
          : [
              {
                name: log.activity.words[place] as string,
                times,
                traces,
                working: spreadOf(working),
                waiting: spreadOf(waiting),
              },
            ],
      )
      .sort((one, other) => other.times - one.times)
      .slice(0, mostListed),
    starts: starts.ranked(),
    ends: ends.ranked(),
    people: people.ranked(),
    roles: roles.ranked(),
    handOvers: [...hands]
      .map(([key, count]) => ({
        from: acting.words[Math.floor(key / acting.words.length)] as string,
        to: acting.words[key % acting.words.length] as string,
        count,
      }))
      .sort((one, other) => other.count - one.count)
      .slice(0, mostListed),
    attributes: log.attributes.map(({ name, words, of }) => {
      const tally = new Tally();
      for (const word of of) tally.add(words[word] as string);
      return { name, values: tally.ranked() };
    }),
    eventAttributes: log.eventAttributes.map(({ name, words, of }) => {
      const tally = new Tally();
      for (let trace = 0; trace < log.from.length; trace++) {
        const own = new Set(of.subarray(log.from[trace], log.until[trace]));
        for (const word of own) if (word > 0) tally.add(words[word] as string);
      }
      return { name, values: tally.ranked() };
    }),
    variants: variants.slice(0, mostListed).map(({ activities, traces }) => ({
      activities,
      traces: traces.length,
      median: medianDuration(log, traces),
    })),
    variantCount: variants.length,
  };
}

/** Milliseconds that half of some traces took at most; NaN where none of them has times. */
export function medianDuration(log: EventLog, traces: readonly number[]): number {
  const took = traces.flatMap((trace) => {
    const [from, until] = spanOf(log, trace);
    return Number.isNaN(from) ? [] : [until - from];
  });
  return medianOf(took);
}

/** The middle of some numbers; NaN of none. */
export const medianOf = (values: readonly number[]): number =>
  values.length === 0 ? Number.NaN : spreadOf(values).median;

/** Points of a dotted chart: cases from above in the order they began, events by their time. */
export interface DottedChart {
  readonly activities: readonly string[];
  /** Of each point: milliseconds since 1970, the place of its case, the place of its activity. */
  readonly points: readonly (readonly [at: number, row: number, activity: number])[];
  /** How many cases there are, and how many of them are shown: every so many-th where there are too many to see. */
  readonly cases: number;
  readonly shown: number;
}

/** So many points can be told apart. */
const mostPoints = 20_000;

/** The events of a log by time and case (M. Song, W. van der Aalst, "Supporting process mining by showing events at a glance", 2007). */
export function dottedChart(log: EventLog): DottedChart {
  const order = log.cases
    .map((_, trace) => [trace, spanOf(log, trace)[0]] as const)
    .filter(([, from]) => !Number.isNaN(from))
    .sort(([, one], [, other]) => one - other);
  const every = Math.max(1, Math.ceil(eventCount(log) / mostPoints));
  const rows = order.filter((_, place) => place % every === 0);
  const counts = countsIn(log);
  return {
    activities: log.activity.words,
    points: rows.flatMap(([trace], row) =>
      doneIn(log, trace, counts).flatMap((event) => {
        const at = log.at[event] as number;
        return Number.isNaN(at) ? [] : [[at, row, log.activity.of[event] as number] as const];
      }),
    ),
    cases: order.length,
    shown: rows.length,
  };
}
