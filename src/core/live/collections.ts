import { type CaseData, valueFor } from "../feel";
import { childrenOf, type Element, type Id, type Model, nameOf } from "../model";

/** How often a step is done, and what each instance has of its own; or why that cannot be told. */
export type Instances =
  | { readonly times: number; readonly own: (instance: number) => CaseData | undefined }
  | { readonly problem: string };

const mostInstances = 10_000;

/** The name of data that a loop refers to: of the object itself, where a reference stands for it. */
function nameOfData(model: Model, ref: Id): string {
  const element = model.elements.get(ref);
  const object = typeof element?.dataObjectRef === "string" ? element.dataObjectRef : undefined;
  return nameOf(model, ref) || (object === undefined ? "" : nameOf(model, object)) || ref;
}

/**
 * The instances of a step with several, by the data of the case (BPMN 2.0, 13.2.7 and table 10.28, from memory): one for each item of
 * the list that `loopDataInputRef` names, which `inputDataItem` names inside; else as many as the cardinality says.
 * @returns undefined where neither is said
 */
export function instancesByData(model: Model, loop: Element, data: CaseData): Instances | undefined {
  const ref = loop.loopDataInputRef;
  if (typeof ref === "string") {
    const name = nameOfData(model, ref);
    const list = Object.hasOwn(data, name) ? data[name] : data[ref];
    if (!Array.isArray(list)) return { problem: `“${name}” is no list` };
    if (list.length > mostInstances)
      return { problem: `“${name}” has ${list.length} items; more than ${mostInstances} cannot be run` };
    const item = itemName(model, loop, "inputDataItem");
    return {
      times: list.length,
      own: (instance) => ({ loopCounter: instance + 1, ...(item !== undefined && { [item]: list[instance] }) }),
    };
  }
  const text = (loop.loopCardinality as { readonly text?: string } | undefined)?.text;
  if (text === undefined || text.trim() === "") return undefined;
  const value = /^\d+$/.test(text.trim()) ? Number(text) : valueFor(text, data);
  const times = typeof value === "number" && Number.isInteger(value) ? value : Number.NaN;
  if (!(times >= 0 && times <= mostInstances)) return { problem: `“${text}” says no number of instances` };
  return { times, own: (instance) => ({ loopCounter: instance + 1 }) };
}

/** What the item of an instance is called inside. */
export function itemName(model: Model, loop: Element, which: "inputDataItem" | "outputDataItem"): string | undefined {
  const [item] = childrenOf(model, loop.id, which);
  return item && (nameOf(model, item.id) || item.id);
}

/** The list that the outputs of instances are gathered in. */
export const outputList = (model: Model, loop: Element): string | undefined =>
  typeof loop.loopDataOutputRef === "string" ? nameOfData(model, loop.loopDataOutputRef) : undefined;
