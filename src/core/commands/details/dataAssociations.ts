import { childrenOf, type Element, type Id, isActivity } from "../../model";
import type { Change } from "../kernel/change";

/**
 * Data goes into an activity through an input of its `ioSpecification`, which the schema demands; events hold inputs and
 * outputs themselves. Source: BPMN 2.0, 10.3.1 "Data Modeling", from memory.
 */
export function addDataAssociation(
  change: Change,
  type: "dataInputAssociation" | "dataOutputAssociation",
  id: Id,
  source: Id,
  target: Id,
): void {
  const isInput = type === "dataInputAssociation";
  const owner = change.element(isInput ? target : source);
  const data = change.element(isInput ? source : target);
  const item = `${id}.${isInput ? "input" : "output"}`;
  const name = data.name === undefined ? {} : { name: data.name };
  if (isActivity(owner.type)) addToSpecification(change, owner, isInput, item, name);
  else {
    change.insert(isInput ? "dataInput" : "dataOutput", item, owner.id, name);
    const setType = isInput ? "inputSet" : "outputSet";
    const field = isInput ? "dataInputRefs" : "dataOutputRefs";
    const set = childrenOf(change.model, owner.id, setType)[0];
    if (set) change.set("elements", set.id, field, [...((set[field] as readonly Id[] | undefined) ?? []), item]);
    else change.insert(setType, `${owner.id}.${setType}`, owner.id, { [field]: [item] });
  }
  change.insert(
    type,
    id,
    owner.id,
    isInput ? { sourceRef: [data.id], targetRef: item } : { sourceRef: [item], targetRef: data.id },
  );
}

function addToSpecification(
  change: Change,
  owner: Element,
  isInput: boolean,
  item: Id,
  name: { readonly name?: string },
): void {
  let specification = childrenOf(change.model, owner.id, "ioSpecification")[0];
  if (!specification) {
    specification = change.insert("ioSpecification", `${owner.id}.data`, owner.id);
    change.insert("inputSet", `${owner.id}.inputs`, specification.id);
    change.insert("outputSet", `${owner.id}.outputs`, specification.id);
  }
  change.insert(isInput ? "dataInput" : "dataOutput", item, specification.id, name);
  const set = childrenOf(change.model, specification.id, isInput ? "inputSets" : "outputSets")[0] as Element;
  const field = isInput ? "dataInputRefs" : "dataOutputRefs";
  change.set("elements", set.id, field, [...((set[field] as readonly Id[] | undefined) ?? []), item]);
}

/** Takes a data association out with the input or output it used, and an empty specification with it. */
export function removeDataAssociation(change: Change, association: Element): void {
  const owner = association.parent as Id;
  const item = (
    association.type === "dataInputAssociation"
      ? association.targetRef
      : (association.sourceRef as readonly Id[] | undefined)?.[0]
  ) as Id | undefined;
  change.remove("elements", association.id);
  const itemElement = item === undefined ? undefined : change.model.elements.get(item);
  if (!itemElement || !["dataInput", "dataOutput"].includes(itemElement.type)) return;
  const stillUsed = childrenOf(change.model, owner).some(
    (other) => other.targetRef === item || (other.sourceRef as readonly Id[] | undefined)?.includes?.(itemElement.id),
  );
  if (stillUsed) return;
  const holder = itemElement.parent as Id;
  for (const set of childrenOf(change.model, holder)) {
    if (set.type !== "inputSet" && set.type !== "outputSet") continue;
    for (const field of [
      "dataInputRefs",
      "dataOutputRefs",
      "optionalInputRefs",
      "optionalOutputRefs",
      "whileExecutingInputRefs",
      "whileExecutingOutputRefs",
    ]) {
      const refs = set[field] as readonly Id[] | undefined;
      if (!refs?.includes(itemElement.id)) continue;
      const left = refs.filter((ref) => ref !== itemElement.id);
      change.set("elements", set.id, field, left.length > 0 ? left : undefined);
    }
  }
  change.remove("elements", itemElement.id);
  const specification = change.model.elements.get(holder);
  if (specification?.type !== "ioSpecification") return;
  const rest = childrenOf(change.model, holder);
  if (rest.every((child) => child.type === "inputSet" || child.type === "outputSet")) {
    for (const child of rest) change.remove("elements", child.id);
    change.remove("elements", holder);
  }
}
