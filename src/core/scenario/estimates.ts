import { childrenOf, type Element, type Figure, type Id, type Model, type XmlElement } from "../model";
import { isSimulation, usualCurrency } from "./bpsim";

/** What a step is said to take. */
export interface Estimate {
  /** ISO 8601. */
  readonly time?: string;
  readonly cost?: number;
}

/** The element that holds the simulation data, wherever its file has it: a relationship, else the definitions. */
export function simulationHolder(elements: Iterable<Element>, root: Id): Element | undefined {
  let found: Element | undefined;
  for (const element of elements) {
    const isPlace = element.id === root || (element.type === "relationship" && element.parent === root);
    if (!isPlace || !element.extension?.some((node) => isSimulation(node, "BPSimData"))) continue;
    const isBetter = !found || found.id === root || (element.id !== root && element.order < found.order);
    if (isBetter) found = element;
  }
  return found;
}

/** The same of a whole model. O(relationships). */
export const holderIn = (model: Model): Element | undefined =>
  simulationHolder(
    [
      ...childrenOf(model, model.root, "relationships"),
      ...(model.elements.get(model.root) ? [model.elements.get(model.root) as Element] : []),
    ],
    model.root,
  );

/** The currency that the costs of a model are in. */
export function currencyOf(model: Model): string {
  let at: XmlElement | undefined;
  for (const local of ["BPSimData", "Scenario", "ScenarioParameters"]) {
    const inside = at ? at.children : (holderIn(model)?.extension ?? []);
    const found = inside.find((node) => isSimulation(node, local));
    if (!found || !("element" in found)) return usualCurrency;
    at = found.element;
  }
  return at?.attributes.find(([name]) => name === "baseCurrencyUnit")?.[1] ?? usualCurrency;
}

const remembered = new WeakMap<Model["figures"], ReadonlyMap<Id, Estimate>>();

/** The estimates of all steps that have any. O(figures) the first time, then O(1). */
export function estimatesOf({ figures }: Model): ReadonlyMap<Id, Estimate> {
  const known = remembered.get(figures);
  if (known) return known;
  const found = new Map<Id, Estimate>();
  for (const { element, field, value } of figures as Iterable<Figure>) {
    const more = field === "processingTime" ? { time: String(value) } : { cost: Number(value) };
    found.set(element, { ...found.get(element), ...more });
  }
  remembered.set(figures, found);
  return found;
}
