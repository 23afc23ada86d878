import fc from "fast-check";
import { describe, expect, test } from "vitest";
import type { Bounds, Point } from "../model";
import { type MapLane, type MapLine, placeMap } from ".";

const sizes = { width: 1_240, card: { width: 250, height: 92 }, band: 34 };
const lane = (id: string, count: number, level = 0): MapLane => ({
  id,
  level,
  cards: Array.from({ length: count }, (_, at) => `${id}${at}`),
  least: 60,
});
const lies = (one: Bounds, inside: Bounds) =>
  one.x >= inside.x &&
  one.y >= inside.y &&
  one.x + one.width <= inside.x + inside.width &&
  one.y + one.height <= inside.y + inside.height;
const meet = (one: Bounds, other: Bounds) =>
  one.x < other.x + other.width &&
  other.x < one.x + one.width &&
  one.y < other.y + other.height &&
  other.y < one.y + one.height;
/** Whether a piece of a line passes through a box, not only along its edge. */
const passes = (a: Point, b: Point, { x, y, width, height }: Bounds) =>
  Math.max(a.x, b.x) > x + 0.01 &&
  Math.min(a.x, b.x) < x + width - 0.01 &&
  Math.max(a.y, b.y) > y + 0.01 &&
  Math.min(a.y, b.y) < y + height - 0.01;
const pieces = (line: readonly Point[]) => line.slice(1).map((point, at) => [line[at] as Point, point] as const);

const maps = fc
  .record({
    counts: fc.array(fc.record({ cards: fc.nat(9), level: fc.nat(2) }), { minLength: 1, maxLength: 6 }),
    ends: fc.array(fc.tuple(fc.nat(60), fc.nat(60)), { maxLength: 20 }),
    width: fc.integer({ min: 400, max: 2_000 }),
  })
  .map(({ counts, ends, width }) => {
    const lanes = counts.map(({ cards, level }, at) => lane(`lane${at}-`, cards, level));
    const all = lanes.flatMap(({ cards }) => cards);
    const lines = ends.flatMap(([from, to]): MapLine[] => {
      const [one, other] = [all[from % Math.max(1, all.length)], all[to % Math.max(1, all.length)]];
      return one && other && one !== other ? [{ from: one, to: other }] : [];
    });
    return { lanes, lines, width };
  });

describe("a map of lanes", () => {
  test("cards stand in their own lane, and none covers another", () => {
    fc.assert(
      fc.property(maps, ({ lanes, lines, width }) => {
        const placed = placeMap(lanes, lines, { ...sizes, width });
        const cards = [...placed.cards];
        for (const { id, cards: own } of lanes)
          for (const key of own) {
            const inside = placed.lanes.get(id)?.own as Bounds;
            // On a window narrower than one card, the map is as wide as it has to be.
            const room = { ...inside, width: Math.max(inside.width, 400) };
            expect(lies(placed.cards.get(key) as Bounds, room)).toBe(true);
          }
        for (const [at, [, one]] of cards.entries())
          for (const [, other] of cards.slice(at + 1)) expect(meet(one, other)).toBe(false);
      }),
    );
  });

  test("lines go along and across from one card's edge to the other's, and through no card", () => {
    fc.assert(
      fc.property(maps, ({ lanes, lines, width }) => {
        const placed = placeMap(lanes, lines, { ...sizes, width });
        for (const [at, { from, to }] of lines.entries()) {
          const line = placed.lines[at] as readonly Point[];
          const isOnEdge = ({ x, y }: Point, { x: left, y: top, width: wide, height }: Bounds) =>
            ((y === top || y === top + height) && x > left && x < left + wide) ||
            ((x === left || x === left + wide) && y > top && y < top + height);
          expect(isOnEdge(line[0] as Point, placed.cards.get(from) as Bounds)).toBe(true);
          expect(isOnEdge(line.at(-1) as Point, placed.cards.get(to) as Bounds)).toBe(true);
          for (const [a, b] of pieces(line)) {
            expect(a.x === b.x || a.y === b.y).toBe(true);
            for (const bounds of placed.cards.values()) expect(passes(a, b, bounds)).toBe(false);
          }
        }
      }),
    );
  });

  test("lines side by side run on tracks of their own", () => {
    fc.assert(
      fc.property(maps, ({ lanes, lines, width }) => {
        const placed = placeMap(lanes, lines, { ...sizes, width });
        // Pieces across, in channels: two of different lines at one height do not share a stretch.
        const across = placed.lines.flatMap((line, at) =>
          line && line.length > 2 ? pieces(line).flatMap(([a, b]) => (a.y === b.y ? [{ at, a, b }] : [])) : [],
        );
        for (const [at, one] of across.entries())
          for (const other of across.slice(at + 1)) {
            if (one.at === other.at || Math.abs(one.a.y - other.a.y) > 0.5) continue;
            const [first, second] = [one, other].map(({ a, b }) => [Math.min(a.x, b.x), Math.max(a.x, b.x)] as const);
            expect(Math.min(first?.[1] ?? 0, second?.[1] ?? 0)).toBeLessThan(
              Math.max(first?.[0] ?? 0, second?.[0] ?? 0),
            );
          }
      }),
    );
  });

  test("a lane reaches over the lanes inside it", () => {
    const { lanes, height } = placeMap([lane("a", 2), lane("b", 1, 1), lane("c", 0, 1), lane("d", 1)], [], sizes);
    const whole = (id: string) => lanes.get(id)?.whole as Bounds;
    expect(lies(whole("b"), whole("a"))).toBe(true);
    expect(lies(whole("c"), whole("a"))).toBe(true);
    expect(meet(whole("d"), whole("a"))).toBe(false);
    expect(whole("c").height).toBe(60);
    expect(whole("d").y + whole("d").height).toBe(height);
  });

  test("without cards or lines there is nothing to place, and an unknown end has no line", () => {
    expect(placeMap([], [], sizes)).toMatchObject({ height: 0, lines: [] });
    expect(placeMap([lane("a", 1)], [{ from: "a0", to: "gone" }], sizes).lines).toEqual([undefined]);
  });
});
