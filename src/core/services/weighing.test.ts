import fc from "fast-check";
import { describe, expect, test } from "vitest";
import type { Weight } from "../model";
import { changesAYear, type Weighed, weigh } from ".";

const more = (criterion: string, weight: number): Weight => ({ criterion, weight, isLessBetter: false });
const less = (criterion: string, weight: number): Weight => ({ criterion, weight, isLessBetter: true });

test.each([
  [3, 10, undefined],
  [0, 100, 0],
  [2, 365.25, 2],
  [2, 73.05, 10],
])("%d days of changes in %d days are %s a year", (days, over, expected) => {
  const found = changesAYear(days, over);
  if (expected === undefined) expect(found).toBeUndefined();
  else expect(found).toBeCloseTo(expected, 9);
});

describe("weighing", () => {
  test("an example by hand: normalised between least and most, weighted, each criterion's share told", () => {
    const { ranking } = weigh(
      [
        { id: "a", figures: { volume: 10, changes: 4 } },
        { id: "b", figures: { volume: 30, changes: 2 } },
        { id: "c", figures: { volume: 20, changes: 0 } },
      ],
      [more("volume", 3), less("changes", 1)],
    );
    expect(ranking.map(({ id, rank, score }) => [id, rank, score])).toEqual([
      ["b", 1, (3 * 1 + 0.5) / 4],
      ["c", 2, (3 * 0.5 + 1) / 4],
      ["a", 3, 0],
    ]);
    expect(ranking[0]?.shares).toEqual({ volume: 0.75, changes: 0.125 });
  });

  test("what is not known adds nothing and is told; where all are the same, all have the most; equals share a rank", () => {
    const { ranking, swap } = weigh(
      [
        { id: "a", figures: { volume: 10 } },
        { id: "b", figures: { volume: 10, changes: 3 } },
      ],
      [more("volume", 1), more("changes", 0)],
    );
    expect(ranking.map(({ id, rank, score, unknown }) => ({ id, rank, score, unknown }))).toEqual([
      { id: "a", rank: 1, score: 1, unknown: [] },
      { id: "b", rank: 1, score: 1, unknown: [] },
    ]);
    // They come out the same as it is: no change at all is needed.
    expect(swap).toEqual({ criterion: "changes", from: 0, to: 0 });
    expect(weigh([{ id: "a", figures: {} }], [more("volume", 1)]).ranking[0]?.unknown).toEqual(["volume"]);
  });

  test.each<[string, Weighed[], Weight[]]>([
    ["nothing", [], [more("x", 1)]],
    ["one alone", [{ id: "a", figures: { x: 1 } }], [more("x", 1)]],
    [
      "no weight at all",
      [
        { id: "a", figures: { x: 1 } },
        { id: "b", figures: { x: 2 } },
      ],
      [more("x", 0)],
    ],
    [
      "one that is better in all that counts",
      [
        { id: "a", figures: { x: 2 } },
        { id: "b", figures: { x: 1 } },
      ],
      [more("x", 3)],
    ],
  ])("of %s no change swaps first and second", (name, alternatives, weights) => {
    const { swap } = weigh(alternatives, weights);
    // A better one is caught up with only when its criterion does not count any more.
    expect(swap).toEqual(name.startsWith("one that") ? { criterion: "x", from: 3, to: 0 } : undefined);
  });

  // Against brute force: at the told weight the first two come out the same, and at no weight nearer by any criterion.
  test("the smallest change that swaps first and second is the smallest", () => {
    const criteria = ["p", "q", "r"];
    const figure = fc.integer({ min: 0, max: 20 });
    const alternatives = fc.array(fc.record({ p: figure, q: figure, r: figure }), { minLength: 2, maxLength: 5 });
    const weights = fc.array(fc.record({ weight: fc.integer({ min: 0, max: 8 }), isLessBetter: fc.boolean() }), {
      minLength: 3,
      maxLength: 3,
    });
    fc.assert(
      fc.property(alternatives, weights, (figures, chosen) => {
        const all = figures.map((one, at) => ({ id: String(at), figures: one }));
        const said = criteria.map((criterion, at) => ({ criterion, ...(chosen[at] as (typeof chosen)[number]) }));
        const { ranking, swap } = weigh(all, said);
        const [first, second] = ranking;
        if (!first || !second || said.every(({ weight }) => weight === 0)) return;
        const ahead = (criterion: string, to: number) => {
          const again = weigh(
            all,
            said.map((one) => (one.criterion === criterion ? { ...one, weight: to } : one)),
          ).ranking;
          const scoreOf = (id: string) => again.find((one) => one.id === id)?.score ?? 0;
          return scoreOf(first.id) - scoreOf(second.id);
        };
        const step = 0.25;
        for (const { criterion, weight } of said)
          for (let to = 0; to <= 20; to += step) {
            const isNearer = !swap || Math.abs(to - weight) < Math.abs(swap.to - swap.from) - 1e-9;
            const whole = said.reduce((sum, one) => sum + (one.criterion === criterion ? to : one.weight), 0);
            if (isNearer && whole > 0) expect(ahead(criterion, to)).toBeGreaterThan(-1e-9);
          }
        if (swap) {
          const whole = said.reduce((sum, one) => sum + (one.criterion === swap.criterion ? swap.to : one.weight), 0);
          if (whole > 1e-9) expect(Math.abs(ahead(swap.criterion, swap.to))).toBeLessThan(1e-9);
        }
      }),
      { numRuns: 300 },
    );
  });
});
