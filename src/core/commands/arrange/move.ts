import { z } from "zod";
import { isExpanded } from "../../drawing";
import { contains, segmentCrosses } from "../../layout";
import { say } from "../../messages";
import {
  type Bounds,
  boundaryEventsOf,
  called,
  childrenOf,
  type Edge,
  type Element,
  edgesOf,
  type Id,
  incomingOf,
  isConnection,
  isFlowNode,
  laneOf,
  type Model,
  nameOf,
  outgoingOf,
  type Point,
  participantOf,
  scopeOf,
  shapeOn,
  subtreeOf,
} from "../../model";
import { nearestEdgePoint } from "../flow/create";
import { type Change, refuse } from "../kernel/change";
import { growAround } from "../kernel/grow";
import { connectionsTouching, endsOf, newCourse, obstaclesOn, placeAt, plain } from "../kernel/page";
import { putIntoLane } from "../lanes/lanes";

const id = z.string().min(1).max(200);
const bounds = z.object({ x: z.number(), y: z.number(), width: z.number().min(8), height: z.number().min(8) });

export const moveSchema = z.object({
  type: z.literal("move"),
  diagram: id,
  ids: z.array(id).min(1),
  by: z.object({ x: z.number(), y: z.number() }),
});
export const resizeSchema = z.object({ type: z.literal("resize"), diagram: id, id, bounds });
export const moveLabelSchema = z.object({ type: z.literal("moveLabel"), diagram: id, id, bounds: bounds.optional() });

/** Moves elements with all that hangs on them. Where a step lands in another lane or pool, it belongs there from then on. */
export function move(change: Change, { diagram, ids, by }: z.infer<typeof moveSchema>): void {
  const chosen = withWhatHangsOnThem(change.model, diagram, ids);
  for (const elementId of chosen) {
    const shape = shapeOn(change.model, diagram, elementId);
    if (!shape) continue;
    const moved = { ...plain(shape.bounds), x: shape.bounds.x + by.x, y: shape.bounds.y + by.y };
    change.set("shapes", shape.id, "bounds", moved);
    if (shape.label?.bounds) {
      const label = shape.label.bounds;
      change.set("shapes", shape.id, "label", {
        ...shape.label,
        bounds: { ...plain(label), x: label.x + by.x, y: label.y + by.y },
      });
    }
  }
  for (const elementId of ids) settle(change, diagram, elementId, chosen);
  rerouteAround(change, diagram, chosen, by);
  for (const elementId of ids) {
    if (isFlowNode(change.element(elementId).type)) growAround(change, diagram, elementId);
  }
}

/** Containers take their content along, activities the events at their edge. */
export function withWhatHangsOnThem(model: Model, diagram: Id, ids: readonly Id[]): Set<Id> {
  const chosen = new Set<Id>();
  const add = (elementId: Id) => {
    if (chosen.has(elementId)) return;
    const element = model.elements.get(elementId);
    if (!element || isConnection(element.type)) return;
    chosen.add(elementId);
    for (const event of boundaryEventsOf(model, elementId)) add(event.id);
    const shape = shapeOn(model, diagram, elementId);
    if (element.type === "participant" && typeof element.processRef === "string") addContent(element.processRef);
    else if (shape && isExpanded(element, shape)) addContent(elementId);
    if (element.type === "lane") {
      for (const node of subtreeOf(model, elementId)) {
        if (node.type === "lane" && node.id !== elementId) add(node.id);
        for (const ref of (node.flowNodeRef as readonly Id[] | undefined) ?? []) add(ref);
      }
    }
  };
  const addContent = (scope: Id) => {
    for (const inner of subtreeOf(model, scope))
      if (inner.id !== scope && shapeOn(model, diagram, inner.id)) add(inner.id);
  };
  for (const elementId of ids) add(elementId);
  return chosen;
}

/** Makes a moved element belong to where it now lies. */
function settle(change: Change, diagram: Id, elementId: Id, chosen: ReadonlySet<Id>): void {
  const element = change.element(elementId);
  const shape = shapeOn(change.model, diagram, elementId);
  if (!shape) return;
  if (element.type === "boundaryEvent") {
    if (chosen.has(element.attachedToRef as Id)) return;
    const host = shapeOn(change.model, diagram, element.attachedToRef as Id);
    if (!host) return;
    const middle = { x: shape.bounds.x + shape.bounds.width / 2, y: shape.bounds.y + shape.bounds.height / 2 };
    const edge = nearestEdgePoint(host.bounds, middle);
    change.set("shapes", shape.id, "bounds", {
      ...plain(shape.bounds),
      x: edge.x - shape.bounds.width / 2,
      y: edge.y - shape.bounds.height / 2,
    });
    return;
  }
  if (!isFlowNode(element.type)) return;
  const middle = { x: shape.bounds.x + shape.bounds.width / 2, y: shape.bounds.y + shape.bounds.height / 2 };
  const place = placeAt(change.model, change.diagram(diagram), middle, chosen);
  if (!place) {
    if (participantOf(change.model, elementId))
      refuse(
        "outside-pool",
        say`${called(change.model, element)} would lie outside every pool; a step belongs into one.`,
        [elementId],
      );
    return;
  }
  const from = scopeOf(change.model, elementId);
  if (from && place.scope.id !== from.id) moveToScope(change, element, place.scope, chosen);
  const laneBefore = laneOf(change.model, elementId);
  if (place.lane?.id !== laneBefore?.id || place.scope.id !== from?.id) {
    putIntoLane(change, elementId, place.lane?.id);
    if (place.lane && laneBefore) {
      change.remarks.push(
        say`${nameOf(change.model, elementId) || say`The step`} is now done by ${nameOf(change.model, place.lane.id) || say`another lane`}.`,
      );
    }
  }
}

/** Into another process or sub-process. Sequence flows may not cross that edge, so flows to those left behind go. */
function moveToScope(change: Change, element: Element, scope: Element, chosen: ReadonlySet<Id>): void {
  if (subtreeOf(change.model, element.id).some((inner) => inner.id === scope.id)) {
    refuse("into-itself", say`A sub-process cannot be moved into itself.`, [element.id]);
  }
  const siblings = childrenOf(change.model, scope.id);
  const order = siblings.reduce((most, sibling) => Math.max(most, sibling.order), scope.order) + 1;
  change.set("elements", element.id, "parent", scope.id);
  change.set("elements", element.id, "order", order);
  for (const event of boundaryEventsOf(change.model, element.id)) change.set("elements", event.id, "parent", scope.id);
  for (const flow of [...incomingOf(change.model, element.id), ...outgoingOf(change.model, element.id)]) {
    const other = (flow.sourceRef === element.id ? flow.targetRef : flow.sourceRef) as Id;
    if (chosen.has(other)) {
      if (change.model.elements.has(flow.id)) change.set("elements", flow.id, "parent", scope.id);
      continue;
    }
    change.remarks.push(
      say`The flow between ${nameOf(change.model, element.id) || say`the step`} and ${nameOf(change.model, other) || say`its neighbour`} is gone: it would cross the edge of a process.`,
    );
    for (const edge of edgesOf(change.model, flow.id)) change.remove("edges", edge.id);
    if (change.model.elements.get(flow.sourceRef as Id)?.default === flow.id)
      change.set("elements", flow.sourceRef as Id, "default", undefined);
    change.remove("elements", flow.id);
  }
}

/** Flows between moved elements go along; the others find a new course, but keep bends that still serve. */
export function rerouteAround(change: Change, diagram: Id, moved: ReadonlySet<Id>, by: Point): void {
  for (const connection of connectionsTouching(change.model, moved)) {
    const element = change.model.elements.get(connection);
    const edge = edgesOf(change.model, connection).find((candidate) => candidate.diagram === diagram);
    const ends = element && endsOf(element);
    if (!element || !edge || !ends) continue;
    if (moved.has(ends.source) && moved.has(ends.target)) {
      change.set(
        "edges",
        edge.id,
        "waypoints",
        edge.waypoints.map(({ x, y }) => ({ x: x + by.x, y: y + by.y })),
      );
      if (edge.label?.bounds) {
        change.set("edges", edge.id, "label", {
          ...edge.label,
          bounds: { ...plain(edge.label.bounds), x: edge.label.bounds.x + by.x, y: edge.label.bounds.y + by.y },
        });
      }
      continue;
    }
    const course = keptCourse(change.model, diagram, edge, element) ?? newCourse(change, diagram, element);
    if (course) {
      change.set("edges", edge.id, "waypoints", course);
      if (edge.label?.bounds) change.set("edges", edge.id, "label", undefined);
    }
  }
}

/** The old course with only its ends drawn along, where that stays orthogonal and crosses nothing. */
function keptCourse(model: Model, diagram: Id, edge: Edge, element: Element): Point[] | undefined {
  const ends = endsOf(element);
  if (!ends || edge.waypoints.length < 4) return undefined;
  const source = shapeOn(model, diagram, ends.source)?.bounds;
  const target = shapeOn(model, diagram, ends.target)?.bounds;
  if (!source || !target) return undefined;
  const points = edge.waypoints.map(({ x, y }) => ({ x, y }));
  const first = points[0] as Point;
  const last = points[points.length - 1] as Point;
  return touches(source, first) && touches(target, last) && isFreeOf(obstaclesOn(model, diagram), points)
    ? points
    : undefined;
}

function touches(box: Bounds, point: Point): boolean {
  const inside = contains(box, point);
  const deep =
    point.x > box.x + 1 && point.x < box.x + box.width - 1 && point.y > box.y + 1 && point.y < box.y + box.height - 1;
  return inside && !deep;
}

function isFreeOf(obstacles: readonly Bounds[], points: readonly Point[]): boolean {
  return points.every(
    (point, at) => at === 0 || !obstacles.some((obstacle) => segmentCrosses(obstacle, points[at - 1] as Point, point)),
  );
}

/** Gives a shape another size or place. A pool's lanes follow its width, lanes share their borders. */
export function resize(change: Change, { diagram, id: elementId, bounds: wanted }: z.infer<typeof resizeSchema>): void {
  const element = change.element(elementId);
  const shape =
    shapeOn(change.model, diagram, elementId) ?? refuse("not-drawn", say`This element is not drawn on this page.`);
  const old = shape.bounds;
  change.set("shapes", shape.id, "bounds", plain(wanted));
  if (element.type === "participant" && typeof element.processRef === "string") {
    resizeLanes(change, diagram, element.processRef, old, wanted);
  } else if (element.type === "lane") resizeNeighbours(change, diagram, element, old, wanted);
  const moved = new Set([elementId]);
  if (!["participant", "lane"].includes(element.type)) {
    for (const event of boundaryEventsOf(change.model, elementId)) {
      const eventShape = shapeOn(change.model, diagram, event.id);
      if (!eventShape) continue;
      const middle = {
        x: eventShape.bounds.x + eventShape.bounds.width / 2,
        y: eventShape.bounds.y + eventShape.bounds.height / 2,
      };
      const shifted = nearestEdgePoint(wanted, {
        x: middle.x === old.x + old.width ? wanted.x + wanted.width : middle.x,
        y: Math.abs(middle.y - old.y - old.height) < 1 ? wanted.y + wanted.height : middle.y,
      });
      change.set("shapes", eventShape.id, "bounds", {
        ...plain(eventShape.bounds),
        x: shifted.x - eventShape.bounds.width / 2,
        y: shifted.y - eventShape.bounds.height / 2,
      });
      moved.add(event.id);
    }
  }
  rerouteAround(change, diagram, moved, { x: 0, y: 0 });
}

/** Lanes fill their pool: the last one takes the change of height, all take the change of width. */
function resizeLanes(change: Change, diagram: Id, process: Id, old: Bounds, wanted: Bounds): void {
  for (const lane of subtreeOf(change.model, process)) {
    if (lane.type !== "lane") continue;
    const shape = shapeOn(change.model, diagram, lane.id);
    if (!shape) continue;
    const { bounds } = shape;
    let { x, y, width, height } = bounds;
    const indent = bounds.x - old.x;
    x = wanted.x + indent;
    width = wanted.x + wanted.width - x;
    const isFirst = Math.abs(bounds.y - old.y) < 1;
    const isLast = Math.abs(bounds.y + bounds.height - old.y - old.height) < 1;
    if (isFirst) [y, height] = [wanted.y, bounds.y + bounds.height - wanted.y];
    if (isLast) height = wanted.y + wanted.height - y;
    change.set("shapes", shape.id, "bounds", { x, y, width, height: Math.max(40, height) });
  }
}

/** Moving a lane's lower border moves what is below; its upper border is its neighbour's lower one. */
function resizeNeighbours(change: Change, diagram: Id, lane: Element, old: Bounds, wanted: Bounds): void {
  const pool = participantOf(change.model, lane.id);
  const poolShape = pool && shapeOn(change.model, diagram, pool.id);
  const grown = wanted.y + wanted.height - (old.y + old.height);
  for (const other of change.model.shapes) {
    if (other.diagram !== diagram || other.element === lane.id) continue;
    const element = change.model.elements.get(other.element);
    if (element?.type !== "lane" || participantOf(change.model, element.id)?.id !== pool?.id) continue;
    const { bounds } = other;
    if (grown !== 0 && Math.abs(bounds.y - (old.y + old.height)) < 1) {
      change.set("shapes", other.id, "bounds", {
        ...plain(bounds),
        y: bounds.y + grown,
        height: Math.max(40, bounds.height - grown),
      });
    }
    if (wanted.y !== old.y && Math.abs(bounds.y + bounds.height - old.y) < 1) {
      change.set("shapes", other.id, "bounds", { ...plain(bounds), height: wanted.y - bounds.y });
    }
  }
  if (poolShape) {
    const bottom = Math.max(poolShape.bounds.y + poolShape.bounds.height, wanted.y + wanted.height);
    const isLast = Math.abs(old.y + old.height - poolShape.bounds.y - poolShape.bounds.height) < 1;
    const height = (isLast ? wanted.y + wanted.height : bottom) - poolShape.bounds.y;
    change.set("shapes", poolShape.id, "bounds", { ...plain(poolShape.bounds), height });
  }
}

/** Puts a label where a person wants it; without a place, back to its usual one. */
export function moveLabel(
  change: Change,
  { diagram, id: elementId, bounds: wanted }: z.infer<typeof moveLabelSchema>,
): void {
  const shape = shapeOn(change.model, diagram, elementId);
  const edge = edgesOf(change.model, elementId).find((candidate) => candidate.diagram === diagram);
  if (shape) change.set("shapes", shape.id, "label", wanted ? { ...shape.label, bounds: wanted } : undefined);
  else if (edge) change.set("edges", edge.id, "label", wanted ? { ...edge.label, bounds: wanted } : undefined);
  else refuse("not-drawn", say`This element is not drawn on this page.`);
}
