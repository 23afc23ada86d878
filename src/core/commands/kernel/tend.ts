import { heightForName } from "../../drawing";
import { boundsOfPoints, grow, onGrid, overlaps, segmentCrosses } from "../../layout";
import {
  type Bounds,
  childrenOf,
  type Edge,
  type Edit,
  type Element,
  edgesOf,
  type Id,
  isActivity,
  isSubProcess,
  laneOf,
  type Point,
  participantOf,
  type Shape,
  shapeOn,
  shapesOf,
} from "../../model";
import { resize } from "../arrange/move";
import { containersAcross, openRoom } from "../arrange/room";
import type { Change } from "./change";
import { growAround } from "./grow";
import { placeLabels } from "./labelPlaces";
import { endsOf, obstaclesOn } from "./page";
import { reroute } from "./reroute";

/** Gestures that change what a page shows here and there. What is placed by hand, tidied or taken over is left as it is given. */
const tended: ReadonlySet<string> = new Set([
  "append",
  "attach",
  "connect",
  "giveDocument",
  "insertOnFlow",
  "makeRoom",
  "move",
  "moveToLane",
  "moveToNeighbourLane",
  "place",
  "reconnect",
  "rename",
  "replace",
  "resize",
  "delete",
]);
export const isTended = (command: string): boolean => tended.has(command);

/** So many shapes and flows are touched by a change of a whole page, which is tidied by its own means. */
const atMost = 40;
/** A sideways step of a flow shorter than this reads as a mistake. Pixels. */
const jog = 8;

/**
 * What a gesture leaves to be put right on its page, and nothing else: flows that now run through a shape find a way around it,
 * steps of a few pixels in a flow are taken out, names that now cover something or are covered dodge. What lies well stays as it is,
 * whoever put it there. O(shapes + flows of the page), with a small factor.
 */
export function tend(change: Change, before: readonly Edit[]): void {
  const touched = touchedBy(change, before);
  if (isNothing(touched) || touched.shapes.size + touched.edges.size + touched.named.size > atMost) return;
  for (const id of touched.named) makeFit(change, id);
  // What grew with its name was moved by that, too.
  const { shapes, edges, named } = touchedBy(change, change.edits);
  const pages = new Set([...shapes, ...edges, ...named].flatMap((id) => pageOf(change, id) ?? []));
  for (const diagram of pages) {
    for (const edge of [...leadAround(change, diagram, shapes), ...leadAnew(change, diagram, edges)]) edges.add(edge);
    for (const id of edges) withoutJogs(change, diagram, id);
    // A name inside of its shape covers nothing.
    const outside = [...named].filter((id) => !isActivity(typeOf(change, id)));
    dodge(change, diagram, [...shapes, ...edges, ...outside]);
  }
}

const typeOf = (change: Change, drawn: Id): string => {
  const element = (change.model.shapes.get(drawn) ?? change.model.edges.get(drawn))?.element;
  return change.model.elements.get(element ?? "")?.type ?? "";
};

const isNothing = ({ shapes, edges, named }: Touched) => shapes.size + edges.size + named.size === 0;

/** Shapes and edges, by their own ids. */
interface Touched {
  /** Stand elsewhere, or are new. */
  readonly shapes: Set<Id>;
  /** Run elsewhere, or are new. */
  readonly edges: Set<Id>;
  /** Are called otherwise. */
  readonly named: Set<Id>;
}

function touchedBy(change: Change, edits: readonly Edit[]): Touched {
  const [shapes, edges, named] = [new Set<Id>(), new Set<Id>(), new Set<Id>()];
  for (const edit of edits) {
    const id = edit.kind === "set" ? edit.id : edit.record.id;
    if (edit.kind === "remove") continue;
    if (edit.table === "shapes" && (edit.kind === "insert" || edit.field === "bounds")) shapes.add(id);
    if (edit.table === "edges" && (edit.kind === "insert" || edit.field === "waypoints")) edges.add(id);
    if (edit.table === "elements" && edit.kind === "set" && edit.field === "name") named.add(id);
  }
  const { model } = change;
  const drawn = [...named].flatMap((id) => [...shapesOf(model, id), ...edgesOf(model, id)].map((record) => record.id));
  return {
    shapes: new Set([...shapes].filter((id) => model.shapes.has(id))),
    edges: new Set([...edges].filter((id) => model.edges.has(id))),
    named: new Set(drawn),
  };
}

/** Pixels between the edge of a lane and a step in it: room for a flow that passes over it. */
const roomAbove = 28;
/** A name that needs more than this is a text that belongs into the instructions; it is cut. */
const highest = 240;

/** A step grows until its whole name can be read in it, around its middle, so that its flows stay level. */
function makeFit(change: Change, id: Id): void {
  const shape = change.model.shapes.get(id);
  const element = shape && change.model.elements.get(shape.element);
  if (!shape || !element || !isActivity(element.type) || shape.isExpanded === true) return;
  const { x, y, width, height } = shape.bounds;
  const hasMarkers =
    isSubProcess(element.type) || childrenOf(change.model, element.id, "loopCharacteristics").length > 0;
  const needed = Math.min(highest, heightForName(element.name ?? "", width, hasMarkers));
  const missing = onGrid(needed - height + 3);
  if (missing <= 0) return;
  // Where the lane ends above it, all of the lane moves down first.
  const holder = laneOf(change.model, element.id) ?? participantOf(change.model, element.id);
  const floor = holder && shapeOn(change.model, shape.diagram, holder.id)?.bounds;
  const short = floor ? onGrid(floor.y + roomAbove - (y - missing / 2) + 3) : 0;
  if (floor && short > 0 && y > floor.y)
    openRoom(change, shape.diagram, "y", floor.y + 1, short, containersAcross(change, shape.diagram, "y", floor.y + 1));
  const now = (change.model.shapes.get(id) as Shape).bounds;
  const bounds = { x, y: now.y - missing / 2, width, height: height + missing };
  resize(change, { type: "resize", diagram: shape.diagram, id: element.id, bounds });
  growAround(change, shape.diagram, element.id);
}

const pageOf = (change: Change, id: Id): Id | undefined =>
  change.model.shapes.get(id)?.diagram ?? change.model.edges.get(id)?.diagram;

const holds = new Set(["participant", "lane", "group"]);

/** Leads flows around shapes that came to stand in their way. Gives their edges. */
function leadAround(change: Change, diagram: Id, shapes: ReadonlySet<Id>): readonly Id[] {
  const inTheWay = [...shapes].flatMap((id) => {
    const shape = change.model.shapes.get(id) as Shape;
    const type = change.model.elements.get(shape.element)?.type;
    return shape.diagram === diagram && type && !holds.has(type) && shape.isExpanded !== true ? [shape] : [];
  });
  if (inTheWay.length === 0) return [];
  const crossed = [...change.model.edges].filter((edge) => {
    if (edge.diagram !== diagram) return false;
    const element = change.model.elements.get(edge.element);
    if (element?.type !== "sequenceFlow" && element?.type !== "messageFlow") return false;
    const box = boundsOfPoints(edge.waypoints);
    return inTheWay.some((shape) => {
      if (!overlaps(box, shape.bounds, 1) || isEndOf(change, element, shape.element)) return false;
      return edge.waypoints.some((b, at) => at > 0 && segmentCrosses(shape.bounds, edge.waypoints[at - 1] as Point, b));
    });
  });
  reroute(change, diagram, crossed);
  return crossed.map(({ id }) => id);
}

/** Gives flows that were pulled along, and lie badly since, another course. Gives their edges. */
function leadAnew(change: Change, diagram: Id, edges: ReadonlySet<Id>): readonly Id[] {
  const bad = [...edges].flatMap((id) => {
    const edge = change.model.edges.get(id) as Edge;
    const element = change.model.elements.get(edge.element);
    return edge.diagram === diagram && element?.type === "sequenceFlow" && !liesWell(change, edge, element)
      ? [edge]
      : [];
  });
  reroute(change, diagram, bad);
  return bad.map(({ id }) => id);
}

/** Leaves and meets its shapes squarely, at their borders, without running along or through them. */
function liesWell(change: Change, edge: Edge, element: Element): boolean {
  const ends = endsOf(element);
  const source = ends && shapeOn(change.model, edge.diagram, ends.source)?.bounds;
  const target = ends && shapeOn(change.model, edge.diagram, ends.target)?.bounds;
  if (!source || !target) return true;
  const line = edge.waypoints;
  const last = line.length - 1;
  const length = (at: number) => {
    const [a, b] = [line[at] as Point, line[at + 1] as Point];
    return Math.abs(a.x - b.x) + Math.abs(a.y - b.y);
  };
  if (last > 1 && (length(0) < jog || length(last - 1) < jog)) return false;
  return line.every((b, at) => {
    const a = line[at - 1];
    if (!a) return true;
    if (a.x !== b.x && a.y !== b.y) return false;
    return !segmentCrosses(grow(source, -1), a, b) && !segmentCrosses(grow(target, -1), a, b);
  });
}

function isEndOf(change: Change, connection: Element, shape: Id): boolean {
  const ends = endsOf(connection);
  if (!ends) return true;
  const hosts = [ends.source, ends.target].map((id) => change.model.elements.get(id)?.attachedToRef);
  return ends.source === shape || ends.target === shape || hosts.includes(shape);
}

/** Takes a step of a few pixels out of a flow by shifting the end that stands at a step's side, where nothing is in the way. */
function withoutJogs(change: Change, diagram: Id, id: Id): void {
  const edge = change.model.edges.get(id);
  const ends = edge && endsOf(change.element(edge.element));
  if (!edge || !ends || edge.diagram !== diagram || edge.waypoints.length !== 4) return;
  const [a, b, c, d] = edge.waypoints.map(({ x, y }) => ({ x, y })) as [Point, Point, Point, Point];
  const isLevel = a.y === b.y && c.y === d.y && b.x === c.x;
  const isUpright = a.x === b.x && c.x === d.x && b.y === c.y;
  const by = isLevel ? Math.abs(b.y - c.y) : Math.abs(b.x - c.x);
  if ((!isLevel && !isUpright) || by >= jog || by === 0) return;
  const canShift = (end: Id) => isActivity(change.model.elements.get(end)?.type ?? "");
  const line = isLevel
    ? canShift(ends.target)
      ? [a, { x: d.x, y: a.y }]
      : canShift(ends.source)
        ? [{ x: a.x, y: d.y }, d]
        : undefined
    : canShift(ends.target)
      ? [a, { x: a.x, y: d.y }]
      : canShift(ends.source)
        ? [{ x: d.x, y: a.y }, d]
        : undefined;
  const [from, to] = line ?? [];
  if (!from || !to) return;
  const blocked = obstaclesOn(change.model, diagram, new Set([ends.source, ends.target]));
  if (!blocked.some((box) => segmentCrosses(box, from, to))) change.set("edges", id, "waypoints", [from, to]);
}

const covers = (change: Change, { element }: Shape) => !holds.has(change.model.elements.get(element)?.type ?? "");

/** Names of what was touched, and of what lies where something was put, find a place where they cover nothing. */
function dodge(change: Change, diagram: Id, touched: readonly Id[]): void {
  const covered: Bounds[] = [];
  for (const id of touched) {
    const shape = change.model.shapes.get(id);
    const edge = change.model.edges.get(id);
    if ((shape ?? edge)?.diagram !== diagram) continue;
    if (shape && covers(change, shape)) covered.push(grow(shape.bounds, 40));
    if (edge) covered.push(grow(boundsOfPoints(edge.waypoints), 40));
  }
  if (covered.length > 0) placeLabels(change, diagram, undefined, covered);
}
