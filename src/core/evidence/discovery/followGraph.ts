/** A trace as the names of what was done. */
export type Names = readonly string[];

/** What directly follows what, how often; what traces begin and end with. */
export interface FollowGraph {
  readonly activities: readonly string[];
  readonly follows: ReadonlyMap<string, ReadonlyMap<string, number>>;
  readonly starts: ReadonlySet<string>;
  readonly ends: ReadonlySet<string>;
}

/**
 * The graph of a log. With a threshold, what follows an activity less often than that share of what follows it most often is left out (S.
 * Leemans, D. Fahland, W. van der Aalst, "Discovering Block-Structured Process Models from Event Logs Containing Infrequent Behaviour",
 * 2014). O(events).
 */
export function followGraph(traces: readonly Names[], threshold = 0): FollowGraph {
  const follows = new Map<string, Map<string, number>>();
  const [starts, ends] = [new Map<string, number>(), new Map<string, number>()];
  const activities = new Set<string>();
  const count = (of: Map<string, number>, name: string) => of.set(name, (of.get(name) ?? 0) + 1);
  for (const trace of traces) {
    for (const [at, name] of trace.entries()) {
      activities.add(name);
      const next = trace[at + 1];
      if (next === undefined) continue;
      const from = follows.get(name) ?? new Map<string, number>();
      follows.set(name, from);
      count(from, next);
    }
    const [first, last] = [trace[0], trace.at(-1)];
    if (first !== undefined) count(starts, first);
    if (last !== undefined) count(ends, last);
  }
  if (threshold > 0)
    for (const [name, from] of follows) {
      // What ends a trace follows as well: nothing comes after it.
      const most = Math.max(...from.values(), ends.get(name) ?? 0);
      for (const [next, times] of from) if (times < most * threshold) from.delete(next);
    }
  const often = (of: ReadonlyMap<string, number>) => {
    const most = Math.max(0, ...of.values());
    return new Set([...of].filter(([, times]) => times >= most * threshold).map(([name]) => name));
  };
  return { activities: [...activities], follows, starts: often(starts), ends: often(ends) };
}

/** Parts that hang together, by edges in either direction. */
export function components(nodes: readonly string[], isTied: (one: string, other: string) => boolean): string[][] {
  const left = new Set(nodes);
  const found: string[][] = [];
  for (const node of nodes) {
    if (!left.delete(node)) continue;
    const part = [node];
    for (const one of part) for (const other of left) if (isTied(one, other)) part.push(other) && left.delete(other);
    found.push(part);
  }
  return found;
}
