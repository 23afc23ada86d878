import type { XmlElement, XmlNode } from "../../model";
import { localOf, textIn } from "./document";

/** Small steps on the XML of a file of decisions. Each gives the element itself where nothing is otherwise. */

export const attributeOf = (element: XmlElement, name: string): string | undefined =>
  element.attributes.find(([key]) => key === name)?.[1];

export function withAttribute(element: XmlElement, name: string, value: string | undefined): XmlElement {
  if (attributeOf(element, name) === value) return element;
  if (value === undefined) return { ...element, attributes: element.attributes.filter(([key]) => key !== name) };
  const at = element.attributes.findIndex(([key]) => key === name);
  const attributes = [...element.attributes];
  attributes.splice(at < 0 ? attributes.length : at, at < 0 ? 0 : 1, [name, value]);
  return { ...element, attributes };
}

/** The elements of one name in an element, in its own namespace. */
export const elementsIn = (element: XmlElement, local: string): XmlElement[] =>
  element.children.flatMap((node) =>
    "element" in node && node.element.uri === element.uri && localOf(node.element) === local ? [node.element] : [],
  );
export const elementIn = (element: XmlElement, local: string): XmlElement | undefined => elementsIn(element, local)[0];

/** The words of an element's `text`. */
export const wordsIn = (element: XmlElement | undefined): string => {
  const held = element && elementIn(element, "text");
  return held ? textIn(held).trim() : "";
};

/** An element named as its neighbours are: with their prefix, in their namespace. */
export function makeElement(
  beside: XmlElement,
  local: string,
  attributes: readonly (readonly [string, string | undefined])[] = [],
  children: readonly XmlNode[] = [],
): XmlElement {
  const colon = beside.name.indexOf(":");
  return {
    name: colon < 0 ? local : `${beside.name.slice(0, colon + 1)}${local}`,
    uri: beside.uri,
    attributes: attributes.flatMap(([name, value]) => (value === undefined ? [] : [[name, value] as const])),
    children,
  };
}

/** An element with the words of its `text`. */
export function withWordsIn(element: XmlElement, words: string): XmlElement {
  const held = elementIn(element, "text");
  if (held && textIn(held).trim() === words) return element;
  const text = makeElement(element, "text", held?.attributes ?? [], words === "" ? [] : [{ text: words }]);
  if (held) return withChild(element, held, text);
  return { ...element, children: [...element.children, { element: text }] };
}

/** One child put in the place of another; undefined takes it away, with the blanks before it. */
export function withChild(parent: XmlElement, child: XmlElement, by: XmlElement | undefined): XmlElement {
  if (child === by) return parent;
  const at = parent.children.findIndex((node) => "element" in node && node.element === child);
  if (at < 0) return parent;
  const children = [...parent.children];
  if (by) children[at] = { element: by };
  else {
    const before = children[at - 1];
    const isBlank = before !== undefined && "text" in before && before.text.trim() === "";
    children.splice(isBlank ? at - 1 : at, isBlank ? 2 : 1);
  }
  return { ...parent, children };
}

/**
 * The children of some names in a new order or with others; all else in the parent stays where it stands. Those that were there keep the
 * blanks before them; new ones take those of their neighbours.
 * @param order the names in the order the standard has them
 */
export function withChildren(
  parent: XmlElement,
  local: string,
  next: readonly XmlElement[],
  order: readonly string[],
): XmlElement {
  const before = elementsIn(parent, local);
  if (before.length === next.length && before.every((one, at) => one === next[at])) return parent;
  const isOurs = (node: XmlNode) => "element" in node && before.includes(node.element);
  const isBlank = (node: XmlNode | undefined) => node !== undefined && "text" in node && node.text.trim() === "";
  const first = parent.children.findIndex(isOurs);
  const rank = order.indexOf(local);
  const later = new Set(order.slice(rank + 1));
  const kept: XmlNode[] = [];
  let place = -1;
  for (const [at, node] of parent.children.entries()) {
    if (isOurs(node)) {
      // The blanks before it go with it, and are written anew.
      if (isBlank(kept.at(-1))) kept.pop();
      if (place < 0) place = kept.length;
      continue;
    }
    if (
      first < 0 &&
      place < 0 &&
      "element" in node &&
      node.element.uri === parent.uri &&
      later.has(localOf(node.element))
    )
      place = isBlank(parent.children[at - 1]) ? kept.length - 1 : kept.length;
    kept.push(node);
  }
  if (place < 0) place = isBlank(kept.at(-1)) ? kept.length - 1 : kept.length;
  const blanks = blanksOf(parent, first);
  kept.splice(
    place,
    0,
    ...next.flatMap((element): XmlNode[] => (blanks === "" ? [{ element }] : [{ text: blanks }, { element }])),
  );
  return { ...parent, children: kept };
}

/** The blanks that stand before the children of an element, as its author sets them. */
function blanksOf(parent: XmlElement, first: number): string {
  const at = first >= 0 ? first : parent.children.findIndex((node) => "element" in node);
  const before = parent.children[at - 1];
  return at > 0 && before && "text" in before && before.text.trim() === "" ? before.text : "";
}

/** An element somewhere below another, by its id, changed; the parent itself where there is none. */
export function changedById(
  root: XmlElement,
  id: string,
  change: (element: XmlElement) => XmlElement | undefined,
): XmlElement {
  for (const node of root.children)
    if ("element" in node && attributeOf(node.element, "id") === id)
      return withChild(root, node.element, change(node.element));
  return root;
}
