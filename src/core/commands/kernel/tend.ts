import { boundsOfPoints, grow, overlaps, segmentCrosses } from "../../layout";
import {
  type Bounds,
  type Edge,
  type Edit,
  type Element,
  type Id,
  isActivity,
  type Point,
  type Shape,
} from "../../model";
import type { Change } from "./change";
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
  const count = touched.shapes.size + touched.edges.size;
  if (count === 0 || count > atMost) return;
  const pages = new Set([...touched.shapes, ...touched.edges].flatMap((id) => pageOf(change, id) ?? []));
  for (const diagram of pages) {
    for (const edge of leadAround(change, diagram, touched.shapes)) touched.edges.add(edge);
    for (const id of touched.edges) withoutJogs(change, diagram, id);
    dodge(change, diagram, touched);
  }
}

interface Touched {
  readonly shapes: Set<Id>;
  readonly edges: Set<Id>;
}

/** Shapes that stand elsewhere or anew or are called otherwise, flows that run elsewhere or anew or are called otherwise. */
function touchedBy(change: Change, edits: readonly Edit[]): Touched {
  const [shapes, edges, named] = [new Set<Id>(), new Set<Id>(), new Set<Id>()];
  for (const edit of edits) {
    const id = edit.kind === "set" ? edit.id : edit.record.id;
    if (edit.kind === "remove") continue;
    if (edit.table === "shapes" && (edit.kind === "insert" || edit.field === "bounds")) shapes.add(id);
    if (edit.table === "edges" && (edit.kind === "insert" || edit.field === "waypoints")) edges.add(id);
    if (edit.table === "elements" && edit.kind === "set" && edit.field === "name") named.add(id);
  }
  if (named.size > 0 && named.size <= atMost) {
    for (const shape of change.model.shapes) if (named.has(shape.element)) shapes.add(shape.id);
    for (const edge of change.model.edges) if (named.has(edge.element)) edges.add(edge.id);
  }
  const { model } = change;
  return {
    shapes: new Set([...shapes].filter((id) => model.shapes.has(id))),
    edges: new Set([...edges].filter((id) => model.edges.has(id))),
  };
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

/** Names of what was touched, and of what lies where something was put, find a place where they cover nothing. */
function dodge(change: Change, diagram: Id, { shapes, edges }: Touched): void {
  const covered: Bounds[] = [];
  for (const id of shapes) {
    const shape = change.model.shapes.get(id) as Shape;
    const type = change.model.elements.get(shape.element)?.type ?? "";
    if (shape.diagram === diagram && !holds.has(type)) covered.push(grow(shape.bounds, 40));
  }
  for (const id of edges) {
    const edge = change.model.edges.get(id) as Edge;
    if (edge.diagram === diagram) covered.push(grow(boundsOfPoints(edge.waypoints), 40));
  }
  if (covered.length > 0) placeLabels(change, diagram, undefined, covered);
}
