import type { Element, Id } from "../model";
import { type Compiled, compiledScope, insideOf } from "../tokens";
import { add, solved } from "./equations";
import { after, always, cutAt, fitted, folded, type Law, lastOf, lastOfSome, nothing, repeated, rounds } from "./law";
import type { NodePlan, Plan } from "./plan";
import { deadlineOf, raceOf, shareOf, timeOnce } from "./traffic";

/** A way on from a node: how often it is gone, how long the node took then, and where to; nowhere where that was the end. */
interface Way {
  /** Where the node chooses: the flow, or the event at its edge. */
  readonly by: Id | undefined;
  readonly to: number;
  readonly share: number;
  readonly law: Law;
}

/** What cannot be worked out by the structure of a scope. */
class NoBlocks extends Error {}

/**
 * How long a scope takes where nobody is waited for and everybody works at all hours: its law, from the structure of the model. Choices
 * and rework by the equations of an absorbing Markov chain, exact in mean and variance (J. G. Kemeny, J. L. Snell, "Finite Markov
 * Chains", 1960, chapter III, from memory, with rewards of any spread); what goes on side by side, from a split to the join of all its
 * ways, by the product of the shares that are over. Undefined where ways are not joined like that, or begin beside a step.
 * O(nodes³) for the equations; for each block O(stretches² × its steps).
 */
export function durationOf(plan: Plan, scope: Compiled, start?: Id): Law | undefined {
  try {
    return inside(plan, scope, start, 0);
  } catch (error) {
    if (error instanceof NoBlocks) return undefined;
    throw error;
  }
}

function inside(plan: Plan, scope: Compiled, start: Id | undefined, depth: number): Law {
  if (depth > 20 || scope.isAdHoc) throw new NoBlocks();
  const starts = firstsOf(scope, start);
  if (starts.length === 0) return nothing;
  const region = new Region(plan, scope, depth);
  // Several tokens at the beginning are ways side by side that end apart.
  return lastOf(starts.map((first) => region.lawFrom(first, undefined)));
}

/** The nodes at which a case begins. */
function firstsOf(scope: Compiled, start: Id | undefined): readonly number[] {
  const { net } = scope;
  const begins = start === undefined ? 0 : net.entries.findIndex(([flow]) => idAt(scope, flow) === start);
  return (net.entries[Math.max(0, begins)] ?? []).map((flow) => net.flows[flow]?.to ?? -1);
}

const idAt = ({ net }: Compiled, flow: number | undefined): Id | undefined =>
  net.nodes[net.flows[flow ?? -1]?.to ?? -1]?.id;

/** A way a case can go: how often, how long on average, and what is chosen on it. */
export interface Path {
  readonly share: number;
  readonly mean: number;
  readonly choices: readonly { readonly at: Id; readonly way: Id }[];
}
/** So many beginnings of paths are looked at. */
const mostLooked = 4_000;

/** The likeliest paths of a process, and the steps on which the time of the likeliest hangs; none where the structure does not tell. */
export function pathsOf(
  plan: Plan,
  scope: Compiled,
  start: Id | undefined,
  most: number,
): { readonly paths: readonly Path[]; readonly critical: readonly Id[] } {
  const first = firstsOf(scope, start);
  if (first.length !== 1 || first[0] === undefined) return { paths: [], critical: [] };
  try {
    const region = new Region(plan, scope, 0);
    return { paths: region.paths(first[0], most), critical: region.critical(first[0], undefined) };
  } catch (error) {
    if (error instanceof NoBlocks) return { paths: [], critical: [] };
    throw error;
  }
}

class Region {
  readonly nodes: readonly NodePlan[];
  readonly shares: Float64Array;
  readonly #ways = new Map<number, readonly Way[]>();
  /** By split: the ways that go on side by side behind it. */
  readonly #blocks = new Map<
    number,
    readonly { readonly first: number; readonly region: Region; readonly join?: number | undefined }[]
  >();

  constructor(
    readonly plan: Plan,
    readonly scope: Compiled,
    readonly depth: number,
  ) {
    const { nodes, shares } = plan.of(scope);
    this.nodes = nodes;
    this.shares = shares;
  }

  /**
   * The likeliest ways a case can go, by what is chosen on them; what goes on side by side counts as one step of each.
   * O(most × steps × log) and bounded, since rework makes endlessly many.
   */
  paths(first: number, most: number): Path[] {
    const found: Path[] = [];
    const open: { readonly node: number; readonly path: Path }[] = [
      { node: first, path: { share: 1, mean: 0, choices: [] } },
    ];
    for (let looked = 0; looked < mostLooked && found.length < most && open.length > 0; looked++) {
      let best = 0;
      for (const [at, { path }] of open.entries())
        if (path.share > (open[best] as (typeof open)[number]).path.share) best = at;
      const [{ node, path }] = open.splice(best, 1) as [(typeof open)[number]];
      if (node < 0) {
        found.push(path);
        continue;
      }
      const ways = this.#waysOf(node, undefined);
      for (const { by, to, share, law } of ways)
        open.push({
          node: to,
          path: {
            share: path.share * share,
            mean: path.mean + law.mean,
            choices:
              ways.length > 1 && by !== undefined
                ? [...path.choices, { at: this.scope.net.nodes[node]?.id ?? "", way: by }]
                : path.choices,
          },
        });
    }
    return found;
  }

  /** The steps on which the time of the likeliest case hangs: of what goes on side by side, those of the longest way on average. */
  critical(first: number, exit: number | undefined): Id[] {
    const steps: Id[] = [];
    const seen = new Set<number>();
    for (let node = first; node >= 0 && node !== exit && !seen.has(node); ) {
      seen.add(node);
      steps.push(this.scope.net.nodes[node]?.id ?? "");
      const [likeliest] = [...this.#waysOf(node, exit)].sort((a, b) => b.share - a.share);
      const block = this.#blocks.get(node) ?? [];
      const longest = [...block].sort(
        (a, b) => b.region.lawFrom(b.first, b.join).mean - a.region.lawFrom(a.first, a.join).mean,
      )[0];
      if (longest) steps.push(...longest.region.critical(longest.first, longest.join));
      node = likeliest?.to ?? -1;
    }
    return steps;
  }

  /** How long it takes from a node to another, or to the end. */
  lawFrom(first: number, exit: number | undefined): Law {
    if (first === exit) return nothing;
    const order = [first];
    for (const node of order)
      for (const { to } of this.#waysOf(node, exit)) if (to >= 0 && to !== exit && !order.includes(to)) order.push(to);
    const at = new Map(order.map((node, index) => [node, index]));
    const [mean, square] = this.#moments(order, at, exit);
    const variance = Math.max(0, square - mean * mean);
    const sorted = this.#sorted(order, exit);
    if (!sorted) return fitted(mean, variance);
    return { mean, variance, mass: (step, count) => this.#mass(sorted, exit, step, count) };
  }

  /** E[T] and E[T²] from the first node on: Tᵢ = X + Tⱼ along each way. */
  #moments(order: readonly number[], at: ReadonlyMap<number, number>, exit: number | undefined): [number, number] {
    const size = order.length;
    const matrix = () =>
      order.map((_, row) => Float64Array.from({ length: size + 1 }, (_, one) => (one === row ? 1 : 0)));
    const each = (visit: (row: number, way: Way, to: number | undefined) => void) => {
      for (const [row, node] of order.entries())
        for (const way of this.#waysOf(node, exit)) visit(row, way, at.get(way.to));
    };
    const first = matrix();
    each((row, { share, law }, to) => {
      if (to !== undefined) add(first, row, to, -share);
      add(first, row, size, share * law.mean);
    });
    const means = solved(first);
    if (!means) throw new NoBlocks();
    const second = matrix();
    each((row, { share, law }, to) => {
      if (to !== undefined) add(second, row, to, -share);
      const onwards = to === undefined ? 0 : (means[to] as number);
      add(second, row, size, share * (law.variance + law.mean ** 2 + 2 * law.mean * onwards));
    });
    const squares = solved(second);
    if (!squares) throw new NoBlocks();
    return [means[0] as number, squares[0] as number];
  }

  /** The nodes so that each comes after all that lead to it; undefined where ways lead back. */
  #sorted(order: readonly number[], exit: number | undefined): readonly number[] | undefined {
    const left = new Map(order.map((node) => [node, 0]));
    for (const node of order)
      for (const { to } of this.#waysOf(node, exit)) if (left.has(to)) left.set(to, (left.get(to) as number) + 1);
    const done: number[] = [];
    const ready = order.filter((node) => left.get(node) === 0);
    for (const node of ready) {
      done.push(node);
      for (const { to } of this.#waysOf(node, exit)) {
        const more = left.get(to);
        if (more === undefined) continue;
        left.set(to, more - 1);
        if (more === 1) ready.push(to);
      }
    }
    return done.length === order.length ? done : undefined;
  }

  #mass(sorted: readonly number[], exit: number | undefined, step: number, count: number): Float64Array {
    const begins = new Map<number, Float64Array>();
    const start = new Float64Array(count);
    start[0] = 1;
    begins.set(sorted[0] as number, start);
    const over = new Float64Array(count);
    for (const node of sorted) {
      const from = begins.get(node);
      if (!from) continue;
      for (const { to, share, law } of this.#waysOf(node, exit)) {
        const then = law === nothing ? from : folded(from, law.mass(step, count));
        const target = to >= 0 && to !== exit ? (begins.get(to) ?? new Float64Array(count)) : over;
        if (target !== over) begins.set(to, target);
        for (let at = 0; at < count; at++) target[at] = (target[at] as number) + share * (then[at] as number);
      }
    }
    return over;
  }

  #waysOf(node: number, exit: number | undefined): readonly Way[] {
    const known = this.#ways.get(node);
    if (known) return known;
    const found = this.#workedOut(node, exit).filter(({ share }) => share > 0);
    this.#ways.set(node, found);
    return found;
  }

  #workedOut(node: number, exit: number | undefined): readonly Way[] {
    const { net, edges } = this.scope;
    const one = net.nodes[node];
    const of = this.nodes[node] as NodePlan;
    if (!one || one.kind === "clear") throw new NoBlocks();
    const law = this.#lawAt(node);
    if (of.course === "race") {
      const race = raceOf(this.scope, this.nodes, this.shares, node);
      return one.outs.map((flow) => {
        const { chance: share, law: first } = race.get(flow) ?? { chance: 0, law: nothing };
        return { by: net.flows[flow]?.id, to: net.flows[flow]?.to ?? -1, share, law: first };
      });
    }
    // What hangs at the edge ends the step, or begins something beside it.
    const atEdge = (edges[node] as readonly number[]).filter((edge) => {
      const plan = this.nodes[edge];
      const comes = plan?.timer !== undefined || plan?.interval !== undefined || (plan?.chance ?? 0) > 0;
      if (comes && !net.nodes[edge]?.interrupts) throw new NoBlocks();
      return comes;
    });
    const ways: Way[] = [];
    let [goesOn, rest] = [1, law];
    const deadline = deadlineOf(this.scope, this.nodes, node);
    for (const edge of atEdge) {
      const plan = this.nodes[edge] as NodePlan;
      if (plan.timer?.kind === "after") {
        if (plan.timer.seconds !== deadline || rest !== law) continue;
        const { longer, within } = cutAt(law, deadline);
        ways.push({ by: net.nodes[edge]?.id, to: edge, share: longer, law: always(deadline) });
        [goesOn, rest] = [goesOn * (1 - longer), within];
      } else if (plan.chance !== undefined) {
        ways.push({ by: net.nodes[edge]?.id, to: edge, share: goesOn * plan.chance, law: rest });
        goesOn *= 1 - plan.chance;
      } else throw new NoBlocks();
    }
    if (one.outs.length === 0) return [...ways, { by: undefined, to: -1, share: goesOn, law: rest }];
    const isSplit = one.outs.length > 1 && one.kind !== "exclusive";
    if (!isSplit)
      return [
        ...ways,
        ...one.outs.map((flow) => {
          const share = one.kind === "exclusive" ? shareOf(this.scope, this.nodes, this.shares, node, flow) : goesOn;
          // Its own share of the edge is in it already where the step itself chooses.
          const by = one.kind === "exclusive" ? net.flows[flow]?.id : undefined;
          return { by, to: net.flows[flow]?.to ?? -1, share, law: rest };
        }),
      ];
    if (one.conditional.length > 0 && one.kind !== "inclusive") throw new NoBlocks();
    const { block, join } = this.#block(node, exit);
    return [...ways, { by: undefined, to: join, share: goesOn, law: after(rest, block) }];
  }

  /** From a split to the join of all its ways; to the end where they are never joined. */
  #block(split: number, exit: number | undefined): { readonly block: Law; readonly join: number } {
    const { net } = this.scope;
    const outs = net.nodes[split]?.outs ?? [];
    const firsts = outs.map((flow) => net.flows[flow]?.to ?? -1);
    const join = this.#joinOf(firsts, exit);
    const regions = firsts.map((first) => ({ first, region: new Region(this.plan, this.scope, this.depth), join }));
    this.#blocks.set(split, regions);
    const laws = regions.map(({ first, region }) => region.lawFrom(first, join));
    const kind = net.nodes[split]?.kind;
    if (kind !== "inclusive" && kind !== "complex") return { block: lastOf(laws), join: join ?? -1 };
    const chances = outs.map((flow) =>
      Number.isNaN(this.shares[flow] as number) ? 0.5 : (this.shares[flow] as number),
    );
    const fallback = chances.indexOf(0);
    const some = laws.map((law, at) => ({ law, chance: chances[at] as number })).filter(({ chance }) => chance > 0);
    const block = lastOfSome(
      some.map(({ law }) => law),
      some.map(({ chance }) => chance),
      fallback >= 0 ? laws[fallback] : undefined,
    );
    return { block, join: join ?? -1 };
  }

  /** The nearest join that all ways lead to, no two of them meeting before; undefined where they end apart. */
  #joinOf(firsts: readonly number[], exit: number | undefined): number | undefined {
    const { net } = this.scope;
    const reach = (first: number, until: number | undefined): number[] => {
      const seen = first === until ? [] : [first];
      for (const node of seen) {
        const edges = this.scope.edges[node] as readonly number[];
        const next = [...(net.nodes[node]?.outs ?? []).map((flow) => net.flows[flow]?.to ?? -1), ...edges];
        for (const to of next) if (to >= 0 && to !== until && !seen.includes(to)) seen.push(to);
      }
      return seen;
    };
    const apart = (until: number | undefined): boolean => {
      const seen = new Set<number>();
      for (const first of firsts)
        for (const node of reach(first, until)) {
          if (seen.has(node)) return false;
          seen.add(node);
        }
      // Nothing else leads into the join, and nothing of the block out of it but through the join.
      const ins = until === undefined ? [] : (net.nodes[until]?.ins ?? []);
      const from = ins.map((flow) => net.flows[flow]?.from ?? -1);
      if (until !== undefined && exit !== undefined && seen.has(exit)) return false;
      return until === undefined || from.every((node) => seen.has(node) || firsts.includes(until));
    };
    const all = firsts.map((first) => reach(first, undefined));
    const joins = (all[0] ?? []).filter((node) => {
      const { kind, ins } = net.nodes[node] ?? { kind: "each", ins: [] };
      const isJoin = (kind === "parallel" || kind === "inclusive" || kind === "complex") && ins.length > 1;
      return isJoin && all.every((nodes) => nodes.includes(node));
    });
    const join = joins.find(apart);
    if (join === undefined && !apart(undefined)) throw new NoBlocks();
    return join;
  }

  /** How long a node takes by itself, with all its rounds. */
  #lawAt(node: number): Law {
    const of = this.nodes[node] as NodePlan;
    if (of.isHeard || of.timer?.kind === "at" || of.timer?.kind === "every") {
      if (of.course === "wait" || of.course === "race") throw new NoBlocks();
    }
    let once = timeOnce(of);
    if (of.course === "hold") {
      const element = this.scope.elements[node] as Element;
      const within = insideOf(this.plan.world, this.scope.model, element);
      if (!within) throw new NoBlocks();
      const compiled = compiledScope(this.plan.world, within.model, within.scope);
      once = inside(this.plan, compiled, undefined, this.depth + 1);
    }
    if (of.instances !== undefined)
      return of.atOnce
        ? lastOf(Array.from({ length: Math.min(of.instances, 200) }, () => once))
        : repeated(once, of.instances);
    return of.again === undefined ? once : of.again < 1 ? rounds(once, of.again) : never();
  }
}

function never(): never {
  throw new NoBlocks();
}
