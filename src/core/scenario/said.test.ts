import fc from "fast-check";
import { expect, test } from "vitest";
import { type Distribution, momentsOf } from "./distributions";
import { readSaid, saidOf } from "./said";

test.each<[string, Distribution]>([
  ["20 min", { kind: "constant", value: 1200 }],
  ["1.5 h", { kind: "constant", value: 5400 }],
  ["1 h 30 min", { kind: "constant", value: 5400 }],
  ["3 working days", { kind: "constant", value: 3 * 8 * 3600 }],
  ["2 days", { kind: "constant", value: 172_800 }],
  ["90", { kind: "constant", value: 5400 }],
  ["every 20 min", { kind: "constant", value: 1200 }],
  ["10 to 30 min", { kind: "uniform", min: 600, max: 1800 }],
  ["between 10 min and 1 h", { kind: "uniform", min: 600, max: 3600 }],
  ["10-30 min", { kind: "uniform", min: 600, max: 1800 }],
  ["10, usually 20, at most 40 min", { kind: "triangular", min: 600, mode: 1200, max: 2400 }],
  ["20 ± 5 min", { kind: "normal", mean: 1200, deviation: 300, min: 0 }],
  ["30 min on average", { kind: "exponential", mean: 1800 }],
  ["every 30 min at random", { kind: "exponential", mean: 1800 }],
  ["12 a day", { kind: "exponential", mean: 7200 }],
  ["1,5 Stunden", { kind: "constant", value: 5400 }],
  ["3 Arbeitstage", { kind: "constant", value: 3 * 8 * 3600 }],
  ["2 Tage", { kind: "constant", value: 172_800 }],
  ["10 bis 30 min", { kind: "uniform", min: 600, max: 1800 }],
  ["mindestens 10, meist 20, höchstens 40 min", { kind: "triangular", min: 600, mode: 1200, max: 2400 }],
  ["30 min im Mittel", { kind: "exponential", mean: 1800 }],
  ["12 am Tag", { kind: "exponential", mean: 7200 }],
  ["8 Fälle je Woche", { kind: "exponential", mean: 75_600 }],
  ["erlang 3, 20 min", { kind: "erlang", k: 3, mean: 1200 }],
  ["gamma 2.5, 8 min", { kind: "gamma", shape: 2.5, scale: 480 }],
  ["weibull 1.7, 30 min", { kind: "weibull", shape: 1.7, scale: 1800 }],
  ["beta 2, 5, 10 to 40 min", { kind: "beta", alpha: 2, beta: 5, min: 600, max: 2400 }],
  [
    "70 % 10 min, 30 % 1 h",
    {
      kind: "discrete",
      points: [
        { share: 0.7, value: 600 },
        { share: 0.3, value: 3600 },
      ],
    },
  ],
])("%s", (text, wanted) => {
  expect(readSaid(text, "time")).toEqual(wanted);
});

test("two numbers a person knows make a curve that has them", () => {
  const one = readSaid("usually 20 min, 9 of 10 within 45 min", "time");
  expect(one?.kind).toBe("logNormal");
  // Of a log-normal law half lie below its median; mean and deviation follow from both (textbook formulas).
  expect(one && saidOf(one, "time")).toBe("usually 20 min, 9 of 10 within 45 min");
  expect(one && momentsOf(one).mean).toBeGreaterThan(1200);
});

test.each(["", "soon", "30 to 10 min", "min", "20 min or so", "usually 20 min", "erlang x, 3 min"])(
  "%j is no time",
  (text) => {
    expect(readSaid(text, "time")).toBeUndefined();
  },
);

test("two numbers said in German are the same curve", () => {
  const inEnglish = readSaid("usually 20 min, 9 of 10 within 45 min", "time");
  expect(readSaid("meist 20 min, 9 von 10 innerhalb 45 min", "time")).toEqual(inEnglish);
  expect(inEnglish).toBeDefined();
});

test("what is said is read as it was meant", () => {
  const time = fc.integer({ min: 1, max: 20_000 }).map((minutes) => minutes * 60);
  const any: fc.Arbitrary<Distribution> = fc.oneof(
    time.map((value) => ({ kind: "constant" as const, value })),
    fc.tuple(time, time).map(([a, b]) => ({ kind: "uniform" as const, min: Math.min(a, b), max: Math.max(a, b) })),
    fc.tuple(time, time, time).map((all) => {
      const [min = 0, mode = 0, max = 0] = [...all].sort((a, b) => a - b);
      return { kind: "triangular" as const, min, mode, max };
    }),
    time.map((mean) => ({ kind: "exponential" as const, mean })),
    fc.tuple(fc.integer({ min: 1, max: 9 }), time).map(([k, mean]) => ({ kind: "erlang" as const, k, mean })),
  );
  fc.assert(
    fc.property(any, (one) => {
      const read = readSaid(saidOf(one, "time"), "time");
      expect(read?.kind).toBe(one.kind);
      // Words have six digits.
      for (const [key, value] of Object.entries(one))
        if (typeof value === "number")
          expect((read as unknown as { [key: string]: number })[key] ?? 0).toBeCloseTo(
            value,
            -Math.log10(Math.max(1, value)) + 4,
          );
    }),
  );
});
