import {
  besideLine,
  defaultMark,
  flowLabel,
  type LabelAnchor,
  labelBeside,
  nodeLabel,
  type PlacedLabel,
} from "../../drawing";
import { boundsOfPoints, grow, overlaps } from "../../layout";
import {
  type Bounds,
  type Edge,
  type Element,
  type Id,
  isDataNode,
  isEvent,
  isGateway,
  type Point,
  type Shape,
} from "../../model";
import type { Change } from "./change";
import { coversBox, LabelSpace, onLine } from "./labelSpace";
import { shapesOnPage } from "./page";

/** A name beside a line that is another flow's too says too little. */
const onSharedPiece = 60;

/**
 * Finds places for the labels of a page where they cover neither shapes nor each other, and flows as little as can be: for all, or
 * for some, around those of the others.
 * @param near only labels in these places, and of them only those that lie badly; the rest of the page is not looked at
 */
export function placeLabels(change: Change, diagram: Id, only?: ReadonlySet<Id>, near?: readonly Bounds[]): void {
  const space = new LabelSpace();
  const reach = near?.map((box) => grow(box, 160));
  const isNear = (box: Bounds) => !reach || reach.some((one) => overlaps(one, box));
  const all = shapesOnPage(change.model, diagram).filter(({ shape }) => isNear(shape.bounds));
  const shapes = all.filter(({ element }) => !["participant", "lane", "group"].includes(element.type));
  for (const { shape } of shapes) if (shape.isExpanded !== true) space.addBox(shape.bounds);
  const edges = [...change.model.edges].filter(
    (edge) => edge.diagram === diagram && edge.waypoints.length > 1 && isNear(boundsOfPoints(edge.waypoints)),
  );
  for (const edge of edges) {
    space.addLine(edge.waypoints, edge.element);
    const source = change.model.elements.get(String(change.model.elements.get(edge.element)?.sourceRef));
    if (source?.default === edge.element)
      space.addLine(defaultMark(edge.waypoints[0] as Point, edge.waypoints[1] as Point));
  }
  // A label across the border of two lanes seems to belong to both.
  for (const { shape, element } of all)
    if (element.type === "lane" || element.type === "participant") addBorders(space, shape.bounds);

  const isKept = (id: Id) => only !== undefined && !only.has(id);
  // Where only what lies badly moves, all that lies well stands first, so that nothing dodges onto it.
  const lying = near && keepWhatLiesWell(space, near, shapes, edges, change);
  for (const { shape, element } of shapes) {
    const text = element.name ?? "";
    if (lying?.has(shape.id)) continue;
    if (isKept(element.id)) {
      if (shape.label?.bounds) space.addBox(shape.label.bounds);
      continue;
    }
    if (!hasLabel(element)) continue;
    const candidates = placesBeside(text, shape.bounds, element);
    const chosen = best(space, candidates, () => 0);
    change.set("shapes", shape.id, "label", chosen === candidates[0] ? undefined : { bounds: chosen.bounds });
  }
  for (const edge of edges) {
    const text = change.model.elements.get(edge.element)?.name ?? "";
    if (lying?.has(edge.id)) continue;
    if (isKept(edge.element)) {
      const kept = flowLabel(text, edge);
      if (kept) space.addBox(kept.bounds);
      continue;
    }
    const usual = text.trim() === "" ? undefined : flowLabel(text, { ...edge, label: undefined });
    if (!usual) continue;
    const candidates = placesAlong(text, edge, usual);
    const shared = edge.waypoints.slice(1).map((b, at) => space.isShared(edge.element, edge.waypoints[at] as Point, b));
    const chosen = best(space, candidates, ({ piece }) =>
      shared[piece] && shared.includes(false) ? onSharedPiece : 0,
    );
    change.set("edges", edge.id, "label", chosen === candidates[0] ? undefined : { bounds: chosen.bounds });
  }
}

/** A name that stands outside of its shape. */
const hasLabel = ({ type, name }: Element) =>
  (name ?? "").trim() !== "" && (isEvent(type) || isGateway(type) || isDataNode(type));

/** Fills in the labels that need not move: those elsewhere, and those that cover neither a shape nor a name nor a flow. */
function keepWhatLiesWell(
  space: LabelSpace,
  near: readonly Bounds[],
  shapes: readonly { readonly shape: Shape; readonly element: Element }[],
  edges: readonly Edge[],
  change: Change,
): ReadonlySet<Id> {
  const labels: { readonly id: Id; readonly bounds: Bounds }[] = [];
  for (const { shape, element } of shapes) {
    const label = hasLabel(element) && nodeLabel(element.name ?? "", shape, usualAnchor(element));
    if (label) labels.push({ id: shape.id, bounds: label.bounds });
  }
  for (const edge of edges) {
    const label = flowLabel(change.model.elements.get(edge.element)?.name ?? "", edge);
    if (label) labels.push({ id: edge.id, bounds: label.bounds });
  }
  const kept = new Set<Id>();
  const keep = ({ id, bounds }: (typeof labels)[number]) => {
    kept.add(id);
    space.addBox(bounds);
  };
  const [far, close] = [[] as typeof labels, [] as typeof labels];
  for (const label of labels) (near.some((box) => overlaps(box, label.bounds)) ? close : far).push(label);
  far.forEach(keep);
  for (const label of close) if (space.cost(label.bounds) < onLine) keep(label);
  return kept;
}

function addBorders(space: LabelSpace, { x, y, width, height }: Bounds): void {
  for (const level of [y, y + height])
    space.addLine([
      { x, y: level },
      { x: x + width, y: level },
    ]);
}

/** The cheapest of some places, earlier ones first; where each covers something, the nearest free spot around the first. */
function best<Place extends PlacedLabel>(
  space: LabelSpace,
  places: readonly Place[],
  extra: (place: Place) => number,
): Place {
  const [usual] = places;
  let found = usual as Place;
  let least = Number.POSITIVE_INFINITY;
  places.forEach((place, at) => {
    const total = space.cost(place.bounds) + extra(place) + at;
    if (total < least) [found, least] = [place, total];
  });
  // Over a shape any free spot is better, over a line one that is near.
  if (least >= onLine) {
    for (const { bounds, ring } of spotsAround((usual as Place).bounds, coversBox(least) ? 14 : 4)) {
      const total = space.cost(bounds) + ring * 2;
      if (total < least) [found, least] = [{ ...found, bounds }, total];
      if (least < onLine) break;
    }
  }
  space.addBox(found.bounds);
  return found;
}

/** Spots further and further away, for crowded drawings. */
function spotsAround(bounds: Bounds, rings: number): { readonly bounds: Bounds; readonly ring: number }[] {
  const spots: { bounds: Bounds; ring: number }[] = [];
  for (let ring = 1; ring <= rings; ring++)
    for (let across = -ring; across <= ring; across++)
      for (let down = -ring; down <= ring; down++)
        if (Math.max(Math.abs(across), Math.abs(down)) === ring)
          spots.push({ bounds: { ...bounds, x: bounds.x + across * 14, y: bounds.y + down * 8 }, ring });
  return spots;
}

function usualAnchor({ type }: Element): LabelAnchor {
  if (isGateway(type)) return "above";
  return type === "boundaryEvent" ? "below-right" : "below";
}

/** Over, under and beside a shape, the usual side of its kind first. */
function placesBeside(text: string, bounds: Bounds, element: Element): PlacedLabel[] {
  const usual = usualAnchor(element);
  const others = (["below", "above", "below-right", "right"] as const).filter((anchor) => anchor !== usual);
  return [usual, ...others].flatMap((anchor) => {
    const place = labelBeside(text, bounds, anchor);
    if ((anchor !== "above" && anchor !== "below") || isDataNode(element.type)) return [place];
    const { x, width } = place.bounds;
    return [
      place,
      { ...place, bounds: { ...place.bounds, x: x + width / 2 + 6 } },
      { ...place, bounds: { ...place.bounds, x: x - width / 2 - 6 } },
    ];
  });
}

/** Over and under the level pieces of a flow, right and left of its upright ones. */
function placesAlong(text: string, edge: Edge, usual: PlacedLabel): (PlacedLabel & { readonly piece: number })[] {
  const places = [{ ...usual, piece: 0 }];
  for (let piece = 0; piece + 1 < edge.waypoints.length; piece++) {
    const [a, b] = [edge.waypoints[piece] as Point, edge.waypoints[piece + 1] as Point];
    const base = besideLine(text, [a, b]);
    const { width, height } = base.bounds;
    const level = a.y === b.y;
    const put = (bounds: { x: number; y: number }) =>
      places.push({ ...base, bounds: { ...bounds, width, height }, piece });
    put(base.bounds);
    put(
      level ? { x: base.bounds.x, y: base.bounds.y + height + 4 } : { x: base.bounds.x - width - 12, y: base.bounds.y },
    );
    for (const share of [0.2, 0.35, 0.5, 0.65, 0.8]) {
      const x = a.x + (b.x - a.x) * share;
      const y = a.y + (b.y - a.y) * share;
      if (level) {
        put({ x: x - width / 2, y: y - height - 2 });
        put({ x: x - width / 2, y: y + 3 });
      } else {
        put({ x: x + 6, y: y - height / 2 });
        put({ x: x - width - 6, y: y - height / 2 });
      }
    }
  }
  return places;
}
