import { type Said, term } from "../messages";
import type { ElementType } from "./element";

/** Element types grouped as the standard's class diagrams group them. */
export const taskTypes = [
  "task",
  "userTask",
  "manualTask",
  "serviceTask",
  "sendTask",
  "receiveTask",
  "scriptTask",
  "businessRuleTask",
] as const satisfies readonly ElementType[];
export const subProcessTypes = [
  "subProcess",
  "transaction",
  "adHocSubProcess",
] as const satisfies readonly ElementType[];
export const activityTypes = [
  ...taskTypes,
  ...subProcessTypes,
  "callActivity",
] as const satisfies readonly ElementType[];
export const catchEventTypes = [
  "startEvent",
  "intermediateCatchEvent",
  "boundaryEvent",
] as const satisfies readonly ElementType[];
export const throwEventTypes = [
  "intermediateThrowEvent",
  "implicitThrowEvent",
  "endEvent",
] as const satisfies readonly ElementType[];
export const eventTypes = [...catchEventTypes, ...throwEventTypes] as const satisfies readonly ElementType[];
export const gatewayTypes = [
  "exclusiveGateway",
  "inclusiveGateway",
  "parallelGateway",
  "eventBasedGateway",
  "complexGateway",
] as const satisfies readonly ElementType[];
export const flowNodeTypes = [
  ...activityTypes,
  ...eventTypes,
  ...gatewayTypes,
] as const satisfies readonly ElementType[];
/** What holds flow elements. */
export const scopeTypes = ["process", ...subProcessTypes] as const satisfies readonly ElementType[];
export const dataNodeTypes = [
  "dataObject",
  "dataObjectReference",
  "dataStoreReference",
  "dataInput",
  "dataOutput",
] as const satisfies readonly ElementType[];
export const artifactNodeTypes = ["group", "textAnnotation"] as const satisfies readonly ElementType[];
export const connectionTypes = [
  "sequenceFlow",
  "messageFlow",
  "association",
  "dataInputAssociation",
  "dataOutputAssociation",
  "conversationLink",
] as const satisfies readonly ElementType[];
export const eventDefinitionTypes = [
  "messageEventDefinition",
  "timerEventDefinition",
  "errorEventDefinition",
  "escalationEventDefinition",
  "signalEventDefinition",
  "conditionalEventDefinition",
  "linkEventDefinition",
  "compensateEventDefinition",
  "cancelEventDefinition",
  "terminateEventDefinition",
] as const satisfies readonly ElementType[];
export type EventDefinitionType = (typeof eventDefinitionTypes)[number];

const member = (types: readonly ElementType[]) => {
  const set = new Set<string>(types);
  return (type: string | undefined): boolean => type !== undefined && set.has(type);
};
export const isTask = member(taskTypes);
export const isSubProcess = member(subProcessTypes);
export const isActivity = member(activityTypes);
export const isEvent = member(eventTypes);
export const isCatchEvent = member(catchEventTypes);
export const isThrowEvent = member(throwEventTypes);
export const isGateway = member(gatewayTypes);
export const isFlowNode = member(flowNodeTypes);
export const isScope = member(scopeTypes);
export const isDataNode = member(dataNodeTypes);
export const isConnection = member(connectionTypes);
export const isEventDefinition = member(eventDefinitionTypes);

/** A type a person can retype to without losing name, flows or properties: the members of one family. */
export const families: readonly (readonly ElementType[])[] = [
  [...taskTypes, "callActivity"],
  subProcessTypes,
  gatewayTypes,
  ["startEvent"],
  ["intermediateCatchEvent", "intermediateThrowEvent"],
  ["boundaryEvent"],
  ["endEvent"],
  ["dataObjectReference", "dataStoreReference"],
];

export function familyOf(type: ElementType): readonly ElementType[] {
  return families.find((family) => family.includes(type)) ?? [type];
}

const typeWords: { readonly [type: string]: string } = {
  task: "task",
  userTask: "user task",
  manualTask: "manual task",
  serviceTask: "service task",
  sendTask: "send task",
  receiveTask: "receive task",
  scriptTask: "script task",
  businessRuleTask: "business rule task",
  subProcess: "sub-process",
  transaction: "transaction",
  adHocSubProcess: "ad-hoc sub-process",
  callActivity: "call activity",
  startEvent: "start event",
  endEvent: "end event",
  intermediateCatchEvent: "intermediate catch event",
  intermediateThrowEvent: "intermediate throw event",
  implicitThrowEvent: "implicit throw event",
  boundaryEvent: "boundary event",
  exclusiveGateway: "exclusive gateway",
  inclusiveGateway: "inclusive gateway",
  parallelGateway: "parallel gateway",
  eventBasedGateway: "event-based gateway",
  complexGateway: "complex gateway",
  sequenceFlow: "sequence flow",
  messageFlow: "message flow",
  dataObjectReference: "data object",
  dataStoreReference: "data store",
  property: "data",
  dataInputAssociation: "data association",
  dataOutputAssociation: "data association",
  participant: "pool",
  textAnnotation: "text annotation",
  laneSet: "lane set",
};

/** The standard's word for a type, to be said. */
export const termFor = (type: string): Said => term(wordFor(type));

/** The standard's word for a type, as it stands in sentences: "user task". */
export function wordFor(type: string): string {
  return typeWords[type] ?? type.replace(/([A-Z])/g, (letter) => ` ${letter.toLowerCase()}`);
}
