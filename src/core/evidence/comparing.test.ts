import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { filtered, groupsCompared, type LogFilter, leftOutBy, logOf } from ".";
import { fisherExact, holm, mannWhitney } from "./chance";

describe("how likely by chance", () => {
  // The first is the lady tasting tea (R. A. Fisher, 1935); all values by SciPy 1.10.1, stats.fisher_exact.
  test.each<[[number, number], [number, number], number]>([
    [[3, 1], [1, 3], 0.48571428571428565],
    [[8, 2], [1, 5], 0.034965034965034975],
    [[10, 10], [10, 10], 1],
    [[0, 5], [7, 3], 0.025641025641025637],
    [[120, 880], [80, 920], 0.0035648027625589684],
    [[1, 0], [0, 1], 1],
  ])("a table of %j and %j", (some, others, chance) => {
    expect(fisherExact(some, others)).toBeCloseTo(chance, 7);
  });

  test("a table is the same whichever group and whichever answer comes first, and never above 1", () => {
    const count = fc.integer({ min: 0, max: 60 });
    fc.assert(
      fc.property(count, count, count, count, (a, b, c, d) => {
        const chance = fisherExact([a, b], [c, d]);
        expect(chance).toBeGreaterThan(0);
        expect(chance).toBeLessThanOrEqual(1);
        expect(fisherExact([c, d], [a, b])).toBeCloseTo(chance, 8);
        expect(fisherExact([b, a], [d, c])).toBeCloseTo(chance, 8);
      }),
    );
  });

  // SciPy 1.10.1, stats.mannwhitneyu(method="asymptotic", use_continuity=True).
  test.each<[number[], number[], number]>([
    [[12, 25, 31, 8, 44, 19, 27, 63, 15, 22], [30, 41, 18, 55, 38, 72, 29, 47], 0.06853501781363178],
    [[1, 2, 2, 3, 3, 3, 4], [2, 3, 3, 4, 4, 5, 5, 5], 0.049238967838553395],
    [[1, 1, 1], [1, 1], 1],
    [[], [1, 2], 1],
  ])("two samples %j and %j", (some, others, chance) => {
    expect(mannWhitney(some, others)).toBeCloseTo(chance, 5);
    expect(mannWhitney(others, some)).toBeCloseTo(chance, 5);
  });

  test("of several tests is corrected, in their order", () => {
    // S. Holm (1979): the least times their number, the next times one less, none below the one before.
    expect(holm([0.01, 0.04, 0.03, 0.005])).toEqual([0.03, 0.06, 0.06, 0.02]);
    expect(holm([])).toEqual([]);
    expect(holm([0.9, 0.8])).toEqual([1, 1]);
  });
});

const hour = 3_600_000;
const log = logOf(
  Array.from({ length: 80 }, (_, number) => {
    const isLate = number >= 40;
    const names = isLate && number % 2 === 0 ? ["a", "b", "b", "c"] : number % 8 === 0 ? ["a", "b", "c"] : ["a", "b"];
    return {
      case: String(number),
      events: names.map((activity, place) => ({
        activity,
        at: number * 24 * hour + place * hour * (isLate ? 5 : 2),
        lifecycle: "",
        role: "",
        who: "",
      })),
    };
  }),
);
const late: LogFilter[] = [{ kind: "period", from: 40 * 24 * hour, until: null }];
const inHours = (time: number) => `${time / hour} h`;

describe("two groups of cases", () => {
  const compared = groupsCompared(filtered(log, late), leftOutBy(log, late), inHours);

  test("differ in what is done, in what is done again, and in how long they take, the least likely first", () => {
    expect(compared.cases).toEqual([40, 40]);
    const told = compared.differences.map(({ statement, isMoreThanChance }) => [statement.text, isMoreThanChance]);
    expect(told.slice(0, 3).map(([text]) => text)).toEqual(
      expect.arrayContaining([
        "Half of these cases take at most 10 h, half of the others 2 h.",
        "“b” is done more than once in 50 % of these cases and in 0 % of the others.",
        "“c” is done in 50 % of these cases and in 13 % of the others.",
      ]),
    );
    expect(told.slice(0, 3).every(([, isMore]) => isMore)).toBe(true);
    expect(told.find(([text]) => text === "“a” is done in 100 % of these cases and in 100 % of the others.")?.[1]).toBe(
      false,
    );
    const chances = compared.differences.map(({ chance }) => chance);
    expect(chances).toEqual([...chances].sort((a, b) => a - b));
  });

  test("that are alike differ in nothing that is more than chance", () => {
    const even: LogFilter[] = [{ kind: "period", from: 20 * 24 * hour, until: 40 * 24 * hour }];
    const first = filtered(log, [{ kind: "period", from: null, until: 20 * 24 * hour }]);
    expect(groupsCompared(filtered(log, even), first, inHours).differences.some((one) => one.isMoreThanChance)).toBe(
      false,
    );
  });

  test("may be empty", () => {
    expect(groupsCompared(logOf([]), log, inHours).cases).toEqual([0, 80]);
    expect(groupsCompared(logOf([]), logOf([]), inHours).differences).toEqual([]);
  });
});
