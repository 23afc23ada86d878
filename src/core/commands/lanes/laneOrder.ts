import { z } from "zod";
import { bandWidth } from "../../layout";
import { say } from "../../messages";
import {
  type Bounds,
  childrenOf,
  derivedId,
  type Element,
  type Id,
  isConnection,
  laneOf,
  lanesOf,
  referrersOf,
  type Shape,
  shapeOn,
  subtreeOf,
} from "../../model";
import { rerouteAround } from "../arrange/move";
import { containersAcross, openRoom } from "../arrange/room";
import { type Change, refuse } from "../kernel/change";
import { growAround } from "../kernel/grow";
import { connectionsTouching, plain, shapesOnPage } from "../kernel/page";
import { reroute } from "../kernel/reroute";
import { addLane, putIntoLane } from "./lanes";

const id = z.string().min(1).max(200);

export const swapLanesSchema = z.object({
  type: z.literal("swapLanes"),
  diagram: id,
  lane: id,
  direction: z.enum(["up", "down"]),
});
export const moveLaneSchema = z.object({
  type: z.literal("moveLane"),
  diagram: id,
  lane: id,
  /** The lane whose place it takes; all between move up or down by one. */
  to: id,
});
export const splitLaneSchema = z.object({
  type: z.literal("splitLane"),
  diagram: id,
  lane: id,
  /** The ids of what becomes of it: one lane more beside it, or two inside it. */
  ids: z.array(id).min(1).max(2),
});

const sideways = (shape: Shape) => shape.isHorizontal === false;

/** Exchanges a lane with the one above or below it, each with all that lies in it. */
export function swapLanes(change: Change, { diagram, lane, direction }: z.infer<typeof swapLanesSchema>): void {
  const element = change.element(lane);
  if (element.type !== "lane") refuse("not-a-lane", say`Only lanes can change places.`, [lane]);
  const siblings = childrenOf(change.model, element.parent as Id, "lanes");
  const other = siblings[siblings.findIndex((one) => one.id === lane) + (direction === "up" ? -1 : 1)];
  if (!other) {
    refuse(
      "no-lane",
      say`There is no lane ${direction === "up" ? say`above` : say`below`} this one to change places with.`,
      [lane],
    );
    return;
  }
  const [upper, lower] = direction === "up" ? [other, element] : [element, other];
  change.set("elements", upper.id, "order", lower.order);
  change.set("elements", lower.id, "order", upper.order);
  const upperShape = shapeOn(change.model, diagram, upper.id);
  const lowerShape = shapeOn(change.model, diagram, lower.id);
  if (!upperShape || !lowerShape) return;
  const axis = sideways(upperShape) ? "x" : "y";
  const extent = axis === "y" ? "height" : "width";
  const inUpper = contentOf(change, diagram, upper, upperShape.bounds);
  const inLower = contentOf(change, diagram, lower, lowerShape.bounds);
  const moveAll = (ids: ReadonlySet<Id>, by: number) => {
    for (const elementId of ids) shiftShape(change, diagram, elementId, axis, by);
    rerouteAround(change, diagram, ids, { x: 0, y: 0, [axis]: by });
  };
  moveAll(inUpper, lowerShape.bounds[extent]);
  moveAll(inLower, -upperShape.bounds[extent]);
  const crossing = connectionsTouching(change.model, new Set([...inUpper, ...inLower]));
  const isInner = (connection: Id) =>
    [inUpper, inLower].some((part) => {
      const { sourceRef, targetRef } = change.element(connection);
      return part.has(String(sourceRef)) && part.has(String(targetRef));
    });
  reroute(
    change,
    diagram,
    [...change.model.edges].filter(
      (edge) => edge.diagram === diagram && crossing.has(edge.element) && !isInner(edge.element),
    ),
  );
}

/** Brings a lane to the place of another of the same pool or lane. */
export function moveLane(change: Change, { diagram, lane, to }: z.infer<typeof moveLaneSchema>): void {
  const element = change.element(lane);
  const other = change.element(to);
  if (element.type !== "lane" || other.type !== "lane" || element.parent !== other.parent)
    refuse(
      "other-lanes",
      say`A lane moves among the lanes it stands with: those of its own pool, or of its own lane.`,
      [lane, to],
    );
  const siblings = childrenOf(change.model, element.parent as Id, "lanes").map((one) => one.id);
  const steps = siblings.indexOf(to) - siblings.indexOf(lane);
  for (let step = 0; step < Math.abs(steps); step++)
    swapLanes(change, { type: "swapLanes", diagram, lane, direction: steps < 0 ? "up" : "down" });
}

/** The lane, the lanes inside it, and everything whose middle lies in it. */
function contentOf(change: Change, diagram: Id, lane: Element, area: Bounds): Set<Id> {
  const found = new Set(subtreeOf(change.model, lane.id).flatMap((inner) => (inner.type === "lane" ? [inner.id] : [])));
  for (const { shape, element } of shapesOnPage(change.model, diagram)) {
    if (element.type === "lane" || element.type === "participant" || isConnection(element.type)) continue;
    const home = laneOf(change.model, element.id);
    if (home ? found.has(home.id) : hasMiddle(area, shape.bounds)) found.add(element.id);
  }
  return found;
}

function hasMiddle(area: Bounds, { x, y, width, height }: Bounds): boolean {
  const [cx, cy] = [x + width / 2, y + height / 2];
  return cx >= area.x && cx < area.x + area.width && cy >= area.y && cy < area.y + area.height;
}

function shiftShape(change: Change, diagram: Id, element: Id, axis: "x" | "y", by: number): void {
  const shape = shapeOn(change.model, diagram, element);
  if (!shape) return;
  const along = (bounds: Bounds) => ({ ...plain(bounds), [axis]: bounds[axis] + by });
  change.set("shapes", shape.id, "bounds", along(shape.bounds));
  if (shape.label?.bounds)
    change.set("shapes", shape.id, "label", { ...shape.label, bounds: along(shape.label.bounds) });
}

/** Divides a lane: one id makes a second lane below it, two make two lanes inside it. What lies in its lower half goes to the second. */
export function splitLane(change: Change, { diagram, lane, ids }: z.infer<typeof splitLaneSchema>): void {
  const element = change.element(lane);
  const shape = shapeOn(change.model, diagram, lane);
  if (element.type !== "lane" || !shape) refuse("not-a-lane", say`Choose a lane of this page to split.`, [lane]);
  if (lanesOf(change.model, lane).length > 0)
    refuse("has-lanes", say`This lane has lanes inside already; split one of those.`, [lane]);
  if (sideways(shape as Shape))
    refuse("upright-lane", say`Upright lanes of a file are shown as they are, and not split.`);
  const [first, second] = ids;
  if (second === undefined) {
    const cut = cutOf(change, diagram, lane, (shape as Shape).bounds);
    if (cut === undefined) return addLane(change, { type: "addLane", diagram, id: first as Id, beside: lane });
    divide(change, diagram, lane, first as Id, cut);
  } else nest(change, diagram, lane, first as Id, second);
}

const least = 60;

/** The level nearest to a lane's middle at which it can be cut through nothing. */
function cutOf(change: Change, diagram: Id, lane: Id, { y, height }: Bounds): number | undefined {
  const inside = shapesOnPage(change.model, diagram).filter(
    ({ element }) => laneOf(change.model, element.id)?.id === lane,
  );
  const middle = y + height / 2;
  for (let off = 0; off <= height / 2 - least; off += 4)
    for (const cut of [middle + off, middle - off])
      if (inside.every(({ shape }) => cut <= shape.bounds.y - 8 || cut >= shape.bounds.y + shape.bounds.height + 8))
        return Math.round(cut);
  return undefined;
}

function divide(change: Change, diagram: Id, lane: Id, below: Id, cut: number): void {
  const shape = shapeOn(change.model, diagram, lane) as Shape;
  const { x, y, width, height } = shape.bounds;
  const element = change.element(lane);
  const siblings = childrenOf(change.model, element.parent as Id, "lanes");
  const next = siblings[siblings.findIndex((one) => one.id === lane) + 1];
  change.insert("lane", below, element.parent as Id);
  if (next) change.set("elements", below, "order", (element.order + next.order) / 2);
  change.insertShape(diagram, below, { x, y: cut, width, height: y + height - cut }, { isHorizontal: true });
  change.set("shapes", shape.id, "bounds", { x, y, width, height: cut - y });
  giveLowerHalf(change, diagram, lane, below, cut);
}

function giveLowerHalf(change: Change, diagram: Id, from: Id, to: Id, cut: number): void {
  for (const node of (change.element(from).flowNodeRef as readonly Id[] | undefined) ?? []) {
    // An event at an edge goes where its step goes.
    if (change.element(node).type === "boundaryEvent") continue;
    const bounds = shapeOn(change.model, diagram, node)?.bounds;
    if (bounds && bounds.y + bounds.height / 2 >= cut) putIntoLane(change, node, to);
  }
}

function nest(change: Change, diagram: Id, lane: Id, upper: Id, lower: Id): void {
  const area = (shapeOn(change.model, diagram, lane) as Shape).bounds;
  // The inner lanes have a band of their own, which must not lie on what stands first in the lane.
  const line = area.x + bandWidth + 1;
  openRoom(change, diagram, "x", line, bandWidth, containersAcross(change, diagram, "x", line));
  const cut = cutOf(change, diagram, lane, area);
  const { x, y, width, height } = (shapeOn(change.model, diagram, lane) as Shape).bounds;
  const set = change.insert("laneSet", derivedId(change.isTaken, lane, "lanes"), lane, {}, "childLaneSet").id;
  const inner = { x: x + bandWidth, width: width - bandWidth };
  const nodes = (change.element(lane).flowNodeRef as readonly Id[] | undefined) ?? [];
  const addInner = (id: Id, top: number, bottom: number) => {
    change.insert("lane", id, set);
    change.insertShape(diagram, id, { ...inner, y: top, height: bottom - top }, { isHorizontal: true });
  };
  const middle = cut ?? y + height;
  if (cut === undefined)
    openRoom(change, diagram, "y", middle, 2 * least, new Set([lane, ...outerOf(change, lane)]), new Set());
  const bottom = cut === undefined ? middle + 2 * least : y + height;
  addInner(upper, y, middle);
  addInner(lower, middle, bottom);
  for (const node of nodes) putIntoLane(change, node, upper);
  giveLowerHalf(change, diagram, upper, lower, middle);
  for (const node of nodes) growAround(change, diagram, node);
}

/** The lanes and the pool that hold a lane. */
function outerOf(change: Change, lane: Id): Id[] {
  const found: Id[] = [];
  for (let at = change.element(lane).parent; at !== null; at = change.element(at).parent) {
    const type = change.element(at).type;
    if (type === "lane") found.push(at);
    if (type !== "process") continue;
    found.push(...referrersOf(change.model, at, "processRef").map((pool) => pool.id));
    break;
  }
  return found;
}
