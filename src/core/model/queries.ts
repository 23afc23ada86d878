import type { Diagram, Edge, Shape } from "./diagram";
import { type Element, type ElementOf, type ElementType, type Id, isA } from "./element";
import { type EventDefinitionType, isEventDefinition, isFlowNode, isScope } from "./families";
import type { Model } from "./model";
import { indexOf } from "./modelIndex";

/** Questions a model answers. All are look-ups in its index: O(answer). */

export function childrenOf(model: Model, parent: Id, slot?: string): Element[] {
  const ids = indexOf(model).children.get(parent) ?? [];
  const children = ids.map((id) => model.elements.get(id) as Element);
  return slot === undefined ? children : children.filter((child) => child.slot === slot);
}

/** Elements that name the given one in a field, in no particular order. */
export function referrersOf(model: Model, target: Id, field?: string): Element[] {
  const found: Element[] = [];
  for (const reference of indexOf(model).referrers.get(target) ?? []) {
    if (field !== undefined && reference.field !== field) continue;
    const element = model.elements.get(reference.from);
    if (element) found.push(element);
  }
  return found;
}

type SequenceFlow = Element & ElementOf<"sequenceFlow">;
const isSequenceFlow = (element: Element): element is SequenceFlow => element.type === "sequenceFlow";
const byOrder = (a: Element, b: Element) => a.order - b.order || (a.id < b.id ? -1 : 1);

export function outgoingOf(model: Model, node: Id): SequenceFlow[] {
  return referrersOf(model, node, "sourceRef").filter(isSequenceFlow).sort(byOrder);
}

export function incomingOf(model: Model, node: Id): SequenceFlow[] {
  return referrersOf(model, node, "targetRef").filter(isSequenceFlow).sort(byOrder);
}

/** Every connection that begins or ends at an element, of whatever type. */
export function connectionsOf(model: Model, node: Id): Element[] {
  return [...new Set([...referrersOf(model, node, "sourceRef"), ...referrersOf(model, node, "targetRef")])];
}

export function boundaryEventsOf(model: Model, host: Id): Element[] {
  return referrersOf(model, host, "attachedToRef").sort(byOrder);
}

export function eventDefinitionsOf(model: Model, event: Id): Element[] {
  const own = childrenOf(model, event).filter((child) => isEventDefinition(child.type));
  const refs = (model.elements.get(event)?.eventDefinitionRef as readonly Id[] | undefined) ?? [];
  return [...own, ...refs.flatMap((id) => model.elements.get(id) ?? [])];
}

/** "none", one definition's type, or what several make together. */
export type EventTrigger = "none" | EventDefinitionType | "multiple" | "parallelMultiple";

export function triggerOf(model: Model, event: Element): EventTrigger {
  const definitions = eventDefinitionsOf(model, event.id);
  if (definitions.length === 0) return "none";
  if (definitions.length === 1) return (definitions[0] as Element).type as EventDefinitionType;
  return event.parallelMultiple === true ? "parallelMultiple" : "multiple";
}

/** From the element itself upwards to the definitions. Stops at a cycle, which only a broken file has. */
export function ancestorsOf(model: Model, id: Id): Element[] {
  const found: Element[] = [];
  const seen = new Set<Id>();
  let current = model.elements.get(id);
  while (current && !seen.has(current.id)) {
    seen.add(current.id);
    found.push(current);
    current = current.parent === null ? undefined : model.elements.get(current.parent);
  }
  return found;
}

/** The element and everything inside it, parents first. */
export function subtreeOf(model: Model, id: Id): Element[] {
  const root = model.elements.get(id);
  if (!root) return [];
  const found: Element[] = [root];
  for (let at = 0; at < found.length; at++) found.push(...childrenOf(model, (found[at] as Element).id));
  return found;
}

/** The process or sub-process whose flow an element belongs to. */
export function scopeOf(model: Model, id: Id): Element | undefined {
  return ancestorsOf(model, id)
    .slice(1)
    .find((element) => isScope(element.type));
}

export function processOf(model: Model, id: Id): Element | undefined {
  return ancestorsOf(model, id).find((element) => element.type === "process");
}

export function processesOf(model: Model): Element[] {
  return childrenOf(model, model.root).filter((element) => element.type === "process");
}

export function participantsOf(model: Model): (Element & ElementOf<"participant">)[] {
  return childrenOf(model, model.root)
    .filter((element) => element.type === "collaboration")
    .flatMap((collaboration) => childrenOf(model, collaboration.id, "participants"))
    .filter((element): element is Element & ElementOf<"participant"> => isA(element, "participant"));
}

/** The pool an element is in: the participant itself, or the one that stands for its process. */
export function participantOf(model: Model, id: Id): Element | undefined {
  const element = model.elements.get(id);
  if (element?.type === "participant") return element;
  const process = processOf(model, id);
  return process && referrersOf(model, process.id, "processRef").find((referrer) => referrer.type === "participant");
}

/** The innermost lane that lists an element, or the one its host or container stands in. */
export function laneOf(model: Model, id: Id): Element | undefined {
  for (const element of ancestorsOf(model, id)) {
    if (element.type === "process") return undefined;
    const lanes = referrersOf(model, element.id, "flowNodeRef").filter((referrer) => referrer.type === "lane");
    if (lanes.length > 0) return innermost(model, lanes);
    const host = element.type === "boundaryEvent" ? (element.attachedToRef as Id | undefined) : undefined;
    if (host && host !== id && model.elements.get(host)?.type !== "boundaryEvent") {
      const lane = laneOf(model, host);
      if (lane) return lane;
    }
  }
  return undefined;
}

function innermost(model: Model, lanes: readonly Element[]): Element | undefined {
  let best: Element | undefined;
  let depth = -1;
  for (const lane of lanes) {
    const laneDepth = ancestorsOf(model, lane.id).length;
    if (laneDepth > depth) [best, depth] = [lane, laneDepth];
  }
  return best;
}

/** Lanes directly within a process (or sub-process) or lane, top to bottom. */
export function lanesOf(model: Model, container: Id): Element[] {
  return childrenOf(model, container)
    .filter((element) => element.type === "laneSet")
    .flatMap((laneSet) => childrenOf(model, laneSet.id, "lanes"));
}

/** Lanes without lanes inside, of a whole process, top to bottom. */
export function leafLanesOf(model: Model, container: Id): Element[] {
  return lanesOf(model, container).flatMap((lane) => {
    const inner = leafLanesOf(model, lane.id);
    return inner.length > 0 ? inner : [lane];
  });
}

export function flowNodesIn(model: Model, scope: Id): Element[] {
  return childrenOf(model, scope, "flowElements").filter((element) => isFlowNode(element.type));
}

export function elementsOfType<Type extends ElementType>(model: Model, type: Type): (Element & ElementOf<Type>)[] {
  const found: (Element & ElementOf<Type>)[] = [];
  for (const element of model.elements) if (isA(element, type)) found.push(element);
  return found.sort(byOrder);
}

export function shapesOf(model: Model, element: Id): Shape[] {
  return (indexOf(model).shapes.get(element) ?? []).map((id) => model.shapes.get(id) as Shape);
}

export function edgesOf(model: Model, element: Id): Edge[] {
  return (indexOf(model).edges.get(element) ?? []).map((id) => model.edges.get(id) as Edge);
}

/** An element's place on one page. */
export function shapeOn(model: Model, diagram: Id, element: Id): Shape | undefined {
  return shapesOf(model, element).find((shape) => shape.diagram === diagram);
}

export function edgeOn(model: Model, diagram: Id, element: Id): Edge | undefined {
  return edgesOf(model, element).find((edge) => edge.diagram === diagram);
}

/** An element as people call it: its name, or its type where it has none. */
export function nameOf(model: Model, id: Id): string {
  const element = model.elements.get(id);
  if (!element) return id;
  if (element.name?.trim()) return element.name.replace(/\s+/g, " ").trim();
  const text = element.text as { text?: string } | undefined;
  if (text?.text?.trim()) return text.text.trim();
  return "";
}

/** What a page is called: by itself, or by the element whose inside it shows. */
export const pageName = (model: Model, diagram: Diagram): string =>
  diagram.name ?? (diagram.element ? nameOf(model, diagram.element) : "");
