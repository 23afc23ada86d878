import { batchInterval95, quantileOf } from "./statistics";

/** So many values of a forecast are kept one by one; of more, how they are spread is kept in bounded room. */
export const mostExact = 1_000_000;

/** Two values in one stretch of a sketch are at most this share of the middle apart, either way. */
export const sketchError = 0.005;
const growth = (1 + sketchError) / (1 - sketchError);
const logGrowth = Math.log(growth);
/** Below this, values count as nothing: a millisecond, a hundredth of a cent. */
const least = 1e-3;
/** Means of so many batches at least are kept in a sketch, for what depends on the order. */
const leastBatches = 64;

const stretchOf = (value: number): number =>
  value < least ? Number.NEGATIVE_INFINITY : Math.ceil(Math.log(value) / logGrowth);

/**
 * Values as they come: kept one by one up to a number, beyond it as counts of stretches each of which is a fixed share longer than the
 * one before, so that every quantile is right to within half a percent of itself in bounded room (a sketch of relative error after
 * C. Masson, J. E. Rim, H. K. Lee, "DDSketch", Proceedings of the VLDB Endowment 12, 2019). O(1) a value.
 */
export class Tally {
  count = 0;
  sum = 0;
  /** Sum of squared distances from the mean (B. P. Welford, Technometrics 4, 1962). */
  squares = 0;
  min = Number.POSITIVE_INFINITY;
  max = 0;
  readonly values: number[] = [];
  readonly stretches = new Map<number, number>();
  #mean = 0;
  #batches: number[] = [];
  #batch = 0;
  #inBatch = 0;
  #batchSize = 1;

  constructor(readonly most = mostExact) {}

  get isExact(): boolean {
    return this.count <= this.most;
  }
  get mean(): number {
    return this.count === 0 ? 0 : this.sum / this.count;
  }

  add(value: number): void {
    this.count++;
    this.sum += value;
    const far = value - this.#mean;
    this.#mean += far / this.count;
    this.squares += far * (value - this.#mean);
    if (value < this.min) this.min = value;
    if (value > this.max) this.max = value;
    if (this.count <= this.most) {
      this.values.push(value);
      return;
    }
    if (this.stretches.size === 0) for (const one of this.values) this.#put(one);
    this.#put(value);
  }

  #put(value: number): void {
    const at = stretchOf(value);
    this.stretches.set(at, (this.stretches.get(at) ?? 0) + 1);
    this.#batch += value;
    this.#inBatch++;
    if (this.#inBatch < this.#batchSize) return;
    this.#batches.push(this.#batch / this.#inBatch);
    [this.#batch, this.#inBatch] = [0, 0];
    if (this.#batches.length < 2 * leastBatches) return;
    const halved: number[] = [];
    for (let at = 0; at < this.#batches.length; at += 2)
      halved.push(((this.#batches[at] as number) + (this.#batches[at + 1] as number)) / 2);
    this.#batches = halved;
    this.#batchSize *= 2;
  }

  /** Where the mean lies with 95 of 100 chance, from this one run. */
  interval95(): [low: number, high: number] {
    return batchInterval95(this.isExact ? this.values : this.#batches);
  }
}

/** How the values of several runs are spread, taken together. */
export interface Spread {
  readonly count: number;
  readonly mean: number;
  readonly min: number;
  readonly max: number;
  readonly deviation: number;
  /** Quantiles are off by at most this share of themselves. */
  readonly error: number;
  quantile(share: number): number;
}

/** O(values × log) where all are kept, else O(stretches × log). */
export function together(tallies: readonly Tally[]): Spread {
  const count = tallies.reduce((sum, one) => sum + one.count, 0);
  const mean = count === 0 ? 0 : tallies.reduce((sum, one) => sum + one.sum, 0) / count;
  const squares = tallies.reduce((sum, one) => sum + one.squares + one.count * (one.mean - mean) ** 2, 0);
  const known = {
    count,
    mean,
    min: count === 0 ? 0 : Math.min(...tallies.map(({ min }) => min)),
    max: Math.max(0, ...tallies.map(({ max }) => max)),
    deviation: count > 1 ? Math.sqrt(squares / (count - 1)) : 0,
  };
  if (tallies.every(({ isExact }) => isExact)) {
    const sorted = new Float64Array(count);
    let at = 0;
    for (const { values } of tallies) {
      sorted.set(values, at);
      at += values.length;
    }
    sorted.sort();
    return { ...known, error: 0, quantile: (share) => quantileOf(sorted, share) };
  }
  const counts = new Map<number, number>();
  const put = (at: number, more: number) => counts.set(at, (counts.get(at) ?? 0) + more);
  for (const { isExact, values, stretches } of tallies) {
    if (isExact) for (const value of values) put(stretchOf(value), 1);
    else for (const [at, more] of stretches) put(at, more);
  }
  const ordered = [...counts].sort(([a], [b]) => a - b);
  return {
    ...known,
    error: sketchError,
    quantile: (share) => {
      let left = share * (count - 1);
      for (const [at, more] of ordered) {
        if (left < more) {
          if (at === Number.NEGATIVE_INFINITY) return 0;
          // The middle of a stretch, in proportion.
          const middle = (2 * growth ** at) / (growth + 1);
          return Math.min(known.max, Math.max(known.min, middle));
        }
        left -= more;
      }
      return known.max;
    },
  };
}
