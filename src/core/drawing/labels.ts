import type { Bounds, Edge, Point, Shape } from "../model";
import type { Primitive } from "./primitives";
import { brokenLines, textWidth } from "./text";

export const labelSize = 12;
export const labelLine = 15;
/** Sizes a name in a shape is set in: the first in which it fits whole. Smaller ones could not be read. */
const shapeTextSizes = [13, 12, 11] as const;
const smallest = 11;
const lineOf = (size: number) => size + 3;

export interface PlacedLabel {
  readonly bounds: Bounds;
  readonly lines: readonly string[];
}

/** Where a text under an event, over a gateway or beside a flow stands. */
export type LabelAnchor = "below" | "above" | "below-right" | "right";

/** The box a label needs at an anchor of a shape. */
export function labelBeside(text: string, bounds: Bounds, anchor: LabelAnchor, width = 104): PlacedLabel {
  const lines = brokenLines(text, width, labelSize, 400, 8);
  const size = labelExtent(lines);
  const middle = bounds.x + bounds.width / 2;
  const gap = 4;
  switch (anchor) {
    case "below":
      return { lines, bounds: { x: middle - size.width / 2, y: bounds.y + bounds.height + gap, ...size } };
    case "above":
      return { lines, bounds: { x: middle - size.width / 2, y: bounds.y - gap - size.height, ...size } };
    case "below-right":
      return { lines, bounds: { x: middle + 6, y: bounds.y + bounds.height + 1, ...size } };
    case "right":
      return {
        lines,
        bounds: { x: bounds.x + bounds.width + gap, y: bounds.y + (bounds.height - size.height) / 2, ...size },
      };
  }
}

export function labelExtent(lines: readonly string[]): { width: number; height: number } {
  const width = Math.max(8, ...lines.map((line) => textWidth(line, labelSize)));
  return { width: Math.ceil(width) + 2, height: Math.max(1, lines.length) * labelLine };
}

/** A node's outside label: where the file or a person put it, else at its usual side. */
export function nodeLabel(text: string, shape: Shape, anchor: LabelAnchor): PlacedLabel | undefined {
  if (text.trim() === "") return undefined;
  return atKeptPlace(text, shape.label?.bounds) ?? labelBeside(text, shape.bounds, anchor);
}

/** A flow's label: kept place, else beside its first piece that is long enough. */
export function flowLabel(text: string, edge: Edge): PlacedLabel | undefined {
  if (text.trim() === "" || edge.waypoints.length < 2) return undefined;
  return atKeptPlace(text, edge.label?.bounds) ?? besideLine(text, edge.waypoints);
}

/** The usual place of a flow's label: over its first level piece, or right of its first upright one. */
export function besideLine(text: string, line: readonly Point[]): PlacedLabel {
  const lines = brokenLines(text, 110, labelSize, 400, 6);
  const size = labelExtent(lines);
  const [a, b] = [line[0] as Point, line[1] as Point];
  if (Math.abs(a.x - b.x) >= Math.abs(a.y - b.y)) {
    const room = Math.abs(a.x - b.x);
    const x =
      room >= size.width + 16
        ? Math.min(a.x, b.x) + (b.x > a.x ? 5 : room - size.width - 5)
        : (a.x + b.x) / 2 - size.width / 2;
    return { lines, bounds: { x, y: a.y - size.height - 2, ...size } };
  }
  const y = b.y > a.y ? a.y + 6 : a.y - 6 - size.height;
  return { lines, bounds: { x: a.x + 6, y, ...size } };
}

/**
 * Files keep a label's box as some other program measured it; its upper left corner and middle are honoured, its text is
 * broken to its width with our letters.
 */
function atKeptPlace(text: string, kept: Bounds | undefined): PlacedLabel | undefined {
  if (!kept || (kept.width === 0 && kept.height === 0 && kept.x === 0 && kept.y === 0)) return undefined;
  const lines = brokenLines(text, Math.max(kept.width * 1.08, 48), labelSize, 400, 6);
  const size = labelExtent(lines);
  return { lines, bounds: { x: kept.x + (kept.width - size.width) / 2, y: kept.y, ...size } };
}

export function labelPrimitives({ bounds, lines }: PlacedLabel): Primitive[] {
  return lines.map((text, at) => ({
    kind: "text",
    x: bounds.x + bounds.width / 2,
    y: bounds.y + at * labelLine + labelSize - 1,
    text,
    size: labelSize,
    weight: 400,
    anchor: "middle",
    tone: "ink",
  }));
}

/** Text in the middle of a shape, clear of the marker in its corner and of markers at its lower edge. */
export function textInside(
  text: string,
  bounds: Bounds,
  options: { cornerMarker: boolean; bottomMarkers: boolean; weight?: 400 | 600 },
): Primitive[] {
  if (text.trim() === "") return [];
  const height = bounds.height - (options.bottomMarkers ? 16 : 0);
  const weight = options.weight ?? 400;
  // Beside a corner marker the text sits a little lower, and only a third line has to get out of its way.
  const lower = options.cornerMarker ? 3 : 0;
  const top = (count: number, line: number) => bounds.y + lower + (height - count * line) / 2;
  let fitted = fittedLines(text, bounds.width - 14, height - 6, weight);
  if (options.cornerMarker && top(fitted.lines.length, fitted.line) < bounds.y + 14)
    fitted = fittedLines(text, bounds.width - 46, height - 6, weight);
  const { lines, size, line: step } = fitted;
  return lines.map((line, at) => ({
    kind: "text",
    x: bounds.x + bounds.width / 2,
    y: top(lines.length, step) + at * step + size - 1,
    text: line,
    size,
    weight,
    anchor: "middle",
    tone: "ink",
  }));
}

/** A name in the largest size in which all of it fits; where none does, the smallest, cut. */
function fittedLines(
  text: string,
  width: number,
  height: number,
  weight: 400 | 600,
): { readonly lines: readonly string[]; readonly size: number; readonly line: number } {
  for (const size of shapeTextSizes) {
    const lines = brokenLines(text, width, size, weight);
    if (lines.length * lineOf(size) <= height || lines.length <= 1) return { lines, size, line: lineOf(size) };
  }
  const most = Math.max(1, Math.floor(height / lineOf(smallest)));
  return { lines: brokenLines(text, width, smallest, weight, most), size: smallest, line: lineOf(smallest) };
}

/** How high a step has to be for its whole name, in the smallest size that is read. */
export function heightForName(text: string, width: number, hasMarkers: boolean): number {
  const lines = brokenLines(text, width - 14, smallest, 400).length;
  return lines * lineOf(smallest) + 6 + (hasMarkers ? 16 : 0);
}

/** A band's name, upright; smaller where it is long, then in two lines, and cut to the band's length only where that is too short. */
export function bandText(text: string, bounds: Bounds, upright: boolean, weight: 400 | 600): Primitive[] {
  const length = (upright ? bounds.height : bounds.width) - 8;
  const across = upright ? bounds.width : bounds.height;
  const usual = shapeTextSizes[0];
  let [size, step] = [usual as number, lineOf(usual)];
  let lines = brokenLines(text, length, size, weight);
  if (lines.length > Math.max(1, Math.floor(across / step))) {
    [size, step] = [smallest, smallest + 1.5];
    lines = brokenLines(text, length, size, weight, Math.max(1, Math.floor(across / step)));
  }
  const middle = { x: bounds.x + bounds.width / 2, y: bounds.y + bounds.height / 2 };
  return lines.map((line, at) => {
    const offset = (at - (lines.length - 1) / 2) * step + size * 0.35;
    return {
      kind: "text",
      x: upright ? middle.x + offset : middle.x,
      y: upright ? middle.y : middle.y + offset,
      text: line,
      size,
      weight,
      anchor: "middle",
      tone: "ink",
      ...(upright && { upright: true }),
    };
  });
}
