import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { textWidth } from "../drawing";
import { outlineOf } from ".";

/** All points a path of relative steps passes, ends of curves only. */
function pointsOf(path: string): { x: number; y: number }[] {
  const points: { x: number; y: number }[] = [];
  let [x, y, startX, startY] = [0, 0, 0, 0];
  for (const [, command = "", rest = ""] of path.matchAll(/([mlqcz])([^mlqcz]*)/g)) {
    const steps = (rest.match(/-?\d+/g) ?? []).map(Number);
    if (command === "z") [x, y] = [startX, startY];
    else {
      x += steps.at(-2) as number;
      y += steps.at(-1) as number;
      // A letter begins with two first steps: to its origin, and from there to its outline.
      if (command === "m") [startX, startY] = [x, y];
    }
    points.push({ x, y });
  }
  return points;
}

const words = fc.stringMatching(/^[A-Za-z0-9 ,.?!äöüéñ“”–€]{1,24}$/);

describe("outlines of words", () => {
  test("are as wide as the words are measured", () => {
    fc.assert(
      fc.property(words, fc.constantFrom(400 as const, 600 as const), (line, weight) => {
        expect(outlineOf(line, weight)?.width).toBeCloseTo(textWidth(line, 1000, weight), 0);
      }),
    );
  });
  test("of two halves, side by side, are those of the whole", () => {
    fc.assert(
      fc.property(words, words, (left, right) => {
        const [whole, first, second] = [outlineOf(left + right, 400), outlineOf(left, 400), outlineOf(right, 400)];
        const shifted = pointsOf(second?.path ?? "").map(({ x, y }) => ({ x: x + (first?.width ?? 0), y }));
        expect(pointsOf(whole?.path ?? "")).toEqual([...pointsOf(first?.path ?? ""), ...shifted]);
      }),
    );
  });
  test("stay within their lines", () => {
    fc.assert(
      fc.property(words, (line) => {
        const outline = outlineOf(line, 400);
        for (const { x, y } of pointsOf(outline?.path ?? "").slice(1)) {
          expect(x).toBeGreaterThanOrEqual(-120);
          expect(x).toBeLessThanOrEqual((outline?.width ?? 0) + 120);
          expect(y).toBeGreaterThanOrEqual(-1100);
          expect(y).toBeLessThanOrEqual(350);
        }
      }),
    );
  });
  test.each(["Ж", "漢字", "emoji 🙂", "constructor\u0001"])("%j is left to be drawn as text", (line) => {
    expect(outlineOf(line, 400)).toBeUndefined();
  });
});
