import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { brokenLines, textWidth } from "./text";

describe("text in the shipped font", () => {
  test("widths add up, grow with the size, and are never nothing", () => {
    fc.assert(
      fc.property(
        fc.string({ minLength: 1 }),
        fc.string({ minLength: 1 }),
        fc.integer({ min: 6, max: 40 }),
        (a, b, size) => {
          expect(textWidth(a + b, size)).toBeCloseTo(textWidth(a, size) + textWidth(b, size), 6);
          expect(textWidth(a, 2 * size)).toBeCloseTo(2 * textWidth(a, size), 6);
          expect(textWidth(a, size)).toBeGreaterThan(0);
        },
      ),
    );
  });

  test("a narrow letter is narrower than a wide one, in both cuts", () => {
    for (const weight of [400, 600] as const)
      expect(textWidth("i", 13, weight)).toBeLessThan(textWidth("W", 13, weight));
    expect(textWidth("Check feeder capacity", 13, 600)).toBeGreaterThan(textWidth("Check feeder capacity", 13, 400));
  });

  test("the same words in the same room are broken in the same way, whatever was broken between", () => {
    const of = (width: number, most?: number) =>
      brokenLines("Check feeder capacity of the street", width, 13, 400, most);
    const [narrow, wide, short] = [of(60), of(140), of(60, 2)];
    expect(new Set([narrow, wide, short].map(String)).size).toBe(3);
    // More than are kept.
    for (let at = 0; at < 9_000; at++) brokenLines(`Step ${at}`, 60, 13);
    expect([of(60), of(140), of(60, 2)]).toEqual([narrow, wide, short]);
  });

  const words = fc
    .array(fc.stringMatching(/^[A-Za-z0-9-]{1,14}$/), { minLength: 1, maxLength: 12 })
    .map((all) => all.join(" "));

  test("no line is wider than asked for, and no letter is lost", () => {
    fc.assert(
      fc.property(words, fc.integer({ min: 30, max: 200 }), (text, width) => {
        const lines = brokenLines(text, width, 13);
        for (const line of lines) expect(line.length === 1 || textWidth(line, 13) <= width, line).toBe(true);
        expect(lines.join("").replace(/\s/g, "")).toBe(text.replace(/\s/g, ""));
      }),
    );
  });

  test("with room for few lines only, the last one says that there is more", () => {
    fc.assert(
      fc.property(words, fc.integer({ min: 30, max: 120 }), fc.integer({ min: 1, max: 3 }), (text, width, most) => {
        const all = brokenLines(text, width, 13);
        const few = brokenLines(text, width, 13, 400, most);
        if (all.length <= most) expect(few).toEqual(all);
        else {
          expect(few).toHaveLength(most);
          expect(few.at(-1)).toMatch(/…$/);
          expect(few.slice(0, -1)).toEqual(all.slice(0, most - 1));
        }
      }),
    );
  });

  test.each([
    ["Check feeder capacity", 80, ["Check feeder", "capacity"]],
    ["As-is", 200, ["As-is"]],
    ["first line\nsecond line", 200, ["first line", "second line"]],
    ["first\r\nsecond", 200, ["first", "second"]],
    ["   ", 200, []],
    ["", 200, []],
  ])("%j within %i", (text, width, lines) => expect(brokenLines(text, width, 13)).toEqual(lines));
});
