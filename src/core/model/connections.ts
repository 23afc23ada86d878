import { capital, type Said, say } from "../messages";
import type { Element, ElementType, Id } from "./element";
import { isActivity, isCatchEvent, isDataNode, isFlowNode, isSubProcess, isThrowEvent, termFor } from "./families";
import type { Model } from "./model";
import { failure, ok, type Problem, problem, type Result } from "./problem";
import { nameOf, participantOf, scopeOf, triggerOf } from "./queries";

export type ConnectionType =
  | "sequenceFlow"
  | "messageFlow"
  | "association"
  | "dataInputAssociation"
  | "dataOutputAssociation";

/**
 * The one table of what may connect to what. Each rule says in words why a connection is refused; the next strip, connecting,
 * import and check all ask here.
 *
 * Sources: BPMN 2.0 (formal/2011-01-03), tables 7.3 "Sequence Flow connection rules" and 7.4 "Message Flow connection rules",
 * and the sections on events, event-based gateways, compensation and event sub-processes; from memory.
 */
export interface ConnectionRule {
  readonly id: string;
  readonly connection: "sequenceFlow" | "messageFlow";
  readonly refuses: (model: Model, source: Element, target: Element) => boolean;
  readonly words: (source: Said, target: Said) => Said;
}

const isEventSubProcess = (element: Element) => isSubProcess(element.type) && element.triggeredByEvent === true;
const afterEventGateway = new Set([
  "messageEventDefinition",
  "timerEventDefinition",
  "signalEventDefinition",
  "conditionalEventDefinition",
  "multiple",
]);

export const connectionRules: readonly ConnectionRule[] = [
  {
    id: "sequence-flow-ends",
    connection: "sequenceFlow",
    refuses: (_, source, target) => !isFlowNode(source.type) || !isFlowNode(target.type),
    words: (source, target) =>
      say`A sequence flow joins activities, events and gateways; ${isNotNode(source, target)} is none of them.`,
  },
  {
    id: "no-flow-into-start",
    connection: "sequenceFlow",
    refuses: (_, __, target) => target.type === "startEvent",
    words: (_, target) =>
      say`${target} is a start event, and no sequence flow may lead to one. End the flow at the step behind it.`,
  },
  {
    id: "no-flow-out-of-end",
    connection: "sequenceFlow",
    refuses: (_, source) => source.type === "endEvent",
    words: (source) =>
      say`${source} is an end event, and no sequence flow may leave one. Use an intermediate event if work goes on.`,
  },
  {
    id: "no-flow-into-boundary",
    connection: "sequenceFlow",
    refuses: (_, __, target) => target.type === "boundaryEvent",
    words: (_, target) =>
      say`${target} sits on the edge of an activity and is set off by it, so no sequence flow may lead to it.`,
  },
  {
    id: "no-flow-at-event-sub-process",
    connection: "sequenceFlow",
    refuses: (_, source, target) => isEventSubProcess(source) || isEventSubProcess(target),
    words: () =>
      say`An event sub-process is set off by its own start event; no sequence flow may lead to it or leave it.`,
  },
  {
    id: "no-flow-at-compensation",
    connection: "sequenceFlow",
    refuses: (model, source, target) =>
      source.isForCompensation === true ||
      target.isForCompensation === true ||
      (source.type === "boundaryEvent" && triggerOf(model, source) === "compensateEventDefinition"),
    words: () => say`Compensation stands outside the normal flow; join the event and its activity with an association.`,
  },
  {
    id: "link-ends",
    connection: "sequenceFlow",
    refuses: (model, source, target) =>
      (source.type === "intermediateThrowEvent" && triggerOf(model, source) === "linkEventDefinition") ||
      (target.type === "intermediateCatchEvent" && triggerOf(model, target) === "linkEventDefinition"),
    words: () =>
      say`A link jumps from its throwing to its catching event; a flow may only lead to the first and leave the second.`,
  },
  {
    id: "one-scope",
    connection: "sequenceFlow",
    refuses: (model, source, target) =>
      scopeOf(model, source.id)?.id !== scopeOf(model, target.id)?.id &&
      participantOf(model, source.id)?.id === participantOf(model, target.id)?.id,
    words: (source, target) =>
      say`${source} and ${target} are in different processes or sub-processes, and a sequence flow may not cross that edge. Lead it to the sub-process itself.`,
  },
  {
    id: "one-pool",
    connection: "sequenceFlow",
    refuses: (model, source, target) =>
      scopeOf(model, source.id)?.id !== scopeOf(model, target.id)?.id &&
      participantOf(model, source.id)?.id !== participantOf(model, target.id)?.id,
    words: (source, target) =>
      say`${source} and ${target} are in different pools; between pools there are message flows, not sequence flows.`,
  },
  {
    id: "after-event-gateway",
    connection: "sequenceFlow",
    refuses: (model, source, target) =>
      source.type === "eventBasedGateway" &&
      target.type !== "receiveTask" &&
      !(target.type === "intermediateCatchEvent" && afterEventGateway.has(triggerOf(model, target))),
    words: (_, target) =>
      say`An event-based gateway waits for what happens first, so a catching event or a receive task must follow it; ${target} is neither.`,
  },
  {
    id: "message-flow-between-pools",
    connection: "messageFlow",
    refuses: (model, source, target) => {
      const from = participantOf(model, source.id);
      const to = participantOf(model, target.id);
      return !from || !to || from.id === to.id;
    },
    words: (source, target) => say`A message flow joins two pools; ${source} and ${target} are not in different ones.`,
  },
  {
    id: "message-flow-source",
    connection: "messageFlow",
    refuses: (model, source) =>
      !(
        source.type === "participant" ||
        isActivity(source.type) ||
        ((source.type === "endEvent" || source.type === "intermediateThrowEvent") &&
          ["messageEventDefinition", "multiple"].includes(triggerOf(model, source)))
      ),
    words: (source) => say`${source} cannot send a message; a pool, an activity or a throwing message event can.`,
  },
  {
    id: "message-flow-target",
    connection: "messageFlow",
    refuses: (model, _, target) =>
      !(
        target.type === "participant" ||
        isActivity(target.type) ||
        ((target.type === "startEvent" ||
          target.type === "intermediateCatchEvent" ||
          target.type === "boundaryEvent") &&
          ["messageEventDefinition", "multiple", "parallelMultiple"].includes(triggerOf(model, target)))
      ),
    words: (_, target) => say`${target} cannot receive a message; a pool, an activity or a catching message event can.`,
  },
];

const isNotNode = (source: Said, target: Said): Said => say`one of ${source} and ${target}`;

/** An element as a refusal calls it. */
export function called(model: Model, element: Element): Said {
  const name = nameOf(model, element.id);
  return name ? say`“${name}”` : say`this ${termFor(element.type)}`;
}

/** The rules that a connection of a type between two elements breaks, as problems a person can read. */
export function brokenRules(
  model: Model,
  type: "sequenceFlow" | "messageFlow",
  source: Element,
  target: Element,
): Problem[] {
  const words = [called(model, source), called(model, target)] as const;
  return connectionRules
    .filter((rule) => rule.connection === type && rule.refuses(model, source, target))
    .map((rule) =>
      problem({ code: rule.id, message: capital(rule.words(...words)), elements: [source.id, target.id] }),
    );
}

/** What a line drawn from one element to another is, or why there can be none. */
export function connectionBetween(model: Model, sourceId: Id, targetId: Id): Result<ConnectionType> {
  const source = model.elements.get(sourceId);
  const target = model.elements.get(targetId);
  if (!source || !target) {
    return failure({ code: "unknown-element", message: say`One end of the connection is no longer in the model.` });
  }
  if (sourceId === targetId && !isActivity(source.type) && !isGatewayLike(source)) {
    return failure({
      code: "to-itself",
      message: capital(say`${called(model, source)} cannot be connected to itself.`),
    });
  }
  const artifact = (type: ElementType) => type === "textAnnotation" || type === "group";
  if (artifact(source.type) || artifact(target.type)) {
    return source.type === target.type
      ? failure({ code: "association-ends", message: say`An association ties a note to something that is not a note.` })
      : ok("association");
  }
  if (isDataNode(source.type) && handlesData(target.type, "in")) return ok("dataInputAssociation");
  if (isDataNode(target.type) && handlesData(source.type, "out")) return ok("dataOutputAssociation");
  if (isDataNode(source.type) || isDataNode(target.type)) {
    if (source.type === "sequenceFlow" || target.type === "sequenceFlow") return ok("association");
    return failure({
      code: "data-association-ends",
      message: say`Data is read by activities and throwing events, and written by activities and catching events.`,
      elements: [sourceId, targetId],
    });
  }
  if (
    source.type === "boundaryEvent" &&
    triggerOf(model, source) === "compensateEventDefinition" &&
    isActivity(target.type)
  ) {
    return ok("association");
  }
  const from = participantOf(model, sourceId);
  const to = participantOf(model, targetId);
  const type =
    source.type === "participant" || target.type === "participant" || (from && to && from.id !== to.id)
      ? "messageFlow"
      : "sequenceFlow";
  const problems = brokenRules(model, type, source, target);
  return problems.length > 0 ? { ok: false, problems } : ok(type);
}

const isGatewayLike = (element: Element) => element.type.endsWith("Gateway");
/**
 * Whether data goes into an element, or comes out of it: into and out of activities, into events that throw, out of events that catch.
 * Source: BPMN 2.0, 10.4.1 "Data Modeling", from memory.
 */
export const handlesData = (type: ElementType, direction: "in" | "out"): boolean =>
  isActivity(type) || (direction === "in" ? isThrowEvent(type) : isCatchEvent(type));
