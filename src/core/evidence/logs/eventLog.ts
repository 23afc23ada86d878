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

/**
 * The activities of a trace in their order, each once for each time it was done. Where a log tells that something began and that it was
 * complete, its completion counts; of what is never completed, its beginning.
 */
export function doneIn(trace: LoggedTrace, isEverComplete: (activity: string) => boolean): readonly LoggedEvent[] {
  return trace.events.filter(({ activity, lifecycle }) =>
    isEverComplete(activity) ? lifecycle === "complete" || lifecycle === "" : lifecycle !== "complete",
  );
}

/** Whether a log has an activity complete anywhere. O(events). */
export function completions({ traces }: EventLog): (activity: string) => boolean {
  const complete = new Set<string>();
  for (const { events } of traces)
    for (const { activity, lifecycle } of events)
      if (lifecycle === "complete" || lifecycle === "") complete.add(activity);
  return (activity) => complete.has(activity);
}
