import { type Element, flowNodesIn, type Id, type Model, nameOf, outgoingOf } from "../model";

/** A way on from a node: where to, and what it is called. */
export interface Way {
  readonly to: number;
  readonly guard: string;
  /** It begins at the edge of the node: what happens while it is under way. */
  readonly edge?: { readonly isInterrupting: boolean };
}

/** The nodes of a process or sub-process and their ways, with where ways that part come together again. */
export class Ways {
  readonly nodes: readonly Element[];
  readonly beginnings: readonly number[];
  readonly #at = new Map<Id, number>();
  readonly #out: Way[][];
  /** The first node that every way from a node to an end goes through; -1 where there is none. */
  readonly #meets: Int32Array;

  /** O(nodes × flows) at worst, for where ways come together. */
  constructor(
    readonly model: Model,
    scope: Id,
  ) {
    this.nodes = flowNodesIn(model, scope).filter((node) => node.triggeredByEvent !== true);
    for (const [at, node] of this.nodes.entries()) this.#at.set(node.id, at);
    this.#out = this.nodes.map((node) =>
      outgoingOf(model, node.id).flatMap((flow): Way[] => {
        const to = this.#at.get(String(flow.targetRef ?? ""));
        return to === undefined ? [] : [{ to, guard: nameOf(model, flow.id) }];
      }),
    );
    for (const [at, node] of this.nodes.entries()) {
      const host = this.#at.get(String(node.attachedToRef ?? ""));
      if (host === undefined) continue;
      const edge = { isInterrupting: node.cancelActivity !== false };
      this.#out[host]?.push({ to: at, guard: nameOf(model, node.id), edge });
    }
    const entered = new Set(this.#out.flat().map(({ to }) => to));
    const starts = [...this.nodes.keys()].filter((at) => !entered.has(at));
    this.beginnings = starts.length > 0 || this.nodes.length === 0 ? starts : [0];
    this.#meets = this.#postDominators();
  }

  out(at: number): readonly Way[] {
    return this.#out[at] ?? [];
  }

  /** Where all ways from a node come together again. */
  meets(at: number): number | undefined {
    const found = this.#meets[at] ?? -1;
    return found < 0 ? undefined : found;
  }

  /** Whether a way leads from one node back to another without going through what is left out. */
  reaches(from: number, to: number, without: ReadonlySet<number> = new Set()): boolean {
    if (without.has(from)) return false;
    const seen = new Set([from]);
    const queue = [from];
    for (const at of queue) {
      if (at === to) return true;
      for (const way of this.out(at))
        if (!seen.has(way.to) && !without.has(way.to)) {
          seen.add(way.to);
          queue.push(way.to);
        }
    }
    return false;
  }

  /**
   * Immediate post-dominators, with one end behind all ends. Source of the method: K. D. Cooper, T. J. Harvey, K. Kennedy, "A Simple, Fast
   * Dominance Algorithm" (2001), on the flows turned round.
   */
  #postDominators(): Int32Array {
    const count = this.nodes.length;
    const last = count;
    const order: number[] = [];
    const seen = new Uint8Array(count);
    // Depth first along the flows gives an order in which what comes later stands earlier.
    for (let start = 0; start < count; start++) {
      if (seen[start]) continue;
      const stack: [at: number, next: number][] = [[start, 0]];
      seen[start] = 1;
      while (stack.length > 0) {
        const top = stack[stack.length - 1] as [number, number];
        const way = this.out(top[0])[top[1]++];
        if (!way) {
          order.push(top[0]);
          stack.pop();
        } else if (!seen[way.to]) {
          seen[way.to] = 1;
          stack.push([way.to, 0]);
        }
      }
    }
    const rank = new Int32Array(count + 1);
    for (const [at, node] of order.entries()) rank[node] = at;
    rank[last] = -1;
    const dominator = new Int32Array(count + 1).fill(-2);
    dominator[last] = last;
    const common = (one: number, other: number) => {
      let [a, b] = [one, other];
      while (a !== b) {
        while ((rank[a] as number) > (rank[b] as number)) a = dominator[a] as number;
        while ((rank[b] as number) > (rank[a] as number)) b = dominator[b] as number;
      }
      return a;
    };
    for (let changed = true; changed; ) {
      changed = false;
      for (const node of order) {
        const next = this.out(node);
        let found = next.length === 0 ? last : -2;
        for (const { to } of next) {
          if ((dominator[to] as number) === -2) continue;
          found = found === -2 ? to : common(found, to);
        }
        if (found !== -2 && dominator[node] !== found) {
          dominator[node] = found;
          changed = true;
        }
      }
    }
    return Int32Array.from(this.nodes, (_, at) => {
      const found = dominator[at] as number;
      return found === last || found === -2 ? -1 : found;
    });
  }
}
