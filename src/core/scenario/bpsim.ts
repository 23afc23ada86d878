import { type Figure, type FigureField, figureId, type Id, type XmlElement, type XmlNode } from "../model";

/**
 * Figures in files: simulation parameters after BPSim 1.0, which stand in a relationship of the definitions. The first scenario holds
 * the estimates. Source of the form: "BPSim: Business Process Simulation Specification", 1.0 (WfMC), from memory.
 *
 * A file's simulation data is kept with its element as it stood, all but the values that are figures; each leaves a mark in its place,
 * which no file can hold, so that it is written back where it was.
 */
export const simulationNamespace = "http://www.bpsim.org/schemas/1.0";
const mark = "~value";

/** Where a kind of figure stands inside the parameters of an element. */
const places: { readonly [field in FigureField]: readonly [group: string, parameter: string, form: string] } = {
  processingTime: ["TimeParameters", "ProcessingTime", "DurationParameter"],
  fixedCost: ["CostParameters", "FixedCost", "NumericParameter"],
};
const fields = Object.keys(places) as FigureField[];

type ElementNode = { readonly element: XmlElement };
const localName = (name: string) => name.slice(name.indexOf(":") + 1);
export const isSimulation = (node: XmlNode, local: string): node is ElementNode =>
  "element" in node && node.element.uri === simulationNamespace && localName(node.element.name) === local;
const attributeOf = (element: XmlElement, name: string) => element.attributes.find(([key]) => key === name)?.[1];

/** An element with its first child of a name changed; without such a child, as it is. */
function withChild(element: XmlElement, local: string, change: (child: XmlElement) => XmlElement): XmlElement {
  const at = element.children.findIndex((node) => isSimulation(node, local));
  if (at < 0) return element;
  const children = element.children.map((node, index) =>
    index === at ? { element: change((node as ElementNode).element) } : node,
  );
  return { ...element, children };
}

/** The extension content with the parameters of elements in the first scenario changed; undefined takes them out. */
function withParameters(
  extension: readonly XmlNode[],
  change: (parameters: XmlElement) => XmlElement | undefined,
  more: () => readonly XmlElement[] = () => [],
): readonly XmlNode[] {
  const data = extension.findIndex((node) => isSimulation(node, "BPSimData"));
  if (data < 0) return extension;
  return extension.map((node, at) =>
    at !== data
      ? node
      : {
          element: withChild((node as ElementNode).element, "Scenario", (scenario) => ({
            ...scenario,
            children: [
              ...scenario.children.flatMap((child): XmlNode[] => {
                if (!isSimulation(child, "ElementParameters")) return [child];
                const changed = change(child.element);
                return changed ? [{ element: changed }] : [];
              }),
              ...more().map((element) => ({ element })),
            ],
          })),
        },
  );
}

/** Takes the figures out of simulation data: what is left has a mark where each stood. */
export function takeFigures(extension: readonly XmlNode[]): {
  readonly extension: readonly XmlNode[];
  readonly figures: readonly Figure[];
} {
  const figures = new Map<Id, Figure>();
  const left = withParameters(extension, (parameters) => {
    const element = attributeOf(parameters, "elementRef");
    if (element === undefined) return parameters;
    let next = parameters;
    for (const field of fields) {
      const [group, parameter, form] = places[field];
      next = withChild(next, group, (inGroup) =>
        withChild(inGroup, parameter, (inParameter) =>
          withChild(inParameter, form, (value) => {
            const id = figureId(element, field);
            const text = attributeOf(value, "value");
            if (text === undefined || figures.has(id)) return value;
            const isCost = field === "fixedCost";
            if (isCost && (text.trim() === "" || !Number.isFinite(Number(text)))) return value;
            const known = isCost ? Number(text) : text;
            figures.set(id, { id, element, field, value: known });
            // A number spelled otherwise than we would is written back as it was, as long as it is the same number.
            const spelled = String(known) === text ? "" : text;
            const attributes = value.attributes.map((pair) =>
              pair[0] === "value" ? ([mark, spelled] as const) : pair,
            );
            return { ...value, attributes };
          }),
        ),
      );
    }
    return next;
  });
  return { extension: figures.size > 0 ? left : extension, figures: [...figures.values()] };
}

/** Puts figures into simulation data, each where it stood, new ones behind; marks of figures that are gone go, with what held only them. */
export function putFigures(extension: readonly XmlNode[], figures: Iterable<Figure>): readonly XmlNode[] {
  const waiting = new Map<Id, Map<FigureField, Figure>>();
  for (const figure of figures) {
    const of = waiting.get(figure.element) ?? new Map<FigureField, Figure>();
    waiting.set(figure.element, of.set(figure.field, figure));
  }
  const filled = (parameters: XmlElement): XmlElement | undefined => {
    const own = waiting.get(attributeOf(parameters, "elementRef") ?? "");
    let next = parameters;
    for (const field of fields) {
      const figure = own?.get(field);
      own?.delete(field);
      next = withFigure(next, field, figure);
    }
    const isEmptied = next !== parameters && !next.children.some((child) => "element" in child);
    return isEmptied ? undefined : next;
  };
  return withParameters(extension, filled, () =>
    [...waiting].flatMap(([element, own]) => {
      if (own.size === 0) return [];
      const start = make("ElementParameters", [["elementRef", element]]);
      return [...own.values()].reduce((made, figure) => withFigure(made, figure.field, figure), start);
    }),
  );
}

const isMarked = (element: XmlElement) => element.attributes.some(([name]) => name === mark);

/** Parameters with a figure put where its mark is, else made anew; without a figure the mark goes. */
function withFigure(parameters: XmlElement, field: FigureField, figure: Figure | undefined): XmlElement {
  const [group, parameter, form] = places[field];
  let isPlaced = false;
  const inForms = (element: XmlElement): XmlElement => ({
    ...element,
    children: element.children.flatMap((node): XmlNode[] => {
      if (!isSimulation(node, form) || !isMarked(node.element)) return [node];
      isPlaced = true;
      return figure ? [{ element: unmarked(node.element, figure) }] : [];
    }),
  });
  const placed = withChild(parameters, group, (inGroup) => withChild(inGroup, parameter, inForms));
  if (isPlaced) return figure ? placed : pruned(pruned(placed, group, parameter), group);
  if (!figure) return parameters;
  const value: XmlNode = { element: make(form, [["value", String(figure.value)]]) };
  const known = parameters.children.find((node) => isSimulation(node, group)) as ElementNode | undefined;
  const others = (known?.element.children ?? []).filter((node) => !isSimulation(node, parameter));
  const whole = {
    ...(known?.element ?? make(group, [])),
    children: [{ element: make(parameter, [], [value]) }, ...others],
  };
  return known
    ? withChild(parameters, group, () => whole)
    : { ...parameters, children: [...parameters.children, { element: whole }] };
}

function unmarked(element: XmlElement, { value }: Figure): XmlElement {
  const attributes = element.attributes.map((pair) => {
    if (pair[0] !== mark) return pair;
    const isSame = pair[1] !== "" && Number(pair[1]) === value;
    return ["value", isSame ? pair[1] : String(value)] as const;
  });
  return { ...element, attributes };
}

/** Takes an element along a path out where it holds no element any more. */
function pruned(element: XmlElement, ...path: readonly string[]): XmlElement {
  const [next, ...rest] = path;
  if (next === undefined) return element;
  if (rest.length > 0) return withChild(element, next, (child) => pruned(child, ...rest));
  const children = element.children.filter(
    (node) => !(isSimulation(node, next) && !node.element.children.some((child) => "element" in child)),
  );
  return { ...element, children };
}

const make = (name: string, attributes: XmlElement["attributes"], children: readonly XmlNode[] = []): XmlElement => ({
  name: `bpsim:${name}`,
  uri: simulationNamespace,
  attributes,
  children,
});

/** The unit of money where a file does not say. */
export const usualCurrency = "EUR";

/** The simulation data of a new relationship: one scenario without figures. */
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
