import type { Command } from "../../commands";
import { foldedName } from "../../directory";
import { quantileOf } from "../../forecast";
import { spreadOf } from "../../live";
import { elementsOfType, flowNodesIn, type Id, isActivity, type Model } from "../../model";
import { constant, type Distribution, scenariosOf, shareBelow, weekText } from "../../scenario";
import type { Held } from "../holding";
import { bestFit } from "./fitting";
import type { MeasuredLog } from "./measured";

/** How measured times become assumptions: as they were, or as the distribution that fits best. */
export type Taken = "fitted" | "measured";

/** One assumption that a log gives, and how many observations stand behind it. */
export interface TakenFigure {
  readonly element: Id;
  readonly parameter: "interval" | "processing" | "wait" | "probability";
  readonly value: Distribution;
  readonly observations: number;
  /** Of times: what was measured beside what the distribution says, at shares from a twentieth to nineteen twentieths. Seconds. */
  readonly quantiles: readonly (readonly [measured: number, said: number])[];
}

/** What a log says of a model as assumptions: arrivals, working times, what is waited for, shares of ways. O(observations log observations). */
export function figuresTaken(model: Model, { process }: Held, measured: MeasuredLog, how: Taken): TakenFigure[] {
  const spread = (values: readonly number[]) => (how === "fitted" ? bestFit(values) : undefined) ?? spreadOf(values);
  const figures: TakenFigure[] = [];
  const take = (element: Id, parameter: TakenFigure["parameter"], values: readonly number[]) => {
    const value = spread(values);
    if (value && model.elements.has(element))
      figures.push({
        element,
        parameter,
        value: rounded(value),
        observations: values.length,
        quantiles: quantilesOf(values, value),
      });
  };
  const start = flowNodesIn(model, process).find(({ type }) => type === "startEvent");
  if (start) take(start.id, "interval", measured.intervals);
  for (const { step, working, waiting } of measured.steps) {
    const type = model.elements.get(step)?.type;
    // Nobody works while something is awaited: what takes time there is the waiting.
    if (type === "receiveTask") take(step, "wait", added(waiting, working));
    else if (isActivity(type) && working.length > 0) take(step, "processing", working);
  }
  for (const { flow, share, times } of measured.ways)
    figures.push({
      element: flow,
      parameter: "probability",
      value: constant(Math.round(share * 1_000) / 1_000),
      observations: times,
      quantiles: [],
    });
  return figures;
}

/** Measured quantiles beside those of a distribution (M. Wilk, R. Gnanadesikan, "Probability plotting methods", 1968). */
function quantilesOf(values: readonly number[], said: Distribution): [number, number][] {
  const sorted = Float64Array.from(values).sort();
  const most = (sorted.at(-1) ?? 0) * 4 + 1;
  return Array.from({ length: 19 }, (_, at) => {
    const share = (at + 1) / 20;
    let [low, high] = [0, most];
    for (let round = 0; round < 60; round++) {
      const middle = (low + high) / 2;
      if (shareBelow(said, middle) < share) low = middle;
      else high = middle;
    }
    return [quantileOf(sorted, share), high];
  });
}

/** Where both are told for each, their sums; else what there is. */
const added = (waiting: readonly number[], working: readonly number[]): readonly number[] =>
  waiting.length === working.length ? waiting.map((time, at) => time + (working[at] as number)) : waiting;

/** Times to a tenth of a second: more is not known of any. */
function rounded(value: Distribution): Distribution {
  const tenth = (number: unknown) => (typeof number === "number" ? Math.round(number * 10) / 10 : number);
  if (value.kind === "gamma" || value.kind === "weibull") return { ...value, scale: tenth(value.scale) as number };
  if ("points" in value) return value;
  return Object.fromEntries(Object.entries(value).map(([name, own]) => [name, tenth(own)])) as Distribution;
}

/** A new scenario of a model, filled with what a log says. */
export function scenarioFrom(
  model: Model,
  figures: readonly TakenFigure[],
  measured: MeasuredLog,
  { id, name }: { readonly id: Id; readonly name: string },
): Command[] {
  const begins = measured.first === undefined ? undefined : new Date(measured.first).toISOString().slice(0, 10);
  const [base] = scenariosOf(model);
  return [
    { type: "addScenario", id, name, ...(base && { inherits: base.id }) },
    {
      type: "setScenario",
      id,
      words: { name, ...(begins !== undefined && { start: `${begins}T00:00:00` }) },
    },
    ...figures.map(
      ({ element, parameter, value }): Command => ({ type: "setAssumption", scenario: id, element, parameter, value }),
    ),
    ...rolesFrom(model, measured, id, begins),
  ];
}

/** How many people a role has, and when they work, for the roles that the model has by that name. */
function rolesFrom(model: Model, { people, hours }: MeasuredLog, scenario: Id, begins: string | undefined): Command[] {
  return elementsOfType(model, "resource").flatMap((resource): Command[] => {
    const isOwn = ({ role }: { readonly role: string }) => foldedName(role) === foldedName(resource.name ?? "");
    const [count, own] = [people.find(isOwn)?.count, hours.find(isOwn)];
    const calendar = `hours-${resource.id}`.slice(0, 200);
    return [
      ...(count === undefined
        ? []
        : [
            {
              type: "setAssumption" as const,
              scenario,
              element: resource.id,
              parameter: "quantity" as const,
              value: constant(count),
            },
          ]),
      ...(own === undefined || begins === undefined
        ? []
        : [
            {
              type: "setCalendar" as const,
              scenario,
              id: calendar,
              name: own.role,
              text: weekText(own.days, own.from, own.to, begins),
            },
            {
              type: "setAssumption" as const,
              scenario,
              element: resource.id,
              parameter: "availability" as const,
              value: calendar,
            },
          ]),
    ];
  });
}
