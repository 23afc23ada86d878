import type { Bounds, Point } from "../model";

export type Side = "left" | "right" | "top" | "bottom";

export const centre = (bounds: Bounds): Point => ({ x: bounds.x + bounds.width / 2, y: bounds.y + bounds.height / 2 });

export function sidePoint(bounds: Bounds, side: Side): Point {
  const middle = centre(bounds);
  switch (side) {
    case "left":
      return { x: bounds.x, y: middle.y };
    case "right":
      return { x: bounds.x + bounds.width, y: middle.y };
    case "top":
      return { x: middle.x, y: bounds.y };
    case "bottom":
      return { x: middle.x, y: bounds.y + bounds.height };
  }
}

export function contains(bounds: Bounds, point: Point): boolean {
  return (
    point.x >= bounds.x &&
    point.x <= bounds.x + bounds.width &&
    point.y >= bounds.y &&
    point.y <= bounds.y + bounds.height
  );
}

/** Whether two rectangles share area, the second grown by a margin. */
export function overlaps(a: Bounds, b: Bounds, margin = 0): boolean {
  return (
    a.x < b.x + b.width + margin &&
    b.x - margin < a.x + a.width &&
    a.y < b.y + b.height + margin &&
    b.y - margin < a.y + a.height
  );
}

export function grow(bounds: Bounds, by: number): Bounds {
  return { x: bounds.x - by, y: bounds.y - by, width: bounds.width + 2 * by, height: bounds.height + 2 * by };
}

export function boundsAround(parts: readonly Bounds[]): Bounds | undefined {
  const first = parts[0];
  if (!first) return undefined;
  let { x, y } = first;
  let right = first.x + first.width;
  let bottom = first.y + first.height;
  for (const part of parts) {
    x = Math.min(x, part.x);
    y = Math.min(y, part.y);
    right = Math.max(right, part.x + part.width);
    bottom = Math.max(bottom, part.y + part.height);
  }
  return { x, y, width: right - x, height: bottom - y };
}

/** Whether an orthogonal segment passes through the inside of a rectangle; touching its edge does not count. */
export function segmentCrosses(bounds: Bounds, a: Point, b: Point): boolean {
  return (
    Math.min(a.x, b.x) < bounds.x + bounds.width &&
    Math.max(a.x, b.x) > bounds.x &&
    Math.min(a.y, b.y) < bounds.y + bounds.height &&
    Math.max(a.y, b.y) > bounds.y
  );
}

/** Whether a line between two points, at any angle, passes through the inside of a rectangle (clipping after Liang and Barsky, 1984). */
export function lineCrosses(bounds: Bounds, a: Point, b: Point): boolean {
  let [enters, leaves] = [0, 1];
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const edges: readonly (readonly [number, number])[] = [
    [-dx, a.x - bounds.x],
    [dx, bounds.x + bounds.width - a.x],
    [-dy, a.y - bounds.y],
    [dy, bounds.y + bounds.height - a.y],
  ];
  for (const [slope, room] of edges) {
    if (slope === 0) {
      if (room <= 0) return false;
    } else if (slope < 0) enters = Math.max(enters, room / slope);
    else leaves = Math.min(leaves, room / slope);
  }
  return enters < leaves;
}

export function boundsOfPoints(points: readonly Point[]): Bounds {
  const xs = points.map((point) => point.x);
  const ys = points.map((point) => point.y);
  const x = Math.min(...xs);
  const y = Math.min(...ys);
  return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
}

/** Drops points that lie on the straight line between their neighbours, and repeated ones; a line keeps two ends. */
export function simplified(points: readonly Point[]): Point[] {
  const kept: Point[] = [];
  for (const point of points) {
    const last = kept[kept.length - 1];
    if (last && last.x === point.x && last.y === point.y) continue;
    const before = kept[kept.length - 2];
    if (
      last &&
      before &&
      ((before.x === last.x && last.x === point.x) || (before.y === last.y && last.y === point.y))
    ) {
      kept.pop();
    }
    kept.push({ x: point.x, y: point.y });
  }
  // Between shapes that touch, a flow begins where it ends.
  const [only] = kept;
  if (only && kept.length === 1 && points.length > 1) kept.push({ ...only });
  return kept;
}

/** The point of a polyline nearest to another point, with the index of the segment it lies on. */
export function nearestOnLine(
  points: readonly Point[],
  to: Point,
): { point: Point; segment: number; distance: number } {
  let best = { point: points[0] ?? to, segment: 0, distance: Number.POSITIVE_INFINITY };
  for (let at = 0; at + 1 < points.length; at++) {
    const a = points[at] as Point;
    const b = points[at + 1] as Point;
    const length = (b.x - a.x) ** 2 + (b.y - a.y) ** 2;
    const share =
      length === 0 ? 0 : Math.max(0, Math.min(1, ((to.x - a.x) * (b.x - a.x) + (to.y - a.y) * (b.y - a.y)) / length));
    const point = { x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) };
    const distance = Math.hypot(point.x - to.x, point.y - to.y);
    if (distance < best.distance) best = { point, segment: at, distance };
  }
  return best;
}
