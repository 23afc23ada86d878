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
  readonly why: string;
}

export interface EventLog {
  readonly traces: readonly LoggedTrace[];
  /** The first of what was left out, and how much it was in all. */
  readonly left: readonly LeftOut[];
  readonly leftOut: number;
}

/** So much of what was left out is named. */
export const mostNamed = 100;

/** Gathers what is left out: counted all, named the first. */
export class Leaving {
  readonly left: LeftOut[] = [];
  count = 0;

  leave(line: number, why: string): void {
    this.count++;
    if (this.left.length < mostNamed) this.left.push({ line, why });
  }
}

/** Tells whether an event says that its activity was done, and is not only about it. */
export type Counts = (event: LoggedEvent) => boolean;

const isCompletion = ({ lifecycle }: LoggedEvent) => lifecycle === "complete" || lifecycle === "";

/**
 * What counts in a log: of each activity its completions, where the log has any; else its beginnings; else the one thing that is told of it
 * most often. So each time it was done is one. O(events).
 */
export function countsIn({ traces }: EventLog): Counts {
  const told = new Map<string, Map<string, number>>();
  for (const { events } of traces)
    for (const event of events) {
      const own = told.get(event.activity) ?? new Map<string, number>();
      const kind = isCompletion(event) ? "complete" : event.lifecycle;
      own.set(kind, (own.get(kind) ?? 0) + 1);
      told.set(event.activity, own);
    }
  const counted = new Map<string, string>();
  for (const [activity, kinds] of told) {
    const [often] = [...kinds].sort(([, one], [, other]) => other - one);
    counted.set(activity, kinds.has("complete") ? "complete" : kinds.has("start") ? "start" : (often?.[0] ?? ""));
  }
  return (event) => {
    const wanted = counted.get(event.activity);
    return wanted === "complete" ? isCompletion(event) : event.lifecycle === wanted;
  };
}

/** What was done in a trace, in its order, each time once. */
export const doneIn = (trace: LoggedTrace, counts: Counts): readonly LoggedEvent[] => trace.events.filter(counts);
