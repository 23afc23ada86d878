import { builtInNames } from "../feel/language";
import type { XmlElement } from "../model";

const known = new WeakMap<XmlElement, readonly string[]>();

/** All names that expressions of a file may use: of its items, their types and parts, its variables, and the functions of the language. */
export function namesOf(root: XmlElement): readonly string[] {
  const before = known.get(root);
  if (before) return before;
  const names = new Set(builtInNames);
  const visit = (element: XmlElement) => {
    for (const [key, value] of element.attributes)
      if ((key === "name" || key === "iteratorVariable") && value !== "") names.add(value.replace(/\s+/g, " ").trim());
    for (const node of element.children) if ("element" in node) visit(node.element);
  };
  visit(root);
  const found = [...names];
  known.set(root, found);
  return found;
}
