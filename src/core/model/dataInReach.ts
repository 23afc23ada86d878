import { decidedBy } from "./decisionData";
import type { Id } from "./element";
import type { Model } from "./model";
import { ancestorsOf, childrenOf, nameOf } from "./queries";

/** Kinds of elements that hold data a condition may ask for. */
const holders = new Set([
  "dataObjectReference",
  "dataObject",
  "dataStoreReference",
  "property",
  "dataInput",
  "dataOutput",
]);

/**
 * Names of the data that an expression at an element can use: what stands in its scope and in the scopes around it (BPMN 2.0,
 * 10.4.1 "Data Modeling", visibility of data objects), each once, by name.
 */
export function dataInReach(model: Model, id: Id): string[] {
  const names = new Set<string>();
  for (const scope of ancestorsOf(model, id)) {
    for (const child of childrenOf(model, scope.id)) {
      if (holders.has(child.type)) names.add(nameOf(model, child.id));
      // What a decision comes to is data for all that stands around it.
      if (child.type === "businessRuleTask") names.add(decidedBy(child)?.result ?? "");
      if (child.type === "ioSpecification")
        for (const part of childrenOf(model, child.id)) if (holders.has(part.type)) names.add(nameOf(model, part.id));
    }
  }
  names.delete("");
  return [...names].sort((a, b) => a.localeCompare(b));
}
