import { type Distribution, type Given, shareBelow } from "../scenario";
import type { Compiled } from "../tokens";
import { after, always, cutAt, type Law, nothing, ofQuantity, races } from "./law";
import type { NodePlan } from "./plan";

/** The one distribution of what a step takes, with what is constant beside it; undefined where several are spread. */
export function spreadOf({
  delays,
  works,
  course,
}: NodePlan): { readonly spread: Distribution; readonly more: number } | undefined {
  const parts = [...(delays ?? []), ...(course === "work" ? works : [])].flatMap((given) =>
    given[0] ? [given[0].value] : [],
  );
  const spread = parts.filter(({ kind }) => kind !== "constant");
  if (spread.length > 1) return undefined;
  const more = parts.reduce((sum, one) => sum + (one.kind === "constant" ? one.value : 0), 0);
  return spread[0] ? { spread: spread[0], more } : { spread: { kind: "constant", value: more }, more: 0 };
}

/** How long several times take together. */
export function lawOf(times: readonly (readonly Given<Distribution>[])[]): Law {
  return times.reduce((sum, [first]) => (first ? after(sum, ofQuantity(first.value)) : sum), nothing);
}

/** How long a step takes once, or how long an event is waited for, nobody being waited for. */
export function timeOnce({ course, delays, works, timer }: NodePlan): Law {
  if (course !== "work" && course !== "wait") return nothing;
  const waits = delays ? lawOf(delays) : course === "wait" && timer?.kind === "after" ? always(timer.seconds) : nothing;
  return course === "work" ? after(waits, lawOf(works)) : waits;
}

/** The mean of what is left of a step's time up to a deadline. */
export function expectedUpTo(of: NodePlan, cut: number): number {
  const one = spreadOf(of);
  const isKnown = one && !Number.isNaN(shareBelow(one.spread, 0));
  if (!isKnown) {
    const { longer, within } = cutAt(timeOnce(of), cut);
    return longer * cut + (1 - longer) * within.mean;
  }
  const points = 2_000;
  let sum = 0;
  for (let at = 0; at < points; at++) sum += 1 - shareBelow(one.spread, ((at + 0.5) * cut) / points - one.more);
  return (sum * cut) / points;
}

/** The shortest deadline at the edge of a step that ends it. */
export function deadlineOf(scope: Compiled, nodes: readonly NodePlan[], node: number): number | undefined {
  const times = (scope.edges[node] as readonly number[]).flatMap((edge) => {
    const timer = nodes[edge]?.timer;
    return timer?.kind === "after" && scope.net.nodes[edge]?.interrupts ? [timer.seconds] : [];
  });
  return times.length > 0 ? Math.min(...times) : undefined;
}

/** How often an event at an edge goes off for each time its host is come to. */
export function goesOff(host: NodePlan | undefined, edge: NodePlan | undefined, doubts?: Set<string>): number {
  if (!host || !edge) return 0;
  if (edge.chance !== undefined) return edge.chance;
  if (edge.timer?.kind !== "after") {
    if (edge.interval || edge.timer) doubts?.add("an event at an edge comes at times of its own");
    return 0;
  }
  const one = spreadOf(host);
  const share = one ? 1 - shareBelow(one.spread, edge.timer.seconds - one.more) : Number.NaN;
  return Number.isNaN(share) ? cutAt(timeOnce(host), edge.timer.seconds).longer : share;
}

const raced = new WeakMap<NodePlan, ReadonlyMap<number, { readonly chance: number; readonly law: Law }>>();

/**
 * Of the events behind an event-based gateway, by the flow that leads to each, how often it is first and what it then took: by the
 * shares that are said, else by which comes first; where nothing is said of any, each as often.
 */
export function raceOf(scope: Compiled, nodes: readonly NodePlan[], shares: Float64Array, gateway: number) {
  const plan = nodes[gateway] as NodePlan;
  const known = raced.get(plan);
  if (known) return known;
  const outs = scope.net.nodes[gateway]?.outs ?? [];
  const laws = outs.map((flow) => {
    const of = nodes[scope.net.flows[flow]?.to ?? -1];
    const said = of ? [...(of.interval ? [of.interval] : []), ...of.waits, ...of.works] : [];
    if (said.length > 0) return lawOf(said);
    return of?.timer?.kind === "after" ? always(of.timer.seconds) : undefined;
  });
  const isByShare = outs.every((flow) => !Number.isNaN(shares[flow] as number));
  const timed = laws.filter((law) => law !== undefined);
  const won = isByShare || timed.length === 0 ? [] : races(timed);
  const found = new Map(
    outs.map((flow, at) => {
      const law = laws[at];
      if (isByShare) return [flow, { chance: shares[flow] as number, law: law ?? nothing }] as const;
      if (timed.length === 0) return [flow, { chance: 1 / outs.length, law: nothing }] as const;
      return [flow, (law && won[timed.indexOf(law)]) || { chance: 0, law: nothing }] as const;
    }),
  );
  raced.set(plan, found);
  return found;
}

/** The share of a node's visits that go along one of its ways. */
export function shareOf(
  scope: Compiled,
  nodes: readonly NodePlan[],
  shares: Float64Array,
  from: number,
  flow: number,
): number {
  const node = scope.net.nodes[from];
  if (!node) return 0;
  const own = shares[flow] as number;
  // What an event at the edge ends goes on along no way of its own.
  let goesOn = 1;
  for (const edge of scope.edges[from] as readonly number[]) {
    const plan = nodes[edge];
    if (!scope.net.nodes[edge]?.interrupts || !plan) continue;
    goesOn *= 1 - goesOff(nodes[from], plan);
  }
  if (nodes[from]?.course === "race") return raceOf(scope, nodes, shares, from).get(flow)?.chance ?? 0;
  if (node.kind === "exclusive") return (Number.isNaN(own) ? 1 / node.outs.length : own) * goesOn;
  if (node.kind === "inclusive" && node.outs.length > 1) {
    const all = node.outs.map((out) => (Number.isNaN(shares[out] as number) ? 0.5 : (shares[out] as number)));
    // Drawn again where none was: each share given that there is at least one.
    const none = all.reduce((product, share) => product * (1 - share), 1);
    const fallback = node.outs.find((out) => shares[out] === 0);
    if (fallback !== undefined && none > 0) return flow === fallback ? none : Number.isNaN(own) ? 0.5 : own;
    return (Number.isNaN(own) ? 0.5 : own) / (1 - none);
  }
  if (node.conditional.includes(flow)) return (Number.isNaN(own) ? 0.5 : own) * goesOn;
  return goesOn;
}

/** The split whose ways an inclusive join joins: the last node that all ways to it go through, where that is inclusive too. */
export function splitOf(scope: Compiled, join: number): number | undefined {
  const { net } = scope;
  const reachable = (without: number): boolean => {
    const seen = new Set<number>();
    const queue = net.entries.flat().map((flow) => net.flows[flow]?.to ?? -1);
    for (let at = 0; at < queue.length; at++) {
      const node = queue[at] as number;
      if (node < 0 || node === without || seen.has(node)) continue;
      if (node === join) return true;
      seen.add(node);
      for (const flow of net.nodes[node]?.outs ?? []) queue.push(net.flows[flow]?.to ?? -1);
      for (const edge of scope.edges[node] as readonly number[]) queue.push(edge);
    }
    return false;
  };
  // Back from the join: the nearest node without which it cannot be come to.
  const seen = new Set([join]);
  const queue = [join];
  for (let at = 0; at < queue.length; at++)
    for (const flow of net.nodes[queue[at] as number]?.ins ?? []) {
      const from = net.flows[flow]?.from ?? -1;
      if (from < 0 || seen.has(from)) continue;
      seen.add(from);
      queue.push(from);
      const node = net.nodes[from];
      if (node?.kind === "inclusive" && node.outs.length > 1 && !reachable(from)) return from;
    }
  return undefined;
}
