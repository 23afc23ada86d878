import {
  type Element,
  type EventPosition,
  type EventTrigger,
  eventTable,
  isActivity,
  isEvent,
  isFlowNode,
  isGateway,
  isSubProcess,
  type Model,
  positionOf,
  taskTypes,
  wordFor,
} from "../../model";
import { type Kind, kindsThatMayFollow } from "./kinds";

/** Kinds of one sort, as a list of all kinds is divided. */
export interface KindGroup {
  readonly title: string;
  readonly kinds: readonly Kind[];
}

const triggersAt = (position: EventPosition) =>
  (Object.keys(eventTable) as EventTrigger[]).filter((trigger) => eventTable[trigger].includes(position));
const events = (position: EventPosition, kind: Kind): Kind[] =>
  triggersAt(position).map((trigger) => (trigger === "none" ? kind : { ...kind, trigger }));

/** Every kind of node that the standard has for processes, in groups. Follows from the lists of types and the table of events. */
export const everyKind: readonly KindGroup[] = [
  { title: "Tasks", kinds: taskTypes.map((type): Kind => ({ type })) },
  {
    title: "Sub-processes and calls",
    kinds: [
      { type: "subProcess" },
      { type: "subProcess", expanded: true },
      { type: "subProcess", triggeredByEvent: true },
      { type: "subProcess", triggeredByEvent: true, expanded: true },
      { type: "transaction" },
      { type: "transaction", expanded: true },
      { type: "adHocSubProcess" },
      { type: "adHocSubProcess", expanded: true },
      { type: "callActivity" },
    ],
  },
  {
    title: "Gateways",
    kinds: [
      { type: "exclusiveGateway" },
      { type: "parallelGateway" },
      { type: "inclusiveGateway" },
      { type: "eventBasedGateway" },
      { type: "eventBasedGateway", instantiate: true },
      { type: "eventBasedGateway", instantiate: true, eventGatewayType: "Parallel" },
      { type: "complexGateway" },
    ],
  },
  { title: "Start events", kinds: events("start", { type: "startEvent" }) },
  {
    title: "Start events of event sub-processes",
    kinds: [
      ...events("event sub-process, interrupting", { type: "startEvent", isInterrupting: true }),
      ...events("event sub-process, non-interrupting", { type: "startEvent", isInterrupting: false }),
    ],
  },
  { title: "Intermediate events, catching", kinds: events("catching", { type: "intermediateCatchEvent" }) },
  { title: "Intermediate events, throwing", kinds: events("throwing", { type: "intermediateThrowEvent" }) },
  {
    title: "Boundary events",
    kinds: [
      ...events("boundary, interrupting", { type: "boundaryEvent" }),
      ...events("boundary, non-interrupting", { type: "boundaryEvent", cancelActivity: false }),
    ],
  },
  { title: "End events", kinds: events("end", { type: "endEvent" }) },
  {
    title: "Data and notes",
    kinds: [
      { type: "dataObjectReference" },
      { type: "dataStoreReference" },
      { type: "textAnnotation" },
      { type: "group" },
    ],
  },
  {
    title: "Pools and lanes",
    kinds: [{ type: "participant" }, { type: "participant", closed: true }, { type: "lane" }],
  },
];

/** What a kind is called: "timer boundary event, non-interrupting". */
export function kindWords(kind: Kind): string {
  const { type, trigger } = kind;
  if (type === "participant") return kind.closed ? "closed pool" : "pool";
  if (isEvent(type)) {
    const what = trigger ? triggerWords(trigger) : "plain";
    const interrupts =
      kind.cancelActivity === false || kind.isInterrupting === false
        ? ", non-interrupting"
        : type === "boundaryEvent" || kind.isInterrupting === true
          ? ", interrupting"
          : "";
    return `${what} ${wordFor(type)}${interrupts}`;
  }
  const word = kind.triggeredByEvent ? "event sub-process" : wordFor(type);
  if (kind.instantiate)
    return `${word} that starts the process, by ${kind.eventGatewayType ? "all its events" : "one of its events"}`;
  return isSubProcess(type) ? `${word}, ${kind.expanded ? "open in place" : "closed"}` : word;
}

/** "Parallel multiple", "timer": what triggers an event, or what it throws. */
export function triggerWords(trigger: EventTrigger): string {
  switch (trigger) {
    case "none":
      return "plain";
    case "multiple":
      return "multiple";
    case "parallelMultiple":
      return "parallel multiple";
    case "compensateEventDefinition":
      return "compensation";
    default:
      return wordFor(trigger).replace(" event definition", "");
  }
}

/** Whether an event of a kind may stand inside a scope: with an inside of its own, an event sub-process has other starts. */
function fitsScope(kind: Kind, scope: Element | undefined): boolean {
  if (kind.type === "startEvent") {
    const inEventSubProcess = scope?.triggeredByEvent === true;
    if (inEventSubProcess) return kind.isInterrupting !== undefined;
    return kind.isInterrupting === undefined && (kind.trigger === undefined || scope?.type === "process" || !scope);
  }
  if (kind.trigger === "cancelEventDefinition" && kind.type === "endEvent") return scope?.type === "transaction";
  if (kind.instantiate) return !scope || scope.type === "process";
  return true;
}

/** All kinds that may come behind an element, or be placed where nothing is chosen, in groups: the short list and the rest. */
export function allKindsThatMayFollow(
  model: Model,
  element: Element | undefined,
  scope: Element | undefined,
): readonly KindGroup[] {
  const short = kindsThatMayFollow(model, element);
  const has = (test: (kind: Kind) => boolean) => short.some(test);
  const behind = element !== undefined && (isFlowNode(element.type) || element.type === "sequenceFlow");
  const allows = (kind: Kind): boolean => {
    if (!fitsScope(kind, scope)) return false;
    if (!behind) {
      if (element?.type === "participant" && element.processRef === undefined) return false;
      const isPool = element?.type === "participant" || element?.type === "lane";
      return kind.type !== "boundaryEvent" && !(isPool && kind.type === "participant") && (!element || isPool);
    }
    if (element.type === "eventBasedGateway")
      return (
        kind.type === "receiveTask" ||
        (kind.type === "intermediateCatchEvent" && has((other) => other.trigger === kind.trigger)) ||
        kind.type === "textAnnotation"
      );
    if (kind.type === "boundaryEvent")
      return (
        has((other) => other.type === "boundaryEvent") &&
        (kind.trigger !== "cancelEventDefinition" || element.type === "transaction")
      );
    if (isActivity(kind.type)) return kind.triggeredByEvent !== true && has((other) => isActivity(other.type));
    if (isGateway(kind.type)) return kind.instantiate !== true && has((other) => isGateway(other.type));
    if (kind.type === "endEvent") return has((other) => other.type === "endEvent");
    if (kind.type === "intermediateThrowEvent" || kind.type === "intermediateCatchEvent")
      return (
        has((other) => other.type === "intermediateThrowEvent") &&
        // A link is jumped to, not led to.
        !(kind.type === "intermediateCatchEvent" && kind.trigger === "linkEventDefinition")
      );
    return (
      short.some((other) => other.type === kind.type) ||
      (kind.type === "dataStoreReference" && isActivity(element.type))
    );
  };
  return withAny(everyKind, allows);
}

/** All kinds an element can be made into: of any family, as far as its place and its flows allow (`replace` says what does not). */
export function kindsToBecome(model: Model, element: Element, scope: Element | undefined): readonly KindGroup[] {
  if (element.type === "boundaryEvent")
    return withAny(everyKind, (kind) => kind.type === "boundaryEvent" && kind.trigger !== undefined);
  if (element.type === "dataObjectReference" || element.type === "dataStoreReference")
    return withAny(everyKind, (kind) => kind.type === "dataObjectReference" || kind.type === "dataStoreReference");
  if (!isFlowNode(element.type)) return [];
  const isStart = element.type === "startEvent";
  const position = isEvent(element.type) ? positionOf(model, element) : undefined;
  return withAny(
    everyKind,
    (kind) =>
      isFlowNode(kind.type) &&
      kind.type !== "boundaryEvent" &&
      kind.expanded === undefined &&
      fitsScope(kind, scope) &&
      (!isStart || kind.type === "startEvent" || position === "start"),
  );
}

function withAny(groups: readonly KindGroup[], allows: (kind: Kind) => boolean): KindGroup[] {
  return groups
    .map(({ title, kinds }) => ({ title, kinds: kinds.filter(allows) }))
    .filter(({ kinds }) => kinds.length > 0);
}
