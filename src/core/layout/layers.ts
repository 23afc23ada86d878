import type { Id } from "../model";

export interface LayerEdge {
  readonly from: Id;
  readonly to: Id;
}

/**
 * Layers of a graph from left to right: every edge that does not close a loop leads to a later layer.
 * Loops are found by depth-first search from the nodes nothing leads to, in the given order; the edge that closes one is
 * left out. Layers are longest paths. O(nodes + edges).
 * Source: Sugiyama, Tagawa, Toda, "Methods for Visual Understanding of Hierarchical System Structures" (IEEE Transactions on
 * Systems, Man, and Cybernetics, 1981); from memory.
 */
export function layersOf(
  nodes: readonly Id[],
  edges: readonly LayerEdge[],
): { layer: Map<Id, number>; order: Id[]; loops: Set<LayerEdge> } {
  const outgoing = new Map<Id, LayerEdge[]>(nodes.map((node) => [node, []]));
  const entered = new Set<Id>();
  for (const edge of edges) {
    if (!outgoing.has(edge.from) || !outgoing.has(edge.to) || edge.from === edge.to) continue;
    outgoing.get(edge.from)?.push(edge);
    entered.add(edge.to);
  }
  const state = new Map<Id, "open" | "done">();
  const finished: Id[] = [];
  const loops = new Set<LayerEdge>();
  const visit = (start: Id) => {
    const stack: { node: Id; next: number }[] = [{ node: start, next: 0 }];
    state.set(start, "open");
    while (stack.length > 0) {
      const top = stack[stack.length - 1] as { node: Id; next: number };
      const edge = outgoing.get(top.node)?.[top.next++];
      if (!edge) {
        state.set(top.node, "done");
        finished.push(top.node);
        stack.pop();
      } else if (state.get(edge.to) === "open") loops.add(edge);
      else if (!state.has(edge.to)) {
        state.set(edge.to, "open");
        stack.push({ node: edge.to, next: 0 });
      }
    }
  };
  for (const node of nodes) if (!entered.has(node) && !state.has(node)) visit(node);
  for (const node of nodes) if (!state.has(node)) visit(node);
  const order = finished.reverse();
  const layer = new Map<Id, number>(order.map((node) => [node, 0]));
  for (const node of order) {
    for (const edge of outgoing.get(node) ?? []) {
      if (loops.has(edge)) continue;
      layer.set(edge.to, Math.max(layer.get(edge.to) as number, (layer.get(node) as number) + 1));
    }
  }
  return { layer, order, loops };
}
