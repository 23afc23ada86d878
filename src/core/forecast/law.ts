import { type Distribution, momentsOf, shareBelow } from "../scenario";

/**
 * How long something takes, nobody being waited for: mean and variance, and how it is spread, as the chances to lie within equal
 * stretches of time: `mass(step, count)[k]` is the chance of (k − ½) step to (k + ½) step; what is longer is left out.
 * Times in seconds. Sums, choices and rounds of laws that do not depend on each other are exact in mean and variance.
 */
export interface Law {
  readonly mean: number;
  readonly variance: number;
  mass(step: number, count: number): Float64Array;
}

export function always(value: number): Law {
  return {
    mean: value,
    variance: 0,
    mass: (step, count) => {
      const mass = new Float64Array(count);
      const at = Math.round(value / step);
      if (at < count) mass[at] = 1;
      return mass;
    },
  };
}
export const nothing = always(0);

/** By the share of values below a time. */
function ofShares(mean: number, variance: number, below: (time: number) => number): Law {
  return {
    mean,
    variance,
    mass: (step, count) => {
      let last = 0;
      return Float64Array.from({ length: count }, (_, at) => {
        const next = below((at + 0.5) * step);
        const mass = next - last;
        last = next;
        return mass;
      });
    },
  };
}

/** Something of which only mean and variance are known, as a gamma law of the same two: about right. */
export const fitted = (mean: number, variance: number): Law =>
  variance <= 0 || mean <= 0
    ? always(mean)
    : ofShares(mean, variance, (time) =>
        shareBelow({ kind: "gamma", shape: (mean * mean) / variance, scale: variance / mean }, time),
      );

/** A quantity of a scenario, nothing being shorter than no time. */
export function ofQuantity(one: Distribution): Law {
  const { mean, variance } = momentsOf(one);
  if (variance === 0) return always(Math.max(0, mean));
  if (Number.isNaN(shareBelow(one, mean))) return fitted(mean, variance);
  return ofShares(mean, variance, (time) => shareBelow(one, time));
}

/** One after the other. */
export function after(first: Law, second: Law): Law {
  if (first === nothing) return second;
  if (second === nothing) return first;
  return {
    mean: first.mean + second.mean,
    variance: first.variance + second.variance,
    mass: (step, count) => folded(first.mass(step, count), second.mass(step, count)),
  };
}

/** Chances of a sum. O(count²). */
export function folded(one: Float64Array, other: Float64Array): Float64Array {
  const sum = new Float64Array(one.length);
  for (let at = 0; at < one.length; at++) {
    const chance = one[at] as number;
    if (chance === 0) continue;
    for (let more = 0; at + more < one.length; more++)
      sum[at + more] = (sum[at + more] as number) + chance * (other[more] as number);
  }
  return sum;
}

/** So many times, one after the other. */
export function repeated(one: Law, times: number): Law {
  let all = nothing;
  for (let left = Math.min(times, 1_000); left > 0; left--) all = after(all, one);
  return all;
}

/** At least once, and each time once more with a chance: compound geometric; its chances by the renewal recursion. */
export function rounds(one: Law, again: number): Law {
  if (again <= 0) return one;
  const on = 1 - again;
  return {
    mean: one.mean / on,
    variance: one.variance / on + (one.mean ** 2 * again) / on ** 2,
    mass: (step, count) => {
      const each = one.mass(step, count);
      const all = new Float64Array(count);
      for (let at = 0; at < count; at++) {
        let sum = on * (each[at] as number);
        for (let first = 1; first <= at; first++) sum += again * (each[first] as number) * (all[at - first] as number);
        all[at] = sum / (1 - again * (each[0] as number));
      }
      return all;
    },
  };
}

/** Stretches into which what goes on side by side is cut: fine enough for a mean right to about 1 of 1,000. */
const stretches = 800;

/** What lasts until a time of which, stretch by stretch, the share that is over is worked out. */
function byShares(laws: readonly Law[], exact: number | undefined, over: (shares: readonly number[]) => number): Law {
  if (exact !== undefined) return always(exact);
  const horizon = Math.max(...laws.map(({ mean, variance }) => mean + 8 * Math.sqrt(variance))) || 1;
  const cumulated = (step: number, count: number) => {
    const masses = laws.map((law) => law.mass(step, count));
    const below = laws.map(() => 0);
    return Float64Array.from({ length: count }, (_, at) => {
      for (const [law, mass] of masses.entries()) below[law] = (below[law] as number) + (mass[at] as number);
      return over(below.map((share) => Math.min(1, share)));
    });
  };
  const step = horizon / stretches;
  let [mean, square] = [0, 0];
  // E[X] = ∫ (1 − F), E[X²] = ∫ 2t (1 − F); the chance of a stretch stands in its middle.
  const shares = cumulated(step, stretches);
  for (let at = 0; at < stretches; at++) {
    const left = 1 - (shares[at] as number);
    const from = at * step;
    mean += left * step;
    square += left * ((from + step) ** 2 - from ** 2);
  }
  return {
    mean,
    variance: Math.max(0, square - mean * mean),
    mass: (size, count) => {
      const all = cumulated(size, count);
      return all.map((share, at) => share - (at === 0 ? 0 : (all[at - 1] as number)));
    },
  };
}

const constantsOf = (laws: readonly Law[]): boolean => laws.every(({ variance }) => variance === 0);

/** Side by side: over when the last one is. */
export const lastOf = (laws: readonly Law[]): Law =>
  laws.length === 1
    ? (laws[0] as Law)
    : byShares(laws, constantsOf(laws) ? Math.max(...laws.map(({ mean }) => mean)) : undefined, (shares) =>
        shares.reduce((product, share) => product * share, 1),
      );

/**
 * Some of several side by side, each by its chance; of none, all are drawn again, or the last one, which stands for none, is taken.
 * Over when the last of those that were taken is.
 */
export function lastOfSome(laws: readonly Law[], chances: readonly number[], fallback: Law | undefined): Law {
  const none = chances.reduce((product, chance) => product * (1 - chance), 1);
  const all = fallback ? [...laws, fallback] : laws;
  return byShares(all, undefined, (shares) => {
    const some = chances.reduce((product, chance, at) => product * (1 - chance + chance * (shares[at] as number)), 1);
    const ofSome = some - none;
    return fallback ? ofSome + none * (shares.at(-1) as number) : none < 1 ? ofSome / (1 - none) : 1;
  });
}

/** Of several that race, for each the chance that it is first, and how long it then took. */
export function races(laws: readonly Law[]): { readonly chance: number; readonly law: Law }[] {
  const nearest = Math.min(...laws.map(({ mean }) => mean));
  const certain = laws.findIndex(({ variance, mean }) => variance === 0 && mean === nearest);
  if (constantsOf(laws)) return laws.map((law, at) => ({ chance: at === certain ? 1 : 0, law }));
  const horizon = Math.min(...laws.map(({ mean, variance }) => mean + 8 * Math.sqrt(variance))) * 1.01;
  const step = horizon / stretches;
  const masses = laws.map((law) => law.mass(step, stretches));
  const left = laws.map(() => 1);
  const won = laws.map(() => ({ chance: 0, mean: 0, square: 0 }));
  for (let at = 0; at < stretches; at++) {
    const here = masses.map((mass) => mass[at] as number);
    // Within a stretch each has half of its own chance left against the others.
    for (const [one, mass] of here.entries()) {
      let chance = mass;
      for (const [other, rest] of left.entries())
        if (other !== one) chance *= Math.max(0, rest - (here[other] as number) / 2);
      const of = won[one] as (typeof won)[number];
      of.chance += chance;
      of.mean += chance * at * step;
      of.square += chance * (at * step) ** 2;
    }
    for (const [one, mass] of here.entries()) left[one] = Math.max(0, (left[one] as number) - mass);
  }
  const all = won.reduce((sum, { chance }) => sum + chance, 0) || 1;
  return won.map(({ chance, mean, square }) => {
    const [m, s] = chance > 0 ? [mean / chance, square / chance] : [0, 0];
    return { chance: chance / all, law: fitted(m, Math.max(0, s - m * m)) };
  });
}

/** Cut at a time: how often it is longer, and what is left of it where it is not. */
export function cutAt(one: Law, time: number): { readonly longer: number; readonly within: Law } {
  if (one.variance === 0) return { longer: one.mean > time ? 1 : 0, within: one };
  const step = time / stretches;
  const mass = one.mass(step, stretches + 1);
  let [share, mean, square] = [0, 0, 0];
  for (let at = 0; at <= stretches; at++) {
    const chance = at === stretches ? (mass[at] as number) / 2 : (mass[at] as number);
    share += chance;
    mean += chance * at * step;
    square += chance * (at * step) ** 2;
  }
  const [m, s] = share > 0 ? [mean / share, square / share] : [0, 0];
  return { longer: Math.max(0, 1 - share), within: fitted(m, Math.max(0, s - m * m)) };
}
