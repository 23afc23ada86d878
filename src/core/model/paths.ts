import type { Id } from "./element";
import type { Model } from "./model";
import { boundaryEventsOf, outgoingOf } from "./queries";

/**
 * The shortest way along sequence flows from one flow node to another, as the ids of nodes and flows in order; events at the edge
 * of a step count as ways out of it. Empty where no way leads there. O(nodes + flows). Source: breadth-first search, any textbook.
 */
export function pathBetween(model: Model, from: Id, to: Id): Id[] {
  const cameBy = new Map<Id, { readonly node: Id; readonly flow: Id | undefined }>();
  const queue: Id[] = [from];
  for (let at = 0; at < queue.length; at++) {
    const node = queue[at] as Id;
    if (node === to && at > 0) break;
    const steps: { to: Id; flow: Id | undefined }[] = [
      ...outgoingOf(model, node).map((flow) => ({ to: flow.targetRef as Id, flow: flow.id })),
      ...boundaryEventsOf(model, node).map((event) => ({ to: event.id, flow: undefined })),
    ];
    for (const step of steps) {
      if (cameBy.has(step.to) || step.to === from) continue;
      cameBy.set(step.to, { node, flow: step.flow });
      queue.push(step.to);
    }
  }
  if (!cameBy.has(to)) return [];
  const path: Id[] = [to];
  for (let at = cameBy.get(to); at; at = at.node === from ? undefined : cameBy.get(at.node)) {
    if (at.flow) path.unshift(at.flow);
    path.unshift(at.node);
  }
  return path;
}
