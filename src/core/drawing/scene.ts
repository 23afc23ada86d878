import { type Said, say, term } from "../messages";
import {
  type Bounds,
  childrenOf,
  type Diagram,
  type Edge,
  type Element,
  type Id,
  isEvent,
  type Model,
  nameOf,
  type Shape,
  termFor,
  triggerOf,
  wordFor,
} from "../model";
import { drawFlow } from "./flows";
import { flowLabel, labelPrimitives, type PlacedLabel } from "./labels";
import { drawNode, isExpanded, layerOf, outsideLabel } from "./nodes";
import type { Figure, Primitive } from "./primitives";

/** A page ready to be painted: figures from the lowest to the topmost. */
export interface Scene {
  readonly figures: readonly Figure[];
  readonly bounds: Bounds;
}

export interface SceneOptions {
  /** The hue of the role a lane stands for. */
  readonly hueOf?: (lane: Element) => string | undefined;
}

interface Cached {
  readonly inputs: readonly unknown[];
  readonly figure: Figure;
}
const cache = new WeakMap<Shape | Edge, Cached>();

/**
 * The scene of one page. Figures of elements that did not change are the same objects as last time, so that what paints
 * them can skip them. O(shapes and flows of the page).
 */
export function sceneOf(model: Model, diagram: Diagram, options: SceneOptions = {}): Scene {
  const figures: Figure[] = [];
  for (const shape of model.shapes) {
    if (shape.diagram !== diagram.id) continue;
    const element = model.elements.get(shape.element);
    if (element) figures.push(shapeFigure(model, element, shape, options));
  }
  for (const edge of model.edges) {
    if (edge.diagram !== diagram.id) continue;
    const element = model.elements.get(edge.element);
    if (element) figures.push(edgeFigure(model, element, edge));
  }
  figures.sort((a, b) => a.layer - b.layer || (a.id < b.id ? -1 : 1));
  return { figures, bounds: around(figures) };
}

/** A part of a scene: the chosen elements alone, with as much room as they take. */
export function sceneOfSome(scene: Scene, ids: ReadonlySet<Id>): Scene {
  const figures = scene.figures.filter((figure) => ids.has(figure.id));
  return { figures, bounds: around(figures) };
}

function remembered(key: Shape | Edge, inputs: readonly unknown[], draw: () => Figure): Figure {
  const last = cache.get(key);
  if (last && last.inputs.length === inputs.length && last.inputs.every((input, at) => input === inputs[at]))
    return last.figure;
  const figure = draw();
  cache.set(key, { inputs, figure });
  return figure;
}

function shapeFigure(model: Model, element: Element, shape: Shape, options: SceneOptions): Figure {
  const hue = element.type === "lane" ? options.hueOf?.(element) : undefined;
  const content = childrenOf(model, element.id).filter(
    (child) => child.slot !== "flowElements" && child.slot !== "artifacts",
  );
  const named = (["dataObjectRef", "categoryValueRef"] as const).map((field) =>
    model.elements.get(String(element[field])),
  );
  return remembered(shape, [element, hue, ...content, ...named], () => {
    const depth = isExpanded(element, shape)
      ? 2 + nesting(model, element) / 100
      : layerOf(element.type) + nesting(model, element) / 100;
    return painted(
      { id: element.id, type: element.type, title: titleOf(model, element), layer: depth, bounds: shape.bounds },
      outsideLabel(model, element, shape),
      () => drawNode(model, element, shape, hue),
    );
  });
}

function edgeFigure(model: Model, element: Element, edge: Edge): Figure {
  const source = model.elements.get(String(element.sourceRef));
  // One without a name is called by what it leads from and to.
  const ends = [element.sourceRef, element.targetRef].map((end) => typeof end === "string" && nameOf(model, end));
  return remembered(edge, [element, source?.type, source?.default === element.id, ...ends], () => {
    const xs = edge.waypoints.map((point) => point.x);
    const ys = edge.waypoints.map((point) => point.y);
    const x = Math.min(...xs);
    const y = Math.min(...ys);
    const bounds = { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
    return painted(
      { id: element.id, type: element.type, title: titleOf(model, element), layer: 5, bounds, line: edge.waypoints },
      flowLabel(element.name ?? "", edge),
      () => drawFlow(model, element, edge),
    );
  });
}

/**
 * A figure whose picture is made when somebody looks at it first: of a large page most is out of view, and where things are is asked for
 * long before what they look like.
 */
function painted(
  figure: Omit<Figure, "primitives" | "label">,
  label: PlacedLabel | undefined,
  draw: () => Primitive[],
): Figure {
  let made: readonly Primitive[] = [];
  // Given up once it is made: it holds the whole model.
  let making: (() => Primitive[]) | undefined = draw;
  return {
    ...figure,
    get primitives() {
      if (making) made = label ? [...making(), ...labelPrimitives(label)] : making();
      making = undefined;
      return made;
    },
    ...(label && { label: { ...label, movable: true } }),
  };
}

function nesting(model: Model, element: Element): number {
  let depth = 0;
  for (let at = element.parent; at !== null && depth < 300; depth++) at = model.elements.get(at)?.parent ?? null;
  return depth;
}

/** What an element is called aloud: "Check feeder capacity, user task". */
export function titleOf(model: Model, element: Element): Said {
  const name = nameOf(model, element.id);
  const trigger = isEvent(element.type) ? triggerOf(model, element) : "none";
  if (!name && typeof element.sourceRef === "string" && typeof element.targetRef === "string") {
    const end = (id: string) => nameOf(model, id) || say`unnamed`;
    return say`${termFor(element.type)} from ${end(element.sourceRef)} to ${end(element.targetRef)}`;
  }
  const kind = say`${name || say`Unnamed`}, ${termFor(element.type)}`;
  return trigger === "none" ? kind : say`${kind} (${term(wordFor(trigger).replace(" event definition", ""))})`;
}

function around(figures: readonly Figure[]): Bounds {
  let left = Number.POSITIVE_INFINITY;
  let top = Number.POSITIVE_INFINITY;
  let right = Number.NEGATIVE_INFINITY;
  let bottom = Number.NEGATIVE_INFINITY;
  const take = ({ x, y, width, height }: Bounds) => {
    left = Math.min(left, x);
    top = Math.min(top, y);
    right = Math.max(right, x + width);
    bottom = Math.max(bottom, y + height);
  };
  for (const figure of figures) {
    take(figure.bounds);
    if (figure.label) take(figure.label.bounds);
  }
  if (left > right) return { x: 0, y: 0, width: 0, height: 0 };
  return { x: left, y: top, width: right - left, height: bottom - top };
}

/** The page an element's content is drawn on, where it has one of its own. */
export function pageOf(model: Model, element: Id): Diagram | undefined {
  for (const diagram of model.diagrams) if (diagram.element === element) return diagram;
  return undefined;
}
