import { namesUsed } from "../../feel/language";
import type { XmlElement } from "../../model";
import { localOf } from "./document";
import { withChild, withWordsIn, wordsIn } from "./tree";

const testsIn = new Set(["inputEntry", "inputValues", "outputValues", "allowedValues", "typeConstraint"]);
const expressionsIn = new Set(["literalExpression", "inputExpression", "outputEntry", "defaultOutputEntry"]);

/** Goes over all words of FEEL in an element, and gives it with what they become. */
export function eachExpression(
  element: XmlElement,
  change: (text: string, what: "expression" | "tests") => string,
): XmlElement {
  const local = localOf(element);
  const what = testsIn.has(local) ? "tests" : expressionsIn.has(local) ? "expression" : undefined;
  const words = what && wordsIn(element);
  if (what && words) return withWordsIn(element, change(words, what));
  let next = element;
  for (const node of element.children)
    if ("element" in node) next = withChild(next, node.element, eachExpression(node.element, change));
  return next;
}

/** The names that words of FEEL use. */
export function usedNames(text: string, known: readonly string[], what: "expression" | "tests") {
  try {
    return namesUsed(text, known, what);
  } catch {
    // What cannot be read is told where it stands; it names nothing meanwhile.
    return [];
  }
}
