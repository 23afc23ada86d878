import type { Command } from "@/core/commands";
import {
  type CaseMove,
  type Closeness,
  type Difference,
  type DifferenceKind,
  differenceKey,
  differencesOf,
  type EventLog,
  figuresTaken,
  type Held,
  holdAgainst,
  type Late,
  lateIn,
  type MeasuredLog,
  measuredIn,
  mended,
  movesOfCase,
  type Replay,
  replayOf,
  type Spread,
  type StepSpan,
  scenarioFrom,
  shownSteps,
  spanOf,
  spansOfSteps,
  spreadOf,
  stepProposed,
  type Taken,
  type TakenFigure,
  type Unused,
  unusedIn,
} from "@/core/evidence";
import type { Said } from "@/core/messages";
import { type Id, type Model, nameOf, type StoredModel, toStored } from "@/core/model";
import { currencyOf, estimatesOf } from "@/core/scenario";
import { modelsOf } from "@/core/tokens";
import { calledModels } from "./called";
import { type Job, type Models, needs, type Tell } from "./job";
import { logOf } from "./logs";
import type { OfLog } from "./ofLog";

/** A log to be held against a model. */
export interface HoldInput extends OfLog {
  /** Which steps activities are, as somebody said. */
  readonly steps: { readonly [activity: string]: readonly Id[] };
}

export interface ToldDifference {
  readonly key: string;
  /** Also what costs nothing to align: later than a target; an order or a way back that the model leaves open and nobody uses. */
  readonly kind: DifferenceKind | "late" | "fixed" | "loop";
  readonly statement: Said;
  readonly elements: readonly Id[];
  readonly behind?: Id;
  readonly activity?: string;
  readonly traces: number;
  readonly share: number;
  /** Some of the cases it is in. */
  readonly examples: readonly string[];
  /** Milliseconds that half of the cases with it took at most, and half of those without; null without times or cases. */
  readonly took: { readonly with: number | null; readonly without: number | null };
  /** What it saves (below zero) or costs each case, by what steps are said to cost; null where nobody said. */
  readonly cost: number | null;
}

/** How often a step was done as modelled, and in how many cases it was left out. */
export interface StepTally {
  readonly step: Id;
  readonly asModelled: number;
  readonly skipped: number;
}

export interface MatchedActivity {
  readonly name: string;
  readonly times: number;
  readonly steps: readonly Id[];
  /** Of one that is no step: the one it is called most like. */
  readonly proposed?: Id;
}

/** A log held against a model, as a window tells it. */
export interface HeldLog {
  readonly traces: number;
  readonly variants: number;
  readonly fitting: number;
  readonly fitness: number;
  readonly closeness: Closeness;
  readonly isCut: boolean;
  readonly activities: readonly MatchedActivity[];
  /** The steps that activities can be. */
  readonly candidates: readonly { readonly id: Id; readonly name: string }[];
  readonly differences: readonly ToldDifference[];
  /** What the model leaves open and no case does: no difference, since the log fits all the same. */
  readonly unused: readonly ToldDifference[];
  /** Of what they cost. */
  readonly currency: string;
  readonly steps: readonly StepTally[];
}

/** What was held last: a repair of it is made without aligning everything once more. */
let last:
  | { readonly key: string; readonly models: readonly Model[]; readonly log: EventLog; readonly held: Held }
  | undefined;

/** The log that is asked for, held against the model; what was held last is held still. */
export async function heldFor(models: Models, input: HoldInput, tell: Tell): Promise<{ log: EventLog; held: Held }> {
  const model = needs(models, "model");
  const log = await logOf(input);
  const called = calledModels(models);
  const key = JSON.stringify([input.steps, [...called.keys()]]);
  // What is called counts as well: it may have changed since.
  const all = [model, ...called.values()];
  if (last?.log !== log || last.key !== key || !all.every((one, at) => last?.models[at] === one)) {
    const held = holdAgainst(model, log, { called, said: new Map(Object.entries(input.steps)), tell });
    last = { key, models: all, log, held };
  }
  return { log, held: last.held };
}

/** Holds a log against a model: how well it fits, what differs, and where. */
export const holdLog: Job<HoldInput, HeldLog> = async (models, input, tell) => {
  const { log, held } = await heldFor(models, input, tell);
  return toldHeld(log, held);
};

function toldHeld(log: EventLog, held: Held): HeldLog {
  const times = new Map<string, number>();
  const tally = new Map<Id, { asModelled: number; skipped: number }>();
  const tallied = (step: Id) => {
    const own = tally.get(step) ?? { asModelled: 0, skipped: 0 };
    tally.set(step, own);
    return own;
  };
  for (const { activities, traces, alignment } of held.variants) {
    for (const name of activities) times.set(name, (times.get(name) ?? 0) + traces.length);
    for (const move of alignment.moves) if (move.kind === "both") tallied(move.step).asModelled += traces.length;
  }
  const differences = differencesOf(held);
  // What was done earlier or later than modelled was not left out.
  for (const { kind, elements, traces } of differences)
    if (kind === "skipped" || kind === "replaced") for (const step of elements) tallied(step).skipped += traces.length;
  const durations = log.cases.map((_, trace) => {
    const [from, until] = spanOf(log, trace);
    return until - from;
  });
  const candidates = shownSteps(modelsOf(held.world)).map(({ id, name }) => ({ id, name }));
  return {
    traces: held.traces,
    variants: held.variants.length,
    fitting: held.fitting,
    fitness: held.fitness,
    closeness: held.closeness,
    isCut: held.isCut,
    activities: [...held.meant]
      .map(([name, steps]) => {
        const proposed = steps.length === 0 ? stepProposed(name, candidates) : undefined;
        return { name, steps, times: times.get(name) ?? 0, ...(proposed !== undefined && { proposed }) };
      })
      .sort((one, other) => Number(one.steps.length > 0) - Number(other.steps.length > 0) || other.times - one.times)
      .slice(0, mostTold),
    candidates,
    differences: [
      ...differences.slice(0, mostTold).map((difference) => toldDifference(log, durations, held, difference)),
      ...lateIn(log, held).map((late) => toldLate(log, durations, late)),
    ],
    unused: unusedIn(held).map((unused) => toldUnused(held, unused)),
    currency: currencyOf(held.world.model),
    steps: [...tally].map(([step, counts]) => ({ step, ...counts })),
  };
}

/** So many cases are named as examples; and so many differences and activities are told, the commonest first. */
const mostExamples = 5;
const mostTold = 300;

function toldDifference(
  log: EventLog,
  durations: readonly number[],
  held: Held,
  difference: Difference,
): ToldDifference {
  const { kind, statement, elements, behind, activity, traces, share } = difference;
  return {
    key: differenceKey(difference),
    kind,
    statement,
    elements,
    ...(behind !== undefined && { behind }),
    ...(activity !== undefined && { activity }),
    traces: traces.length,
    share,
    ...tookWith(log, durations, traces),
    cost: costOf(held, difference),
  };
}

/** Some cases, and what half of them took, against all others. */
function tookWith(log: EventLog, durations: readonly number[], traces: readonly number[]) {
  const own = new Set(traces);
  const median = (isOwn: boolean) => {
    const took = durations.filter((time, trace) => own.has(trace) === isOwn && !Number.isNaN(time));
    return took.length === 0 ? null : spreadOf(took).median;
  };
  return {
    examples: traces.slice(0, mostExamples).map((trace) => log.cases[trace] as string),
    took: { with: median(true), without: median(false) },
  };
}

/** What is left out is not paid for; what is done again is paid twice. */
function costOf({ world }: Held, { kind, elements }: Difference): number | null {
  if (kind !== "skipped" && kind !== "repeated" && kind !== "replaced") return null;
  const about = kind === "repeated" ? elements.slice(0, 1) : elements;
  const said = about.flatMap((id) => {
    const model = modelsOf(world).find((one) => one.elements.has(id));
    return (model && estimatesOf(model).get(id)?.cost) ?? [];
  });
  const sum = said.reduce((all, cost) => all + cost, 0);
  return sum === 0 ? null : kind === "repeated" ? sum : -sum;
}

const toldLate = (log: EventLog, durations: readonly number[], late: Late): ToldDifference => ({
  key: JSON.stringify(["late", late.element, late.target.what, late.target.seconds]),
  kind: "late",
  statement: late.statement,
  elements: [late.element],
  traces: late.traces.length,
  share: late.traces.length / Math.max(1, late.of),
  ...tookWith(log, durations, late.traces),
  cost: null,
});

const toldUnused = (held: Held, { kind, statement, elements, traces }: Unused): ToldDifference => ({
  key: JSON.stringify(["unused", kind, elements]),
  kind: kind === "order" ? "fixed" : "loop",
  statement,
  elements,
  traces,
  share: traces / Math.max(1, held.traces),
  examples: [],
  took: { with: null, without: null },
  cost: null,
});

/** One case, move by move. */
export const caseOfLog: Job<HoldInput & { readonly case: string }, readonly CaseMove[]> = async (
  models,
  input,
  tell,
) => {
  const { log, held } = await heldFor(models, input, tell);
  return movesOfCase(log, held, input.case) ?? [];
};

export interface ReplayedLog {
  readonly spans: readonly StepSpan[];
  readonly replay: Replay;
}

/** More cases than these are not played on a drawing at once. */
const mostPlayed = 2_000;

/** What steps took and were waited for, and the cases to be played on the drawing. */
export const replayLog: Job<HoldInput, ReplayedLog> = async (models, input, tell) => {
  const { log, held } = await heldFor(models, input, tell);
  return { spans: spansOfSteps(log, held), replay: replayOf(log, held, mostPlayed) };
};

/** A model that was repaired, and how the log fits it then. */
export interface Repaired {
  readonly commands: readonly Command[];
  readonly model: StoredModel;
  /** Elements that are new or say something else. */
  readonly changed: readonly Id[];
  /** What each repair was for. */
  readonly mended: readonly Said[];
  readonly before: Fit;
  readonly after: Fit;
}

export interface Fit {
  readonly fitting: number;
  readonly fitness: number;
  readonly precision: number;
  readonly differences: number;
  /** Elements of the model. */
  readonly size: number;
}

/** Without what only holds others: a lane that has one step more is the same lane. */
const changedIn = (model: Model, before: Model): Id[] =>
  [...model.elements].flatMap((element) =>
    before.elements.get(element.id) === element ||
    /^(?:lane|laneSet|participant|process|collaboration)$/.test(element.type)
      ? []
      : [element.id],
  );

const fitOf = (held: Held, model: Model): Fit => ({
  fitting: held.fitting,
  fitness: held.fitness,
  precision: held.closeness.precision,
  differences: differencesOf(held).length,
  size: model.elements.size,
});

/**
 * Repairs a difference in a copy of the model, and holds the log against that. Nothing where no change of that kind would leave the process
 * sound.
 */
export const repairDifference: Job<HoldInput & { readonly key: string }, Repaired | null> = async (
  models,
  input,
  tell,
) => {
  const { log, held } = await heldFor(models, input, (share) => tell(share / 2));
  const model = needs(models, "model");
  const difference = differencesOf(held).find((one) => differenceKey(one) === input.key);
  const mend = difference && mended(model, difference);
  if (!mend || !difference) return null;
  const after = heldAgain(models, mend.model, log, input, (share) => tell(0.5 + share / 2));
  return {
    commands: mend.commands,
    model: toStored(mend.model),
    changed: changedIn(mend.model, model),
    mended: [difference.statement],
    before: fitOf(held, model),
    after: fitOf(after, mend.model),
  };
};

const heldAgain = (models: Models, model: Model, log: EventLog, input: HoldInput, tell: Tell): Held =>
  holdAgainst(model, log, { called: calledModels(models), said: new Map(Object.entries(input.steps)), tell });

/** So many repairs are proposed in a row. */
const mostRepairs = 25;

/**
 * Repairs one difference after the other, the commonest first, until none is left that can be repaired and is not judged, or a repair makes
 * nothing better. Each is proven sound before the next is looked for.
 */
export const repairAll: Job<HoldInput & { readonly judged: readonly string[] }, Repaired> = async (
  models,
  input,
  tell,
) => {
  const { log, held } = await heldFor(models, input, (share) => tell(share / mostRepairs));
  const first = needs(models, "model");
  const left = new Set(input.judged);
  const commands: Command[] = [];
  const said: Said[] = [];
  let [model, now] = [first, held];
  for (let round = 1; round <= mostRepairs; round++) {
    let isBetter = false;
    for (const difference of differencesOf(now)) {
      const key = differenceKey(difference);
      if (left.has(key)) continue;
      const mend = mended(model, difference);
      const then = mend && heldAgain(models, mend.model, log, input, () => undefined);
      // One that cannot be made, or helps nothing, is not tried again.
      if (!mend || !then || then.fitness <= now.fitness) {
        left.add(key);
        continue;
      }
      commands.push(...mend.commands);
      said.push(difference.statement);
      [model, now, isBetter] = [mend.model, then, true];
      break;
    }
    tell(round / mostRepairs);
    if (!isBetter) break;
  }
  return {
    commands,
    model: toStored(model),
    changed: changedIn(model, first),
    mended: said,
    before: fitOf(held, first),
    after: fitOf(now, model),
  };
};

/** What a log says of a model, to forecast with. */
export interface LogFigures {
  readonly figures: readonly (TakenFigure & { readonly name: string })[];
  readonly durations: Spread;
  readonly people: MeasuredLog["people"];
  readonly hours: MeasuredLog["hours"];
  /** What makes a scenario of them, under an id and a name. */
  readonly commands: readonly Command[];
}

/** Takes times, arrivals and shares of ways out of a log, fitted or as they were measured. */
export const figuresOfLog: Job<
  HoldInput & { readonly how: Taken; readonly scenario: { readonly id: Id; readonly name: string } },
  LogFigures
> = async (models, input, tell) => {
  const { log, held } = await heldFor(models, input, tell);
  const model = needs(models, "model");
  const measured = measuredIn(log, held);
  const figures = figuresTaken(model, held, measured, input.how);
  return {
    figures: figures.map((figure) => ({ ...figure, name: nameOfFigure(model, figure) })),
    durations: spreadOf(measured.durations),
    people: measured.people,
    hours: measured.hours,
    commands: scenarioFrom(model, figures, measured, input.scenario),
  };
};

/** A step by its name, a way by the question and the answer. */
function nameOfFigure(model: Model, { element, parameter }: TakenFigure): string {
  if (parameter !== "probability") return nameOf(model, element) || element;
  const flow = model.elements.get(element);
  const [from, to] = [String(flow?.sourceRef), String(flow?.targetRef)];
  return `${nameOf(model, from) || from}: ${nameOf(model, element) || nameOf(model, to) || to}`;
}
