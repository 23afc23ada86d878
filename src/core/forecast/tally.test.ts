import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { quantileOf, varianceOf } from "./statistics";
import { sketchError, Tally, together } from "./tally";

const filled = (values: readonly number[], most: number): Tally => {
  const tally = new Tally(most);
  for (const value of values) tally.add(value);
  return tally;
};
const times = fc.array(fc.double({ min: 0, max: 1e7, noNaN: true }), { minLength: 3, maxLength: 200 });

describe("values as they come", () => {
  test("kept one by one, figures are those of the values", () => {
    fc.assert(
      fc.property(times, times, (one, other) => {
        const all = together([filled(one, 1_000), filled(other, 1_000)]);
        const sorted = Float64Array.from([...one, ...other]).sort();
        expect(all.error).toBe(0);
        expect(all.quantile(0.9)).toBe(quantileOf(sorted, 0.9));
        expect(all.deviation).toBeCloseTo(Math.sqrt(varianceOf(sorted)), 3);
        expect([all.min, all.max]).toEqual([sorted[0], sorted.at(-1)]);
      }),
    );
  });

  test("in bounded room, quantiles are right to within the error that is told, one run kept whole or not", () => {
    fc.assert(
      fc.property(times, times, fc.double({ min: 0, max: 1, noNaN: true }), (one, other, share) => {
        const all = together([filled(one, 2), filled(other, 1_000)]);
        const sorted = Float64Array.from([...one, ...other]).sort();
        expect(all.error).toBe(sketchError);
        // Of the two values the quantile lies between, the lower.
        const exact = sorted[Math.floor(share * (sorted.length - 1))] as number;
        expect(Math.abs(all.quantile(share) - exact)).toBeLessThanOrEqual(exact * sketchError * 1.001 + 1e-3);
        expect(all.mean).toBeCloseTo(sorted.reduce((sum, value) => sum + value, 0) / sorted.length, 3);
        const deviation = Math.sqrt(varianceOf(sorted));
        expect(Math.abs(all.deviation - deviation)).toBeLessThanOrEqual(1e-6 * deviation + 1e-3);
      }),
    );
  });

  test("room is bounded, and the interval of one long run stays about the same", () => {
    const values = Array.from({ length: 60_000 }, (_, at) => 100 + 50 * Math.sin(at) + (at % 17));
    const [exact, sketched] = [filled(values, 100_000), filled(values, 1_000)];
    expect(sketched.values).toHaveLength(1_000);
    expect(sketched.stretches.size).toBeLessThan(2_000);
    const [low, high] = sketched.interval95();
    expect((low + high) / 2).toBeCloseTo(exact.mean, 1);
    expect(high - low).toBeLessThan(2);
  });
});
