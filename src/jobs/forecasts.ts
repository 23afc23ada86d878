import { processVerdicts } from "@/core/check";
import { type DecisionFileText, decisionModels } from "@/core/decisions";
import {
  type Chosen,
  type Effect,
  type Followed,
  type Forecast,
  figuresAlone,
  follow,
  forecast,
  proposeRun,
  type RoleDefaults,
  type RunProposal,
  type Staffing,
  staffingFor,
  type TakenFromDirectory,
  type Target,
  whatMatters,
  withDirectory,
  worldAssumed,
} from "@/core/forecast";
import type { ReportedForecast } from "@/core/handoff";
import { type Id, type Model, nameOf } from "@/core/model";
import { type Input, inputOf, type Scenario, scenarioInWords, scenariosOf, withInput } from "@/core/scenario";
import { type World, worldWith } from "@/core/tokens";
import { calledModels } from "./called";
import { type Job, type Models, needs } from "./job";

export interface ForecastInput {
  readonly scenario: Id;
  readonly roles: readonly RoleDefaults[];
  readonly cases?: number;
  readonly replications?: number;
  readonly samples?: number;
  /** What business rule tasks decide by, where data is drawn. */
  readonly decisions?: readonly DecisionFileText[];
}

/** A process that is not sound has no forecast. */
export interface Unsound {
  readonly unsound: { readonly process: Id; readonly name: string };
}
export interface Forecasted {
  readonly forecast: Forecast;
  readonly taken: readonly TakenFromDirectory[];
}

/** What follows from a scenario of a model, with what the directory says of its roles. */
export const forecasts: Job<ForecastInput, Forecasted | Unsound> = (models, input, tell) => {
  const ready = prepared(models, input);
  if ("unsound" in ready) return ready;
  return { forecast: ready.run(ready.scenario, tell), taken: ready.taken };
};

export interface VaryInput extends ForecastInput {
  readonly input: Input;
  readonly values: readonly number[];
  /** Another input that is turned as well: every value of the one with every value of the other. */
  readonly second?: { readonly input: Input; readonly values: readonly number[] };
}
export interface VariedPoint {
  readonly value: number;
  /** Of the second input. */
  readonly other?: number;
  readonly forecast: Forecast;
}

/** The same with one input set to one value after the other. */
export const vary: Job<
  VaryInput,
  { readonly points: readonly VariedPoint[]; readonly now: number | undefined } | Unsound
> = (models, asked, tell) => {
  const ready = prepared(models, asked);
  if ("unsound" in ready) return ready;
  const { scenario, run } = ready;
  const { input, values, second } = asked;
  const wanted: readonly { readonly value: number; readonly other?: number }[] = values.flatMap((value) =>
    second ? second.values.map((other) => ({ value, other })) : [{ value }],
  );
  return {
    now: inputOf(scenario, input),
    points: wanted.map((point, at) => {
      tell(at / wanted.length);
      const turned = withInput(scenario, input, point.value);
      const both = second && point.other !== undefined ? withInput(turned, second.input, point.other) : turned;
      return { ...point, forecast: run(both) };
    }),
  };
};

export interface MattersInput extends ForecastInput {
  readonly inputs: readonly Input[];
  readonly figure: "p90" | "mean" | "cost";
}

/** Which inputs move a figure most. */
export const matters: Job<MattersInput, { readonly effects: readonly Effect[] } | Unsound> = (models, asked, tell) => {
  const ready = prepared(models, asked);
  if ("unsound" in ready) return ready;
  const figures = {
    p90: ({ cycleTime }: Forecast) => cycleTime.p90,
    mean: ({ cycleTime }: Forecast) => cycleTime.mean,
    cost: ({ cost }: Forecast) => cost.mean,
  };
  return { effects: whatMatters(ready.scenario, asked.inputs, figures[asked.figure], ready.run, tell) };
};

export interface RunLengthInput extends ForecastInput {
  /** How well the mean is to be known: a share of it. */
  readonly within: number;
}

/** How a scenario had better be run: what is not counted, and how often. */
export const runLength: Job<RunLengthInput, { readonly proposal: RunProposal | null } | Unsound> = (
  models,
  input,
  tell,
) => {
  const ready = prepared(models, input);
  if ("unsound" in ready) return ready;
  return { proposal: proposeRun(ready.world, ready.scenario, input.within, tell) ?? null };
};

export interface StaffInput extends ForecastInput {
  readonly target: Target;
}
export interface Staffed {
  readonly kept: readonly StaffedRow[];
  readonly nearest: StaffedRow | undefined;
  readonly isWhole: boolean;
}
export interface StaffedRow extends Omit<Staffing, "quantities"> {
  readonly quantities: readonly { readonly id: Id; readonly name: string; readonly count: number }[];
}

/** The cheapest staffing that keeps a target, with the runners-up. */
export const staff: Job<StaffInput, Staffed | Unsound> = async (models, asked, tell) => {
  const ready = prepared(models, asked);
  if ("unsound" in ready) return ready;
  const { scenario, run } = ready;
  const { resources } = run(scenario);
  const names = new Map(resources.map(({ id, name }) => [id, name]));
  const people = resources.map(({ id, quantity }) => ({
    id,
    quantity,
    rate: (scenario.of.get(id)?.unitCost ?? 0) * 3600,
  }));
  const most = 60;
  const found = await staffingFor(scenario, people, asked.target, run, (tried) => tell(tried / most), most);
  const row = ({ quantities, ...rest }: Staffing): StaffedRow => ({
    ...rest,
    quantities: [...quantities].map(([id, count]) => ({ id, name: names.get(id) ?? id, count })),
  });
  return { kept: found.kept.map(row), nearest: found.nearest && row(found.nearest), isWhole: found.isWhole };
};

export interface FollowInput extends ForecastInput {
  readonly number: number;
  /** By node: what was chosen by hand each time; null where chance decides. */
  readonly chosen: readonly (readonly [Id, readonly (Chosen | null)[]])[];
}

/** One case of a forecast, moment by moment; null where so many never come. */
export const followed: Job<FollowInput, { readonly case: Followed | null } | Unsound> = (models, input, tell) => {
  const ready = prepared(models, input);
  if ("unsound" in ready) return ready;
  const chosen = new Map(input.chosen.map(([node, turns]) => [node, turns.map((one) => one ?? undefined)]));
  return { case: follow(ready.world, ready.scenario, input.number, chosen, undefined, tell) ?? null };
};

/** The world a followed case is played in: as the forecast sees it. */
export const followedWorld = (model: Model, called: ReadonlyMap<Id, Model>, scenario: Scenario): World =>
  worldAssumed(worldWith(model, called, true), withCalled(scenario, called.values()));

/** A report is made while somebody waits for it: a run with more events than this is left to the stage. */
const mostReportedParts = 150;

/**
 * What a package's report says of a model's first scenario. The same models give the same, since the bound is one of events and not of
 * time.
 * @returns undefined where nothing is said
 */
export function reportedForecast(
  models: Models,
  roles: readonly RoleDefaults[],
  decisions: readonly DecisionFileText[] = [],
): ReportedForecast | undefined {
  const model = needs(models, "model");
  const [own] = scenariosOf(model);
  if (!own) return undefined;
  const says = scenarioInWords(model, own);
  const told = { scenario: { id: own.id, name: own.name }, says };
  const ready = prepared(models, { scenario: own.id, roles, decisions });
  if ("unsound" in ready)
    return {
      ...told,
      fromDirectory: [],
      figures: null,
      why: `“${ready.unsound.name}” is not sound: no forecast holds.`,
    };
  const said = new Set(says.map(({ element, what }) => `${element} ${what}`));
  const fromDirectory = scenarioInWords(model, ready.scenario).filter(
    ({ element, what }) => !said.has(`${element} ${what}`),
  );
  let parts = 0;
  const count = () => {
    parts++;
    if (parts > mostReportedParts) throw new TooLong();
  };
  try {
    return { ...told, fromDirectory, figures: figuresAlone(ready.run(ready.scenario, count)), why: "" };
  } catch (error) {
    if (!(error instanceof TooLong)) throw error;
    return { ...told, fromDirectory, figures: null, why: "The run is too long for a report; see the stage Forecast." };
  }
}

class TooLong extends Error {}

interface Ready {
  readonly world: World;
  readonly scenario: Scenario;
  readonly taken: readonly TakenFromDirectory[];
  readonly run: (scenario: Scenario, tell?: (share: number) => void) => Forecast;
}

/** What a model calls is as its own first scenario says, where nothing else is said. */
function withCalled(scenario: Scenario, called: Iterable<Model>): Scenario {
  const of = new Map(scenario.of);
  for (const model of called)
    for (const [id, assumption] of scenariosOf(model)[0]?.of ?? []) if (!of.has(id)) of.set(id, assumption);
  return { ...scenario, of };
}

function prepared(models: Models, input: ForecastInput): Ready | Unsound {
  const model = needs(models, "model");
  const unsound = processVerdicts(model).find(({ sound }) => sound === false);
  if (unsound) return { unsound: { process: unsound.id, name: nameOf(model, unsound.id) || unsound.id } };
  const called = calledModels(models);
  const own = scenariosOf(model).find(({ id }) => id === input.scenario) ?? scenariosOf(model)[0];
  if (!own) throw new Error("This model has no scenario.");
  const roles = new Map(input.roles.map((role) => [role.id, role]));
  const { scenario, taken } = withDirectory(withCalled(own, called.values()), model, roles);
  const world = worldWith(model, called, true, decisionModels(input.decisions ?? []));
  const { cases, replications, samples } = input;
  return {
    world,
    scenario,
    taken,
    run: (one, tell) =>
      forecast(
        world,
        one,
        {
          ...(cases !== undefined && { cases }),
          ...(replications !== undefined && { replications }),
          ...(samples !== undefined && { samples }),
        },
        tell,
      ),
  };
}
