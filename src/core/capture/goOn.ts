import type { Kind } from "../commands";
import {
  connectionBetween,
  type Element,
  edgeOn,
  type Id,
  incomingOf,
  isFlowNode,
  isGateway,
  type Model,
  nameOf,
  outgoingOf,
  shapeOn,
  triggerOf,
} from "../model";
import { appendEnd } from "./appendEnd";
import type { Draft } from "./draft";

/**
 * Going on from an element while a process is sketched. An end without a name says that nobody has said yet how this way goes on:
 * whatever is added takes its place. Where a step already leads to another, what is added stands between the two; only from a
 * gateway one more way leads off.
 */
export interface Going {
  readonly diagram: Id;
  readonly from: Id;
}

/** The way out of an element that is still open: its flow to an end without a name that nothing else leads to. */
export function openWay(model: Model, from: Id): Element | undefined {
  const flows = outgoingOf(model, from);
  const usual = model.elements.get(from)?.default;
  const open = flows.filter((flow) => isOpenEnd(model, flow.targetRef as Id));
  return open.find((flow) => flow.id === usual) ?? open[0];
}

function isOpenEnd(model: Model, id: Id): boolean {
  const end = model.elements.get(id);
  return (
    end?.type === "endEvent" &&
    nameOf(model, id) === "" &&
    triggerOf(model, end) === "none" &&
    incomingOf(model, id).length === 1
  );
}

/** Adds what comes next. Gives the element: the new one, or the end that was there already and now gets its name. */
export function addNext(draft: Draft, { diagram, from }: Going, kind: Kind): Id {
  const open = openWay(draft.model, from);
  if (kind.type === "endEvent" && open && !kind.trigger) return open.targetRef as Id;
  const id = draft.newId(kind.type);
  const onto = open ?? wayToStandIn(draft.model, from);
  const canStandIn =
    kind.type !== "endEvent" &&
    isFlowNode(kind.type) &&
    kind.type !== "boundaryEvent" &&
    onto !== undefined &&
    edgeOn(draft.model, diagram, onto.id) !== undefined &&
    shapeOn(draft.model, diagram, from) !== undefined;
  if (canStandIn) draft.do({ type: "insertOnFlow", diagram, onFlow: onto.id, id, flow: draft.newId("flow"), kind });
  else draft.do({ type: "append", diagram, from, id, flow: draft.newId("flow"), kind });
  return id;
}

/** The one way out of a step, which what comes next stands in; a gateway has as many as one likes. */
function wayToStandIn(model: Model, from: Id): Element | undefined {
  const element = model.elements.get(from);
  if (!element || isGateway(element.type)) return undefined;
  const [only, another] = outgoingOf(model, from);
  return another ? undefined : only;
}

/** Gives a new question two answers: the usual one leads on as before, the other is still open. */
export function giveAnswers(
  draft: Draft,
  { diagram, from }: Going,
  answers: { readonly usual: string; readonly other: string },
): void {
  if (!outgoingOf(draft.model, from)[0]) appendEnd(draft, from, diagram);
  const [usual] = outgoingOf(draft.model, from) as [Element];
  draft.do({ type: "rename", id: usual.id, name: answers.usual });
  draft.do({ type: "setField", id: from, field: "default", value: usual.id });
  draft.do({ type: "rename", id: appendEnd(draft, from, diagram).flow, name: answers.other });
}

/** Leads an element to another one. A way that was still open is led there, and its end goes. */
export function leadOn(draft: Draft, { diagram, from }: Going, to: Id): Id {
  const answer = connectionBetween(draft.model, from, to);
  const open = answer.ok && answer.value === "sequenceFlow" ? openWay(draft.model, from) : undefined;
  if (open && open.targetRef !== to) {
    const end = open.targetRef as Id;
    draft.do({ type: "reconnect", diagram, connection: open.id, end: "target", to });
    draft.do({ type: "delete", ids: [end] });
    return open.id;
  }
  const id = draft.newId("flow");
  draft.do({ type: "connect", diagram, id, source: from, target: to });
  return id;
}
