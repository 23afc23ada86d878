import TinyQueue from "tinyqueue";
import type { Bounds, Point } from "../model";
import {
  boundsOfPoints,
  centre,
  contains,
  grow,
  overlaps,
  type Side,
  segmentCrosses,
  sidePoint,
  simplified,
} from "./geometry";

/** Where a flow may leave or enter a shape: the side, the point, and how little that is liked (0 is best). */
export interface Port {
  readonly side: Side;
  readonly at: Point;
  readonly penalty: number;
}

export interface RouteRequest {
  readonly from: readonly Port[];
  readonly to: readonly Port[];
  /** Shapes the flow must not cross, its own ends included. */
  readonly obstacles: readonly Bounds[];
  /** Courses already taken: lying on top of one is allowed but disliked. */
  readonly taken?: readonly (readonly Point[])[];
}

/** Free space a flow keeps from shapes it passes, and the shortest piece between a shape and the first bend. */
export const clearance = 12;
const bendCost = 36;
const overlapCost = 6;
const crossingCost = 18;
/** How far around the two ends of a flow shapes and other flows are looked at first. */
const nearby = 260;
/** Above this many grid cells, only shapes near the two ends make grid lines. */
const cellBound = 60_000;

const step: { readonly [side in Side]: Point } = {
  left: { x: -1, y: 0 },
  right: { x: 1, y: 0 },
  top: { x: 0, y: -1 },
  bottom: { x: 0, y: 1 },
};

/** Ports in the middle of each side, with what each costs. */
export function portsOf(bounds: Bounds, penalties: Partial<Record<Side, number>>): Port[] {
  return (Object.keys(penalties) as Side[]).map((side) => ({
    side,
    at: sidePoint(bounds, side),
    penalty: penalties[side] as number,
  }));
}

/**
 * The best orthogonal course between two shapes: short, with few bends, crossing no shape, keeping off other flows.
 * Simple courses (straight, one or two bends) are tried first; else a search over the grid of lines beside the shapes.
 * Method: A* over an orthogonal visibility graph with direction-dependent costs (Wybrow, Marriott, Stuckey, "Orthogonal
 * Connector Routing", Graph Drawing 2009); from memory. O(cells · log cells) at the worst.
 * @returns waypoints from end to end; a plain two-bend course where shapes leave no way at all
 */
export function route(given: RouteRequest): Point[] {
  const ports = [...given.from, ...given.to].map((port) => port.at);
  // Flows keep a little off the shapes they pass; the shapes at their ends they must touch.
  const obstacles = given.obstacles.map((obstacle) =>
    ports.some((at) => contains(obstacle, at)) ? obstacle : grow(obstacle, 6),
  );
  const request = { ...given, obstacles };
  // On a large page only what is near can matter; the whole page is looked at where nearby there is no way.
  const near = grow(boxOf([...given.from, ...given.to]), nearby);
  const local = {
    ...request,
    obstacles: obstacles.filter((obstacle) => overlaps(obstacle, near)),
    taken: (given.taken ?? []).filter((line) => overlaps(boundsOfPoints(line), near, 1)),
  };
  const found = bestCourse(local);
  if (found && isFree(found.points, obstacles)) return found.points;
  const anywhere = bestCourse(request);
  if (anywhere) return anywhere.points;
  const from = request.from[0] as Port;
  const to = request.to[0] as Port;
  const middle = (from.at.x + to.at.x) / 2;
  return simplified([from.at, { x: middle, y: from.at.y }, { x: middle, y: to.at.y }, to.at]);
}

function bestCourse(request: RouteRequest): Course | undefined {
  const taken = segmentsOf(request.taken ?? []);
  const simple = bestSimple(request, taken);
  if (simple && simple.penalty === 0) return simple;
  const searched = search(request, taken);
  return simple && (!searched || simple.cost <= searched.cost) ? simple : searched;
}

interface Segment {
  readonly a: Point;
  readonly b: Point;
}
interface Course {
  readonly points: Point[];
  readonly cost: number;
  /** What is wrong with it beyond its length and bends. */
  readonly penalty: number;
}

function segmentsOf(lines: readonly (readonly Point[])[]): Segment[] {
  return lines.flatMap((line) => line.slice(1).map((b, at) => ({ a: line[at] as Point, b })));
}

function bestSimple({ from, to, obstacles }: RouteRequest, taken: readonly Segment[]): Course | undefined {
  let best: Course | undefined;
  for (const start of from) {
    for (const end of to) {
      for (const points of simpleCourses(start, end)) {
        if (!isFree(points, obstacles)) continue;
        const course = measured(points, start.penalty + end.penalty, taken);
        if (!best || course.cost < best.cost) best = course;
      }
    }
  }
  return best;
}

function simpleCourses(start: Port, end: Port): Point[][] {
  const [a, b] = [start.at, end.at];
  const leavesAcross = start.side === "left" || start.side === "right";
  const entersAcross = end.side === "left" || end.side === "right";
  const ahead = (port: Port, point: Point) =>
    (point.x - port.at.x) * step[port.side].x + (point.y - port.at.y) * step[port.side].y;
  if (leavesAcross && entersAcross) {
    if (a.y === b.y) return ahead(start, b) > 0 && ahead(end, a) > 0 ? [[a, b]] : [];
    const middles = [
      (a.x + b.x) / 2,
      b.x - clearance * 1.5 * Math.sign(b.x - a.x),
      a.x + clearance * 1.5 * Math.sign(b.x - a.x),
    ];
    return middles
      .map((x) => [a, { x, y: a.y }, { x, y: b.y }, b])
      .filter(([, c, d]) => ahead(start, c as Point) >= clearance && ahead(end, d as Point) >= clearance);
  }
  if (!leavesAcross && !entersAcross) {
    if (a.x === b.x) return ahead(start, b) > 0 && ahead(end, a) > 0 ? [[a, b]] : [];
    const y = (a.y + b.y) / 2;
    const course = [a, { x: a.x, y }, { x: b.x, y }, b];
    return ahead(start, course[1] as Point) >= clearance && ahead(end, course[2] as Point) >= clearance ? [course] : [];
  }
  const corner = leavesAcross ? { x: b.x, y: a.y } : { x: a.x, y: b.y };
  return ahead(start, corner) >= clearance && ahead(end, corner) >= clearance ? [[a, corner, b]] : [];
}

function isFree(points: readonly Point[], obstacles: readonly Bounds[]): boolean {
  for (let at = 0; at + 1 < points.length; at++) {
    for (const obstacle of obstacles) {
      if (segmentCrosses(obstacle, points[at] as Point, points[at + 1] as Point)) return false;
    }
  }
  return true;
}

function measured(points: Point[], portPenalty: number, taken: readonly Segment[]): Course {
  let length = 0;
  let penalty = portPenalty;
  for (let at = 0; at + 1 < points.length; at++) {
    const a = points[at] as Point;
    const b = points[at + 1] as Point;
    length += Math.abs(a.x - b.x) + Math.abs(a.y - b.y);
    penalty += meetingCost(a, b, taken);
  }
  return { points, cost: length + (points.length - 2) * bendCost + penalty, penalty };
}

/** Two lines closer than this look like one. */
const nearLine = 4;

/** What lying along or across other flows costs a segment. */
function meetingCost(a: Point, b: Point, taken: readonly Segment[]): number {
  let cost = 0;
  const upright = a.x === b.x;
  const low = upright ? Math.min(a.y, b.y) : Math.min(a.x, b.x);
  const high = upright ? Math.max(a.y, b.y) : Math.max(a.x, b.x);
  for (const segment of taken) {
    const otherUpright = segment.a.x === segment.b.x;
    if (upright === otherUpright) {
      const near = upright ? Math.abs(segment.a.x - a.x) : Math.abs(segment.a.y - a.y);
      if (near >= nearLine) continue;
      const from = Math.max(low, upright ? Math.min(segment.a.y, segment.b.y) : Math.min(segment.a.x, segment.b.x));
      const until = Math.min(high, upright ? Math.max(segment.a.y, segment.b.y) : Math.max(segment.a.x, segment.b.x));
      if (until > from) cost += (until - from) * overlapCost;
    } else {
      const line = upright ? a.x : a.y;
      const otherLine = upright ? segment.a.y : segment.a.x;
      const otherLow = upright ? Math.min(segment.a.x, segment.b.x) : Math.min(segment.a.y, segment.b.y);
      const otherHigh = upright ? Math.max(segment.a.x, segment.b.x) : Math.max(segment.a.y, segment.b.y);
      if (otherLow < line && line < otherHigh && low < otherLine && otherLine < high) cost += crossingCost;
    }
  }
  return cost;
}

/** Grid lines: through the ports, beside every shape at one and two clearances, and half-way between the ends. */
function gridLines(
  { from, to, obstacles, taken = [] }: RouteRequest,
  near: Bounds | undefined,
): { xs: number[]; ys: number[] } {
  const xs = new Set<number>();
  const ys = new Set<number>();
  for (const port of [...from, ...to]) {
    xs.add(port.at.x);
    ys.add(port.at.y);
    xs.add(port.at.x + step[port.side].x * clearance);
    ys.add(port.at.y + step[port.side].y * clearance);
  }
  const relevant = near
    ? obstacles.filter((obstacle) =>
        segmentCrosses(near, obstacle, { x: obstacle.x + obstacle.width, y: obstacle.y + obstacle.height }),
      )
    : obstacles;
  const tracks = taken.length > 0 ? [1, 1.7, 2.4] : [1];
  for (const obstacle of relevant) {
    for (const track of tracks) {
      xs.add(obstacle.x - clearance * track);
      xs.add(obstacle.x + obstacle.width + clearance * track);
      ys.add(obstacle.y - clearance * track);
      ys.add(obstacle.y + obstacle.height + clearance * track);
    }
  }
  const first = from[0] as Port;
  const last = to[0] as Port;
  xs.add(Math.round((first.at.x + last.at.x) / 2));
  ys.add(Math.round((first.at.y + last.at.y) / 2));
  const ascending = (a: number, b: number) => a - b;
  return { xs: [...xs].sort(ascending), ys: [...ys].sort(ascending) };
}

const sides: readonly Side[] = ["right", "bottom", "left", "top"];

function search(request: RouteRequest, taken: readonly Segment[]): Course | undefined {
  const { from, to, obstacles } = request;
  let { xs, ys } = gridLines(request, undefined);
  let blocked = obstacles;
  if (xs.length * ys.length > cellBound) {
    const near = grow(boxOf([...from, ...to]), 240);
    ({ xs, ys } = gridLines(request, near));
    blocked = obstacles.filter((obstacle) =>
      segmentCrosses(grow(near, 60), obstacle, { x: obstacle.x + obstacle.width, y: obstacle.y + obstacle.height }),
    );
    if (xs.length * ys.length > cellBound * 4) return undefined;
  }
  const columns = xs.length;
  const indexAt = (x: number, y: number) => ys.indexOf(y) * columns + xs.indexOf(x);
  const goals = new Map<number, Port[]>();
  for (const port of to) {
    const key = indexAt(port.at.x, port.at.y);
    goals.set(key, [...(goals.get(key) ?? []), port]);
  }
  const target = centre(boxOf(to));
  const pieces = new GridPieces(xs, ys, blocked, taken);
  const best = new Float64Array(columns * ys.length * 4).fill(Number.POSITIVE_INFINITY);
  const cameFrom = new Int32Array(columns * ys.length * 4).fill(-1);
  const estimate = (x: number, y: number) => Math.abs(x - target.x) * 0.9 + Math.abs(y - target.y) * 0.9;
  const queue = new TinyQueue<{ state: number; cost: number; total: number }>(
    [],
    (a, b) => a.total - b.total || a.state - b.state,
  );
  for (const port of from) {
    const state = indexAt(port.at.x, port.at.y) * 4 + sides.indexOf(port.side);
    if (port.penalty < (best[state] as number)) {
      best[state] = port.penalty;
      queue.push({ state, cost: port.penalty, total: port.penalty + estimate(port.at.x, port.at.y) });
    }
  }
  const starts = new Set(from.map((port) => indexAt(port.at.x, port.at.y)));
  let found: { state: number; cost: number } | undefined;
  for (let next = queue.pop(); next; next = queue.pop()) {
    if (found && next.total >= found.cost + 200) break;
    if (next.cost > (best[next.state] as number)) continue;
    const cell = next.state >> 2;
    const direction = next.state & 3;
    const column = cell % columns;
    const row = (cell - column) / columns;
    for (const port of goals.get(cell) ?? []) {
      // The last piece must run into the shape: against the direction in which the port faces.
      const entering = step[sides[direction] as Side];
      if (entering.x === -step[port.side].x && entering.y === -step[port.side].y) {
        const cost = next.cost + port.penalty;
        if (!found || cost < found.cost) found = { state: next.state, cost };
      }
    }
    for (let turn = 0; turn < 4; turn++) {
      if (turn === (direction + 2) % 4) continue;
      if (turn !== direction && starts.has(cell)) continue;
      const side = step[sides[turn] as Side];
      const toColumn = column + side.x;
      const toRow = row + side.y;
      if (toColumn < 0 || toRow < 0 || toColumn >= columns || toRow >= ys.length) continue;
      const piece = pieces.cost(Math.min(column, toColumn), Math.min(row, toRow), side.y !== 0);
      if (piece < 0) continue;
      const cost = next.cost + piece + (turn === direction ? 0 : bendCost);
      const state = (toRow * columns + toColumn) * 4 + turn;
      if (cost >= (best[state] as number)) continue;
      best[state] = cost;
      cameFrom[state] = next.state;
      queue.push({ state, cost, total: cost + estimate(xs[toColumn] as number, ys[toRow] as number) });
    }
  }
  if (!found) return undefined;
  const points: Point[] = [];
  for (let state = found.state; state >= 0; state = cameFrom[state] as number) {
    const cell = state >> 2;
    points.push({ x: xs[cell % columns] as number, y: ys[Math.floor(cell / columns)] as number });
  }
  // Where the two shapes touch, the flow has no length, but still two ends.
  if (points.length === 1) points.push(points[0] as Point);
  return { points: simplified(points.reverse()), cost: found.cost, penalty: 0 };
}

function boxOf(ports: readonly Port[]): Bounds {
  const xs = ports.map((port) => port.at.x);
  const ys = ports.map((port) => port.at.y);
  const x = Math.min(...xs);
  const y = Math.min(...ys);
  return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
}

/** What the pieces between neighbouring grid points cost; worked out once each, negative where a shape is in the way. */
class GridPieces {
  readonly #level: Float64Array;
  readonly #upright: Float64Array;
  /** Of each line of the grid, the other flows that a piece of it may meet. */
  readonly #besideLevel: (readonly Segment[] | undefined)[] = [];
  readonly #besideUpright: (readonly Segment[] | undefined)[] = [];

  constructor(
    private readonly xs: readonly number[],
    private readonly ys: readonly number[],
    obstacles: readonly Bounds[],
    private readonly taken: readonly Segment[],
  ) {
    this.#level = new Float64Array(xs.length * ys.length).fill(Number.NaN);
    this.#upright = new Float64Array(xs.length * ys.length).fill(Number.NaN);
    for (const { x, y, width, height } of obstacles) {
      const fromColumn = firstAbove(xs, x);
      const untilColumn = firstAbove(xs, x + width - 1e-9);
      const fromRow = firstAbove(ys, y);
      const untilRow = firstAbove(ys, y + height - 1e-9);
      // Lines strictly inside the shape are shut wherever they run through it.
      for (let row = fromRow; row < untilRow; row++) {
        for (let column = Math.max(0, fromColumn - 1); column < untilColumn; column++)
          this.#level[row * xs.length + column] = -1;
      }
      for (let column = fromColumn; column < untilColumn; column++) {
        for (let row = Math.max(0, fromRow - 1); row < untilRow; row++) this.#upright[row * xs.length + column] = -1;
      }
    }
  }

  cost(column: number, row: number, upright: boolean): number {
    const costs = upright ? this.#upright : this.#level;
    const at = row * this.xs.length + column;
    const known = costs[at] as number;
    if (!Number.isNaN(known)) return known;
    const a = { x: this.xs[column] as number, y: this.ys[row] as number };
    const b = upright ? { x: a.x, y: this.ys[row + 1] as number } : { x: this.xs[column + 1] as number, y: a.y };
    const cost = Math.abs(a.x - b.x) + Math.abs(a.y - b.y) + meetingCost(a, b, this.#beside(column, row, upright));
    costs[at] = cost;
    return cost;
  }

  #beside(column: number, row: number, upright: boolean): readonly Segment[] {
    const [lines, at] = upright ? [this.#besideUpright, column] : [this.#besideLevel, row];
    const known = lines[at];
    if (known) return known;
    const line = (upright ? this.xs[at] : this.ys[at]) as number;
    const found = this.taken.filter(({ a, b }) =>
      upright
        ? Math.min(a.x, b.x) < line + nearLine && line - nearLine < Math.max(a.x, b.x)
        : Math.min(a.y, b.y) < line + nearLine && line - nearLine < Math.max(a.y, b.y),
    );
    lines[at] = found;
    return found;
  }
}

/** Index of the first line beyond a value. */
function firstAbove(lines: readonly number[], value: number): number {
  let low = 0;
  let high = lines.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((lines[middle] as number) <= value) low = middle + 1;
    else high = middle;
  }
  return low;
}
