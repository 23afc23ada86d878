import type { Id, Model } from "../model";
import { constant, type Distribution, momentsOf } from "./distributions";
import type { Assumption, Scenario } from "./scenario";

/** One input of a scenario that can be turned: of which element, what. */
export interface Input {
  readonly element: Id;
  readonly what: "quantity" | "interval" | "processing" | "probability" | "unitCost" | "fixedCost";
}

const kinds: { readonly [word: string]: Input["what"] } = {
  quantity: "quantity",
  interval: "interval",
  time: "processing",
  processing: "processing",
  probability: "probability",
  share: "probability",
  rate: "unitCost",
  cost: "fixedCost",
};
export const inputWords = Object.keys(kinds);

/** "r.quantity", "s.interval": an element's id or name, and what of it. Undefined where it is none. */
export function readInput(model: Model, scenario: Scenario, text: string): Input | undefined {
  const cut = text.lastIndexOf(".");
  const what = kinds[text.slice(cut + 1)];
  const name = text.slice(0, cut);
  if (cut <= 0 || !what) return undefined;
  if (model.elements.has(name) || scenario.of.has(name)) return { element: name, what };
  const named = [...model.elements].filter((element) => element.name === name);
  return named.length === 1 && named[0] ? { element: named[0].id, what } : undefined;
}

/**
 * A scenario with one input set. A time that is spread keeps its form and is stretched to the new mean.
 * @param value seconds for times, money for an hour for rates, 0 to 1 for shares
 */
export function withInput(scenario: Scenario, { element, what }: Input, value: number): Scenario {
  const before: Assumption = scenario.of.get(element) ?? { times: {} };
  return { ...scenario, of: new Map(scenario.of).set(element, changed(before, what, value)) };
}

function changed(before: Assumption, what: Input["what"], value: number): Assumption {
  switch (what) {
    case "quantity":
      return { ...before, quantity: (before.quantity ?? [{ value }]).map((given) => ({ ...given, value })) };
    case "interval":
      return {
        ...before,
        interval: (before.interval ?? [{ value: constant(value) }]).map((given) => ({
          ...given,
          value: withMean(given.value, value),
        })),
      };
    case "processing":
      return {
        ...before,
        times: {
          ...before.times,
          processing: (before.times.processing ?? [{ value: constant(value) }]).map((given) => ({
            ...given,
            value: withMean(given.value, value),
          })),
        },
      };
    case "probability":
      return { ...before, probability: value };
    case "unitCost":
      return { ...before, unitCost: value / 3600 };
    case "fixedCost":
      return { ...before, fixedCost: [{ value: constant(value) }] };
  }
}

/** What an input is now, in the terms of `withInput`; undefined where nothing is said of it. */
export function inputOf(scenario: Scenario, { element, what }: Input): number | undefined {
  const of = scenario.of.get(element);
  const mean = (one: Distribution | undefined) => one && momentsOf(one).mean;
  switch (what) {
    case "quantity":
      return of?.quantity?.[0]?.value;
    case "interval":
      return mean(of?.interval?.[0]?.value);
    case "processing":
      return mean(of?.times.processing?.[0]?.value);
    case "probability":
      return of?.probability;
    case "unitCost":
      return of?.unitCost === undefined ? undefined : of.unitCost * 3600;
    case "fixedCost":
      return mean(of?.fixedCost?.[0]?.value);
  }
}

/** A distribution of the same form with another mean. */
export function withMean(one: Distribution, mean: number): Distribution {
  const now = momentsOf(one).mean;
  if (now === 0) return constant(mean);
  return stretched(one, mean / now);
}

/** A distribution of which every value is so many times as large. */
export function stretched(one: Distribution, by: number): Distribution {
  switch (one.kind) {
    case "constant":
      return { ...one, value: one.value * by };
    case "uniform":
      return { ...one, min: one.min * by, max: one.max * by };
    case "triangular":
      return { ...one, min: one.min * by, mode: one.mode * by, max: one.max * by };
    case "normal":
      return {
        ...one,
        mean: one.mean * by,
        deviation: one.deviation * by,
        min: one.min * by,
        ...(one.max !== undefined && { max: one.max * by }),
      };
    case "logNormal":
      return { ...one, mean: one.mean * by, deviation: one.deviation * by };
    case "exponential":
    case "erlang":
      return { ...one, mean: one.mean * by };
    case "gamma":
    case "weibull":
      return { ...one, scale: one.scale * by };
    case "beta":
      return { ...one, min: one.min * by, max: one.max * by };
    case "poisson":
    case "binomial":
      return { ...one, unit: one.unit * by };
    case "discrete":
    case "continuous":
      return { ...one, points: one.points.map(({ share, value }) => ({ share, value: value * by })) };
  }
}
