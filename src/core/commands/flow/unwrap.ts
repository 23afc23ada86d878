import { z } from "zod";
import { isExpanded, pageOf } from "../../drawing";
import { say } from "../../messages";
import {
  boundaryEventsOf,
  called,
  childrenOf,
  type Element,
  edgeOn,
  type Id,
  incomingOf,
  isActivity,
  isFlowNode,
  laneOf,
  nameOf,
  outgoingOf,
  type Shape,
  scopeOf,
  shapeOn,
  triggerOf,
} from "../../model";
import { type Change, refuse } from "../kernel/change";
import { drawnInside, isInside, redraw } from "../kernel/drawnInside";
import { forgetRecordedFlows } from "../kernel/flowLists";
import { growAround } from "../kernel/grow";
import { connectionsTouching } from "../kernel/page";
import { reroute } from "../kernel/reroute";
import { putIntoLane } from "../lanes/lanes";
import { makeRoomFor } from "./expand";
import { remove } from "./remove";

const id = z.string().min(1).max(200);

export const unwrapSchema = z.object({ type: z.literal("unwrap"), diagram: id, id });

/** Puts the steps of a sub-process in its place: its plain start and end go, the flows in and out lead to and from its steps. */
export function unwrap(change: Change, { diagram, id: subId }: z.infer<typeof unwrapSchema>): void {
  const sub = change.element(subId);
  const shape = shapeOn(change.model, diagram, subId);
  if (sub.type !== "subProcess" || sub.triggeredByEvent === true || !shape)
    refuse("not-a-sub-process", say`Choose an embedded sub-process of this page to be dissolved.`, [subId]);
  refuseWhatWouldBeLost(change, sub);
  const scope = scopeOf(change.model, subId) as Element;
  const nodes = childrenOf(change.model, subId, "flowElements").filter((element) => isFlowNode(element.type));
  const { start, first } = beginningOf(change, sub, nodes);
  const end = endingOf(change, sub, nodes);
  const [out] = outgoingOf(change.model, subId);
  const into = incomingOf(change.model, subId);
  const lane = laneOf(change.model, subId);

  // The steps take the place of the sub-process, with as much room as they need.
  const isOpen = isExpanded(sub, shape as Shape);
  const from = isOpen ? diagram : pageOf(change.model, subId)?.id;
  const doomed = new Set([into.length > 0 ? start?.id : undefined, out ? end?.id : undefined]);
  const inner = isInside(change, subId);
  const drawn = from ? drawnInside(change, from, (element) => inner(element) && !doomed.has(element)) : undefined;
  if (drawn?.bounds && from) {
    const spot = isOpen
      ? drawn.bounds
      : makeRoomFor(change, diagram, subId, { width: drawn.bounds.width, height: drawn.bounds.height });
    redraw(change, drawn, diagram, { x: spot.x - drawn.bounds.x, y: spot.y - drawn.bounds.y });
  }
  const ends = [...into, ...(out ? [out] : [])].flatMap((flow) => [flow.sourceRef as Id, flow.targetRef as Id]);
  forgetRecordedFlows(change, [...ends, ...nodes.map((node) => node.id)]);
  for (const child of childrenOf(change.model, subId)) {
    if (child.slot !== "flowElements" && child.slot !== "artifacts") continue;
    if (!doomed.has(child.id)) change.set("elements", child.id, "parent", scope.id);
  }
  for (const flow of into) change.set("elements", flow.id, "targetRef", (first ?? end ?? sub).id);
  if (out && end) {
    for (const flow of incomingOf(change.model, end.id)) {
      change.set("elements", flow.id, "targetRef", out.targetRef);
      const edge = from && edgeOn(change.model, from, flow.id);
      if (edge) change.set("edges", edge.id, "diagram", diagram);
    }
  }
  for (const node of nodes) {
    if (doomed.has(node.id) || !change.model.elements.has(node.id)) continue;
    if (lane && node.type !== "boundaryEvent") putIntoLane(change, node.id, lane.id);
  }
  const gone = [...doomed].flatMap((one) => one ?? []);
  remove(change, { type: "delete", ids: [...gone, subId] });
  for (const node of nodes) if (shapeOn(change.model, diagram, node.id)) growAround(change, diagram, node.id);
  const touched = connectionsTouching(change.model, new Set(nodes.map((node) => node.id)));
  reroute(
    change,
    diagram,
    [...change.model.edges].filter((edge) => edge.diagram === diagram && touched.has(edge.element)),
  );
}

function refuseWhatWouldBeLost(change: Change, sub: Element): void {
  const words = called(change.model, sub);
  if (childrenOf(change.model, sub.id, "loopCharacteristics").length > 0)
    refuse(
      "repeats",
      say`${words} is done several times; its steps would be done once. Take the repetition off first.`,
      [sub.id],
    );
  const [event] = boundaryEventsOf(change.model, sub.id);
  if (event)
    refuse(
      "has-events",
      say`“${nameOf(change.model, event.id) || say`An event`}” at the edge of ${words} watches over all its steps; take it off or attach it to one of them first.`,
      [event.id],
    );
  if (outgoingOf(change.model, sub.id).length > 1)
    refuse("several-exits", say`Several flows leave ${words}; lead them through a gateway first.`, [sub.id]);
  const [out] = outgoingOf(change.model, sub.id);
  if (out?.conditionExpression)
    refuse("conditional-exit", say`The flow out of ${words} has a condition of its own.`, [out.id]);
}

/** The plain start that goes, and the step the flow then leads to. */
function beginningOf(change: Change, sub: Element, nodes: readonly Element[]): { start?: Element; first?: Element } {
  const begins = nodes.filter(
    (node) =>
      incomingOf(change.model, node.id).length === 0 &&
      node.type !== "boundaryEvent" &&
      node.triggeredByEvent !== true &&
      node.isForCompensation !== true,
  );
  if (begins.length > 1)
    refuse(
      "several-entries",
      say`The inside of ${called(change.model, sub)} begins at several places; join them first.`,
      [sub.id],
    );
  const [start] = begins;
  if (start?.type !== "startEvent") return start ? { first: start } : {};
  const flows = outgoingOf(change.model, start.id);
  if (flows.length > 1)
    refuse("several-entries", say`Several flows leave the start inside ${called(change.model, sub)}.`, [start.id]);
  const first = flows[0] && change.model.elements.get(flows[0].targetRef as Id);
  return first ? { start, first } : { start };
}

/** The one plain end; all that ends inside has to end there, since the steps behind would otherwise be reached twice. */
function endingOf(change: Change, sub: Element, nodes: readonly Element[]): Element | undefined {
  const words = called(change.model, sub);
  const ends = nodes.filter(
    (node) =>
      outgoingOf(change.model, node.id).length === 0 &&
      node.triggeredByEvent !== true &&
      node.isForCompensation !== true &&
      !(node.type === "boundaryEvent" && triggerOf(change.model, node) === "compensateEventDefinition"),
  );
  if (outgoingOf(change.model, sub.id).length === 0) return undefined;
  const loose = ends.find((node) => isActivity(node.type) || node.type !== "endEvent");
  if (loose)
    refuse("open-end", say`Nothing follows ${called(change.model, loose)} inside ${words}; lead it to the end first.`, [
      loose.id,
    ]);
  if (ends.length > 1)
    refuse(
      "several-ends",
      say`The inside of ${words} has several ends; lead its paths to one end first.`,
      ends.map((end) => end.id),
    );
  const [end] = ends;
  if (end && triggerOf(change.model, end) !== "none")
    refuse("end-with-result", say`${called(change.model, end)} does more than end ${words}; a plain end is needed.`, [
      end.id,
    ]);
  return end;
}
