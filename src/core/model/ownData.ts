import type { Element } from "./element";
import { ownNamespace } from "./model";
import type { XmlElement, XmlNode } from "./xmlNode";

const isOwn = (node: XmlNode, local: string): node is { element: XmlElement } =>
  "element" in node &&
  node.element.uri === ownNamespace &&
  node.element.name.slice(node.element.name.indexOf(":") + 1) === local;

/** The value of an attribute. */
export function attribute(element: XmlElement, name: string): string | undefined {
  return element.attributes.find(([key]) => key === name)?.[1];
}

/** An element of ours, as it is written. */
export function ownElement(local: string, attributes: readonly (readonly [string, string])[]): XmlNode {
  return { element: { name: `lln:${local}`, uri: ownNamespace, attributes, children: [] } };
}

/** The elements of ours of one name that an element holds. */
export function ownNodes(element: Element, local: string): XmlElement[] {
  return (element.extension ?? [])
    .filter((node) => isOwn(node, local))
    .map((node) => (node as { element: XmlElement }).element);
}

/** The extension content with our elements of one name replaced; undefined where nothing is left. */
export function replaced(element: Element, local: string, nodes: readonly XmlNode[]): readonly XmlNode[] | undefined {
  const kept = (element.extension ?? []).filter((node) => !isOwn(node, local));
  const next = [...kept, ...nodes];
  return next.length > 0 ? next : undefined;
}
