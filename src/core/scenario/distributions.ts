import { type Said, say, term } from "../messages";
/** Where chance comes from: numbers from 0 to below 1, or strictly between 0 and 1. */
export interface Chance {
  next(): number;
  inside(): number;
}

/**
 * How a quantity is spread. Times are in seconds, money in the scenario's currency. What a kind is made of follows the standard for
 * simulation parameters (BPSim 1.0); normal ones are cut below 0 where nothing else is said, since no work takes less than no time.
 */
export type Distribution =
  | { readonly kind: "constant"; readonly value: number }
  | { readonly kind: "uniform"; readonly min: number; readonly max: number }
  | { readonly kind: "triangular"; readonly min: number; readonly mode: number; readonly max: number }
  | {
      readonly kind: "normal";
      readonly mean: number;
      readonly deviation: number;
      readonly min: number;
      /** None where nothing is said. */
      readonly max?: number;
    }
  | { readonly kind: "logNormal"; readonly mean: number; readonly deviation: number }
  | { readonly kind: "exponential"; readonly mean: number }
  | { readonly kind: "erlang"; readonly k: number; readonly mean: number }
  | { readonly kind: "gamma"; readonly shape: number; readonly scale: number }
  | { readonly kind: "weibull"; readonly shape: number; readonly scale: number }
  | { readonly kind: "beta"; readonly alpha: number; readonly beta: number; readonly min: number; readonly max: number }
  | { readonly kind: "poisson"; readonly mean: number; readonly unit: number }
  | { readonly kind: "binomial"; readonly trials: number; readonly probability: number; readonly unit: number }
  /** Values with their shares, which are taken in proportion. */
  | { readonly kind: "discrete"; readonly points: readonly Point[] }
  /** The same, with everything between two values as likely as the share of the upper one says. */
  | { readonly kind: "continuous"; readonly points: readonly Point[] };

export interface Point {
  readonly share: number;
  readonly value: number;
}

const infinity = Number.POSITIVE_INFINITY;

export const constant = (value: number): Distribution => ({ kind: "constant", value });

/** Why the numbers of a distribution make none; undefined where they do. */
export function faultOf(one: Distribution): Said | undefined {
  const { kind, ...numbers } = one;
  for (const [name, value] of Object.entries(numbers))
    if (typeof value === "number" && Number.isNaN(value)) return say`its ${term(name)} is no number`;
  const positive = (name: string, value: number) =>
    value > 0 && Number.isFinite(value) ? undefined : say`its ${term(name)} has to be above 0`;
  switch (one.kind) {
    case "constant":
      return Number.isFinite(one.value) ? undefined : say`it is no number`;
    case "uniform":
      return one.min <= one.max ? undefined : say`its lowest value is above its highest`;
    case "triangular":
      return one.min <= one.mode && one.mode <= one.max
        ? undefined
        : say`its usual value is not between lowest and highest`;
    case "normal":
      if (one.deviation < 0) return say`its deviation is below 0`;
      return one.min < (one.max ?? infinity) || one.deviation === 0
        ? undefined
        : say`its lowest value is not below its highest`;
    case "logNormal":
      return positive("mean", one.mean) ?? (one.deviation >= 0 ? undefined : say`its deviation is below 0`);
    case "exponential":
      return positive("mean", one.mean);
    case "erlang":
      return (
        positive("mean", one.mean) ??
        (Number.isInteger(one.k) && one.k >= 1 ? undefined : say`its k is no whole number from 1`)
      );
    case "gamma":
    case "weibull":
      return positive("shape", one.shape) ?? positive("scale", one.scale);
    case "beta":
      return (
        positive("alpha", one.alpha) ??
        positive("beta", one.beta) ??
        (one.min < one.max ? undefined : say`its lowest value is not below its highest`)
      );
    case "poisson":
      return positive("mean", one.mean);
    case "binomial":
      return Number.isInteger(one.trials) && one.trials >= 0 && one.probability >= 0 && one.probability <= 1
        ? undefined
        : say`its trials or its probability cannot be`;
    case "discrete":
    case "continuous": {
      const sum = one.points.reduce((all, { share }) => all + share, 0);
      if (one.points.length === 0 || !(sum > 0)) return say`it has no values with a share`;
      return one.points.some(({ share }) => share < 0) ? say`a share is below 0` : undefined;
    }
  }
}

/** Draws one value. O(1) but for tables and counts, O(their length). */
export function draw(one: Distribution, from: Chance): number {
  switch (one.kind) {
    case "constant":
      return one.value;
    case "uniform":
      return one.min + (one.max - one.min) * from.next();
    case "triangular":
      return triangular(one, from.next());
    case "normal":
      return cutNormal(one, from);
    case "logNormal": {
      const [mu, sigma] = ofLogarithm(one);
      return Math.exp(mu + sigma * normalQuantile(from.inside()));
    }
    case "exponential":
      return -one.mean * Math.log(from.inside());
    case "erlang": {
      let sum = 0;
      for (let stage = 0; stage < one.k; stage++) sum -= Math.log(from.inside());
      return (sum * one.mean) / one.k;
    }
    case "gamma":
      return one.scale * standardGamma(one.shape, from);
    case "weibull":
      return one.scale * (-Math.log(from.inside())) ** (1 / one.shape);
    case "beta": {
      const a = standardGamma(one.alpha, from);
      const b = standardGamma(one.beta, from);
      return one.min + (one.max - one.min) * (a / (a + b));
    }
    case "poisson":
      return one.unit * poissonCount(one.mean, from);
    case "binomial": {
      let count = 0;
      for (let trial = 0; trial < one.trials; trial++) if (from.next() < one.probability) count++;
      return one.unit * count;
    }
    case "discrete":
      return one.points[pointAt(one.points, from.next())[0]]?.value ?? 0;
    case "continuous": {
      const [at, within] = pointAt(one.points, from.next());
      const [before, here] = [one.points[at - 1], one.points[at] as Point];
      return before ? before.value + (here.value - before.value) * within : here.value;
    }
  }
}

function triangular({ min, mode, max }: { min: number; mode: number; max: number }, u: number): number {
  if (max === min) return min;
  const turn = (mode - min) / (max - min);
  return u < turn
    ? min + Math.sqrt(u * (max - min) * (mode - min))
    : max - Math.sqrt((1 - u) * (max - min) * (max - mode));
}

/** What the draws of a distribution have in common is worked out once. */
function once<Of extends object>(what: (one: Of) => readonly [number, number]) {
  const known = new WeakMap<Of, readonly [number, number]>();
  return (one: Of): readonly [number, number] => {
    const before = known.get(one);
    if (before) return before;
    const made = what(one);
    known.set(one, made);
    return made;
  };
}

/** A normal value within its limits: the same draw is taken to the part of the curve that lies between them. */
function cutNormal(one: Normal, from: Chance) {
  const { mean, deviation, min, max = infinity } = one;
  if (deviation === 0) return Math.min(max, Math.max(min, mean));
  const shares = sharesWithin(one);
  const value = mean + deviation * normalQuantile(shares[0] + (shares[1] - shares[0]) * from.inside());
  return Math.min(max, Math.max(min, value));
}
type Normal = Extract<Distribution, { readonly kind: "normal" }>;
const sharesWithin = once(({ mean, deviation, min, max = infinity }: Normal) => [
  normalShare((min - mean) / deviation),
  normalShare((max - mean) / deviation),
]);

/** Of a log-normal variable: mean and deviation of its logarithm. */
const ofLogarithm = once(({ mean, deviation }: { readonly mean: number; readonly deviation: number }) => {
  const variance = Math.log1p((deviation / mean) ** 2);
  return [Math.log(mean) - variance / 2, Math.sqrt(variance)];
});

function pointAt(points: readonly Point[], u: number): [at: number, within: number] {
  let left = u * points.reduce((all, { share }) => all + share, 0);
  for (const [at, { share }] of points.entries()) {
    if (left < share) return [at, left / share];
    left -= share;
  }
  return [points.length - 1, 1];
}

/** Source: G. Marsaglia, W. W. Tsang, "A simple method for generating gamma variables" (ACM TOMS 26, 2000). */
function standardGamma(shape: number, from: Chance): number {
  if (shape < 1) return standardGamma(shape + 1, from) * from.inside() ** (1 / shape);
  const d = shape - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = normalQuantile(from.inside());
    const v = (1 + c * x) ** 3;
    if (v > 0 && Math.log(from.inside()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v;
  }
}

/** Counts arrivals of an exponential stream; of many, the parts of a sum. */
function poissonCount(mean: number, from: Chance): number {
  if (mean > 30) {
    const half = Math.floor(mean / 2);
    return poissonCount(half, from) + poissonCount(mean - half, from);
  }
  const limit = Math.exp(-mean);
  let count = 0;
  for (let product = from.inside(); product > limit; product *= from.inside()) count++;
  return count;
}

/**
 * The value below which a share of a standard normal variable lies. Source: M. J. Wichura, "Algorithm AS 241: The percentage points of the
 * normal distribution" (Applied Statistics 37, 1988), PPND16; about 16 digits.
 */
export function normalQuantile(share: number): number {
  const q = share - 0.5;
  if (Math.abs(q) <= 0.425) {
    const r = 0.180625 - q * q;
    return (q * horner(central[0], r)) / horner(central[1], r);
  }
  const r = Math.sqrt(-Math.log(q < 0 ? share : 1 - share));
  const value =
    r <= 5 ? horner(middle[0], r - 1.6) / horner(middle[1], r - 1.6) : horner(far[0], r - 5) / horner(far[1], r - 5);
  return q < 0 ? -value : value;
}

function horner(factors: readonly number[], x: number): number {
  let sum = 0;
  for (let at = factors.length - 1; at >= 0; at--) sum = sum * x + (factors[at] as number);
  return sum;
}
const central = [
  [
    3.3871328727963665, 133.14166789178438, 1971.5909503065513, 13731.69376550946, 45921.95393154987, 67265.7709270087,
    33430.57558358813, 2509.0809287301227,
  ],
  [
    1, 42.31333070160091, 687.1870074920579, 5394.196021424751, 21213.794301586597, 39307.89580009271,
    28729.085735721943, 5226.495278852854,
  ],
] as const;
const middle = [
  [
    1.4234371107496835, 4.630337846156546, 5.769497221460691, 3.6478483247632045, 1.2704582524523684,
    0.2417807251774506, 0.022723844989269184, 0.0007745450142783414,
  ],
  [
    1, 2.053191626637759, 1.6763848301838038, 0.6897673349851, 0.14810397642748008, 0.015198666563616457,
    0.0005475938084995345, 1.0507500716444169e-9,
  ],
] as const;
const far = [
  [
    6.657904643501103, 5.463784911164114, 1.7848265399172913, 0.29656057182850487, 0.026532189526576124,
    0.0012426609473880784, 2.7115555687434876e-5, 2.0103343992922881e-7,
  ],
  [
    1, 0.599832206555888, 0.1369298809227358, 0.014875361290850615, 0.0007868691311456133, 1.8463183175100548e-5,
    1.421511758316446e-7, 2.0442631033899397e-15,
  ],
] as const;

/** The share of a standard normal variable below a value, to about 1e-15: by series near the middle, by a continued fraction outside. */
export function normalShare(x: number): number {
  if (x === Number.NEGATIVE_INFINITY) return 0;
  if (x === Number.POSITIVE_INFINITY) return 1;
  const size = Math.abs(x);
  const density = Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI);
  if (size < 4) {
    let [sum, term] = [size, size];
    for (let n = 1; Math.abs(term) > 1e-17 * sum; n++) {
      term *= (size * size) / (2 * n + 1);
      sum += term;
    }
    return x < 0 ? 0.5 - density * sum : 0.5 + density * sum;
  }
  let fraction = size;
  for (let n = 80; n >= 1; n--) fraction = size + n / fraction;
  return x < 0 ? density / fraction : 1 - density / fraction;
}

/** Mean and variance. Source: the textbooks' tables of distributions. */
export function momentsOf(one: Distribution): { readonly mean: number; readonly variance: number } {
  switch (one.kind) {
    case "constant":
      return { mean: one.value, variance: 0 };
    case "uniform":
      return { mean: (one.min + one.max) / 2, variance: (one.max - one.min) ** 2 / 12 };
    case "triangular": {
      const { min: a, mode: c, max: b } = one;
      return { mean: (a + b + c) / 3, variance: (a * a + b * b + c * c - a * b - a * c - b * c) / 18 };
    }
    case "normal": {
      const { mean, deviation, min, max = infinity } = one;
      if (deviation === 0) return { mean: Math.min(max, Math.max(min, mean)), variance: 0 };
      const [a, b] = [(min - mean) / deviation, (max - mean) / deviation];
      const density = (x: number) => (Number.isFinite(x) ? Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI) : 0);
      const times = (x: number) => (Number.isFinite(x) ? x * density(x) : 0);
      const share = normalShare(b) - normalShare(a);
      const shift = (density(a) - density(b)) / share;
      return {
        mean: mean + deviation * shift,
        variance: deviation ** 2 * (1 + (times(a) - times(b)) / share - shift ** 2),
      };
    }
    case "logNormal":
      return { mean: one.mean, variance: one.deviation ** 2 };
    case "exponential":
      return { mean: one.mean, variance: one.mean ** 2 };
    case "erlang":
      return { mean: one.mean, variance: one.mean ** 2 / one.k };
    case "gamma":
      return { mean: one.shape * one.scale, variance: one.shape * one.scale ** 2 };
    case "weibull": {
      const mean = one.scale * gammaFunction(1 + 1 / one.shape);
      return { mean, variance: one.scale ** 2 * gammaFunction(1 + 2 / one.shape) - mean ** 2 };
    }
    case "beta": {
      const { alpha: a, beta: b, min, max } = one;
      return {
        mean: min + ((max - min) * a) / (a + b),
        variance: ((max - min) ** 2 * a * b) / ((a + b) ** 2 * (a + b + 1)),
      };
    }
    case "poisson":
      return { mean: one.mean * one.unit, variance: one.mean * one.unit ** 2 };
    case "binomial":
      return {
        mean: one.trials * one.probability * one.unit,
        variance: one.trials * one.probability * (1 - one.probability) * one.unit ** 2,
      };
    case "discrete":
      return ofParts(one.points.map(({ share, value }) => ({ share, mean: value, square: value * value })));
    case "continuous":
      return ofParts(
        one.points.map(({ share, value }, at) => {
          const from = one.points[at - 1]?.value ?? value;
          return { share, mean: (from + value) / 2, square: (from * from + from * value + value * value) / 3 };
        }),
      );
  }
}

function ofParts(parts: readonly { readonly share: number; readonly mean: number; readonly square: number }[]) {
  const all = parts.reduce((sum, { share }) => sum + share, 0);
  const mean = parts.reduce((sum, part) => sum + part.share * part.mean, 0) / all;
  return { mean, variance: parts.reduce((sum, part) => sum + part.share * part.square, 0) / all - mean ** 2 };
}

/** The gamma function above 0 (Lanczos' series, C. Lanczos, SIAM J. Numer. Anal. 1, 1964; g = 7, nine terms). */
export function gammaFunction(x: number): number {
  if (x < 0.5) return Math.PI / (Math.sin(Math.PI * x) * gammaFunction(1 - x));
  const z = x - 1;
  const sum = lanczos.reduce((all, factor, at) => all + (at === 0 ? factor : factor / (z + at)), 0);
  const t = z + 7.5;
  return Math.sqrt(2 * Math.PI) * t ** (z + 0.5) * Math.exp(-t) * sum;
}
const lanczos = [
  0.9999999999998099, 676.5203681218851, -1259.1392167224028, 771.3234287776531, -176.6150291621406, 12.507343278686905,
  -0.13857109526572012, 9.984369578019572e-6, 1.5056327351493116e-7,
];
