import { type Element, eventDefinitionsOf, flowNodesIn, type Id, isActivity, type Model, triggerOf } from "../model";
import { type Compiled, insideOf, type World } from "../tokens";

/**
 * What becomes of a token at a node: it goes through (`pass`); a piece of work is done (`work`); something inside is played (`hold`); it
 * waits for an event (`wait`), for the first of several (`race`), or is an event at an edge (`edge`).
 */
export type Course = "pass" | "work" | "hold" | "wait" | "race" | "edge";

/** Remembered by scope: each step asks. */
const known = new WeakMap<Compiled, readonly Course[]>();

export function courseOf(world: World, scope: Compiled, node: number): Course {
  let courses = known.get(scope);
  if (!courses) {
    courses = scope.elements.map((element, at) => findCourse(world, scope, at, element));
    known.set(scope, courses);
  }
  return courses[node] ?? "pass";
}

function findCourse(world: World, scope: Compiled, at: number, element: Element): Course {
  if (scope.net.nodes[at]?.kind === "called" || element.type === "boundaryEvent") return "edge";
  if (element.type === "eventBasedGateway") return "race";
  if (element.type === "intermediateCatchEvent")
    return triggerOf(scope.model, element) === "linkEventDefinition" ? "pass" : "wait";
  if (element.type === "receiveTask") return "wait";
  if (!isActivity(element.type)) return "pass";
  return insideOf(world, scope.model, element) ? "hold" : "work";
}

/** The event that says what an edge or a wait is for: of an event sub-process its start. */
export const eventOf = (model: Model, element: Element): Element =>
  element.triggeredByEvent === true
    ? (flowNodesIn(model, element.id).find(({ type }) => type === "startEvent") ?? element)
    : element;

export type Trigger = "timer" | "message" | "signal" | "condition" | "thrown" | "none";

/** What an event waits for. */
export function triggerKind(model: Model, event: Element): Trigger {
  if (event.type === "receiveTask") return "message";
  switch (triggerOf(model, event)) {
    case "timerEventDefinition":
      return "timer";
    case "messageEventDefinition":
      return "message";
    case "signalEventDefinition":
      return "signal";
    case "conditionalEventDefinition":
      return "condition";
    case "none":
      return "none";
    default:
      return "thrown";
  }
}

/** The name of what an event or a step waits for: of its message or signal, else its own. */
export function nameOfAwaited(model: Model, event: Element): string {
  const [definition] = eventDefinitionsOf(model, event.id);
  const ref = event.messageRef ?? definition?.messageRef ?? definition?.signalRef;
  const named = typeof ref === "string" ? model.elements.get(ref) : undefined;
  return named?.name ?? event.name ?? event.id;
}

export const signalOf = (model: Model, event: Element): unknown =>
  eventDefinitionsOf(model, event.id).find(({ type }) => type === "signalEventDefinition")?.signalRef;

/** The condition that an event waits for. */
export const conditionOf = (model: Model, event: Element): string =>
  eventDefinitionsOf(model, event.id)
    .map((definition) => (definition.condition as { readonly text?: string } | undefined)?.text)
    .find((text) => text !== undefined) ?? "";

/** Whether something ends what it hangs on when it goes off. */
export const interrupts = (model: Model, element: Element): boolean =>
  element.type === "boundaryEvent"
    ? element.cancelActivity !== false
    : eventOf(model, element).isInterrupting !== false;

/** The process that a scope is in, as its model names it. */
export function processOfScope(model: Model, scope: Id): Id {
  let here: Id = scope;
  for (let element = model.elements.get(here); element; element = model.elements.get(here)) {
    if (element.type === "process" || element.parent === null) return element.id;
    here = element.parent;
  }
  return scope;
}

/** What needs nobody: a service answers, a script runs, a rule decides, a message goes out. */
export const isByMachine = ({ type }: { readonly type: string }): boolean =>
  /^(?:service|script|businessRule|send)Task$|^callActivity$|ubProcess$|^transaction$/.test(type);
