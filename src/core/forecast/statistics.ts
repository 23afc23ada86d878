/** Mean of some values; 0 of none. */
export const meanOf = (values: ArrayLike<number>): number => {
  let sum = 0;
  for (let at = 0; at < values.length; at++) sum += values[at] as number;
  return values.length === 0 ? 0 : sum / values.length;
};

/** Variance of a sample, by two passes. */
export function varianceOf(values: ArrayLike<number>): number {
  if (values.length < 2) return 0;
  const mean = meanOf(values);
  let sum = 0;
  for (let at = 0; at < values.length; at++) sum += ((values[at] as number) - mean) ** 2;
  return sum / (values.length - 1);
}

/**
 * The value below which a share of sorted values lies, by a straight line between the two that are nearest (type 7 of R. J. Hyndman,
 * Y. Fan, "Sample quantiles in statistical packages", The American Statistician 50, 1996). 0 of no values.
 */
export function quantileOf(sorted: ArrayLike<number>, share: number): number {
  if (sorted.length === 0) return 0;
  const place = (sorted.length - 1) * share;
  const below = Math.floor(place);
  const low = sorted[below] as number;
  const high = sorted[Math.min(below + 1, sorted.length - 1)] as number;
  return low + (high - low) * (place - below);
}

/** Natural logarithm of the gamma function above 0 (Lanczos' series, g = 5; W. H. Press et al., "Numerical Recipes", 6.1; from memory). */
export function logGamma(x: number): number {
  const factors = [
    76.18009172947147, -86.50532032941678, 24.01409824083091, -1.231739572450155, 0.001208650973866179,
    -0.000005395239384953,
  ];
  const t = x + 5.5 - (x + 0.5) * Math.log(x + 5.5);
  const sum = factors.reduce((all, factor, at) => all + factor / (x + 1 + at), 1.000000000190015);
  return -t + Math.log((2.5066282746310007 * sum) / x);
}

/** The share of a beta variable below x: by its continued fraction, after Lentz ("Numerical Recipes", 6.4). */
function betaShare(a: number, b: number, x: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - betaShare(b, a, 1 - x);
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x)) / a;
  const tiny = 1e-300;
  const not0 = (value: number) => (Math.abs(value) < tiny ? tiny : value);
  let c = 1;
  let d = 1 / not0(1 - ((a + b) * x) / (a + 1));
  let fraction = d;
  for (let m = 1; m < 300; m++) {
    for (const factor of [
      (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m)),
      (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1)),
    ]) {
      d = 1 / not0(1 + factor * d);
      c = not0(1 + factor / c);
      fraction *= d * c;
    }
    if (Math.abs(d * c - 1) < 1e-14) break;
  }
  return front * fraction;
}

/** The share of Student's t below a value. */
const studentShare = (t: number, freedom: number): number => {
  const tail = betaShare(freedom / 2, 0.5, freedom / (freedom + t * t)) / 2;
  return t > 0 ? 1 - tail : tail;
};

/** The value below which a share of Student's t with some degrees of freedom lies; by halving, to 1e-10. */
export function studentQuantile(share: number, freedom: number): number {
  let [low, high] = [-1e6, 1e6];
  for (let step = 0; step < 100 && high - low > 1e-10 * Math.max(1, Math.abs(low)); step++) {
    const middle = (low + high) / 2;
    if (studentShare(middle, freedom) < share) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Where the mean lies with 95 of 100 chance, by means that do not depend on each other (Student's interval). */
export function interval95(means: ArrayLike<number>): [low: number, high: number] {
  const mean = meanOf(means);
  if (means.length < 2) return [mean, mean];
  const half = studentQuantile(0.975, means.length - 1) * Math.sqrt(varianceOf(means) / means.length);
  return [mean - half, mean + half];
}

/**
 * The same from one long run, whose neighbours depend on each other: by the means of 20 batches, which hardly do (A. M. Law, "Simulation
 * Modeling and Analysis", 9.5.3; 20 is common practice).
 */
export function batchInterval95(values: ArrayLike<number>, batches = 20): [low: number, high: number] {
  const count = Math.min(batches, values.length);
  const means: number[] = [];
  for (let batch = 0; batch < count; batch++) {
    const [from, to] = [Math.floor((batch * values.length) / count), Math.floor(((batch + 1) * values.length) / count)];
    let sum = 0;
    for (let at = from; at < to; at++) sum += values[at] as number;
    means.push(sum / (to - from));
  }
  return interval95(means);
}

/**
 * How many values at the beginning of a run had better not be counted, since the run has not settled: the cut at which the standard error
 * of what is left, over means of five, is least (MSER-5; K. P. White, "An effective truncation heuristic for bias reduction in simulation
 * output", Simulation 69, 1997). At most half of the values. O(values).
 */
export function proposedWarmUp(values: ArrayLike<number>): number {
  const groups = Math.floor(values.length / 5);
  const means: number[] = [];
  for (let group = 0; group < groups; group++) {
    let sum = 0;
    for (let at = 0; at < 5; at++) sum += values[group * 5 + at] as number;
    means.push(sum / 5);
  }
  let [sum, squares, best, cut] = [0, 0, Number.POSITIVE_INFINITY, 0];
  for (let from = groups - 1; from >= 0; from--) {
    const value = means[from] as number;
    sum += value;
    squares += value * value;
    const count = groups - from;
    if (from > groups / 2) continue;
    const error = (squares - (sum * sum) / count) / (count * count);
    if (error <= best) [best, cut] = [error, from];
  }
  return cut * 5;
}

/** How often a replication has to be done for the mean to be known to within a wished distance: at least as often as it was. */
export function replicationsFor(means: readonly number[], within: number): number {
  const variance = varianceOf(means);
  for (let count = Math.max(2, means.length); count < 10_000; count++)
    if (studentQuantile(0.975, count - 1) * Math.sqrt(variance / count) <= within) return count;
  return 10_000;
}
