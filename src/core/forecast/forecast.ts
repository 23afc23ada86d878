import { type Said, say } from "../messages";
import type { Id } from "../model";
import type { Scenario } from "../scenario";
import type { World } from "../tokens";
import type { Gap } from "./gaps";
import { Plan, worldAssumed } from "./plan";
import { type RunOutcome, type Stretch, secondsADay } from "./recorder";
import { Simulation } from "./simulation";
import { interval95 } from "./statistics";
import { mostExact, type Spread, together } from "./tally";

/** What is asked for besides the scenario; what is left out is taken from it. */
export interface Asked {
  /** Counted cases of each replication. */
  readonly cases?: number;
  readonly seed?: number;
  readonly replications?: number;
  /** How many cases are kept step by step. */
  readonly samples?: number;
  /** See `Plan`. */
  readonly purposeOf?: (element: Id) => string;
}

/** So many cases where nobody says how many or how long. */
const usualCases = 1000;
/** The seed where nobody names one. */
export const usualSeed = 1;

export interface ElementFigures {
  readonly id: Id;
  readonly name: string;
  /** The resources that may do it. */
  readonly by: readonly Id[];
  /** A replication, on average. */
  readonly count: number;
  /** Each time. Seconds. */
  readonly waitingMean: number;
  readonly processingMean: number;
  readonly costTotal: number;
  /** Of that, what each resource costs. */
  readonly costBy: readonly { readonly resource: Id; readonly total: number }[];
}

export interface ResourceFigures {
  readonly id: Id;
  readonly name: string;
  readonly quantity: number;
  /** The share of the time somebody is there that is worked; 0 to 1. */
  readonly utilization: number;
  /** Each time somebody is asked for. Seconds. */
  readonly waitingMean: number;
  /** Of that, while it was there and busy: what more of them would make shorter. Seconds. */
  readonly waitingBusyMean: number;
  /** How many wait, on average over time. */
  readonly queueMean: number;
  readonly queueMost: number;
  readonly busySeconds: number;
  readonly openSeconds: number;
  /** How often somebody was asked for. */
  readonly requests: number;
}

/** A number over time: means over equal stretches of the first replication. */
export interface Curve {
  /** Seconds a stretch. */
  readonly width: number;
  readonly means: readonly number[];
}

export interface Forecast {
  readonly scenario: { readonly id: Id; readonly name: string };
  readonly currency: string;
  readonly seed: number;
  readonly replications: number;
  /** Counted cases that came to their end, a replication on average. */
  readonly cases: number;
  /** Counted cases still under way when the time was over, a replication on average. */
  readonly underWay: number;
  /** How long each of these had been under way, of all replications. Seconds. */
  readonly openFor: readonly number[];
  readonly cycleTime: {
    readonly mean: number;
    readonly p50: number;
    readonly p90: number;
    readonly p95: number;
    readonly ci95: readonly [number, number];
    readonly min: number;
    readonly max: number;
    readonly deviation: number;
  };
  /** Quantiles are off by at most this share of themselves: 0 up to a million cases. */
  readonly quantileError: number;
  readonly waitingTime: { readonly mean: number };
  readonly processingTime: { readonly mean: number };
  readonly cost: { readonly mean: number; readonly total: number; readonly p90: number };
  readonly elements: readonly ElementFigures[];
  readonly resources: readonly ResourceFigures[];
  /** Cases that came to no end, and where they stood. */
  readonly notEnded: readonly {
    readonly how: "stuck" | "stopped";
    readonly at: Id | undefined;
    readonly cases: number;
  }[];
  readonly gaps: readonly Gap[];
  readonly problems: readonly Said[];
  /** Seconds of the longest replication. */
  readonly length: number;
  readonly warmUp: number;
  /** Token steps that were counted. */
  readonly steps: number;
  /** Means of the replications, for comparing two forecasts pair by pair. */
  readonly means: readonly {
    readonly cycleTime: number;
    readonly waiting: number;
    readonly processing: number;
    readonly cost: number;
  }[];
  /** Durations, sorted; of very many, evenly picked ones. */
  readonly durations: readonly number[];
  readonly curves: {
    readonly underWay: Curve;
    /** Cases that came to their end, a day. */
    readonly done: Curve;
    readonly resources: readonly { readonly id: Id; readonly queue: Curve; readonly busy: Curve }[];
  };
  readonly samples: readonly { readonly case: number; readonly stretches: readonly Stretch[] }[];
}

/** Durations that are handed on are at most so many; quantiles are of all. */
const mostDurations = 2000;
/** Events between two looks at whether it was cancelled. */
const atATime = 20_000;

/**
 * What follows from a scenario: runs it so often as is asked, and works out the figures. The same seed gives the same figures.
 * @param tell hears how far it is, 0 to 1, and may throw to end it
 * O(replications × steps × log of what is under way).
 */
export function forecast(
  world: World,
  scenario: Scenario,
  asked: Asked = {},
  tell: (share: number) => void = () => undefined,
): Forecast {
  const running = forecastInParts(world, scenario, asked);
  for (;;) {
    const next = running.next();
    if (next.done) return next.value;
    tell(next.value);
  }
}

/** The same, part by part: gives how far it is after each. */
function* forecastInParts(world: World, scenario: Scenario, asked: Asked = {}): Generator<number, Forecast> {
  const replications = Math.max(1, asked.replications ?? scenario.replications ?? 1);
  const seed = asked.seed ?? scenario.seed ?? usualSeed;
  const warmUp = scenario.warmUp ?? 0;
  const { cases, duration } = lengthOf(scenario, asked.cases);
  const assumed = worldAssumed(world, scenario);
  const runs: RunOutcome[] = [];
  const gaps = new Map<string, Gap>();
  let elements: Plan["elements"] = [];
  for (let replication = 0; replication < replications; replication++) {
    const plan = new Plan(assumed, scenario, seedOf(seed, replication), asked.purposeOf);
    const simulation = new Simulation(
      plan,
      {
        ...(cases !== undefined && { cases }),
        ...(duration !== undefined && { duration }),
        warmUp,
        kept: Math.floor(mostExact / replications),
      },
      replication === 0 ? (asked.samples ?? 0) : 0,
    );
    while (simulation.run(atATime)) {
      const share = cases !== undefined ? simulation.done / cases : simulation.now / (duration as number);
      yield (replication + Math.min(1, share)) / replications;
    }
    runs.push(simulation.end());
    for (const gap of plan.gaps.list()) gaps.set(`${gap.kind} ${gap.element}`, gap);
    elements = plan.elements.length > elements.length ? plan.elements : elements;
  }
  return figuresOf(scenario, runs, elements, [...gaps.values()], { seed, replications, warmUp });
}

/** How long each replication goes: so many cases, or a time. */
export function lengthOf(scenario: Scenario, asked?: number): { readonly cases?: number; readonly duration?: number } {
  if (asked !== undefined) return { cases: asked };
  if (scenario.duration !== undefined) return { duration: scenario.duration };
  const limit = [...scenario.of.values()].reduce(
    (sum, { count, interval }) => (count !== undefined && interval ? sum + count : sum),
    0,
  );
  return { cases: limit > 0 ? limit : usualCases };
}

/** Replications are told apart in the upper part of the seed, so that neighbouring seeds share no replication. */
export const seedOf = (seed: number, replication: number) => seed * 65_536 + replication;

const neverBegun = (name: string) =>
  say`Nobody who is needed for “${{ name }}” was ever free for it: no case got past it.`;
const notKnown = say`When people work is known for 2,000 years from the start: what would come later is left out.`;

function figuresOf(
  scenario: Scenario,
  runs: readonly RunOutcome[],
  elements: Plan["elements"],
  gaps: readonly Gap[],
  told: { readonly seed: number; readonly replications: number; readonly warmUp: number },
): Forecast {
  const count = runs.length;
  const durations = together(runs.map(({ recorder }) => recorder.durations));
  const costs = together(runs.map(({ recorder }) => recorder.costs));
  const meansOf = (total: (recorder: RunOutcome["recorder"]) => number) =>
    runs.map(({ recorder }) => (recorder.durations.count === 0 ? 0 : total(recorder) / recorder.durations.count));
  const cycleTimes = meansOf((recorder) => recorder.durations.sum);
  const waitings = meansOf((recorder) => recorder.waiting);
  const workings = meansOf((recorder) => recorder.working);
  const money = meansOf((recorder) => recorder.costs.sum);
  const sum = (of: (run: RunOutcome) => number) => runs.reduce((total, run) => total + of(run), 0);
  const [first] = runs;
  const notEnded = new Map<string, { how: "stuck" | "stopped"; at: Id | undefined; cases: number }>();
  for (const { recorder } of runs)
    for (const [key, one] of recorder.notEnded) {
      const known = notEnded.get(key) ?? { ...one, cases: 0 };
      notEnded.set(key, { ...known, cases: known.cases + one.cases });
    }
  return {
    scenario: { id: scenario.id, name: scenario.name },
    currency: scenario.currency,
    ...told,
    cases: durations.count / count,
    underWay: sum(({ unfinished }) => unfinished.length) / count,
    openFor: runs.flatMap(({ unfinished }) => unfinished),
    cycleTime: {
      mean: durations.mean,
      p50: durations.quantile(0.5),
      p90: durations.quantile(0.9),
      p95: durations.quantile(0.95),
      ci95: count > 1 ? interval95(cycleTimes) : (first?.recorder.durations.interval95() ?? [0, 0]),
      min: durations.min,
      max: durations.max,
      deviation: durations.deviation,
    },
    quantileError: durations.error,
    waitingTime: { mean: sum(({ recorder }) => recorder.waiting) / Math.max(1, durations.count) },
    processingTime: { mean: sum(({ recorder }) => recorder.working) / Math.max(1, durations.count) },
    cost: { mean: costs.mean, total: (costs.mean * costs.count) / count, p90: costs.quantile(0.9) },
    elements: elements.map(({ id, name, by }, at) => {
      const times = sum(({ recorder }) => recorder.counts.at(at));
      const each = Math.max(1, times);
      return {
        id,
        name,
        by,
        count: times / count,
        waitingMean: sum(({ recorder }) => recorder.waitedOf.at(at)) / each,
        processingMean: sum(({ recorder }) => recorder.workedOf.at(at)) / each,
        costTotal: sum(({ recorder }) => recorder.costOf.at(at)) / count,
        costBy: (first?.resources ?? []).flatMap(({ plan }, desk, { length }) => {
          const total = sum(({ recorder }) => recorder.costBy.at(at * length + desk)) / count;
          return total > 0 ? [{ resource: plan.id, total }] : [];
        }),
      };
    }),
    resources: (first?.resources ?? []).map(({ plan }, at) => {
      const of = (read: (resource: RunOutcome["resources"][number]) => number) =>
        sum((run) => (run.resources[at] ? read(run.resources[at]) : 0));
      const open = of(({ openSeconds }) => openSeconds);
      const requests = of(({ waits }) => waits);
      return {
        id: plan.id,
        name: plan.name,
        quantity: plan.most,
        utilization: open > 0 ? of(({ busySeconds }) => busySeconds) / open : 0,
        waitingMean: requests > 0 ? of(({ waitedSeconds }) => waitedSeconds) / requests : 0,
        waitingBusyMean: requests > 0 ? of(({ waitedOpenSeconds }) => waitedOpenSeconds) / requests : 0,
        queueMean: of(({ queueMean }) => queueMean) / count,
        queueMost: Math.max(...runs.map((run) => run.resources[at]?.mostWaiting ?? 0)),
        busySeconds: of(({ busySeconds }) => busySeconds) / count,
        openSeconds: open / count,
        requests: requests / count,
      };
    }),
    notEnded: [...notEnded.values()],
    gaps,
    problems: [
      ...scenario.problems,
      ...(first?.neverBegun ?? []).map((at) => neverBegun(elements[at]?.name ?? "")),
      ...(runs.some(({ isCut }) => isCut) ? [notKnown] : []),
    ],
    length: Math.max(...runs.map(({ end }) => end)),
    steps: sum(({ steps }) => steps),
    means: cycleTimes.map((cycleTime, at) => ({
      cycleTime,
      waiting: waitings[at] as number,
      processing: workings[at] as number,
      cost: money[at] as number,
    })),
    durations: evenlyPicked(durations, mostDurations),
    curves: {
      underWay: first?.underWay ?? { width: 60, means: [] },
      done: doneCurve(first?.recorder.doneOf ?? [], first?.end ?? 0),
      resources: (first?.resources ?? []).map(({ plan, queue, busy }) => ({ id: plan.id, queue, busy })),
    },
    samples: [...(first?.recorder.samples ?? [])].map(([number, stretches]) => ({ case: number, stretches })),
  };
}

/** Of so many stretches at most, each some whole days; the last one may be a part. */
const mostStretches = 60;

function doneCurve(ofDay: readonly number[], end: number): Curve {
  const days = Math.max(1, Math.ceil(ofDay.length / mostStretches));
  const means: number[] = [];
  for (let from = 0; from < ofDay.length; from += days) {
    const length = Math.min(days, end / secondsADay - from);
    const sum = ofDay.slice(from, from + days).reduce((all, one) => all + one, 0);
    means.push(length > 0 ? sum / length : 0);
  }
  return { width: days * secondsADay, means };
}

function evenlyPicked({ count, quantile }: Spread, most: number): number[] {
  const picked = Math.min(count, most);
  return Array.from({ length: picked }, (_, at) => quantile(picked === 1 ? 0 : at / (picked - 1)));
}
