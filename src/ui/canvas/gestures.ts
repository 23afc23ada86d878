import type { Bounds, Point } from "@/core/model";

/** What the pointer is doing on the canvas. Each gesture is a preview until it ends in one command. */
export type Gesture =
  | {
      readonly kind: "move";
      readonly ids: readonly string[];
      readonly from: Point;
      readonly by: Point;
      readonly guides: readonly Guide[];
    }
  | {
      readonly kind: "connect";
      readonly source: string;
      readonly start: Point;
      readonly to: Point;
      readonly over?: string;
      readonly refusal?: string;
    }
  | {
      readonly kind: "resize";
      readonly id: string;
      readonly corner: Corner;
      readonly start: Bounds;
      readonly bounds: Bounds;
    }
  | {
      readonly kind: "bend";
      readonly id: string;
      readonly segment: number;
      readonly start: readonly Point[];
      readonly points: readonly Point[];
    }
  | {
      readonly kind: "reattach";
      readonly id: string;
      readonly end: "source" | "target";
      readonly fixed: Point;
      readonly to: Point;
      readonly over?: string;
    }
  | { readonly kind: "label"; readonly id: string; readonly from: Point; readonly start: Bounds; readonly by: Point }
  | { readonly kind: "marquee"; readonly from: Point; readonly to: Point }
  | { readonly kind: "room"; readonly from: Point; readonly to: Point }
  | { readonly kind: "place"; readonly to: Point; readonly onFlow?: string; readonly onEdge?: string };

export type Corner = "nw" | "ne" | "sw" | "se";
export interface Guide {
  readonly from: Point;
  readonly to: Point;
}

/** Which way room is being made, where, and how much: the way the pointer went further. */
export function roomOf(from: Point, to: Point): { direction: "right" | "down"; line: number; by: number } {
  const right = to.x - from.x >= to.y - from.y;
  const by = Math.round((right ? to.x - from.x : to.y - from.y) / grid) * grid;
  return { direction: right ? "right" : "down", line: right ? from.x : from.y, by: Math.max(0, by) };
}

const grid = 4;
const snapDistance = 6;

/** A shift that lines the moved box up with the middles of others, else with the grid; with the lines to show for it. */
export function snapped(box: Bounds, by: Point, others: readonly Bounds[]): { by: Point; guides: Guide[] } {
  const middle = { x: box.x + box.width / 2 + by.x, y: box.y + box.height / 2 + by.y };
  let bestX: { shift: number; other: Bounds } | undefined;
  let bestY: { shift: number; other: Bounds } | undefined;
  for (const other of others) {
    const dx = other.x + other.width / 2 - middle.x;
    const dy = other.y + other.height / 2 - middle.y;
    if (Math.abs(dx) <= snapDistance && Math.abs(dx) < Math.abs(bestX?.shift ?? 99)) bestX = { shift: dx, other };
    if (Math.abs(dy) <= snapDistance && Math.abs(dy) < Math.abs(bestY?.shift ?? 99)) bestY = { shift: dy, other };
  }
  const onGrid = (value: number) => Math.round(value / grid) * grid;
  const next = { x: bestX ? by.x + bestX.shift : onGrid(by.x), y: bestY ? by.y + bestY.shift : onGrid(by.y) };
  const guides: Guide[] = [];
  if (bestX) {
    const x = middle.x + bestX.shift;
    guides.push({
      from: { x, y: Math.min(bestX.other.y, box.y + next.y) },
      to: { x, y: Math.max(bestX.other.y + bestX.other.height, box.y + box.height + next.y) },
    });
  }
  if (bestY) {
    const y = middle.y + bestY.shift;
    guides.push({
      from: { x: Math.min(bestY.other.x, box.x + next.x), y },
      to: { x: Math.max(bestY.other.x + bestY.other.width, box.x + box.width + next.x), y },
    });
  }
  return { by: next, guides };
}

export function resized(start: Bounds, corner: Corner, to: Point, least: { width: number; height: number }): Bounds {
  const right = start.x + start.width;
  const bottom = start.y + start.height;
  const on = (value: number) => Math.round(value / grid) * grid;
  const left = corner === "nw" || corner === "sw" ? Math.min(on(to.x), right - least.width) : start.x;
  const top = corner === "nw" || corner === "ne" ? Math.min(on(to.y), bottom - least.height) : start.y;
  const newRight = corner === "ne" || corner === "se" ? Math.max(on(to.x), start.x + least.width) : right;
  const newBottom = corner === "sw" || corner === "se" ? Math.max(on(to.y), start.y + least.height) : bottom;
  return { x: left, y: top, width: newRight - left, height: newBottom - top };
}

/** Moves one piece of an orthogonal line sideways; end pieces keep their ends and get a bend instead. */
export function bent(points: readonly Point[], segment: number, to: Point): Point[] {
  const line = points.map((point) => ({ ...point }));
  const a = line[segment];
  const b = line[segment + 1];
  if (!a || !b) return line;
  const level = Math.abs(a.y - b.y) < 0.5;
  const value = Math.round((level ? to.y : to.x) / grid) * grid;
  const shifted = (point: Point): Point => (level ? { x: point.x, y: value } : { x: value, y: point.y });
  const isFirst = segment === 0;
  const isLast = segment === line.length - 2;
  const stub = (end: Point, other: Point): Point => {
    const length = 16;
    return level
      ? { x: end.x + Math.sign(other.x - end.x) * Math.min(length, Math.abs(other.x - end.x) / 3), y: end.y }
      : { x: end.x, y: end.y + Math.sign(other.y - end.y) * Math.min(length, Math.abs(other.y - end.y) / 3) };
  };
  const before = isFirst ? [a, stub(a, b), shifted(stub(a, b))] : [...line.slice(0, segment), shifted(a)];
  const after = isLast ? [shifted(stub(b, a)), stub(b, a), b] : [shifted(b), ...line.slice(segment + 2)];
  return [...before, ...after];
}
