import type { Id } from "../model";
import type { Desk, Grants } from "./desks";
import type { Plan } from "./plan";
import { Series } from "./series";
import { Sums } from "./sums";
import { mostExact, Tally } from "./tally";

/** A stretch of a case that is shown as a sample: it waited for a step, then somebody worked on it. Seconds since the start. */
export interface Stretch {
  readonly element: Id;
  readonly from: number;
  readonly begun: number;
  readonly to: number;
  readonly by: readonly Id[];
}

export const secondsADay = 86_400;

/** What is counted while cases run. */
export class Recorder {
  readonly durations: Tally;
  readonly costs: Tally;
  /** When each case came to its end whose duration is kept by itself. */
  readonly ended: number[] = [];
  /** Seconds of all cases. */
  waiting = 0;
  working = 0;
  readonly counts = new Sums();
  readonly waitedOf = new Sums();
  readonly workedOf = new Sums();
  readonly costOf = new Sums();
  /** By element and desk, those of one element side by side: money. */
  readonly costBy = new Sums();
  /** Cases that came to their end, day by day. */
  readonly doneOf: number[] = [];
  readonly notEnded = new Map<string, { how: "stuck" | "stopped"; at: Id | undefined; cases: number }>();
  readonly samples = new Map<number, Stretch[]>();
  readonly #wip = new Series();
  /** Token steps of the cases that count. */
  steps = 0;

  constructor(
    readonly plan: Plan,
    readonly desks: readonly Desk[],
    readonly mostSamples: number,
    mostKept = mostExact,
  ) {
    this.durations = new Tally(mostKept);
    this.costs = new Tally(mostKept);
  }

  enter(element: number, cost: number): void {
    this.counts.add(element, 1);
    if (cost !== 0) this.costOf.add(element, cost);
  }

  worked(
    number: number,
    element: number,
    since: number,
    begun: number,
    now: number,
    waited: number,
    worked: number,
    cost: number,
    by: Grants,
  ): void {
    this.waitedOf.add(element, waited);
    this.workedOf.add(element, worked);
    if (cost !== 0) {
      this.costOf.add(element, cost);
      for (const { desk, count } of by)
        this.costBy.add(element * this.desks.length + desk.at, (desk.plan.rate * worked + desk.plan.fixed) * count);
    }
    if (this.mostSamples === 0) return;
    let sample = this.samples.get(number);
    if (!sample) {
      if (this.samples.size >= this.mostSamples) return;
      sample = [];
      this.samples.set(number, sample);
    }
    sample.push({
      element: this.plan.elements[element]?.id ?? "",
      from: since,
      begun: Number.isNaN(begun) ? now : begun,
      to: now,
      by: by.map(({ desk }) => desk.plan.id),
    });
  }

  underWay(now: number, count: number): void {
    this.#wip.set(now, count);
  }

  /** A case came to its end, whether it counts or not. */
  done(now: number): void {
    const day = Math.floor(now / secondsADay);
    while (this.doneOf.length <= day) this.doneOf.push(0);
    this.doneOf[day] = (this.doneOf[day] as number) + 1;
  }

  over(
    now: number,
    duration: number,
    waiting: number,
    working: number,
    cost: number,
    how: "done" | "stuck" | "stopped",
    at: Id | undefined,
  ): void {
    if (how !== "done") {
      const key = `${how} ${at ?? ""}`;
      const known = this.notEnded.get(key) ?? { how, at, cases: 0 };
      known.cases++;
      this.notEnded.set(key, known);
      return;
    }
    this.durations.add(duration);
    this.costs.add(cost);
    if (this.durations.isExact) this.ended.push(now);
    this.waiting += waiting;
    this.working += working;
  }

  /** @param isCut whether it had to end before what was asked for */
  finish(end: number, warmUp: number, unfinished: readonly number[], neverBegun: readonly number[], isCut: boolean) {
    return {
      recorder: this,
      end,
      warmUp,
      unfinished,
      neverBegun,
      isCut,
      steps: this.steps,
      underWay: this.#wip.until(end),
      resources: this.desks.map((desk) => ({
        plan: desk.plan,
        ...desk.figures(end),
        mostWaiting: desk.mostWaiting,
        queue: desk.queueSeries.until(end),
        busy: desk.busySeries.until(end),
      })),
    };
  }
}

export type RunOutcome = ReturnType<Recorder["finish"]>;
