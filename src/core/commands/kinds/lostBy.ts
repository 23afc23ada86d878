import { childrenOf, type Element, type ElementType, type Model, termFor, typeInfo } from "../../model";

/** What says nothing of its own: where an element stands among others, and what the change of type sets anew. */
const unsaid = new Set(["incoming", "outgoing", "gatewayDirection", "startQuantity", "completionQuantity"]);

/** The parts of an element that another type has no place for. */
export function partsLostBy(model: Model, element: Element, to: ElementType): Element[] {
  const info = typeInfo(to);
  return childrenOf(model, element.id).filter((child) => {
    const content = info.content.get(child.slot);
    return content?.kind !== "children" || !content.types.includes(child.type);
  });
}

/**
 * What an element loses when it becomes another type, in the standard's words: fields and parts that type has no place for. Attributes and
 * extension elements of others stay, whatever it becomes. O(its fields and parts).
 */
export function lostBy(model: Model, element: Element, to: ElementType): string[] {
  if (element.type === to) return [];
  const [from, info] = [typeInfo(element.type), typeInfo(to)];
  const held = element as unknown as { readonly [field: string]: unknown };
  const fields = [...from.attributes.keys(), ...from.content.keys()].filter((field) => {
    const value = held[field];
    const isSaid = value !== undefined && value !== false && !(Array.isArray(value) && value.length === 0);
    return isSaid && !unsaid.has(field) && !info.attributes.has(field) && !info.content.has(field);
  });
  const parts = partsLostBy(model, element, to).filter(({ type }) => !type.endsWith("EventDefinition"));
  return [...new Set([...fields.map(inWords), ...parts.map(({ type }) => termFor(type).text)])];
}

/** "operationRef" as a person reads it: operation. */
const inWords = (field: string): string =>
  field
    .replace(/Refs?$/, "")
    .replace(/(\p{Ll})(\p{Lu})/gu, "$1 $2")
    .toLowerCase();
