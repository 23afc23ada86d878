import { type Id, type Model, pathBetween } from "../model";
import { modelsOf } from "../tokens";
import { measuredIn } from "./figures/measured";
import type { Held, Variant } from "./holding";
import { countsIn, doneIn, type EventLog, wordAt } from "./logs/eventLog";
import { type Spread, spreadOf } from "./overview";

/** A move of one case, with when it was; NaN where the log does not tell. */
export type CaseMove =
  | { readonly kind: "both"; readonly step: Id; readonly activity: string; readonly at: number }
  | { readonly kind: "log"; readonly activity: string; readonly at: number }
  | { readonly kind: "model"; readonly step: Id };

/** How one case went: what was done as modelled, what was left out, what nobody foresaw; undefined for a case that the log does not have. O(variants). */
export function movesOfCase(log: EventLog, held: Held, name: string): CaseMove[] | undefined {
  const trace = log.cases.indexOf(name);
  const variant = trace < 0 ? undefined : held.variants.find(({ traces }) => traces.includes(trace));
  return variant && movesOf(log, variant, doneIn(log, trace, countsIn(log)));
}

function movesOf(log: EventLog, { alignment }: Variant, done: readonly number[]): CaseMove[] {
  return alignment.moves.map((move): CaseMove => {
    if (move.kind === "model") return move;
    const event = done[move.at] as number;
    const told = { activity: wordAt(log.activity, event), at: log.at[event] as number };
    return move.kind === "both" ? { kind: "both", step: move.step, ...told } : { kind: "log", ...told };
  });
}

/** What a step took and how long cases waited for it, in milliseconds; and how often it was done and left out. */
export interface StepSpan {
  readonly step: Id;
  readonly times: number;
  readonly skipped: number;
  readonly waiting: Spread;
  readonly working: Spread;
  /** Of all waiting of all cases, the share that is for this step. */
  readonly ofWaiting: number;
}

/** Steps with what they took and waited, the one that is waited for most first. O(events + moves). */
export function spansOfSteps(log: EventLog, held: Held): StepSpan[] {
  const counts = new Map<Id, { times: number; skipped: number }>();
  const of = (step: Id) => {
    const own = counts.get(step) ?? { times: 0, skipped: 0 };
    counts.set(step, own);
    return own;
  };
  for (const { traces, alignment } of held.variants)
    for (const move of alignment.moves) {
      if (move.kind === "both") of(move.step).times += traces.length;
      else if (move.kind === "model") of(move.step).skipped += traces.length;
    }
  const measured = new Map(measuredIn(log, held).steps.map((one) => [one.step, one]));
  const sum = (values: readonly number[]) => values.reduce((all, value) => all + value, 0);
  const whole = sum([...measured.values()].map(({ waiting }) => sum(waiting)));
  const milliseconds = (seconds: readonly number[]) => spreadOf(seconds.map((second) => second * 1_000));
  return [...counts]
    .map(([step, own]): StepSpan => {
      const { waiting = [], working = [] } = measured.get(step) ?? {};
      return {
        step,
        ...own,
        waiting: milliseconds(waiting),
        working: milliseconds(working),
        ofWaiting: whole === 0 ? 0 : sum(waiting) / whole,
      };
    })
    .sort((one, other) => other.ofWaiting - one.ofWaiting);
}

/** A case as it is played: the steps it came to, and when each was complete; before the first it stands nowhere. */
export interface PlayedCase {
  readonly steps: readonly Id[];
  readonly at: readonly number[];
}

export interface Replay {
  readonly from: number;
  readonly until: number;
  readonly cases: readonly PlayedCase[];
  /** How many cases have times at all: more are not played than `most`. */
  readonly of: number;
  /** The flows from a step to one that came next, by both their ids with a line between. */
  readonly paths: ReadonlyMap<string, readonly Id[]>;
}

/**
 * Cases with the times they were done as modelled, to be played on the drawing; of very many, evenly spread ones.
 * O(events of those played + pairs of steps × flows).
 */
export function replayOf(log: EventLog, held: Held, most: number): Replay {
  const counts = countsIn(log);
  const variantOf = new Map<number, Variant>();
  for (const variant of held.variants) for (const trace of variant.traces) variantOf.set(trace, variant);
  const timed = log.cases.flatMap((_, trace) => (isTimed(log, trace) && variantOf.has(trace) ? [trace] : []));
  const every = Math.max(1, timed.length / most);
  const chosen = Array.from(
    { length: Math.min(most, timed.length) },
    (_, place) => timed[Math.floor(place * every)] as number,
  );
  const paths = new Map<string, readonly Id[]>();
  let [from, until] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  const cases = chosen.map((trace): PlayedCase => {
    const moves = movesOf(log, variantOf.get(trace) as Variant, doneIn(log, trace, counts));
    const done = moves.flatMap((move) => (move.kind === "both" && !Number.isNaN(move.at) ? [move] : []));
    const steps = done.map(({ step }) => step);
    const at: number[] = [];
    for (const [place, move] of done.entries()) {
      // What a log tells in another order than that of its times is played in its own order.
      const moment = Math.max(move.at, at.at(-1) ?? move.at);
      at.push(moment);
      from = Math.min(from, moment);
      until = Math.max(until, moment);
      if (place > 0) notePath(held, paths, steps[place - 1] as Id, steps[place] as Id);
    }
    return { steps, at };
  });
  return from <= until
    ? { from, until, cases, of: timed.length, paths }
    : { from: 0, until: 0, cases: [], of: 0, paths };
}

const isTimed = (log: EventLog, trace: number) => {
  for (let event = log.from[trace] as number; event < (log.until[trace] as number); event++)
    if (!Number.isNaN(log.at[event])) return true;
  return false;
};

export const pathKey = (one: Id, next: Id) => `${one}\n${next}`;

function notePath(held: Held, paths: Map<string, readonly Id[]>, one: Id, next: Id): void {
  const key = pathKey(one, next);
  if (paths.has(key)) return;
  const model = modelsOf(held.world).find(({ elements }) => elements.has(one) && elements.has(next));
  paths.set(key, model ? flowsOn(model, one, next) : []);
}

const flowsOn = (model: Model, one: Id, next: Id): Id[] =>
  pathBetween(model, one, next).filter((id) => model.elements.get(id)?.type === "sequenceFlow");

/** Where the cases of a replay stand at a moment: on their way to the step they complete next; and how many are over. O(cases × log steps). */
export function standingAt(
  { cases }: Replay,
  moment: number,
): { readonly at: ReadonlyMap<Id, number>; readonly begun: number; readonly over: number } {
  const at = new Map<Id, number>();
  let [begun, over] = [0, 0];
  for (const one of cases) {
    const next = placeIn(one.at, moment);
    if (next === 0) continue;
    begun++;
    const step = one.steps[next];
    if (step === undefined) over++;
    else at.set(step, (at.get(step) ?? 0) + 1);
  }
  return { at, begun, over };
}

/** The flows that cases went along in a time: from what they had done at its beginning to what they do next. O(cases × log steps). */
export function goneAlong({ cases, paths }: Replay, from: number, until: number): ReadonlyMap<Id, number> {
  const gone = new Map<Id, number>();
  for (const { steps, at } of cases)
    for (let place = placeIn(at, from); place < placeIn(at, until); place++) {
      const next = steps[place + 1];
      if (next === undefined) continue;
      for (const flow of paths.get(pathKey(steps[place] as Id, next)) ?? []) gone.set(flow, (gone.get(flow) ?? 0) + 1);
    }
  return gone;
}

/** How many of some rising moments have come. */
function placeIn(at: readonly number[], moment: number): number {
  let [low, high] = [0, at.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((at[middle] as number) <= moment) low = middle + 1;
    else high = middle;
  }
  return low;
}
