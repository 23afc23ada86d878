import { term } from "../messages";
import type { Id } from "../model";
import { type Figure, outlined, type Primitive, roundedRect } from "./primitives";
import type { Scene } from "./scene";
import { textWidth } from "./text";

const size = 11;
const high = 16;

/**
 * A scene with a badge at some of its elements (the number of a difference, of a finding), each with a frame around the element; for
 * pictures that are printed beside what the numbers stand for. O(figures).
 */
export function withBadges(scene: Scene, badges: ReadonlyMap<Id, string>): Scene {
  const added = scene.figures.flatMap((figure): Figure[] => {
    const words = badges.get(figure.id);
    if (words === undefined) return [];
    const { x, y, width, height } = figure.bounds;
    const wide = Math.max(high, Math.ceil(textWidth(words, size, 600)) + 8);
    const [left, top] = [x + width - wide / 2, y - high / 2];
    const frame: Primitive = {
      kind: "path",
      d: roundedRect({ x: x - 4, y: y - 4, width: width + 8, height: height + 8 }, 6),
      fill: "none",
      stroke: "accent",
      width: 2,
      dash: "5 3",
    };
    return [
      {
        id: `badge ${figure.id}`,
        type: "badge",
        title: term(words),
        layer: 9,
        bounds: { x: left, y: top, width: wide, height: high },
        primitives: [
          ...(figure.line ? [] : [frame]),
          {
            ...outlined(roundedRect({ x: left, y: top, width: wide, height: high }, high / 2)),
            stroke: "accent",
          } as Primitive,
          {
            kind: "text",
            x: left + wide / 2,
            y: top + 12,
            text: words,
            size,
            weight: 600,
            anchor: "middle",
            tone: "accent",
          },
        ],
      },
    ];
  });
  const { x, y, width, height } = scene.bounds;
  const room = added.reduce(
    (all, { bounds }) => ({
      left: Math.min(all.left, bounds.x),
      top: Math.min(all.top, bounds.y),
      right: Math.max(all.right, bounds.x + bounds.width),
      bottom: Math.max(all.bottom, bounds.y + bounds.height),
    }),
    { left: x, top: y, right: x + width, bottom: y + height },
  );
  return {
    figures: [...scene.figures, ...added],
    bounds: { x: room.left, y: room.top, width: room.right - room.left, height: room.bottom - room.top },
  };
}
