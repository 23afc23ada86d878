import { type Distribution, gammaFunction, normalShare } from "./distributions";

/** The share of values that lie at or below one. O(1), for tables O(their length). Sources: textbook formulas. */
export function shareBelow(one: Distribution, x: number): number {
  const inside = (value: number) => Math.min(1, Math.max(0, value));
  switch (one.kind) {
    case "constant":
      return x >= one.value ? 1 : 0;
    case "uniform":
      return one.max === one.min ? (x >= one.min ? 1 : 0) : inside((x - one.min) / (one.max - one.min));
    case "triangular": {
      const { min, mode, max } = one;
      if (x <= min) return x === max ? 1 : 0;
      if (x >= max) return 1;
      return x < mode
        ? (x - min) ** 2 / ((max - min) * (mode - min))
        : 1 - (max - x) ** 2 / ((max - min) * (max - mode));
    }
    case "normal": {
      const { mean, deviation, min, max = Number.POSITIVE_INFINITY } = one;
      if (deviation === 0) return x >= mean ? 1 : 0;
      const at = (value: number) => normalShare((value - mean) / deviation);
      return x <= min ? 0 : x >= max ? 1 : (at(x) - at(min)) / (at(max) - at(min));
    }
    case "logNormal": {
      if (x <= 0) return 0;
      const variance = Math.log1p((one.deviation / one.mean) ** 2);
      if (variance === 0) return x >= one.mean ? 1 : 0;
      return normalShare((Math.log(x / one.mean) + variance / 2) / Math.sqrt(variance));
    }
    case "exponential":
      return x <= 0 ? 0 : -Math.expm1(-x / one.mean);
    case "erlang":
      return gammaShare(one.k, (x * one.k) / one.mean);
    case "gamma":
      return gammaShare(one.shape, x / one.scale);
    case "weibull":
      return x <= 0 ? 0 : -Math.expm1(-((x / one.scale) ** one.shape));
    case "beta":
    case "poisson":
    case "binomial":
      return Number.NaN;
    case "discrete":
    case "continuous": {
      const all = one.points.reduce((sum, { share }) => sum + share, 0);
      let sum = 0;
      for (const [at, { share, value }] of one.points.entries()) {
        const from = one.kind === "continuous" ? (one.points[at - 1]?.value ?? value) : value;
        if (x >= value) sum += share;
        else if (x > from) sum += (share * (x - from)) / (value - from);
      }
      return sum / all;
    }
  }
}

/** The share of a gamma variable of some shape, scale 1, below x: by its series, which converges for all x that matter here. */
function gammaShare(shape: number, x: number): number {
  if (x <= 0) return 0;
  if (x > shape + 40 * Math.sqrt(shape) + 60) return 1;
  let [term, sum] = [1 / shape, 1 / shape];
  for (let n = 1; n < 2_000 && term > 1e-16 * sum; n++) {
    term *= x / (shape + n);
    sum += term;
  }
  return Math.min(1, sum * Math.exp(shape * Math.log(x) - x) * (1 / gammaFunction(shape)));
}
