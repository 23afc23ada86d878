import { counterpartsOf, type Element, type Id, isDataNode, isFlowNode, type Model, nameOf } from "../model";

export type MatchBy = "counterpart" | "id" | "name";

/** What a comparison is about; everything else of a model is seen through these. */
export function isCompared(element: Element): boolean {
  return (
    isFlowNode(element.type) ||
    ["sequenceFlow", "messageFlow", "participant", "lane", "dataStore"].includes(element.type) ||
    (isDataNode(element.type) && element.type !== "dataInput" && element.type !== "dataOutput")
  );
}

/**
 * Pairs the compared elements of two models, one to one. Without a wish, by counterpart where there is any, else by id, else by
 * name and type. O(elements).
 */
export function matchElements(from: Model, to: Model, by?: MatchBy): Map<Id, Id> {
  const before = [...from.elements].filter(isCompared);
  const after = [...to.elements].filter(isCompared);
  const method =
    by ??
    (after.some((element) => counterpartsOf(element).length > 0) ||
    before.some((element) => counterpartsOf(element).length > 0)
      ? "counterpart"
      : "id");
  const pairs = new Map<Id, Id>();
  const taken = new Set<Id>();
  const pair = (a: Id, b: Id) => {
    if (pairs.has(a) || taken.has(b)) return;
    pairs.set(a, b);
    taken.add(b);
  };
  const known = new Set(before.map((element) => element.id));
  if (method === "counterpart") {
    for (const element of after)
      for (const counterpart of counterpartsOf(element)) if (known.has(counterpart)) pair(counterpart, element.id);
    const targets = new Set(after.map((element) => element.id));
    for (const element of before)
      for (const counterpart of counterpartsOf(element)) if (targets.has(counterpart)) pair(element.id, counterpart);
    return pairs;
  }
  if (method === "id") {
    for (const element of after) if (known.has(element.id)) pair(element.id, element.id);
    if (by === "id" || pairs.size > 0) return pairs;
  }
  // By name: only names that are not empty, in the order of the file, within one type family of names.
  const byName = new Map<string, Id[]>();
  const key = (model: Model, element: Element) =>
    `${isFlowNode(element.type) ? "node" : element.type}\n${nameOf(model, element.id).toLowerCase()}`;
  for (const element of before) {
    if (!nameOf(from, element.id)) continue;
    const list = byName.get(key(from, element));
    if (list) list.push(element.id);
    else byName.set(key(from, element), [element.id]);
  }
  for (const element of after) {
    const candidate = nameOf(to, element.id) ? byName.get(key(to, element))?.shift() : undefined;
    if (candidate) pair(candidate, element.id);
  }
  // Flows are matched by their ends, since most of them have no name.
  for (const element of before) {
    if (pairs.has(element.id) || (element.type !== "sequenceFlow" && element.type !== "messageFlow")) continue;
    const source = pairs.get(element.sourceRef as Id);
    const target = pairs.get(element.targetRef as Id);
    const same = after.find(
      (other) =>
        !taken.has(other.id) && other.type === element.type && other.sourceRef === source && other.targetRef === target,
    );
    if (source && target && same) pair(element.id, same.id);
  }
  return pairs;
}
