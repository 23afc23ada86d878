import { z } from "zod";
import { isExpanded } from "../../drawing";
import { say } from "../../messages";
import { type Bounds, boundaryEventsOf, type Id, isSubProcess, type Point } from "../../model";
import { type Change, refuse, type Setting } from "../kernel/change";
import { connectionsTouching, plain, shapesOnPage } from "../kernel/page";
import { reroute } from "../kernel/reroute";

const id = z.string().min(1).max(200);

export const makeRoomSchema = z.object({
  type: z.literal("makeRoom"),
  diagram: id,
  /** Everything right of, or below, the line goes further that way. */
  direction: z.enum(["right", "down"]),
  line: z.number(),
  by: z.number().min(1).max(20_000),
});

type Axis = "x" | "y";
const extentOf = (axis: Axis) => (axis === "x" ? "width" : "height");

/** Opens room at a line of a page: what lies beyond it moves, pools, lanes and all else that spans it as a container grows. */
export function makeRoom(change: Change, { diagram, direction, line, by }: z.infer<typeof makeRoomSchema>): void {
  const axis = direction === "right" ? "x" : "y";
  const growing = containersAcross(change, diagram, axis, line);
  // A step the line runs through goes with the side on which most of it lies.
  const staying = new Set<Id>();
  const across = new Set<Id>();
  let beyond = false;
  for (const { shape, element } of shapesOnPage(change.model, diagram)) {
    if (element.type === "boundaryEvent" || growing.has(element.id)) continue;
    const from = shape.bounds[axis];
    const to = from + shape.bounds[extentOf(axis)];
    if (from >= line || (from + to) / 2 >= line) beyond = true;
    if (from < line && to > line) across.add(element.id);
    if ((from + to) / 2 >= line) continue;
    for (const event of boundaryEventsOf(change.model, element.id)) staying.add(event.id);
  }
  if (!beyond && growing.size === 0) refuse("nothing-beyond", say`There is nothing beyond that line to be moved.`);
  openRoom(change, diagram, axis, line, by, growing, staying, across);
  const touched = connectionsTouching(change.model, new Set([...across, ...staying]));
  reroute(
    change,
    diagram,
    [...change.model.edges].filter((edge) => edge.diagram === diagram && touched.has(edge.element)),
  );
}

/** Pools, lanes, groups and sub-processes open in place that a line runs through. */
export function containersAcross(change: Change, diagram: Id, axis: Axis, line: number): Set<Id> {
  const found = new Set<Id>();
  for (const { shape, element } of shapesOnPage(change.model, diagram)) {
    const holds =
      ["participant", "lane", "group"].includes(element.type) ||
      (isSubProcess(element.type) && isExpanded(element, shape));
    const from = shape.bounds[axis];
    if (holds && from < line && from + shape.bounds[extentOf(axis)] > line) found.add(element.id);
  }
  return found;
}

/**
 * Moves everything that begins at or beyond a line further along an axis; the given containers grow instead, and what room is
 * made for stays. Of what lies across the line, that moves whose middle is beyond it.
 */
export function openRoom(
  change: Change,
  diagram: Id,
  axis: Axis,
  line: number,
  by: number,
  growing: ReadonlySet<Id>,
  staying: ReadonlySet<Id> = new Set(),
  across: ReadonlySet<Id> = new Set(),
): void {
  const along = <Place extends Point>(place: Place): Place => ({ ...place, [axis]: place[axis] + by });
  const isBeyond = (place: Point) => place[axis] >= line - 0.5;
  const middle = (bounds: Bounds) => bounds[axis] + bounds[extentOf(axis)] / 2;
  const settings: Setting[] = [];
  for (const { shape, element } of shapesOnPage(change.model, diagram)) {
    const { bounds } = shape;
    if (staying.has(element.id)) continue;
    if (growing.has(element.id)) {
      const extent = extentOf(axis);
      settings.push(["shapes", shape.id, "bounds", { ...plain(bounds), [extent]: bounds[extent] + by }]);
      continue;
    }
    const host = element.type === "boundaryEvent" && across.has(String(element.attachedToRef));
    if (!(isBeyond(bounds) || (across.has(element.id) && middle(bounds) >= line) || host)) continue;
    settings.push(["shapes", shape.id, "bounds", along(plain(bounds))]);
    if (shape.label?.bounds)
      settings.push(["shapes", shape.id, "label", { ...shape.label, bounds: along(plain(shape.label.bounds)) }]);
  }
  for (const edge of change.model.edges) {
    if (edge.diagram !== diagram || !edge.waypoints.some(isBeyond)) continue;
    const moved = edge.waypoints.map(({ x, y }) => (isBeyond({ x, y }) ? along({ x, y }) : { x, y }));
    settings.push(["edges", edge.id, "waypoints", moved]);
    if (edge.label?.bounds && isBeyond(edge.label.bounds))
      settings.push(["edges", edge.id, "label", { ...edge.label, bounds: along(plain(edge.label.bounds)) }]);
  }
  change.setAll(settings);
}
