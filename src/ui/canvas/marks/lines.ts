import type { Point } from "@/core/model";

/** A line as an SVG path. */
export const pathOf = (line: readonly Point[]): string =>
  line.map((point, at) => `${at === 0 ? "M" : "L"}${point.x} ${point.y}`).join("");
