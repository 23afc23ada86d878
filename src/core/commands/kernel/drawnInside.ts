import { boundsAround } from "../../layout";
import { ancestorsOf, type Bounds, type Edge, type Id, type Point, type Shape } from "../../model";
import type { Change, Setting } from "./change";
import { endsOf, plain } from "./page";

/** What is drawn of the inside of a sub-process on one page. */
export interface DrawnInside {
  readonly shapes: readonly Shape[];
  readonly edges: readonly Edge[];
  readonly bounds: Bounds | undefined;
}

/** The drawing of everything inside an element, as far as it is on a page. Flows that lead out of it are not part of it. */
export function drawnInside(change: Change, diagram: Id, inside: (element: Id) => boolean): DrawnInside {
  const shapes = [...change.model.shapes].filter((shape) => shape.diagram === diagram && inside(shape.element));
  const edges = [...change.model.edges].filter((edge) => {
    if (edge.diagram !== diagram) return false;
    const element = change.model.elements.get(edge.element);
    const ends = element && endsOf(element);
    return ends !== undefined && inside(ends.source) && inside(ends.target);
  });
  const boxes = [
    ...shapes.map((shape) => shape.bounds),
    ...shapes.flatMap((shape) => shape.label?.bounds ?? []),
    ...edges.flatMap((edge) => edge.waypoints.map(({ x, y }) => ({ x, y, width: 0, height: 0 }))),
  ];
  return { shapes, edges, bounds: boundsAround(boxes) };
}

/** Whether an element stands somewhere inside another. */
export const isInside = (change: Change, scope: Id) => (element: Id) =>
  element !== scope && ancestorsOf(change.model, element).some((holder) => holder.id === scope);

/** Takes a drawing over to a page, moved by so much. */
export function redraw(change: Change, { shapes, edges }: DrawnInside, page: Id, by: Point): void {
  const moved = (bounds: Bounds) => ({ ...plain(bounds), x: bounds.x + by.x, y: bounds.y + by.y });
  change.setAll([
    ...shapes.flatMap(({ id, bounds, label }): Setting[] => [
      ["shapes", id, "diagram", page],
      ["shapes", id, "bounds", moved(bounds)],
      ...(label?.bounds ? [["shapes", id, "label", { ...label, bounds: moved(label.bounds) }] as const] : []),
    ]),
    ...edges.flatMap(({ id, waypoints, label }): Setting[] => [
      ["edges", id, "diagram", page],
      ["edges", id, "waypoints", waypoints.map(({ x, y }) => ({ x: x + by.x, y: y + by.y }))],
      ...(label?.bounds ? [["edges", id, "label", { ...label, bounds: moved(label.bounds) }] as const] : []),
    ]),
  ]);
}
