import type { Model } from "../model";
import { inIdsOf } from "./sameIds";
import { type Request, type TakenOver, takeOver, withNeeded } from "./takeOver";

/** Something wrong with a model: the same key where it is the same thing. */
export interface Fault {
  readonly key: string;
  readonly message: string;
}

/** What taking some changes over would make wrong that is wrong on neither side, and what would have to come along for it not to be. */
export interface Outcome {
  readonly faults: readonly Fault[];
  /** Keys of changes; empty where no other change helps. */
  readonly along: readonly string[];
}

/** Above so many changes they are not tried one by one: all of them come along, which is the other side as it is. */
const mostTried = 60;

/**
 * Looks at what taking changes over comes to, before it is done: a split that comes without its join runs what follows twice, though
 * nothing the change names is missing. What would have to come along is the smallest set that is found by leaving changes out of all
 * of them one after another, so O(changes) take-overs and checks.
 * @param faultsOf what is wrong with a model, by the ids of the side that is changed
 */
export function outcomeOf(
  request: Request,
  keys: readonly string[],
  taken: Extract<TakenOver, { ok: true }>,
  faultsOf: (model: Model) => readonly Fault[],
): Outcome {
  const { from, to, pairs, into, groups } = request;
  const target = into === "from" ? from : to;
  const back = new Map([...pairs].map(([a, b]) => [b, a]));
  const other = into === "from" ? inIdsOf(from, to, pairs).model : inIdsOf(to, from, back).model;
  const known = new Set([...faultsOf(target), ...faultsOf(other)].map(({ key }) => key));
  const newFaults = (model: Model) => faultsOf(model).filter(({ key }) => !known.has(key));
  const faults = newFaults(taken.model);
  if (faults.length === 0) return { faults, along: [] };
  const isWhole = (some: readonly string[]): boolean => {
    const done = takeOver(request, withNeeded(request, some));
    return done.ok && newFaults(done.model).length === 0;
  };
  const rest = groups.map(({ key }) => key).filter((key) => !keys.includes(key));
  if (!isWhole([...keys, ...rest])) return { faults, along: [] };
  if (rest.length > mostTried) return { faults, along: rest };
  let along = rest;
  for (const key of rest) {
    const fewer = along.filter((one) => one !== key);
    if (isWhole([...keys, ...fewer])) along = fewer;
  }
  const needed = withNeeded(request, [...keys, ...along]).filter((key) => !keys.includes(key));
  return { faults, along: needed };
}
