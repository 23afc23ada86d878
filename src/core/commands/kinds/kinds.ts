import { z } from "zod";
import {
  type Element,
  type ElementType,
  type EventTrigger,
  elementTypes,
  eventDefinitionTypes,
  isActivity,
  isEvent,
  isFlowNode,
  type Model,
  triggerOf,
} from "../../model";

/** What can be placed: a type, for events with what triggers them, and the one or two fields that make a kind of its own. */
export const kindSchema = z.object({
  type: z.enum(elementTypes as [ElementType, ...ElementType[]]),
  trigger: z.enum([...eventDefinitionTypes, "multiple", "parallelMultiple"]).optional(),
  triggeredByEvent: z.boolean().optional(),
  cancelActivity: z.boolean().optional(),
  /** Of a start event in an event sub-process: whether it interrupts what it stands in. */
  isInterrupting: z.boolean().optional(),
  /** Of an event-based gateway: that it starts the process itself. */
  instantiate: z.boolean().optional(),
  /** Of one that starts the process: whether all its events have to happen. */
  eventGatewayType: z.enum(["Parallel"]).optional(),
  expanded: z.boolean().optional(),
  /** A pool nothing is shown of. */
  closed: z.boolean().optional(),
});
export type Kind = z.infer<typeof kindSchema>;

const task: Kind = { type: "task" };
const afterAnyStep: readonly Kind[] = [
  task,
  { type: "exclusiveGateway" },
  { type: "parallelGateway" },
  { type: "inclusiveGateway" },
  { type: "eventBasedGateway" },
  { type: "intermediateCatchEvent", trigger: "timerEventDefinition" },
  { type: "intermediateCatchEvent", trigger: "messageEventDefinition" },
  { type: "intermediateThrowEvent", trigger: "messageEventDefinition" },
  { type: "endEvent" },
  { type: "subProcess" },
  { type: "callActivity" },
];
const afterEventGateway: readonly Kind[] = [
  { type: "intermediateCatchEvent", trigger: "messageEventDefinition" },
  { type: "intermediateCatchEvent", trigger: "timerEventDefinition" },
  { type: "intermediateCatchEvent", trigger: "signalEventDefinition" },
  { type: "intermediateCatchEvent", trigger: "conditionalEventDefinition" },
  { type: "receiveTask" },
];
const placeable: readonly Kind[] = [
  { type: "startEvent" },
  task,
  { type: "exclusiveGateway" },
  { type: "parallelGateway" },
  { type: "endEvent" },
  { type: "subProcess" },
  { type: "participant" },
  { type: "participant", closed: true },
  { type: "lane" },
  { type: "dataObjectReference" },
  { type: "dataStoreReference" },
  { type: "textAnnotation" },
];

/**
 * What may come next: behind an element only what the standard lets follow it; with nothing selected, what can be placed.
 * After events that only throw a link or end, and in event sub-processes' place, that is nothing.
 */
export function kindsThatMayFollow(model: Model, element: Element | undefined): readonly Kind[] {
  if (!element) return placeable;
  // Nothing is shown of an outside party.
  if (element.type === "participant" && element.processRef === undefined) return [];
  if (element.type === "participant" || element.type === "lane")
    return [{ type: "lane" }, ...placeable.filter((kind) => kind.type === "startEvent" || kind.type === "task")];
  if (!isFlowNode(element.type))
    return element.type === "sequenceFlow" ? afterAnyStep.filter((kind) => kind.type !== "endEvent") : [];
  const attachable: Kind[] = canHoldBoundaryEvents(element)
    ? [{ type: "boundaryEvent", trigger: "timerEventDefinition" }]
    : [];
  const notes: Kind[] = [
    ...(isActivity(element.type) ? [{ type: "dataObjectReference" } as Kind] : []),
    { type: "textAnnotation" },
  ];
  if (element.type === "endEvent" || element.isForCompensation === true || element.triggeredByEvent === true)
    return notes;
  if (element.type === "intermediateThrowEvent" && triggerOf(model, element) === "linkEventDefinition") return notes;
  if (element.type === "boundaryEvent" && triggerOf(model, element) === "compensateEventDefinition") return [task];
  if (element.type === "eventBasedGateway") return [...afterEventGateway, ...notes];
  return [...afterAnyStep, ...attachable, ...notes];
}

/** Boundary events sit on activities, but not on event sub-processes. */
export function canHoldBoundaryEvents(element: Element): boolean {
  return isActivity(element.type) && element.triggeredByEvent !== true;
}

/** What an element is, as a kind: for copying its place in a list of kinds. */
export function kindOf(model: Model, element: Element): Kind {
  const trigger: EventTrigger = isEvent(element.type) ? triggerOf(model, element) : "none";
  return {
    type: element.type,
    ...(trigger !== "none" && { trigger }),
    ...(element.triggeredByEvent === true && { triggeredByEvent: true }),
    ...(element.type === "boundaryEvent" && element.cancelActivity === false && { cancelActivity: false }),
    ...(element.type === "startEvent" && element.isInterrupting === false && { isInterrupting: false }),
    ...(element.instantiate === true && { instantiate: true }),
    ...(element.eventGatewayType === "Parallel" && { eventGatewayType: "Parallel" as const }),
  };
}

/** Fields and children a new element of a kind begins with. */
export function fieldsOf(kind: Kind): { readonly [field: string]: unknown } {
  return {
    ...(kind.triggeredByEvent && { triggeredByEvent: true }),
    ...(kind.type === "boundaryEvent" && kind.cancelActivity === false && { cancelActivity: false }),
    ...(kind.type === "startEvent" && kind.isInterrupting === false && { isInterrupting: false }),
    ...(kind.type === "eventBasedGateway" && kind.instantiate && { instantiate: true }),
    ...(kind.eventGatewayType && { eventGatewayType: kind.eventGatewayType }),
    ...(kind.trigger === "parallelMultiple" && { parallelMultiple: true }),
  };
}
