import { listOf, say } from "../../messages";
import {
  boundaryEventsOf,
  called,
  type Element,
  type Id,
  incomingOf,
  isFlowNode,
  type Model,
  outgoingOf,
  scopeOf,
  shapeOn,
  triggerOf,
} from "../../model";
import { refuse } from "./change";

export type Flow = ReturnType<typeof incomingOf>[number];

/** What is chosen, with the flows that lead into it and out of it. */
interface Piece {
  readonly nodes: readonly Element[];
  readonly scope: Element;
  readonly into: readonly Flow[];
  readonly outOf: readonly Flow[];
  readonly entry: Id | undefined;
}

/**
 * The chosen steps as a piece that can stand behind one step's door: entered at one place, left by one flow. Anything else would
 * behave differently once it is a sub-process, and is refused.
 */
export function pieceOf(model: Model, diagram: Id, ids: readonly Id[]): Piece {
  const chosen = new Set<Id>();
  for (const elementId of ids) {
    const element = model.elements.get(elementId);
    if (!element || !isFlowNode(element.type) || !shapeOn(model, diagram, elementId)) continue;
    if (element.type === "boundaryEvent" && !ids.includes(element.attachedToRef as Id)) continue;
    chosen.add(elementId);
    for (const event of boundaryEventsOf(model, elementId)) chosen.add(event.id);
  }
  const nodes = [...chosen].map((elementId) => model.elements.get(elementId) as Element);
  const [scope, other] = [...new Set(nodes.map((node) => scopeOf(model, node.id)))];
  if (!scope) refuse("too-few", say`Choose the steps that belong together first.`);
  if (other)
    refuse("several-scopes", say`These steps lie in different processes or sub-processes; choose those of one.`);
  const begun = nodes.find((node) => node.type === "startEvent" && triggerOf(model, node) !== "none");
  if (begun)
    refuse("start-inside", say`${called(model, begun)} starts the process; a sub-process begins without a trigger.`, [
      begun.id,
    ]);
  const into = nodes.flatMap((node) => incomingOf(model, node.id)).filter((flow) => !chosen.has(flow.sourceRef as Id));
  const outOf = nodes.flatMap((node) => outgoingOf(model, node.id)).filter((flow) => !chosen.has(flow.targetRef as Id));
  const entries = [...new Set(into.map((flow) => flow.targetRef as Id))];
  const words = (found: readonly Id[]) => listOf(found.map((one) => called(model, model.elements.get(one) as Element)));
  if (entries.length > 1)
    refuse(
      "several-entries",
      say`The selection is entered at several places: ${words(entries)}. A sub-process has one way in.`,
      entries,
    );
  const [entry] = entries;
  if (entry && into.length > 1 && model.elements.get(entry)?.type.match(/^(parallel|inclusive|complex)Gateway$/))
    refuse("join-at-the-edge", say`${words([entry])} joins flows from outside; leave it outside of the sub-process.`, [
      entry,
    ]);
  if (outOf.length > 1)
    refuse(
      "several-exits",
      say`The selection is left by several flows: after ${words([...new Set(outOf.map((flow) => flow.sourceRef as Id))])}. Choose on to where they join again.`,
      outOf.map((flow) => flow.id),
    );
  return { nodes, scope: scope as Element, into, outOf, entry };
}
