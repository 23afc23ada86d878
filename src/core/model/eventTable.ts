import type { Element } from "./element";
import { isSubProcess } from "./families";
import type { Model } from "./model";
import { type EventTrigger, triggerOf } from "./queries";

/** Where an event can stand, as the columns of the standard's table name it. */
export type EventPosition =
  | "start"
  | "event sub-process, interrupting"
  | "event sub-process, non-interrupting"
  | "catching"
  | "boundary, interrupting"
  | "boundary, non-interrupting"
  | "throwing"
  | "end";

const everywhereCaught: readonly EventPosition[] = [
  "start",
  "event sub-process, interrupting",
  "event sub-process, non-interrupting",
  "catching",
  "boundary, interrupting",
  "boundary, non-interrupting",
];

/**
 * Which trigger may stand where. Source: BPMN 2.0 (formal/2011-01-03), table 10.93 "Types of Events and their Markers",
 * from memory.
 */
export const eventTable: { readonly [Trigger in EventTrigger]: readonly EventPosition[] } = {
  none: ["start", "throwing", "end"],
  messageEventDefinition: [...everywhereCaught, "throwing", "end"],
  timerEventDefinition: everywhereCaught,
  errorEventDefinition: ["event sub-process, interrupting", "boundary, interrupting", "end"],
  escalationEventDefinition: [
    "event sub-process, interrupting",
    "event sub-process, non-interrupting",
    "boundary, interrupting",
    "boundary, non-interrupting",
    "throwing",
    "end",
  ],
  cancelEventDefinition: ["boundary, interrupting", "end"],
  compensateEventDefinition: ["event sub-process, interrupting", "boundary, interrupting", "throwing", "end"],
  conditionalEventDefinition: everywhereCaught,
  linkEventDefinition: ["catching", "throwing"],
  signalEventDefinition: [...everywhereCaught, "throwing", "end"],
  terminateEventDefinition: ["end"],
  multiple: [...everywhereCaught, "throwing", "end"],
  parallelMultiple: everywhereCaught,
};

/** The column of the table an event stands in. */
export function positionOf(model: Model, event: Element): EventPosition {
  switch (event.type) {
    case "boundaryEvent":
      return event.cancelActivity === false ? "boundary, non-interrupting" : "boundary, interrupting";
    case "intermediateCatchEvent":
      return "catching";
    case "endEvent":
      return "end";
    case "startEvent": {
      const parent = event.parent === null ? undefined : model.elements.get(event.parent);
      if (!parent || !isSubProcess(parent.type) || parent.triggeredByEvent !== true) return "start";
      return event.isInterrupting === false ? "event sub-process, non-interrupting" : "event sub-process, interrupting";
    }
    default:
      return "throwing";
  }
}

/** Whether an event's trigger is one the standard allows where the event stands. */
export function triggerIsAllowed(model: Model, event: Element): boolean {
  return eventTable[triggerOf(model, event)].includes(positionOf(model, event));
}

/** The triggers a position allows, in the table's order. */
export function triggersAllowedAt(position: EventPosition): EventTrigger[] {
  return (Object.keys(eventTable) as EventTrigger[]).filter((trigger) => eventTable[trigger].includes(position));
}
