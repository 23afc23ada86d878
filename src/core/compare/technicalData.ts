import type { XmlElement, XmlNode } from "../model";

/** A line of somebody's technical data, as deep as it stands. */
export interface TechnicalLine {
  readonly depth: number;
  readonly words: string;
}

interface Technical {
  readonly attributes: readonly (readonly [name: string, value: string])[];
  readonly elements: readonly XmlNode[];
}

/**
 * Technical data as a change list holds it ("extension": attributes and extension elements of others), as a tree: an attribute or an
 * element with nothing but text in it a line, what is inside an element a step deeper. O(its size).
 */
export function technicalLines(held: string): TechnicalLine[] {
  const { attributes, elements } = JSON.parse(held) as Technical;
  return [
    ...attributes.map(([name, value]) => ({ depth: 0, words: `${name} = ${value}` })),
    ...elements.flatMap((node) => linesOf(node, 0)),
  ];
}

const isNamespace = (name: string) => name === "xmlns" || name.startsWith("xmlns:");

function linesOf(node: XmlNode, depth: number): TechnicalLine[] {
  if ("text" in node) return node.text.trim() === "" ? [] : [{ depth, words: node.text.trim() }];
  if (!("element" in node)) return [];
  const { name, children } = node.element;
  const attributes = ownAttributes(node.element);
  const [only, another] = children;
  const said = another === undefined && only && "text" in only ? only.text.trim() : "";
  if (said !== "" && attributes.length === 0) return [{ depth, words: `${name}: ${said}` }];
  const inside = children.flatMap((child) => linesOf(child, depth + 1));
  return [
    { depth, words: name },
    ...attributes.map(([key, value]) => ({ depth: depth + 1, words: `${key} = ${value}` })),
    ...inside,
  ];
}

const ownAttributes = ({ attributes }: XmlElement) => attributes.filter(([name]) => !isNamespace(name));
