import { jStat } from "jstat";
import { describe, expect, test } from "vitest";
import { type Distribution, draw, faultOf, gammaFunction, momentsOf, normalQuantile, normalShare } from "../scenario";
import { philox, Stream } from "./random";

const drawn = (one: Distribution, count: number, seed = 7): number[] => {
  const stream = new Stream(seed, "draws");
  return Array.from({ length: count }, (_, at) => draw(one, stream.at(at, 0)));
};

/** Shares below a value, by the reference library (jStat), in the terms it has them. */
const laws: readonly (readonly [string, Distribution, ((x: number) => number) | undefined])[] = [
  ["uniform", { kind: "uniform", min: 60, max: 180 }, (x) => jStat.uniform?.cdf(x, 60, 180) as number],
  [
    "triangular",
    { kind: "triangular", min: 10, mode: 20, max: 60 },
    (x) => jStat.triangular?.cdf(x, 10, 60, 20) as number,
  ],
  ["normal", { kind: "normal", mean: 100, deviation: 10, min: -1e9 }, (x) => jStat.normal?.cdf(x, 100, 10) as number],
  [
    "log-normal",
    { kind: "logNormal", mean: 100, deviation: 50 },
    (x) => jStat.lognormal?.cdf(x, Math.log(100) - Math.log(1.25) / 2, Math.sqrt(Math.log(1.25))) as number,
  ],
  ["exponential", { kind: "exponential", mean: 40 }, (x) => jStat.exponential?.cdf(x, 1 / 40) as number],
  ["Erlang", { kind: "erlang", k: 3, mean: 60 }, (x) => jStat.gamma?.cdf(x, 3, 20) as number],
  ["gamma", { kind: "gamma", shape: 2.5, scale: 12 }, (x) => jStat.gamma?.cdf(x, 2.5, 12) as number],
  ["gamma below one", { kind: "gamma", shape: 0.4, scale: 5 }, (x) => jStat.gamma?.cdf(x, 0.4, 5) as number],
  ["Weibull", { kind: "weibull", shape: 1.7, scale: 30 }, (x) => jStat.weibull?.cdf(x, 30, 1.7) as number],
  [
    "beta",
    { kind: "beta", alpha: 2, beta: 5, min: 10, max: 110 },
    (x) => jStat.beta?.cdf((x - 10) / 100, 2, 5) as number,
  ],
  ["Poisson", { kind: "poisson", mean: 70, unit: 60 }, undefined],
  ["binomial", { kind: "binomial", trials: 12, probability: 0.3, unit: 10 }, undefined],
  [
    "cut normal",
    { kind: "normal", mean: 5, deviation: 10, min: 0 },
    (x) => (normalShare((x - 5) / 10) - normalShare(-0.5)) / normalShare(0.5),
  ],
  [
    "discrete",
    {
      kind: "discrete",
      points: [
        { share: 3, value: 10 },
        { share: 1, value: 50 },
      ],
    },
    undefined,
  ],
  [
    "continuous",
    {
      kind: "continuous",
      points: [
        { share: 0, value: 10 },
        { share: 0.5, value: 20 },
        { share: 0.5, value: 60 },
      ],
    },
    (x) => (x < 20 ? (x - 10) / 20 : 0.5 + (x - 20) / 80),
  ],
];

describe.each(laws)("%s", (_, one, cdf) => {
  test("mean and variance of what is drawn are those of the formula", () => {
    const values = drawn(one, 60_000);
    const { mean, variance } = momentsOf(one);
    const average = values.reduce((sum, value) => sum + value, 0) / values.length;
    const spread = values.reduce((sum, value) => sum + (value - average) ** 2, 0) / (values.length - 1);
    // Five standard errors of a mean; of a variance, by the same rule for what has about the tails of an exponential one.
    expect(Math.abs(average - mean)).toBeLessThan((5 * Math.sqrt(variance)) / Math.sqrt(values.length));
    expect(Math.abs(spread / variance - 1)).toBeLessThan(0.12);
  });

  // Kolmogorov and Smirnov: for n values the greatest distance stays below 1.95 / √n in 99.9 of 100 samples (standard tables).
  if (cdf)
    test("what is drawn fits the law of the reference library", () => {
      const values = drawn(one, 20_000, 11).sort((a, b) => a - b);
      let distance = 0;
      for (const [at, value] of values.entries())
        distance = Math.max(
          distance,
          Math.abs(cdf(value) - at / values.length),
          Math.abs(cdf(value) - (at + 1) / values.length),
        );
      expect(distance).toBeLessThan(1.95 / Math.sqrt(values.length));
    });
});

test("the normal law and the gamma function agree with the reference library and with tables", () => {
  for (const share of [1e-10, 0.001, 0.025, 0.3, 0.5, 0.8, 0.975, 0.999999])
    expect(normalShare(normalQuantile(share)) / share).toBeCloseTo(1, 12);
  // Abramowitz and Stegun, "Handbook of Mathematical Functions", table 26.1; from memory.
  expect(normalQuantile(0.975)).toBeCloseTo(1.959963984540054, 12);
  expect(normalShare(1)).toBeCloseTo(0.841344746068543, 13);
  for (const x of [0.3, 1, 1.5, 4.2, 9]) expect(gammaFunction(x) / jStat.gammafn(x)).toBeCloseTo(1, 8);
});

test("the generator gives the published numbers", () => {
  // Known answers that come with the published source (Random123, kat_vectors, philox2x32 10); from memory.
  expect([...philox(0, 0, 0)]).toEqual([0xff1dae59, 0x6cd10df2]);
  expect([...philox(0xffffffff, 0xffffffff, 0xffffffff)]).toEqual([0x2c3f628b, 0xab4fd7ad]);
  expect([...philox(0x243f6a88, 0x85a308d3, 0x13198a2e)]).toEqual([0xdd7ce038, 0xf62a4c12]);
});

test("first draws of neighbouring cases, visits, purposes and seeds have nothing to do with each other", () => {
  const firsts = (of: (at: number) => Stream) => Array.from({ length: 4_000 }, (_, at) => of(at).next());
  for (const values of [
    firsts((at) => new Stream(1, "a").at(at, 0)),
    firsts((at) => new Stream(1, "a").at(0, at)),
    firsts((at) => new Stream(1, `step-${at}`).at(0, 0)),
    firsts((at) => new Stream(at, "a").at(0, 0)),
  ]) {
    const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
    expect(Math.abs(mean - 0.5)).toBeLessThan(5 / Math.sqrt(12 * values.length));
    const next = values.slice(1).reduce((sum, value, at) => sum + (value - 0.5) * ((values[at] as number) - 0.5), 0);
    expect(Math.abs((12 * next) / values.length)).toBeLessThan(5 / Math.sqrt(values.length));
  }
});

test.each<[Distribution, string | undefined]>([
  [{ kind: "uniform", min: 5, max: 1 }, "its lowest value is above its highest"],
  [{ kind: "triangular", min: 1, mode: 9, max: 5 }, "its usual value is not between lowest and highest"],
  [{ kind: "exponential", mean: 0 }, "its mean has to be above 0"],
  [{ kind: "erlang", k: 1.5, mean: 3 }, "its k is no whole number from 1"],
  [{ kind: "discrete", points: [] }, "it has no values with a share"],
  [{ kind: "constant", value: Number.NaN }, "its value is no number"],
  [{ kind: "normal", mean: 1, deviation: 0, min: 0 }, undefined],
])("%o: %s", (one, fault) => {
  expect(faultOf(one)?.text).toBe(fault);
});
