import type { Element, Id } from "./element";
import type { Model } from "./model";
import { childrenOf } from "./queries";
import type { XmlElement, XmlNode } from "./xmlNode";

/**
 * What a step is said to take: simulation parameters after BPSim 1.0, which stand in a relationship of the definitions. The first
 * scenario holds the estimates. Source of the form: "BPSim: Business Process Simulation Specification", 1.0 (WfMC), from memory.
 */
export interface Estimate {
  /** ISO 8601. */
  readonly time?: string;
  readonly cost?: number;
}

export const simulationNamespace = "http://www.bpsim.org/schemas/1.0";

const localName = (name: string) => name.slice(name.indexOf(":") + 1);
const isOf = (node: XmlNode, local: string): node is { element: XmlElement } =>
  "element" in node && node.element.uri === simulationNamespace && localName(node.element.name) === local;
const childOf = (element: XmlElement | undefined, local: string): XmlElement | undefined => {
  const node = element?.children.find((child) => isOf(child, local));
  return node && "element" in node ? node.element : undefined;
};
const attributeOf = (element: XmlElement | undefined, name: string) =>
  element?.attributes.find(([key]) => key === name)?.[1];

/** The element that holds the simulation data of a model, wherever its file has it. */
export function simulationHolder(model: Model): Element | undefined {
  const holders = [...childrenOf(model, model.root, "relationships"), model.elements.get(model.root) as Element];
  return holders.find((holder) => holder.extension?.some((node) => isOf(node, "BPSimData")));
}

/** The unit of money where a file does not say. */
const usualCurrency = "EUR";

/** The currency that the costs of a model are in. */
export function currencyOf(model: Model): string {
  const data = simulationHolder(model)?.extension?.find((node) => isOf(node, "BPSimData")) as
    | { element: XmlElement }
    | undefined;
  const parameters = childOf(childOf(data?.element, "Scenario"), "ScenarioParameters");
  return attributeOf(parameters, "baseCurrencyUnit") ?? usualCurrency;
}

const remembered = new WeakMap<Element, Map<Id, Estimate>>();

/** The estimates of all steps that have any. */
export function estimatesOf(model: Model): ReadonlyMap<Id, Estimate> {
  const holder = simulationHolder(model);
  if (!holder) return new Map();
  let found = remembered.get(holder);
  if (!found) {
    const data = holder.extension?.find((node) => isOf(node, "BPSimData")) as { element: XmlElement };
    found = readEstimates(data.element);
    remembered.set(holder, found);
  }
  return found;
}

function readEstimates(data: XmlElement): Map<Id, Estimate> {
  const found = new Map<Id, Estimate>();
  for (const node of childOf(data, "Scenario")?.children ?? []) {
    if (!isOf(node, "ElementParameters")) continue;
    const id = attributeOf(node.element, "elementRef");
    const time = attributeOf(
      childOf(childOf(childOf(node.element, "TimeParameters"), "ProcessingTime"), "DurationParameter"),
      "value",
    );
    const cost = attributeOf(
      childOf(childOf(childOf(node.element, "CostParameters"), "FixedCost"), "NumericParameter"),
      "value",
    );
    const amount = cost === undefined ? Number.NaN : Number(cost);
    if (id === undefined || (time === undefined && Number.isNaN(amount))) continue;
    found.set(id, { ...(time !== undefined && { time }), ...(!Number.isNaN(amount) && { cost: amount }) });
  }
  return found;
}

const make = (name: string, attributes: XmlElement["attributes"], children: readonly XmlNode[] = []): XmlElement => ({
  name: `bpsim:${name}`,
  uri: simulationNamespace,
  attributes,
  children,
});

/** The simulation data of a new relationship: one scenario without estimates. */
export const emptySimulation = (): XmlNode => {
  const parameters = make("ScenarioParameters", [["baseCurrencyUnit", usualCurrency]]);
  const scenario = make(
    "Scenario",
    [
      ["id", "estimates"],
      ["name", "Estimates"],
    ],
    [{ element: parameters }],
  );
  return { element: make("BPSimData", [["xmlns:bpsim", simulationNamespace]], [{ element: scenario }]) };
};

/** Extension content with a step's estimate set, or taken out where it is empty; everything else in it stays as it is. */
export function withEstimate(extension: readonly XmlNode[], id: Id, estimate: Estimate): readonly XmlNode[] {
  return extension.map((node) =>
    isOf(node, "BPSimData")
      ? { element: changed(node.element, "Scenario", (scenario) => withParameters(scenario, id, estimate)) }
      : node,
  );
}

function withParameters(scenario: XmlElement, id: Id, { time, cost }: Estimate): XmlElement {
  const isOwn = (node: XmlNode) => isOf(node, "ElementParameters") && attributeOf(node.element, "elementRef") === id;
  const known = scenario.children.find(isOwn) as { element: XmlElement } | undefined;
  let parameters = known?.element ?? make("ElementParameters", [["elementRef", id]]);
  parameters = withValue(parameters, "TimeParameters", "ProcessingTime", "DurationParameter", time);
  parameters = withValue(
    parameters,
    "CostParameters",
    "FixedCost",
    "NumericParameter",
    cost === undefined ? undefined : String(cost),
  );
  const children = known
    ? scenario.children.map((node) => (isOwn(node) ? { element: parameters } : node))
    : [...scenario.children, { element: parameters }];
  return {
    ...scenario,
    children: children.filter((node) => !isOwn(node) || parameters.children.some((child) => "element" in child)),
  };
}

/** Sets the one value of a kind of parameter; what else the kind holds stays. */
function withValue(
  parameters: XmlElement,
  kind: string,
  parameter: string,
  form: string,
  value: string | undefined,
): XmlElement {
  const group = childOf(parameters, kind);
  const others = (group?.children ?? []).filter((node) => !isOf(node, parameter));
  const own: XmlNode[] =
    value === undefined ? [] : [{ element: make(parameter, [], [{ element: make(form, [["value", value]]) }]) }];
  const children = [...own, ...others];
  const rest = parameters.children.filter((node) => !isOf(node, kind));
  return children.some((node) => "element" in node)
    ? { ...parameters, children: [...rest, { element: { ...(group ?? make(kind, [])), children } }] }
    : { ...parameters, children: rest };
}

/** An element with its first child of a name changed. */
function changed(element: XmlElement, local: string, change: (child: XmlElement) => XmlElement): XmlElement {
  const at = element.children.findIndex((node) => isOf(node, local));
  return {
    ...element,
    children: element.children.map((node, index) =>
      index === at && "element" in node ? { element: change(node.element) } : node,
    ),
  };
}
