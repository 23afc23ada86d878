import { logGamma } from "../../forecast";
import { constant, type Distribution } from "../../scenario";

/** One kind of distribution, fitted to what was measured. */
export interface Fitted {
  readonly distribution: Distribution;
  /** The logarithm of the likelihood of what was measured. */
  readonly logLikelihood: number;
  /** Akaike's criterion: 2 × parameters − 2 × that logarithm; the least is chosen (H. Akaike, 1974). */
  readonly criterion: number;
}

/** Fewer than this say nothing of how a quantity is spread. */
export const leastToFit = 8;

/**
 * Distributions fitted to what was measured, by maximum likelihood, the best by Akaike's criterion first: exponential, log-normal, gamma,
 * Weibull, normal (N. Johnson, S. Kotz, N. Balakrishnan, "Continuous Univariate Distributions", 1994). None whose ends are fitted too: the
 * criterion says nothing of those. What has values of 0 is fitted by those kinds only that can have them. Empty where there are too few, or
 * all are the same. O(n).
 */
export function fitted(values: readonly number[]): Fitted[] {
  const known = values.filter((value) => Number.isFinite(value) && value >= 0);
  const said = sums(known);
  if (known.length < leastToFit || said.variance <= 0) return [];
  const kinds = [exponential, normal, ...(said.least > 0 ? [logNormal, gamma, weibull] : [])];
  return kinds
    .flatMap((kind) => kind(said) ?? [])
    .filter(({ criterion }) => Number.isFinite(criterion))
    .sort((one, other) => one.criterion - other.criterion);
}

/** The best distribution for what was measured; the value itself where it is always the same. Undefined where there is too little. */
export function bestFit(values: readonly number[]): Distribution | undefined {
  const [first] = values;
  if (first !== undefined && values.length >= leastToFit && values.every((value) => value === first))
    return constant(first);
  return fitted(values)[0]?.distribution;
}

interface Sums {
  readonly values: readonly number[];
  readonly count: number;
  readonly mean: number;
  /** About the mean, divided by the count. */
  readonly variance: number;
  readonly least: number;
  readonly most: number;
  readonly meanLog: number;
  readonly varianceLog: number;
}

function sums(values: readonly number[]): Sums {
  const count = values.length;
  const meanOf = (of: (value: number) => number) => values.reduce((sum, value) => sum + of(value), 0) / count;
  const mean = meanOf((value) => value);
  const meanLog = meanOf(Math.log);
  return {
    values,
    count,
    mean,
    variance: meanOf((value) => (value - mean) ** 2),
    least: values.reduce((least, value) => Math.min(least, value), Number.POSITIVE_INFINITY),
    most: values.reduce((most, value) => Math.max(most, value), 0),
    meanLog,
    varianceLog: meanOf((value) => (Math.log(value) - meanLog) ** 2),
  };
}

const told = (distribution: Distribution, logLikelihood: number, parameters: number): Fitted => ({
  distribution,
  logLikelihood,
  criterion: 2 * parameters - 2 * logLikelihood,
});

const exponential = ({ count, mean }: Sums): Fitted =>
  told({ kind: "exponential", mean }, -count * (Math.log(mean) + 1), 1);

const normal = ({ count, mean, variance }: Sums): Fitted =>
  told(
    { kind: "normal", mean, deviation: Math.sqrt(variance), min: 0 },
    (-count / 2) * (Math.log(2 * Math.PI * variance) + 1),
    2,
  );

function logNormal({ count, meanLog, varianceLog }: Sums): Fitted {
  const mean = Math.exp(meanLog + varianceLog / 2);
  const deviation = mean * Math.sqrt(Math.expm1(varianceLog));
  const logLikelihood = -count * (meanLog + (Math.log(2 * Math.PI * varianceLog) + 1) / 2);
  return told({ kind: "logNormal", mean, deviation }, logLikelihood, 2);
}

/** The shape by Newton's method, from where T. Minka, "Estimating a Gamma distribution" (2002), begins. */
function gamma({ count, mean, meanLog }: Sums): Fitted | undefined {
  const apart = Math.log(mean) - meanLog;
  if (!(apart > 0)) return undefined;
  let shape = (3 - apart + Math.sqrt((apart - 3) ** 2 + 24 * apart)) / (12 * apart);
  for (let round = 0; round < 50; round++) {
    const step = (Math.log(shape) - digamma(shape) - apart) / (1 / shape - trigamma(shape));
    const next = shape - step;
    shape = next > 0 ? next : shape / 2;
    if (Math.abs(step) < 1e-12 * shape) break;
  }
  const scale = mean / shape;
  const logLikelihood = count * ((shape - 1) * meanLog - shape - shape * Math.log(scale) - logGamma(shape));
  return told({ kind: "gamma", shape, scale }, logLikelihood, 2);
}

/** The shape by halving the interval it lies in: what it solves rises steadily. */
function weibull({ values, count, meanLog, most }: Sums): Fitted | undefined {
  // Of values as shares of the greatest, so that no power of them is too large.
  const shares = values.map((value) => value / most);
  const powers = (shape: number) => {
    let [sum, weighed] = [0, 0];
    for (const share of shares) {
      const power = share ** shape;
      sum += power;
      weighed += power * Math.log(share);
    }
    return { sum, weighed };
  };
  const meanLogShare = meanLog - Math.log(most);
  const rest = (shape: number) => {
    const { sum, weighed } = powers(shape);
    return weighed / sum - 1 / shape - meanLogShare;
  };
  let [low, high] = [1e-3, 1];
  while (rest(high) < 0 && high < 1e6) high *= 2;
  if (rest(low) > 0 || rest(high) < 0) return undefined;
  for (let round = 0; round < 200 && high - low > 1e-13 * high; round++) {
    const middle = (low + high) / 2;
    if (rest(middle) < 0) low = middle;
    else high = middle;
  }
  const shape = (low + high) / 2;
  const scale = most * (powers(shape).sum / count) ** (1 / shape);
  const logLikelihood = count * (Math.log(shape) - shape * Math.log(scale) + (shape - 1) * meanLog - 1);
  return told({ kind: "weibull", shape, scale }, logLikelihood, 2);
}

/** The derivative of the logarithm of the gamma function (M. Abramowitz, I. Stegun, 1964, 6.3.5 and 6.3.18). */
export function digamma(x: number): number {
  let [at, below] = [x, 0];
  for (; at < 10; at++) below += 1 / at;
  const square = 1 / (at * at);
  return (
    Math.log(at) - 1 / (2 * at) - square * (1 / 12 - square * (1 / 120 - square * (1 / 252 - square / 240))) - below
  );
}

/** The derivative of that (6.4.6 and 6.4.12 there). */
export function trigamma(x: number): number {
  let [at, above] = [x, 0];
  for (; at < 10; at++) above += 1 / (at * at);
  const square = 1 / (at * at);
  return (
    above +
    1 / at +
    square / 2 +
    (square / at) * (1 / 6 - square * (1 / 30 - square * (1 / 42 - square * (1 / 30 - (square * 5) / 66))))
  );
}
