import type { Id } from "../model";
import { momentsOf } from "../scenario";
import type { Plan } from "./plan";
import { approximateWait, loadOf } from "./queueing";
import { sourcesOf } from "./sources";
import { lawOf } from "./traffic";

/** A resource by the formulas for a station with one queue: what it would be waited for, were its work not spread over the week. */
export interface StationFigures {
  readonly id: Id;
  /** The share of the hours it is there that is worked; above 1 where more comes than can be done. */
  readonly load: number;
  /** Each time, in hours at which it is there: seconds. Infinity where more comes than can be done. */
  readonly wait: number;
  /** How often a case asks for it. */
  readonly requests: number;
}

/**
 * Waits by the approximation of Allen and Cunneen; exact where what comes and what is worked are both exponential and one step asks for
 * one resource. What comes is taken to be as spread as the arrivals of cases; steps of one resource are one kind of work.
 * @param visits of each element, a case
 * @param rate cases a second
 * @param openShare by resource: how many of it are there, on average over the week
 */
export function stationsOf(
  plan: Plan,
  visits: ReadonlyMap<Id, number>,
  rate: number,
  spreadOfArrivals: number,
  openShare: (resource: number) => number,
): StationFigures[] {
  interface Work {
    times: number;
    mean: number;
    square: number;
  }
  const work = new Map<number, Work>();
  for (const { works, needs, id } of plan.planned()) {
    const count = visits.get(id) ?? 0;
    if (count <= 0) continue;
    const { mean, variance } = lawOf(works);
    for (const { oneOf, count: people } of needs ?? []) {
      const [resource] = oneOf;
      if (resource === undefined) continue;
      const known = work.get(resource) ?? { times: 0, mean: 0, square: 0 };
      known.times += count * people;
      known.mean += count * people * mean;
      known.square += count * people * (variance + mean ** 2);
      work.set(resource, known);
    }
  }
  return [...work].flatMap(([at, { times, mean, square }]) => {
    const resource = plan.resources[at];
    const there = openShare(at);
    if (!resource || there <= 0 || rate <= 0) return [];
    const each = mean / times;
    // Of the hours there are: what comes at night waits for the morning, and is asked for then.
    const count = Math.max(1, Math.round(resource.most));
    const station = { meanInterval: there / count / (rate * times), meanWork: each, count };
    const spread = each > 0 ? Math.max(0, square / times / each ** 2 - 1) : 0;
    const load = loadOf(station);
    return [{ id: resource.id, load, wait: approximateWait(station, spreadOfArrivals, spread), requests: times }];
  });
}

/** The squared coefficient of variation of how cases come; 1 where that is not known. */
export function spreadOfIntervals(plan: Plan): number {
  const [source] = sourcesOf(plan);
  const given = source?.interval?.[0]?.value;
  if (!given) return 1;
  const { mean, variance } = momentsOf(given);
  return mean > 0 ? variance / mean ** 2 : 1;
}
