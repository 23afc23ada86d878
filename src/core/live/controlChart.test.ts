import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { controlChart } from ".";

describe("the chart of individuals and moving ranges", () => {
  // NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2 "Individuals Control Charts", the example of flowrates, from memory.
  test("the worked example", () => {
    const flowrates = [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1];
    const chart = controlChart(flowrates);
    expect(chart?.centre).toBeCloseTo(50.81, 2);
    expect(chart?.range.centre).toBeCloseTo(1.8778, 4);
    expect(chart?.upper).toBeCloseTo(55.8041, 3);
    expect(chart?.lower).toBeCloseTo(45.8159, 3);
    expect(chart?.unusual).toEqual([]);
  });

  test("one far off is beyond the limits; eight on one side are a run, told from the eighth on", () => {
    const even = [10, 11, 10, 9, 10, 11, 9, 10, 11, 10, 9, 10];
    const beyond = controlChart([...even, 30])?.unusual.filter(({ rule }) => rule === "beyond");
    expect(beyond).toEqual([{ at: 12, rule: "beyond" }]);
    const shifted = [9, 11, 9, 11, 9, 11, 9, 11, 12, 14, 12, 14, 12, 14, 12, 14];
    expect(controlChart(shifted)?.unusual).toEqual([
      { at: 7, rule: "run" },
      { at: 15, rule: "run" },
    ]);
  });

  test("of fewer than two values nothing is known; of equal ones nothing is unusual", () => {
    expect(controlChart([])).toBeUndefined();
    expect(controlChart([5])).toBeUndefined();
    expect(controlChart([5, 5, 5, 5, 5, 5, 5, 5, 5])).toMatchObject({ centre: 5, lower: 5, upper: 5, unusual: [] });
  });

  test("it moves and stretches with its values, and durations have no limit below nothing", () => {
    const values = fc.array(fc.double({ min: 0, max: 1000, noNaN: true }), { minLength: 2, maxLength: 60 });
    fc.assert(
      fc.property(values, fc.integer({ min: 1, max: 50 }), (durations, factor) => {
        const [one, other] = [controlChart(durations), controlChart(durations.map((value) => value * factor))];
        if (!one || !other) throw new Error("no chart");
        expect(one.lower).toBeGreaterThanOrEqual(0);
        expect(one.lower).toBeLessThanOrEqual(one.centre + 1e-9);
        expect(other.centre).toBeCloseTo(one.centre * factor, 6);
        expect(other.upper).toBeCloseTo(one.upper * factor, 6);
      }),
    );
  });
});
