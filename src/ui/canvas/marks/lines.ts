import type { Point } from "@/core/model";

/** A line as an SVG path. */
export const pathOf = (line: readonly Point[]): string =>
  line.map((point, at) => `${at === 0 ? "M" : "L"}${point.x} ${point.y}`).join("");

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
