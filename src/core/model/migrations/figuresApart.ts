/**
 * Form 2: times and costs of steps stand in records of their own. Until then they were in the one field that holds the simulation data
 * of the whole file, so that the 300th estimate was a change of half a megabyte, and two people estimating two steps collided.
 * Plain data in, plain data out; nothing of today's types, which will change under it.
 */
type Plain = { readonly [field: string]: unknown };
interface Node {
  readonly element?: {
    readonly name: string;
    readonly uri: string;
    readonly attributes: readonly (readonly [string, string])[];
    readonly children: readonly Node[];
  };
}
const namespace = "http://www.bpsim.org/schemas/1.0";
const isOf = (node: Node, local: string) =>
  node.element?.uri === namespace && node.element.name.slice(node.element.name.indexOf(":") + 1) === local;

/** The node with the first child along a path changed; the same node where the path is not there. */
function along(node: Node, path: readonly string[], change: (found: Node) => Node): Node {
  const [next, ...rest] = path;
  if (next === undefined) return change(node);
  const children = node.element?.children ?? [];
  const at = children.findIndex((child) => isOf(child, next));
  if (at < 0 || !node.element) return node;
  const changed = children.map((child, index) => (index === at ? along(child, rest, change) : child));
  return { element: { ...node.element, children: changed } };
}

export function figuresApart(stored: Plain): Plain {
  const figures: Plain[] = [];
  const seen = new Set<string>();
  const elements = (stored.elements as readonly Plain[]).map((element) => ({ ...element }) as Record<string, unknown>);
  const holders = [
    ...elements.filter((element) => element.type === "relationship"),
    ...elements.filter((element) => element.id === stored.root),
  ];
  const holder = holders.find((one) => (one.extension as Node[] | undefined)?.some((node) => isOf(node, "BPSimData")));
  if (!holder) return { ...stored, elements, figures, schemaVersion: 2 };
  const taken = (parameters: Node): Node => {
    const id = parameters.element?.attributes.find(([name]) => name === "elementRef")?.[1];
    if (id === undefined) return parameters;
    let next = parameters;
    for (const [path, field] of [
      [["TimeParameters", "ProcessingTime", "DurationParameter"], "processingTime"],
      [["CostParameters", "FixedCost", "NumericParameter"], "fixedCost"],
    ] as const)
      next = along(next, path, (found) => {
        const text = found.element?.attributes.find(([name]) => name === "value")?.[1];
        const key = `${id} ${field}`;
        const isCost = field === "fixedCost";
        if (text === undefined || !found.element || seen.has(key)) return found;
        if (isCost && (text.trim() === "" || !Number.isFinite(Number(text)))) return found;
        seen.add(key);
        figures.push({ id: key, element: id, field, value: isCost ? Number(text) : text });
        const attributes = found.element.attributes.map((pair) =>
          pair[0] === "value"
            ? (["~value", String(isCost && String(Number(text)) !== text ? text : "")] as const)
            : pair,
        );
        return { element: { ...found.element, attributes } };
      });
    return next;
  };
  let isFirst = true;
  holder.extension = (holder.extension as Node[]).map((node) => {
    if (!isOf(node, "BPSimData") || !isFirst) return node;
    isFirst = false;
    return along(node, ["Scenario"], (scenario) =>
      scenario.element
        ? {
            element: {
              ...scenario.element,
              children: scenario.element.children.map((child) =>
                isOf(child, "ElementParameters") ? taken(child) : child,
              ),
            },
          }
        : scenario,
    );
  });
  return { ...stored, elements, figures, schemaVersion: 2 };
}
