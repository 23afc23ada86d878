import { type Element, type Id, incomingOf, isGateway, type Model, outgoingOf, scopeOf } from "../model";

/** How the ways out of a step are shown: as a block that joins again, or one as the sheet's main way and the others beside it. */
export type Branching = { readonly kind: "block"; readonly join: Id } | { readonly kind: "main"; readonly flow: Id };

/** A join that is no gateway is shown as one only where the paths to it are this short. */
const shortPath = 4;

/**
 * Decides how a step with several ways out is shown. A block's join is the node that most of the ways reach, the nearest of
 * those; ways that end or go back need not reach it. Without one, the default flow is the main way, else the longest, of
 * equals the last: it is the last one written.
 * O(ways × (nodes + flows)).
 */
export function branchingOf(
  model: Model,
  split: Element,
  flows: readonly Element[],
  passed: ReadonlySet<Id>,
): Branching {
  const scope = scopeOf(model, split.id)?.id;
  const reaches = flows.map((flow) => distancesFrom(model, flow.targetRef as Id, split.id, passed, scope));
  const join = nearestCommon(model, reaches);
  if (join !== undefined) return { kind: "block", join };
  let main = 0;
  reaches.forEach((reach, at) => {
    if (flows[main]?.id === split.default) return;
    if (flows[at]?.id === split.default || reach.size >= (reaches[main] as ReadonlyMap<Id, number>).size) main = at;
  });
  return { kind: "main", flow: (flows[main] as Element).id };
}

/** Nodes that can be reached without passing what the sheet has shown already, each with the number of steps to it. */
function distancesFrom(
  model: Model,
  start: Id,
  split: Id,
  passed: ReadonlySet<Id>,
  scope: Id | undefined,
): ReadonlyMap<Id, number> {
  const found = new Map<Id, number>();
  const open = (id: Id) => id !== split && !passed.has(id) && !found.has(id) && scopeOf(model, id)?.id === scope;
  if (!open(start)) return found;
  found.set(start, 0);
  for (const [id, distance] of found) {
    for (const flow of outgoingOf(model, id)) {
      const next = flow.targetRef as Id;
      if (open(next)) found.set(next, distance + 1);
    }
  }
  return found;
}

function nearestCommon(model: Model, reaches: readonly ReadonlyMap<Id, number>[]): Id | undefined {
  let best: { id: Id; ways: number; farthest: number } | undefined;
  const seen = new Set<Id>();
  for (const reach of reaches) {
    for (const id of reach.keys()) {
      if (seen.has(id)) continue;
      seen.add(id);
      const distances = reaches.flatMap((other) => other.get(id) ?? []);
      if (distances.length < 2 || incomingOf(model, id).length < 2) continue;
      const farthest = Math.max(...distances);
      const joins = isGateway((model.elements.get(id) as Element).type) || farthest <= shortPath;
      if (!joins) continue;
      const ways = distances.length;
      if (!best || ways > best.ways || (ways === best.ways && farthest < best.farthest)) best = { id, ways, farthest };
    }
  }
  return best?.id;
}
