import type { XmlElement } from "../../model";
import { namesOf } from "../names";
import { localOf } from "./document";
import { eachExpression, usedNames } from "./expressions";
import { decisionOrder, itemOf } from "./item";
import { attributeOf, changedById, elementsIn, makeElement, withChild, withChildren } from "./tree";

/** What an item requires: which element says so, and about what. */
const needOf = {
  decision: ["informationRequirement", "requiredDecision"],
  inputData: ["informationRequirement", "requiredInput"],
  businessKnowledgeModel: ["knowledgeRequirement", "requiredKnowledge"],
} as const;

/** An item that requires another. */
export function withNeed(root: XmlElement, of: string, id: string): XmlElement {
  const needed = itemOf(root, id);
  const names = needed && needOf[localOf(needed) as keyof typeof needOf];
  if (!names) return root;
  const [requirement, what] = names;
  return changedById(root, of, (item) => {
    const before = elementsIn(item, requirement);
    const isThere = before.some((one) => hrefIn(one) === id);
    if (isThere) return item;
    const made = makeElement(
      item,
      requirement,
      [["id", `${of}.needs.${id}`]],
      [{ element: makeElement(item, what, [["href", `#${id}`]]) }],
    );
    return withChildren(item, requirement, [...before, made], decisionOrder);
  });
}
export function withoutNeed(root: XmlElement, of: string, id: string): XmlElement {
  return changedById(root, of, (item) =>
    ["informationRequirement", "knowledgeRequirement"].reduce(
      (one, local) =>
        elementsIn(one, local)
          .filter((requirement) => hrefIn(requirement) === id)
          .reduce((rest, requirement) => withChild(rest, requirement, undefined), one),
      item,
    ),
  );
}
function hrefIn(requirement: XmlElement): string | undefined {
  for (const node of requirement.children) {
    const href = "element" in node ? attributeOf(node.element, "href") : undefined;
    if (href !== undefined) return href.replace(/^.*#/, "");
  }
  return undefined;
}

/** The names of the file that an item uses in its logic. */
function usedBy(root: XmlElement, id: string): Set<string> {
  const item = itemOf(root, id);
  const names = namesOf(root);
  const used = new Set<string>();
  if (!item) return used;
  eachExpression(item, (text, what) => {
    for (const one of usedNames(text, names, what)) if (!one.isOwn && !one.isPart) used.add(one.name);
    return text;
  });
  return used;
}
/** Requirements by what an item uses: what it used before and no longer does is required no longer. */
export function needing(root: XmlElement, id: string, before: XmlElement): XmlElement {
  const [now, then] = [usedBy(root, id), usedBy(before, id)];
  let next = root;
  for (const kind of ["inputData", "decision", "businessKnowledgeModel"])
    for (const one of elementsIn(root, kind)) {
      const [other, name] = [attributeOf(one, "id") ?? "", attributeOf(one, "name") ?? ""];
      if (other === id) continue;
      if (now.has(name) === then.has(name)) continue;
      if (now.has(name)) next = withNeed(next, id, other);
      else next = withoutNeed(next, id, other);
    }
  return next;
}
