import { boundaryEventsOf, type Element, flowNodesIn, type Id, incomingOf, isSubProcess, type Model } from "../model";
import { nodeUses, placesOf } from "./uses";

/** Where each node of a process stands with the data: what was written on every way to it. */
export interface WrittenData {
  /** By node: what every case has written before it begins. */
  readonly before: ReadonlyMap<Id, ReadonlySet<Id>>;
  readonly behind: ReadonlyMap<Id, ReadonlySet<Id>>;
  readonly reads: ReadonlyMap<Id, ReadonlySet<Id>>;
  readonly writes: ReadonlyMap<Id, ReadonlySet<Id>>;
}

/**
 * What is written for certain before each node of a process: a forward analysis to its fixed point. What comes together at a parallel
 * gateway counts together, elsewhere only what all ways have; an event at an edge may come before its step has written anything.
 * Source: definite assignment as a must-analysis over a lattice of sets (F. Nielson, H. R. Nielson, C. Hankin, "Principles of Program
 * Analysis", chapter 2, from memory); for processes: N. Trčka, W. M. P. van der Aalst, N. Sidorova, "Data-Flow Anti-Patterns" (CAiSE 2009),
 * "missing data" and "redundant data", from memory. O(rounds × nodes × data).
 */
export function writtenData(model: Model, process: Id): WrittenData {
  const places = placesOf(model, process);
  const all = new Set(places.values());
  const [before, behind] = [new Map<Id, Set<Id>>(), new Map<Id, Set<Id>>()];
  const [reads, writes] = [new Map<Id, ReadonlySet<Id>>(), new Map<Id, ReadonlySet<Id>>()];
  const learn = (scope: Id) => {
    for (const { id, type } of flowNodesIn(model, scope)) {
      const uses = nodeUses(model, id, places);
      reads.set(id, uses.reads);
      writes.set(id, uses.writes);
      if (isSubProcess(type)) learn(id);
    }
  };
  learn(process);
  /** Goes once over a scope; whether anything was otherwise than before. */
  const round = (scope: Id, given: ReadonlySet<Id>): boolean => {
    let isOther = false;
    const put = (of: Map<Id, Set<Id>>, id: Id, next: Set<Id>) => {
      const known = of.get(id);
      if (known && known.size === next.size) return;
      of.set(id, next);
      isOther = true;
    };
    for (const node of flowNodesIn(model, scope)) {
      const host = node.type === "boundaryEvent" ? (node.attachedToRef as Id | undefined) : undefined;
      const ways = comingFrom(model, node).map((source) => behind.get(source) ?? all);
      const now =
        host !== undefined
          ? new Set(before.get(host) ?? all)
          : ways.length === 0
            ? new Set(given)
            : node.type === "parallelGateway"
              ? union(ways)
              : common(ways);
      put(before, node.id, now);
      const inside =
        isSubProcess(node.type) && node.type !== "adHocSubProcess" && flowNodesIn(model, node.id).length > 0;
      if (isSubProcess(node.type) && round(node.id, now)) isOther = true;
      const ends = inside ? endsOf(model, node.id).map(({ id }) => behind.get(id) ?? all) : [];
      put(behind, node.id, union([now, writes.get(node.id) ?? new Set(), ...(ends.length > 0 ? [common(ends)] : [])]));
    }
    return isOther;
  };
  // Sets only shrink from "everything", so each round but the last takes something away.
  while (round(process, new Set()));
  return { before, behind, reads, writes };
}

const union = (sets: readonly ReadonlySet<Id>[]): Set<Id> => new Set(sets.flatMap((one) => [...one]));
const common = ([first = new Set<Id>(), ...rest]: readonly ReadonlySet<Id>[]): Set<Id> =>
  new Set([...first].filter((one) => rest.every((other) => other.has(one))));

/** Where a case comes from to a node: along flows, and by a link of the same name. */
function comingFrom(model: Model, node: Element): Id[] {
  const sources = incomingOf(model, node.id).flatMap(({ sourceRef }) => sourceRef ?? []);
  if (node.type !== "intermediateCatchEvent" || sources.length > 0 || node.parent === null) return sources;
  return flowNodesIn(model, node.parent)
    .filter((one) => one.type === "intermediateThrowEvent" && one.name !== undefined && one.name === node.name)
    .map(({ id }) => id);
}

/** The nodes of a scope that nothing follows. */
const endsOf = (model: Model, scope: Id): Element[] => {
  const nodes = flowNodesIn(model, scope);
  const followed = new Set(nodes.flatMap((node) => comingFrom(model, node)));
  const edges = new Set(nodes.flatMap((node) => boundaryEventsOf(model, node.id).map(({ id }) => id)));
  return nodes.filter(
    ({ id, type }) => !followed.has(id) && !edges.has(id) && !isSubProcess(type) && type !== "boundaryEvent",
  );
};
