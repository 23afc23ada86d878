import type { Said } from "../messages";
import type { Bounds, Id, Point } from "../model";

/** Inks by role. What colour each is, the interface's theme or the export's palette says. */
export type Tone = "ink" | "paper" | "soft" | "pencil" | "accent" | "none";

export type Primitive =
  | {
      readonly kind: "path";
      readonly d: string;
      readonly fill: Tone;
      readonly stroke: Tone;
      readonly width: number;
      readonly dash?: string;
      /** Painted in this colour where it says ink; the same in every theme. */
      readonly hue?: string;
    }
  | {
      readonly kind: "text";
      readonly x: number;
      readonly y: number;
      readonly text: string;
      readonly size: number;
      readonly weight: 400 | 600;
      readonly anchor: "start" | "middle" | "end";
      readonly tone: Tone;
      /** Turned by a quarter against the clock around x, y: names of pools and lanes. */
      readonly upright?: boolean;
    }
  /** A role's ribbon at a lane's head; the hue is the role's own. */
  | { readonly kind: "ribbon"; readonly bounds: Bounds; readonly hue: string };

/** One element as drawn: what is painted, and what a pointer can meet. */
export interface Figure {
  readonly id: Id;
  readonly type: string;
  /** What assistive technology says: name and type. */
  readonly title: Said;
  readonly layer: number;
  readonly primitives: readonly Primitive[];
  readonly bounds: Bounds;
  /** The course of a connection; absent for shapes. */
  readonly line?: readonly Point[];
  readonly label?: { readonly bounds: Bounds; readonly lines: readonly string[]; readonly movable: boolean };
}

const round = (value: number) => Math.round(value * 100) / 100;

export const stroke = (d: string, width = 1.6, tone: Tone = "ink", dash?: string): Primitive => ({
  kind: "path",
  d,
  fill: "none",
  stroke: tone,
  width,
  ...(dash && { dash }),
});
export const filled = (d: string, tone: Tone = "ink"): Primitive => ({
  kind: "path",
  d,
  fill: tone,
  stroke: "none",
  width: 0,
});
export const outlined = (d: string, width = 1.6, fill: Tone = "paper", dash?: string): Primitive => ({
  kind: "path",
  d,
  fill,
  stroke: "ink",
  width,
  ...(dash && { dash }),
});

export function roundedRect({ x, y, width, height }: Bounds, radius: number): string {
  const r = Math.min(radius, width / 2, height / 2);
  const [l, t, w, h] = [round(x), round(y), round(width - 2 * r), round(height - 2 * r)];
  return `M${round(l + r)} ${t}h${w}a${r} ${r} 0 0 1 ${r} ${r}v${h}a${r} ${r} 0 0 1 ${-r} ${r}h${-w}a${r} ${r} 0 0 1 ${-r} ${-r}v${-h}a${r} ${r} 0 0 1 ${r} ${-r}z`;
}

export function rect({ x, y, width, height }: Bounds): string {
  return `M${round(x)} ${round(y)}h${round(width)}v${round(height)}h${round(-width)}z`;
}

export function circle(cx: number, cy: number, r: number): string {
  return `M${round(cx - r)} ${round(cy)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`;
}

export function diamond({ x, y, width, height }: Bounds): string {
  const [w, h] = [width / 2, height / 2];
  return `M${round(x + w)} ${round(y)}l${round(w)} ${round(h)}l${round(-w)} ${round(h)}l${round(-w)} ${round(-h)}z`;
}

export function polyline(points: readonly Point[]): string {
  return points.map(({ x, y }, at) => `${at === 0 ? "M" : "L"}${round(x)} ${round(y)}`).join("");
}

/** A path given around 0,0 moved to a place and scaled: only M, L, C, Q, Z with absolute numbers. */
export function placed(d: string, cx: number, cy: number, scale = 1): string {
  let isX = true;
  return d.replace(/[A-Z]|-?\d+(\.\d+)?/g, (token) => {
    if (/[A-Z]/.test(token)) {
      isX = true;
      return token;
    }
    const value = round(Number(token) * scale + (isX ? cx : cy));
    isX = !isX;
    return String(value);
  });
}

/** The middle of a line's longest part, where most room is. */
export function middleOf(line: readonly Point[]): Point {
  let best = { length: -1, at: line[0] ?? { x: 0, y: 0 } };
  for (let index = 1; index < line.length; index++) {
    const [a, b] = [line[index - 1] as Point, line[index] as Point];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    if (length > best.length) best = { length, at: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 } };
  }
  return best.at;
}
