import type { XmlNode } from "../model";

/** Foreign content without the white space that only lays it out. */
export function withoutSpace(children: XmlNode[]): XmlNode[] {
  const texts = children.filter((node) => "text" in node);
  if (texts.length === children.length) return children.length > 0 ? [{ text: textOf(children) }] : [];
  return texts.every((node) => "text" in node && node.text.trim() === "")
    ? children.filter((node) => !("text" in node))
    : children;
}

/** All text inside, elements' too. */
export function textOf(nodes: readonly XmlNode[]): string {
  return nodes
    .map((node) => ("text" in node ? node.text : "element" in node ? textOf(node.element.children) : ""))
    .join("");
}
