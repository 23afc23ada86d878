import { type EventTrigger, eventDefinitionsOf, type Id, triggerOf } from "../../model";
import type { Change } from "../kernel/change";

/** Several triggers begin with these two; which they are is said by their definitions, of which there can be any. */
const several = ["messageEventDefinition", "timerEventDefinition"] as const;

/** Gives an event its trigger, as definitions inside it. */
export function addTrigger(change: Change, event: Id, trigger: EventTrigger): void {
  if (trigger === "none") return;
  const types = trigger === "multiple" || trigger === "parallelMultiple" ? several : [trigger];
  for (const type of types) {
    let definition = `${event}.trigger`;
    for (let counter = 2; change.isTaken(definition); counter++) definition = `${event}.trigger.${counter}`;
    change.insert(type, definition, event);
  }
}

/** Changes what triggers an event, or what it throws. Between one and all of several triggers, the definitions stay. */
export function setTrigger(change: Change, event: Id, trigger: EventTrigger): void {
  const held = triggerOf(change.model, change.element(event));
  if (held === trigger) return;
  const isSeveral = (one: EventTrigger) => one === "multiple" || one === "parallelMultiple";
  if (!(isSeveral(held) && isSeveral(trigger))) {
    for (const definition of eventDefinitionsOf(change.model, event))
      if (definition.parent === event) change.remove("elements", definition.id);
    change.set("elements", event, "eventDefinitionRef", undefined);
    addTrigger(change, event, trigger);
  }
  change.set("elements", event, "parallelMultiple", trigger === "parallelMultiple" ? true : undefined);
}
