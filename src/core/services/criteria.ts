import { type Element, type Id, type Model, systemsOf, type Weight } from "../model";
import { momentsOf, type Scenario } from "../scenario";
import type { KeptCandidate } from "./kept";

/** Criteria that are worked out from the model and a scenario. */
export const workedOut = ["steps", "volume", "byHand", "systems", "rework", "changes"] as const;

/** A process that is a month old at least says something of how often it changes in a year. */
const leastDays = 30;
const daysAYear = 365.25;
/** Changes a year, from days on which something was changed; undefined while a process is too young to tell. */
export const changesAYear = (days: number, over: number): number | undefined =>
  over < leastDays ? undefined : (days * daysAYear) / over;

/** What counts where nobody said anything: how much work by hand it would spare, and how often, most of all. */
export const usualWeights: readonly Weight[] = [
  { criterion: "steps", weight: 1, isLessBetter: false },
  { criterion: "volume", weight: 2, isLessBetter: false },
  { criterion: "byHand", weight: 3, isLessBetter: false },
  { criterion: "systems", weight: 1, isLessBetter: true },
  { criterion: "rework", weight: 1, isLessBetter: false },
  { criterion: "changes", weight: 1, isLessBetter: true },
];

/** How often a case comes to each step, as a forecast tells; and what is said of how long it takes. */
export interface Volumes {
  readonly visits: ReadonlyMap<Id, number>;
  readonly scenario: Scenario;
}

/**
 * The figures of a candidate: steps it serves; visits a case; minutes of work by people a case, which it could spare; systems its steps
 * use; the share of visits that are a step done again; changes a year, where somebody counted them. Without a scenario those that hang on one are unknown. What somebody said by hand
 * goes before what is worked out. O(operations).
 */
export function figuresOf(
  model: Model,
  candidate: KeptCandidate,
  volumes: Volumes | undefined,
  changes?: number,
): { readonly [criterion: string]: number | undefined } {
  const steps = candidate.operations.flatMap(({ from }) => {
    const element = from === undefined ? undefined : model.elements.get(from);
    return element ? [element] : [];
  });
  const systems = new Set(steps.flatMap((step) => systemsOf(step).map(({ entry }) => entry)));
  const worked = {
    steps: steps.length,
    systems: systems.size,
    ...(volumes && byVolume(steps, volumes)),
    ...(changes !== undefined && { changes }),
  };
  return { ...worked, ...candidate.figures };
}

function byVolume(steps: readonly Element[], { visits, scenario }: Volumes) {
  let [volume, byHand, again] = [0, 0, 0];
  for (const { id, type } of steps) {
    const often = visits.get(id) ?? 0;
    volume += often;
    again += Math.max(0, often - 1);
    // What a system does spares nobody anything.
    if (/^(?:service|script|businessRule|send|receive)Task$/.test(type)) continue;
    const times = scenario.of.get(id)?.times ?? {};
    for (const kind of ["setUp", "processing", "validation", "rework"] as const) {
      const [said] = times[kind] ?? [];
      if (said) byHand += (often * momentsOf(said.value).mean) / 60;
    }
  }
  return { volume, byHand, rework: volume > 0 ? again / volume : 0 };
}
