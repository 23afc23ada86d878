import type { Element, Id } from "../model";
import { type Distribution, type Given, momentsOf, type Scenario } from "../scenario";
import { type Compiled, compiledScope, insideOf, type World } from "../tokens";
import { isDecidedByData } from "./caseData";
import { durationOf, type Path, pathsOf } from "./duration";
import { add, solved } from "./equations";
import type { Law } from "./law";
import { type NodePlan, Plan, worldAssumed } from "./plan";
import { type Source, sourcesOf } from "./sources";
import { type StationFigures, spreadOfIntervals, stationsOf } from "./stations";
import { deadlineOf, expectedUpTo, goesOff, shareOf, splitOf } from "./traffic";

/**
 * What follows from a scenario without playing it: how often a case comes to each step, the work it makes and what that costs, and how
 * busy everybody is by it. From the linear equations of the visits: what leaves a step is what comes to it, by the shares of its ways.
 * Source of the method: traffic equations of open networks (J. R. Jackson, Operations Research 5, 1957); flow analysis of the textbooks.
 */
export interface Exact {
  /** By element: visits a case. */
  readonly visits: ReadonlyMap<Id, number>;
  /** Seconds of work, and money, a case. */
  readonly work: number;
  readonly cost: number;
  /** Seconds a case takes where nobody is waited for, and their variance; undefined where the structure does not tell. */
  readonly duration: number | undefined;
  readonly variance: number | undefined;
  /** By resource: the share of the hours it is there that the work fills; above 1 where more comes than can be done. */
  readonly loads: ReadonlyMap<Id, number>;
  /** By resource: load and waits by the formulas for stations. */
  readonly stations: readonly StationFigures[];
  /** The likeliest ways a case can go, the likeliest first, and the steps on which the time of that one hangs. */
  readonly paths: readonly Path[];
  readonly critical: readonly Id[];
  /** Where the equations do not tell, in words: what is said there is about right at best. */
  readonly doubts: readonly string[];
}

interface Sums {
  readonly visits: Map<Id, number>;
  readonly worked: Map<number, number>;
  work: number;
  cost: number;
  readonly doubts: Set<string>;
}

/** So many paths are told. */
const mostPaths = 8;

/** Seconds in a week, over which hours are counted. */
const week = 7 * 86_400;

/** O(nodes³) of the largest scope, for solving its equations; with some hundred nodes a few milliseconds. */
export function exactOf(world: World, scenario: Scenario): Exact | undefined {
  const plan = new Plan(worldAssumed(world, scenario), scenario, 0);
  const sources = sourcesOf(plan);
  const rates = sources.map((source) => rateOf(source, plan));
  const whole = rates.reduce((sum, rate) => sum + rate, 0);
  const all: Sums = {
    visits: new Map(),
    worked: new Map(),
    work: 0,
    cost: 0,
    doubts: new Set(),
  };
  const lasts: { readonly part: number; readonly law: Law | undefined }[] = [];
  for (const [at, source] of sources.entries()) {
    const part = whole > 0 ? (rates[at] as number) / whole : 1 / sources.length;
    if (part === 0) continue;
    const scope = compiledScope(plan.world, plan.world.model, source.process);
    if (!within(plan, scope, part, all, source.start, 0)) return undefined;
    lasts.push({ part, law: durationOf(plan, scope, source.start) });
  }
  const mixed = mixedOf(lasts);
  const loads = new Map<Id, number>();
  const openOf = (at: number) =>
    (plan.resources[at]?.shifts ?? []).reduce((sum, { count, hours }) => sum + count * hours.between(0, 4 * week), 0) /
    (4 * week);
  const likeliest = sources[rates.indexOf(Math.max(...rates))];
  const found = likeliest
    ? pathsOf(plan, compiledScope(plan.world, plan.world.model, likeliest.process), likeliest.start, mostPaths)
    : { paths: [], critical: [] };
  for (const [at, worked] of all.worked) {
    const one = plan.resources[at];
    if (!one) continue;
    const open = openOf(at);
    if (open > 0) loads.set(one.id, (worked * whole) / open);
  }
  return {
    visits: all.visits,
    work: all.work,
    cost: all.cost,
    duration: mixed?.mean,
    variance: mixed?.variance,
    loads,
    stations: stationsOf(plan, all.visits, whole, spreadOfIntervals(plan), openOf),
    paths: found.paths,
    critical: found.critical,
    doubts: [...all.doubts],
  };
}

/** Cases of several starts taken together; nothing where one of them is not known. */
function mixedOf(
  lasts: readonly { readonly part: number; readonly law: Law | undefined }[],
): { readonly mean: number; readonly variance: number } | undefined {
  let [mean, square] = [0, 0];
  for (const { part, law } of lasts) {
    if (!law) return undefined;
    mean += part * law.mean;
    square += part * (law.variance + law.mean ** 2);
  }
  return { mean, variance: Math.max(0, square - mean * mean) };
}

/** Cases a second from a start; 0 where nothing is said. */
function rateOf({ interval, timer }: Source, plan: Plan): number {
  if (timer) return timer.kind === "every" ? 1 / timer.seconds : 0;
  if (!interval) return 0;
  let rate = 0;
  for (const { value, during } of interval) {
    const { mean } = momentsOf(value);
    const share = during === undefined ? 1 : plan.calendars.of(during).between(0, 4 * week) / (4 * week);
    if (mean > 0) rate += share / mean;
  }
  return rate;
}

const meanOf = (times: readonly (readonly Given<Distribution>[])[]) =>
  times.reduce((sum, given) => sum + (given[0] ? momentsOf(given[0].value).mean : 0), 0);

/** Adds what a scope comes to when it is begun so many times a case. Gives whether it could be worked out. */
function within(plan: Plan, scope: Compiled, begun: number, all: Sums, start: Id | undefined, depth: number): boolean {
  if (depth > 20) return false;
  const { net } = scope;
  const { nodes, shares } = plan.of(scope);
  const size = net.nodes.length;
  // Visits of node i = what enters there + Σ over ways in of (visits of where it comes from × its share).
  const matrix = Array.from({ length: size }, () => new Float64Array(size + 1));
  const at =
    start === undefined
      ? 0
      : net.entries.findIndex(([flow]) => net.nodes[net.flows[flow as number]?.to ?? -1]?.id === start);
  const entries = scope.isAdHoc ? net.entries.flat() : (net.entries[Math.max(0, at)] ?? []);
  for (const flow of entries) add(matrix, net.flows[flow]?.to ?? -1, size, begun);
  for (let to = 0; to < size; to++) {
    const node = net.nodes[to];
    if (!node) continue;
    add(matrix, to, to, 1);
    const isJoin =
      (node.kind === "parallel" || node.kind === "inclusive" || node.kind === "complex") && node.ins.length > 1;
    if (node.kind === "inclusive" && isJoin) {
      const split = splitOf(scope, to);
      if (split !== undefined) {
        add(matrix, to, split, -1);
        continue;
      }
      all.doubts.add(`"${scope.elements[to]?.name || node.id}" joins ways that begin apart`);
    }
    for (const flow of node.ins) {
      const from = net.flows[flow]?.from ?? -1;
      if (from < 0) continue;
      const share = shareOf(scope, nodes, shares, from, flow) * (isJoin ? 1 / node.ins.length : 1);
      add(matrix, to, from, -share);
    }
    if (node.host !== undefined) add(matrix, to, node.host, -goesOff(nodes[node.host], nodes[to], all.doubts));
  }
  const visits = solved(matrix);
  if (!visits) return false;
  for (let node = 0; node < size; node++) {
    const of = nodes[node] as NodePlan;
    const count = visits[node] as number;
    if (!(count >= -1e-9) || !Number.isFinite(count)) return false;
    all.visits.set(of.id, (all.visits.get(of.id) ?? 0) + count);
    if (of.fixedCost?.[0]) all.cost += count * momentsOf(of.fixedCost[0].value).mean;
    if (!addTimes(plan, scope, node, of, count, all)) return false;
    const element = scope.elements[node] as Element;
    if (isDecidedByData(scope.model, element, plan.namesDrawn))
      all.doubts.add(`"${element.name || of.id}" is decided by data that is drawn`);
    const inside = insideOf(plan.world, scope.model, element);
    if (inside && of.course === "hold") {
      const times = roundsOf(of);
      if (
        !within(plan, compiledScope(plan.world, inside.model, inside.scope), count * times, all, undefined, depth + 1)
      )
        return false;
    }
    if (
      of.course === "edge" &&
      net.nodes[node]?.kind === "called" &&
      net.nodes[node]?.host === undefined &&
      count === 0 &&
      (of.timer || of.interval)
    )
      all.doubts.add(`"${scope.elements[node]?.name || of.id}" may begin at any time`);
  }
  return true;
}

const roundsOf = ({ instances, again }: NodePlan): number =>
  instances ?? (again === undefined ? 1 : again >= 1 ? Number.POSITIVE_INFINITY : 1 / (1 - again));

function addTimes(plan: Plan, scope: Compiled, node: number, of: NodePlan, count: number, all: Sums): boolean {
  if (of.course !== "work" && of.course !== "wait") return true;
  const rounds = roundsOf(of);
  if (!Number.isFinite(rounds)) return false;
  const [delay, work] = [
    of.delays ? meanOf(of.delays) : of.timer?.kind === "after" ? of.timer.seconds : 0,
    of.course === "work" ? meanOf(of.works) : 0,
  ];
  const cut = deadlineOf(scope, plan.of(scope).nodes, node);
  const full = delay + work;
  // Up to a deadline: E[min(T, t)] = ∫ (1 − F) from 0 to t.
  const spent = cut === undefined ? full : Math.min(full, expectedUpTo(of, cut));
  // The waiting comes first: of what is spent up to the deadline, work is what goes beyond it.
  const waited = cut === undefined ? delay : Math.min(delay, expectedUpTo({ ...of, works: [] }, cut));
  const worked = of.course === "work" ? Math.max(0, spent - waited) : 0;
  if (of.before && plan.scenario.sites.links.length > 0) all.doubts.add("ways between sites are left out");
  if (of.isHeard) all.doubts.add(`"${scope.elements[node]?.name || of.id}" waits for a message of the model`);
  if (of.course !== "work") return true;
  all.work += count * rounds * worked;
  all.cost += count * rounds * worked * of.rate;
  for (const { oneOf, count: people } of of.needs ?? []) {
    const resource = oneOf[0];
    if (resource === undefined) continue;
    all.worked.set(resource, (all.worked.get(resource) ?? 0) + count * rounds * worked * people);
    const { rate = 0, fixed = 0 } = plan.resources[resource] ?? {};
    all.cost += count * rounds * people * (worked * rate + fixed);
    if (oneOf.length > 1) all.doubts.add(`"${scope.elements[node]?.name || of.id}" is done by whoever is free`);
  }
  return true;
}
