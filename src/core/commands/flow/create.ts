import { z } from "zod";
import {
  bandWidth,
  boundsAround,
  closedPoolHeight,
  grow,
  laneHeight,
  onGrid,
  overlaps,
  poolSize,
  sizeOf,
} from "../../layout";
import { say } from "../../messages";
import {
  type Bounds,
  called,
  connectionBetween,
  type Element,
  eventTable,
  type Id,
  isEvent,
  isFlowNode,
  isSubProcess,
  laneOf,
  type Point,
  participantsOf,
  positionOf,
  referrersOf,
  scopeOf,
  shapeOn,
  termFor,
} from "../../model";
import { containersAcross, openRoom } from "../arrange/room";
import { addTrigger } from "../details/trigger";
import { type Change, Refusal, refuse } from "../kernel/change";
import { forgetRecordedFlows } from "../kernel/flowLists";
import { growAround } from "../kernel/grow";
import { freeSpot, newCourse, obstaclesOn, placeAt, shapesOnPage } from "../kernel/page";
import { canHoldBoundaryEvents, fieldsOf, type Kind, kindSchema } from "../kinds/kinds";
import { putIntoLane } from "../lanes/lanes";
import { addPoolAround } from "../lanes/pools";
import { connect } from "./connect";

const id = z.string().min(1).max(200);
const point = z.object({ x: z.number(), y: z.number() });

export const placeSchema = z.object({
  type: z.literal("place"),
  diagram: id,
  id,
  kind: kindSchema,
  /** Where its middle goes. */
  at: point,
  name: z.string().max(2000).optional(),
});
export const appendSchema = z.object({
  type: z.literal("append"),
  diagram: id,
  from: id,
  id,
  flow: id,
  kind: kindSchema,
  at: point.optional(),
  name: z.string().max(2000).optional(),
});
export const insertOnFlowSchema = z.object({
  type: z.literal("insertOnFlow"),
  diagram: id,
  onFlow: id,
  id,
  flow: id,
  kind: kindSchema,
  at: point.optional(),
});
export const attachSchema = z.object({
  type: z.literal("attach"),
  diagram: id,
  host: id,
  id,
  kind: kindSchema,
  at: point.optional(),
});

/** Places an element by hand. A flow node lands in whatever pool, lane or sub-process is there. */
export function place(change: Change, command: z.infer<typeof placeSchema>): void {
  const { kind, at } = command;
  const diagram = change.diagram(command.diagram);
  if (kind.type === "participant") {
    placePool(change, command);
    return;
  }
  const there = placeAt(change.model, diagram, at);
  if (kind.type === "textAnnotation" || kind.type === "group") {
    const plane = diagram.element !== undefined ? change.model.elements.get(diagram.element) : undefined;
    const parent = there?.scope ?? plane;
    if (!parent) refuse("no-place", say`There is nothing on this page to put a note on.`);
    newNode(change, command.diagram, command.id, kind, (parent as Element).id, at, command.name);
    return;
  }
  if (!there) refuse("outside-pool", say`A ${termFor(kind.type)} belongs into a pool; place it inside one.`);
  const place = there as NonNullable<typeof there>;
  newNode(change, command.diagram, command.id, kind, place.scope.id, at, command.name);
  if (place.lane && isFlowNode(kind.type)) putIntoLane(change, command.id, place.lane.id);
  growAround(change, command.diagram, command.id);
}

/** Adds an element behind another, at a free spot of the same lane, and connects the two. */
export function append(change: Change, command: z.infer<typeof appendSchema>): void {
  const { kind, diagram } = command;
  const source = change.element(command.from);
  const sourceShape =
    shapeOn(change.model, diagram, source.id) ?? refuse("not-drawn", say`What this follows is not drawn on this page.`);
  if (kind.type === "boundaryEvent") {
    attach(change, { type: "attach", diagram, host: source.id, id: command.id, kind, at: command.at });
    return;
  }
  const size = sizeOf(kind.type, kind.expanded);
  const lane = laneOf(change.model, source.id);
  const laneBounds = lane && shapeOn(change.model, diagram, lane.id)?.bounds;
  const from = sourceShape.bounds;
  const wanted = command.at
    ? { x: command.at.x - size.width / 2, y: command.at.y - size.height / 2, ...size }
    : wantedSpot(source, from, kind, size);
  const bounds = command.at ? wanted : freeSpot(change.model, diagram, wanted, laneBounds);
  const scope = scopeOf(change.model, source.id) ?? refuse("no-scope", say`Nothing can follow this element.`);
  const middle = { x: bounds.x + size.width / 2, y: bounds.y + size.height / 2 };
  const dropped = command.at ? placeAt(change.model, change.diagram(diagram), middle) : undefined;
  const isArtifact = !isFlowNode(kind.type);
  const target = dropped && !isArtifact ? dropped : { scope, lane };
  newNode(change, diagram, command.id, kind, isArtifact ? scope.id : target.scope.id, middle, command.name);
  const inLane = target.lane ?? lane;
  if (inLane && isFlowNode(kind.type)) putIntoLane(change, command.id, inLane.id);
  growAround(change, diagram, command.id);
  connect(change, { type: "connect", diagram, id: command.flow, source: source.id, target: command.id });
}

function wantedSpot(source: Element, from: Bounds, kind: Kind, size: { width: number; height: number }): Bounds {
  if (kind.type === "textAnnotation") return { x: from.x + from.width * 0.6, y: from.y - size.height - 28, ...size };
  if (!isFlowNode(kind.type))
    return { x: from.x + from.width / 2 - size.width / 2, y: from.y + from.height + 28, ...size };
  if (source.type === "boundaryEvent")
    return { x: onGrid(from.x + from.width + 28), y: onGrid(from.y + from.height + 24), ...size };
  const gap = size.width >= 100 || from.width >= 100 ? 48 : 56;
  // Middles line up exactly, so that the flow between them is one straight piece.
  return { x: onGrid(from.x + from.width + gap), y: from.y + from.height / 2 - size.height / 2, ...size };
}

/** Splits a flow: what was one flow leads to the new element, and a second one from it to the old target. */
export function insertOnFlow(change: Change, command: z.infer<typeof insertOnFlowSchema>): void {
  const { diagram, kind } = command;
  const flow = change.element(command.onFlow);
  if (flow.type !== "sequenceFlow") refuse("not-a-flow", say`Only a sequence flow can be split by a step.`, [flow.id]);
  const target = flow.targetRef as Id;
  const edge = [...change.model.edges].find(
    (candidate) => candidate.element === flow.id && candidate.diagram === diagram,
  );
  if (!isFlowNode(kind.type))
    refuse("not-a-step", say`A ${termFor(kind.type)} cannot stand in a sequence flow.`, [flow.id]);
  const size = sizeOf(kind.type, kind.expanded);
  const middle =
    command.at ?? middleOf(edge?.waypoints ?? []) ?? refuse("not-drawn", say`The flow is not drawn on this page.`);
  makeRoomBetween(change, diagram, flow, middle, size.width);
  const between =
    command.at ??
    middleOf([...change.model.edges].find((candidate) => candidate.id === edge?.id)?.waypoints ?? []) ??
    middle;
  const spot = makeRoomAside(change, diagram, flow, between, size);
  const sourceElement = change.element(flow.sourceRef as Id);
  const there = placeAt(change.model, change.diagram(diagram), spot);
  const scope = scopeOf(change.model, sourceElement.id) ?? refuse("no-scope", say`The flow belongs to nothing.`);
  newNode(change, diagram, command.id, kind, scope.id, spot);
  const lane = (there?.scope.id === scope.id ? there.lane : undefined) ?? laneOf(change.model, sourceElement.id);
  if (lane) putIntoLane(change, command.id, lane.id);
  growAround(change, diagram, command.id);
  const answer = connectionBetween(change.model, sourceElement.id, command.id);
  if (!answer.ok) throw new Refusal(answer.problems);
  if (edge) change.set("edges", edge.id, "label", undefined);
  forgetRecordedFlows(change, [flow.sourceRef as Id, target]);
  change.set("elements", flow.id, "targetRef", command.id);
  // The first half leaves its old course before the second half looks for one: they would keep off each other else.
  if (edge) {
    const course = newCourse(change, diagram, change.element(flow.id));
    if (course) change.set("edges", edge.id, "waypoints", course);
  }
  connect(change, { type: "connect", diagram, id: command.flow, source: command.id, target });
}

/** Pushes what lies right of a level flow further right where the new element would not fit between its ends. */
function makeRoomBetween(change: Change, diagram: Id, flow: Element, at: Point, width: number): void {
  const source = shapeOn(change.model, diagram, flow.sourceRef as Id)?.bounds;
  const target = shapeOn(change.model, diagram, flow.targetRef as Id)?.bounds;
  if (!source || !target || target.x <= source.x + source.width) return;
  const missing = onGrid(width + 72 - (target.x - source.x - source.width));
  if (missing <= 0) return;
  const line = Math.min(target.x, Math.max(at.x, source.x + source.width + 1));
  openRoom(change, diagram, "x", line, missing, containersAcross(change, diagram, "x", line));
}

/**
 * Where a new element on a flow would lie on something, what lies below it moves down: the flow's own end with it where that lies
 * below what is in the way, so that the flow stays level. Gives the place that is then free.
 */
function makeRoomAside(
  change: Change,
  diagram: Id,
  flow: Element,
  at: Point,
  size: { readonly width: number; readonly height: number },
): Point {
  const ends = new Set([flow.sourceRef as Id, flow.targetRef as Id]);
  const own = (middle: Point) => ({ x: middle.x - size.width / 2, y: middle.y - size.height / 2, ...size });
  const inTheWay = (middle: Point) =>
    obstaclesOn(change.model, diagram, ends).filter((box) => overlaps(own(middle), box, 12));
  const target = shapeOn(change.model, diagram, flow.targetRef as Id)?.bounds;
  let spot = at;
  const above = inTheWay(spot).filter((box) => box.y + box.height / 2 < spot.y);
  const floor = Math.max(...above.map((box) => box.y + box.height));
  if (above.length > 0 && target && target.y > floor) {
    const by = onGrid(floor + 24 - own(spot).y + 3);
    openRoom(change, diagram, "y", floor + 1, by, containersAcross(change, diagram, "y", floor + 1));
    spot = { x: spot.x, y: spot.y + by };
  }
  const below = inTheWay(spot).filter((box) => box.y > spot.y);
  if (below.length > 0) {
    const roof = Math.min(...below.map((box) => box.y));
    const by = onGrid(own(spot).y + size.height + 24 - roof + 3);
    openRoom(change, diagram, "y", roof - 1, by, containersAcross(change, diagram, "y", roof - 1));
  }
  return spot;
}

function middleOf(line: readonly Point[]): Point | undefined {
  let longest: { length: number; middle: Point } | undefined;
  for (let at = 0; at + 1 < line.length; at++) {
    const [a, b] = [line[at] as Point, line[at + 1] as Point];
    const length = Math.abs(a.x - b.x) + Math.abs(a.y - b.y);
    // The first longest piece, level ones before upright ones.
    const weighted = a.y === b.y ? length * 1.2 : length;
    if (!longest || weighted > longest.length)
      longest = { length: weighted, middle: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 } };
  }
  return longest?.middle;
}

/** Puts an event on the edge of an activity. */
export function attach(change: Change, command: z.infer<typeof attachSchema>): void {
  const host = change.element(command.host);
  if (!canHoldBoundaryEvents(host)) {
    refuse("boundary-host", say`${called(change.model, host)} cannot have an event at its edge; only activities can.`, [
      host.id,
    ]);
  }
  const shape =
    shapeOn(change.model, command.diagram, host.id) ??
    refuse("not-drawn", say`The activity is not drawn on this page.`);
  const { bounds } = shape;
  const edgePoint = command.at
    ? nearestEdgePoint(bounds, command.at)
    : freeEdgePoint(change, command.diagram, host, bounds);
  newNode(
    change,
    command.diagram,
    command.id,
    { ...command.kind, type: "boundaryEvent" },
    host.parent as Id,
    edgePoint,
    undefined,
    {
      attachedToRef: host.id,
    },
  );
  const [lane] = referrersOf(change.model, host.id, "flowNodeRef");
  if (lane) putIntoLane(change, command.id, lane.id);
}

/** The point of a shape's edge, clear of its corners, that is nearest to another point. */
export function nearestEdgePoint(bounds: Bounds, at: Point): Point {
  const x = Math.max(bounds.x + 8, Math.min(bounds.x + bounds.width - 8, at.x));
  const y = Math.max(bounds.y + 8, Math.min(bounds.y + bounds.height - 8, at.y));
  const distances = [
    { point: { x, y: bounds.y + bounds.height }, distance: Math.abs(at.y - bounds.y - bounds.height) },
    { point: { x, y: bounds.y }, distance: Math.abs(at.y - bounds.y) },
    { point: { x: bounds.x + bounds.width, y }, distance: Math.abs(at.x - bounds.x - bounds.width) },
    { point: { x: bounds.x, y }, distance: Math.abs(at.x - bounds.x) },
  ];
  return distances.sort((a, b) => a.distance - b.distance)[0]?.point as Point;
}

function freeEdgePoint(change: Change, diagram: Id, host: Element, bounds: Bounds): Point {
  const attached = shapesOnPage(change.model, diagram).filter(({ element }) => element.attachedToRef === host.id);
  const bottom = bounds.y + bounds.height;
  for (let at = 0; at < 4; at++) {
    const x = bounds.x + bounds.width - 20 - at * 38;
    const taken = attached.some(({ shape }) =>
      overlaps({ x: x - 16, y: bottom - 16, width: 32, height: 32 }, shape.bounds),
    );
    if (!taken && x > bounds.x) return { x, y: bottom };
  }
  return { x: bounds.x + bounds.width / 2, y: bottom };
}

/** Makes the element of a kind with its shape around a middle point. */
export function newNode(
  change: Change,
  diagram: Id,
  elementId: Id,
  kind: Kind,
  parent: Id,
  middle: Point,
  name?: string,
  more: { readonly [field: string]: unknown } = {},
): void {
  const size = sizeOf(kind.type, kind.expanded);
  const fields: { [field: string]: unknown } = { ...fieldsOf(kind), ...more };
  if (kind.type === "textAnnotation") fields.text = { text: name ?? "" };
  else if (name !== undefined && name !== "") fields.name = name;
  // A further reference shows an object that is there already.
  if (kind.type === "dataObjectReference" && fields.dataObjectRef === undefined) {
    const object = `${elementId}.object`;
    change.insert("dataObject", object, parent, name ? { name } : {});
    fields.dataObjectRef = object;
  }
  change.insert(kind.type, elementId, parent, fields);
  if (kind.trigger) addTrigger(change, elementId, kind.trigger);
  const element = change.element(elementId);
  if (isEvent(kind.type)) {
    const position = positionOf(change.model, element);
    if (!eventTable[kind.trigger ?? "none"].includes(position)) {
      refuse(
        "event-position",
        say`A ${termFor(kind.trigger ?? kind.type)} is not allowed at this place (${position}).`,
        [elementId],
      );
    }
  }
  const bounds = { x: middle.x - size.width / 2, y: middle.y - size.height / 2, ...size };
  change.insertShape(diagram, elementId, bounds, {
    ...(kind.type === "exclusiveGateway" && { isMarkerVisible: true }),
    ...(kind.expanded !== undefined && { isExpanded: kind.expanded }),
    ...(isSubProcess(kind.type) && kind.expanded === undefined && { isExpanded: false }),
  });
}

/** A pool: the first open one on a process page is drawn around what is there; others get a process of their own. */
function placePool(
  change: Change,
  { diagram: diagramId, id: poolId, kind, at, name }: z.infer<typeof placeSchema>,
): void {
  const diagram = change.diagram(diagramId);
  const shapes = shapesOnPage(change.model, diagramId);
  const plane = diagram.element === undefined ? undefined : change.model.elements.get(diagram.element);
  const collaboration = addPoolAround(change, diagramId);
  const others = shapes.filter(({ element }) => element.type === "participant");
  if (
    !kind.closed &&
    plane &&
    plane.type === "process" &&
    participantsOf(change.model).every((pool) => pool.processRef !== plane.id)
  ) {
    const content = boundsAround(
      shapes.filter(({ element }) => element.type !== "participant").map(({ shape }) => shape.bounds),
    );
    const bounds = content
      ? grow(content, 32)
      : { x: at.x - poolSize.width / 2, y: at.y - poolSize.height / 2, ...poolSize };
    change.insert("participant", poolId, collaboration, { name: name ?? plane.name, processRef: plane.id });
    change.insertShape(
      diagramId,
      poolId,
      {
        x: bounds.x - bandWidth,
        y: bounds.y,
        width: Math.max(bounds.width + bandWidth, poolSize.width),
        height: Math.max(bounds.height, laneHeight),
      },
      { isHorizontal: true },
    );
    return;
  }
  const widest = boundsAround((others.length > 0 ? others : shapes).map(({ shape }) => shape.bounds));
  const height = kind.closed ? closedPoolHeight : poolSize.height;
  const above = widest !== undefined && at.y < widest.y + widest.height / 2;
  const x = widest?.x ?? at.x - poolSize.width / 2;
  const y = widest ? (above ? widest.y - height - 32 : widest.y + widest.height + 32) : at.y - height / 2;
  const fields: { [field: string]: unknown } = { name };
  if (!kind.closed) {
    change.insert("process", `${poolId}.process`, change.model.root, { name, isExecutable: false });
    fields.processRef = `${poolId}.process`;
  }
  change.insert("participant", poolId, collaboration, fields);
  change.insertShape(
    diagramId,
    poolId,
    { x, y: onGrid(y), width: widest?.width ?? poolSize.width, height },
    { isHorizontal: true },
  );
}
