import fc from "fast-check";
import { jStat } from "jstat";
import { describe, expect, test } from "vitest";
import { constant, type Distribution } from "../scenario";
import {
  after,
  always,
  cutAt,
  fitted,
  type Law,
  lastOf,
  lastOfSome,
  nothing,
  ofQuantity,
  races,
  repeated,
  rounds,
} from "./law";

const exponential = (mean: number): Law => ofQuantity({ kind: "exponential", mean });
const massOf = (law: Law, step: number, count: number) => law.mass(step, count).reduce((sum, one) => sum + one, 0);
/** Mean and variance by the chances of equal stretches. */
function byMass(law: Law, count = 3_000) {
  const step = (law.mean + 12 * Math.sqrt(law.variance) || 1) / count;
  const mass = law.mass(step, count);
  let [sum, mean, square] = [0, 0, 0];
  for (let at = 0; at < count; at++) {
    sum += mass[at] as number;
    mean += (mass[at] as number) * at * step;
    square += (mass[at] as number) * (at * step) ** 2;
  }
  return { sum, mean: mean / sum, variance: square / sum - (mean / sum) ** 2 };
}
const close = (one: number, other: number, within: number) =>
  expect(Math.abs(one - other)).toBeLessThanOrEqual(within * Math.max(1e-9, Math.abs(other)));

describe("one quantity", () => {
  test.each<Distribution>([
    { kind: "uniform", min: 60, max: 240 },
    { kind: "triangular", min: 10, mode: 20, max: 90 },
    { kind: "normal", mean: 100, deviation: 20, min: 0 },
    { kind: "logNormal", mean: 100, deviation: 50 },
    { kind: "exponential", mean: 45 },
    { kind: "erlang", k: 3, mean: 30 },
    { kind: "gamma", shape: 2.5, scale: 12 },
    { kind: "weibull", shape: 1.6, scale: 40 },
    { kind: "beta", alpha: 2, beta: 5, min: 10, max: 40 },
    {
      kind: "discrete",
      points: [
        { share: 0.7, value: 10 },
        { share: 0.3, value: 60 },
      ],
    },
  ])("$kind: its chances give its mean and variance back", (one) => {
    const law = ofQuantity(one);
    const found = byMass(law);
    close(found.sum, 1, 0.002);
    close(found.mean, law.mean, 0.01);
    close(found.variance, law.variance, 0.05);
  });

  test("a constant stays one; one of which only two moments are known is a gamma law of the same", () => {
    expect(ofQuantity(constant(90))).toMatchObject({ mean: 90, variance: 0 });
    expect(massOf(always(90), 10, 5)).toBe(0);
    expect(always(90).mass(10, 20)[9]).toBe(1);
    const law = fitted(100, 2_500);
    // Shape 4, scale 25: the library's quantile.
    const median = jStat.gamma?.inv(0.5, 4, 25) ?? Number.NaN;
    const step = 0.5;
    const below = law.mass(step, Math.round(median / step) + 1).reduce((sum, one) => sum + one, 0);
    close(below, 0.5, 0.02);
    expect(fitted(7, 0)).toMatchObject({ mean: 7, variance: 0 });
  });
});

describe("sums, rounds", () => {
  test("k exponential times one after the other are an Erlang time (textbook)", () => {
    const law = repeated(exponential(10), 4);
    close(law.mean, 40, 1e-9);
    close(law.variance, 4 * 100, 1e-9);
    const erlang = ofQuantity({ kind: "erlang", k: 4, mean: 40 });
    const [one, other] = [law.mass(0.5, 300), erlang.mass(0.5, 300)];
    let [a, b] = [0, 0];
    for (let at = 0; at < 300; at++) {
      a += one[at] as number;
      b += other[at] as number;
      expect(Math.abs(a - b)).toBeLessThan(0.02);
    }
    expect(after(nothing, law)).toBe(law);
  });

  // A geometric number of exponential times is exponential with mean m / (1 − q) (W. Feller I, XII.2, compound distributions).
  test("exponential times, each once more with a chance, are an exponential time", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 0.8, noNaN: true }), (again) => {
        const law = rounds(exponential(10), again);
        const mean = 10 / (1 - again);
        close(law.mean, mean, 1e-9);
        close(law.variance, mean ** 2, 1e-9);
        const step = mean / 200;
        const below = law.mass(step, 200).reduce((sum, one) => sum + one, 0);
        close(below, 1 - Math.exp(-(199.5 * step) / mean), 0.03);
      }),
      { numRuns: 12 },
    );
    expect(rounds(exponential(3), 0).mean).toBe(3);
  });
});

describe("side by side", () => {
  test("the last of n exponential times: m (1 + 1/2 + … + 1/n)", () => {
    for (const n of [2, 3, 6]) {
      const law = lastOf(Array.from({ length: n }, () => exponential(30)));
      const harmonic = Array.from({ length: n }, (_, at) => 1 / (at + 1)).reduce((sum, one) => sum + one, 0);
      const squares = Array.from({ length: n }, (_, at) => 1 / (at + 1) ** 2).reduce((sum, one) => sum + one, 0);
      close(law.mean, 30 * harmonic, 0.01);
      close(law.variance, 900 * squares, 0.02);
      close(byMass(law).mean, law.mean, 0.01);
    }
  });

  test("constants: the longest, exactly; one alone is itself", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 10_000 }), { minLength: 1, maxLength: 6 }), (times) => {
        expect(lastOf(times.map(always)).mean).toBe(Math.max(...times));
      }),
    );
  });

  test("some of several: by hand over the sets that can be drawn", () => {
    // 10 with 0.5, 40 with 0.25; none is drawn again: P(only 10) = 0.375/0.625, P(40 among them) = 0.25/0.625.
    const drawn = lastOfSome([always(10), always(40)], [0.5, 0.25], undefined);
    close(drawn.mean, (0.375 * 10 + 0.25 * 40) / 0.625, 0.01);
    // With one that stands for none of them: 100 in 0.375 of cases.
    const spared = lastOfSome([always(10), always(40)], [0.5, 0.25], always(100));
    close(spared.mean, 0.375 * 10 + 0.25 * 40 + 0.375 * 100, 0.01);
  });
});

describe("races and deadlines", () => {
  // Of two exponential times the first is one by its rate: λ₁ / (λ₁ + λ₂), and takes 1 / (λ₁ + λ₂) (any textbook on Markov processes).
  test("two exponential times", () => {
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 60 }), fc.integer({ min: 5, max: 60 }), (a, b) => {
        const [one, other] = races([exponential(a), exponential(b)]);
        close(one?.chance ?? 0, b / (a + b), 0.02);
        close(one?.law.mean ?? 0, (a * b) / (a + b), 0.03);
        close((one?.chance ?? 0) + (other?.chance ?? 0), 1, 1e-9);
      }),
      { numRuns: 20 },
    );
  });

  test("against a certain time: as often as the other one is longer; among certain ones the shortest", () => {
    const [timer, message] = races([always(60), exponential(50)]);
    close(timer?.chance ?? 0, Math.exp(-60 / 50), 0.01);
    close((timer?.chance ?? 0) + (message?.chance ?? 0), 1, 1e-9);
    expect(races([always(5), always(3), always(9)]).map(({ chance }) => chance)).toEqual([0, 1, 0]);
  });

  test("what is cut at a deadline: how often it is longer, and what is left of it", () => {
    const { longer, within } = cutAt(exponential(30), 30);
    close(longer, Math.exp(-1), 0.005);
    // E[T | T < t] of an exponential time, t = its mean: m (1 − 2/e) / (1 − 1/e).
    close(within.mean, (30 * (1 - 2 / Math.E)) / (1 - 1 / Math.E), 0.01);
    expect(cutAt(always(10), 30).longer).toBe(0);
    expect(cutAt(always(40), 30).longer).toBe(1);
  });
});
