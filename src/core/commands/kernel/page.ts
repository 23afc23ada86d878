import { isExpanded, poolBand } from "../../drawing";
import {
  boundsOfPoints,
  contains,
  grow,
  lineCrosses,
  onGrid,
  overlaps,
  route,
  type Side,
  segmentCrosses,
  sidePoint,
  sizeOf,
} from "../../layout";
import {
  ancestorsOf,
  type Bounds,
  childrenOf,
  type Diagram,
  type Element,
  edgesOf,
  flowNodesIn,
  type Id,
  isConnection,
  isSubProcess,
  type Model,
  type Point,
  referrersOf,
  type Shape,
  shapeOn,
} from "../../model";
import type { Kind } from "../kinds/kinds";
import type { Change } from "./change";
import { portsForFlow } from "./flowPorts";

/** Questions about one page that commands ask: what is where, what is in the way. */

export function shapesOnPage(model: Model, diagram: Id): { shape: Shape; element: Element }[] {
  const found: { shape: Shape; element: Element }[] = [];
  for (const shape of model.shapes) {
    if (shape.diagram !== diagram) continue;
    const element = model.elements.get(shape.element);
    if (element) found.push({ shape, element });
  }
  return found;
}

/** Shapes flows must go around: nodes, data and notes, but not what contains them. */
export function obstaclesOn(model: Model, diagram: Id, except: ReadonlySet<Id> = new Set()): Bounds[] {
  return shapesOnPage(model, diagram)
    .filter(({ shape, element }) => {
      if (except.has(element.id)) return false;
      if (element.type === "lane" || element.type === "group") return false;
      if (element.type === "participant") return element.processRef === undefined;
      return !isExpanded(element, shape);
    })
    .map(({ shape }) => shape.bounds);
}

export interface Place {
  /** What holds the flow elements there. */
  readonly scope: Element;
  readonly lane?: Element;
}

/** The process or sub-process, and the lane, under a point of a page. */
export function placeAt(
  model: Model,
  diagram: Diagram,
  point: Point,
  except: ReadonlySet<Id> = new Set(),
): Place | undefined {
  let best: { shape: Shape; element: Element } | undefined;
  let lane: Element | undefined;
  let laneArea = Number.POSITIVE_INFINITY;
  const area = (bounds: Bounds) => bounds.width * bounds.height;
  for (const candidate of shapesOnPage(model, diagram.id)) {
    const { shape, element } = candidate;
    if (except.has(element.id) || !contains(shape.bounds, point)) continue;
    if (element.type === "lane") {
      if (area(shape.bounds) <= laneArea) [lane, laneArea] = [element, area(shape.bounds)];
    } else if ((element.type === "participant" && element.processRef !== undefined) || isExpanded(element, shape)) {
      if (!best || area(shape.bounds) <= area(best.shape.bounds)) best = candidate;
    }
  }
  let scope: Element | undefined;
  if (best?.element.type === "participant") scope = model.elements.get(best.element.processRef as Id);
  else if (best) scope = best.element;
  else if (diagram.element !== undefined) {
    const plane = model.elements.get(diagram.element);
    if (plane && plane.type !== "collaboration") scope = plane;
    else if (lane) scope = ancestorsOf(model, lane.id).find((element) => element.type === "process");
  }
  if (!scope) return undefined;
  const laneIsHere = lane && ancestorsOf(model, lane.id).some((element) => element.id === scope?.id);
  return laneIsHere && lane ? { scope, lane } : { scope };
}

/**
 * Where a connection's end is: a shape's bounds, for associations with a flow the middle of its course, and for what lies inside
 * a closed sub-process the bounds of that.
 */
export function endBounds(model: Model, diagram: Id, id: Id): Bounds | undefined {
  const shape = shapeOn(model, diagram, id);
  if (shape) return shape.bounds;
  const edge = edgesOf(model, id).find((candidate) => candidate.diagram === diagram);
  if (!edge)
    return ancestorsOf(model, id)
      .filter((holder) => isSubProcess(holder.type))
      .flatMap((holder) => shapeOn(model, diagram, holder.id)?.bounds ?? [])[0];
  const box = boundsOfPoints(edge.waypoints);
  return { x: box.x + box.width / 2, y: box.y + box.height / 2, width: 0, height: 0 };
}

/** The two elements a connection joins on the drawing. Data associations name theirs by their place in the activity. */
export function endsOf(connection: Element): { source: Id; target: Id } | undefined {
  if (connection.type === "dataInputAssociation") {
    const source = (connection.sourceRef as readonly Id[] | undefined)?.[0];
    return source && connection.parent ? { source, target: connection.parent } : undefined;
  }
  if (connection.type === "dataOutputAssociation") {
    const target = connection.targetRef as Id | undefined;
    return target && connection.parent ? { source: connection.parent, target } : undefined;
  }
  const { sourceRef, targetRef } = connection as { sourceRef?: Id; targetRef?: Id };
  return sourceRef && targetRef ? { source: sourceRef, target: targetRef } : undefined;
}

/** The course a change gives to a connection: around everything on its page, or straight while it is rough. */
export function newCourse(change: Change, diagram: Id, connection: Element): Point[] | undefined {
  if (!change.isRough) return courseFor(change.model, diagram, connection);
  const ends = endsOf(connection);
  return ends && straightCourse(change.model, diagram, ends.source, ends.target);
}

/** A new course for a connection, around everything on its page but the edges that are to get a new course themselves. */
export function courseFor(
  model: Model,
  diagram: Id,
  connection: Element,
  waiting: ReadonlySet<Id> = new Set(),
): Point[] | undefined {
  const ends = endsOf(connection);
  if (!ends) return undefined;
  const [source, target] = [endBounds(model, diagram, ends.source), endBounds(model, diagram, ends.target)];
  if (!source || !target) return undefined;
  if (connection.type.startsWith("data") || connection.type === "association") {
    return associationCourse(model, diagram, ends.source, ends.target);
  }
  const others: (readonly Point[])[] = [];
  for (const edge of model.edges) {
    if (edge.diagram === diagram && edge.element !== connection.id && !waiting.has(edge.id))
      others.push(edge.waypoints);
  }
  const obstacles = obstaclesOn(
    model,
    diagram,
    new Set([ends.source, ends.target].filter((id) => model.elements.get(id)?.type === "participant")),
  );
  const { from, to } = portsForFlow(
    model,
    diagram,
    connection.type,
    { id: ends.source, bounds: source },
    { id: ends.target, bounds: target },
    others,
  );
  return route({ from, to, obstacles, taken: others });
}

/**
 * Associations are short and lie off the flow: the straight line between the nearest sides; where that would pass through a step or a
 * name, the shortest between other sides that passes through less, or a way around.
 */
function associationCourse(model: Model, diagram: Id, source: Id, target: Id): Point[] | undefined {
  const [a, b] = [endBounds(model, diagram, source), endBounds(model, diagram, target)];
  const nearest = straightCourse(model, diagram, source, target);
  if (!a || !b || !nearest) return nearest;
  const ends = new Set([source, target]);
  const inTheWay = [...obstaclesOn(model, diagram, ends), ...namesOn(model, diagram)];
  const crossings = ([from, to]: readonly Point[]) =>
    from && to ? inTheWay.filter((box) => lineCrosses(box, from, to)).length : 0;
  if (crossings(nearest) === 0) return nearest;
  const straight = sides
    .flatMap((one) => sides.map((other) => [sidePoint(a, one), sidePoint(b, other)]))
    .filter(([from, to]) => from && to && !lineCrosses(a, from, to) && !lineCrosses(b, from, to));
  const length = ([from, to]: readonly Point[]) => (from && to ? Math.hypot(to.x - from.x, to.y - from.y) : 0);
  const [best] = straight.sort((one, other) => crossings(one) - crossings(other) || length(one) - length(other));
  if (best && crossings(best) === 0) return best;
  const { from, to } = portsForFlow(
    model,
    diagram,
    "association",
    { id: source, bounds: a },
    { id: target, bounds: b },
    [],
  );
  const around = route({ from, to, obstacles: inTheWay, taken: [] });
  return around ?? best ?? nearest;
}

const sides: readonly Side[] = ["top", "right", "bottom", "left"];

/** Where names stand on a page that have a place of their own. */
function namesOn(model: Model, diagram: Id): Bounds[] {
  const names: Bounds[] = [];
  for (const shape of model.shapes)
    if (shape.diagram === diagram && shape.label?.bounds) names.push(shape.label.bounds);
  for (const edge of model.edges) if (edge.diagram === diagram && edge.label?.bounds) names.push(edge.label.bounds);
  return names;
}

function straightCourse(model: Model, diagram: Id, source: Id, target: Id): Point[] | undefined {
  const a = endBounds(model, diagram, source);
  const b = endBounds(model, diagram, target);
  if (!a || !b) return undefined;
  const ends: [Side, Side] =
    a.y + a.height <= b.y
      ? ["bottom", "top"]
      : b.y + b.height <= a.y
        ? ["top", "bottom"]
        : a.x < b.x
          ? ["right", "left"]
          : ["left", "right"];
  const from = sidePoint(a, ends[0]);
  const to = sidePoint(b, ends[1]);
  // A note a little beside its step is tied by an upright line, as long as that still meets both.
  if (ends[0] === "bottom" || ends[0] === "top") {
    const low = Math.max(a.x, b.x) + 8;
    const high = Math.min(a.x + a.width, b.x + b.width) - 8;
    if (low <= high)
      return [
        { x: Math.min(Math.max(from.x, low), high), y: from.y },
        { x: Math.min(Math.max(from.x, low), high), y: to.y },
      ];
  }
  return [from, to];
}

/** A spot of a size near a wanted one where nothing stands yet: to the right, then further down, then up. */
export function freeSpot(
  model: Model,
  diagram: Id,
  wanted: Bounds,
  within?: Bounds,
  except: ReadonlySet<Id> = new Set(),
): Bounds {
  // What lies in other lanes does not count: it makes room when this lane grows.
  const taken = obstaclesOn(model, diagram, except).filter((bounds) => !within || overlaps(bounds, within));
  // Only lines around the place looked at: all spots are tried there.
  const around = grow(wanted, 24 * 8 + (Math.max(wanted.height, 64) + 24) * 6);
  const lines = [...model.edges]
    .filter((edge) => edge.diagram === diagram && overlaps(boundsOfPoints(edge.waypoints), around))
    .map((edge) => edge.waypoints);
  const isCrossed = (bounds: Bounds) =>
    lines.some((line) => line.some((b, at) => at > 0 && segmentCrosses(bounds, line[at - 1] as Point, b)));
  const isFree = (bounds: Bounds) => !taken.some((other) => overlaps(bounds, other, 14)) && !isCrossed(grow(bounds, 6));
  for (let column = 0; column < 8; column++) {
    for (const row of [0, 1, -1, 2, -2, 3, 4, 5, 6]) {
      // Rows are as far apart as steps need, whatever stands there first; the first one stays exactly level with what it follows.
      const down = onGrid(row * (Math.max(wanted.height, sizeOf("task").height) + 24));
      const spot = { ...wanted, x: onGrid(wanted.x + column * 24), y: wanted.y + down };
      const fits = !within || row >= 0 || spot.y > within.y + 8;
      if (fits && isFree(spot)) return spot;
    }
  }
  return wanted;
}

/**
 * Where something that is added without a place goes: near where one looked last, inside the pool there or the nearest one, never on
 * something. What begins a process that is still empty goes to the left of its lane.
 */
export function spotFor(model: Model, diagram: Diagram, kind: Kind, near: Point): Point {
  const size = sizeOf(kind.type, kind.expanded);
  const pools = shapesOnPage(model, diagram.id).filter(
    ({ element }) => element.type === "participant" && element.processRef !== undefined,
  );
  const distance = ({ x, y, width, height }: Bounds) =>
    Math.max(x - near.x, near.x - x - width, 0) + Math.max(y - near.y, near.y - y - height, 0);
  const [pool] = pools.sort((a, b) => distance(a.shape.bounds) - distance(b.shape.bounds));
  const within = (value: number, from: number, length: number, margin: number) =>
    Math.max(from + margin, Math.min(value, from + Math.max(margin, length - margin)));
  const bounds = pool?.shape.bounds;
  const at = bounds
    ? {
        x: within(near.x, bounds.x, bounds.width, 2 * poolBand + size.width / 2 + 16),
        y: within(near.y, bounds.y, bounds.height, size.height / 2 + 12),
      }
    : near;
  const lane = placeAt(model, diagram, at)?.lane;
  const floor = (lane && shapeOn(model, diagram.id, lane.id)?.bounds) ?? pool?.shape.bounds;
  const process = pool?.element.processRef as Id | undefined;
  const isFirst =
    kind.type === "startEvent" && floor && process && flowNodesIn(model, process).length === 0 && floor.width > 200;
  const middle = isFirst ? { x: floor.x + (lane ? poolBand : 2 * poolBand) + 40, y: floor.y + floor.height / 2 } : at;
  const wanted = { x: middle.x - size.width / 2, y: middle.y - size.height / 2, ...size };
  const { x, y } = freeSpot(model, diagram.id, wanted, floor);
  return { x: onGrid(x) + size.width / 2, y: onGrid(y) + size.height / 2 };
}

/** Connections that touch any of the elements, or what is attached to or inside them. */
export function connectionsTouching(model: Model, ids: ReadonlySet<Id>): Set<Id> {
  const found = new Set<Id>();
  for (const id of ids) {
    for (const field of ["sourceRef", "targetRef"]) {
      for (const referrer of referrersOf(model, id, field)) if (isConnection(referrer.type)) found.add(referrer.id);
    }
    for (const child of childrenOf(model, id)) if (isConnection(child.type)) found.add(child.id);
  }
  return found;
}

/** Bounds without the spelling of a file's numbers, which no longer holds once they change. */
export function plain({ x, y, width, height }: Bounds): Bounds {
  return { x, y, width, height };
}
