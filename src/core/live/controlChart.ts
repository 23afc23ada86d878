/** Where a value is out of the usual: beyond a limit, or the last of so many on one side of the centre. */
export interface Unusual {
  readonly at: number;
  readonly rule: "beyond" | "run";
}

/** A chart of single values: where its centre is, and the limits that values stay within as long as only chance moves them. */
export interface ControlChart {
  readonly centre: number;
  readonly lower: number;
  readonly upper: number;
  /** Of the differences from one value to the next: their mean, and the limit above. */
  readonly range: { readonly centre: number; readonly upper: number };
  readonly unusual: readonly Unusual[];
}

/**
 * Constants for ranges of two values: d2 = 1.128, D4 = 3.267. From the tables for control charts in NIST/SEMATECH e-Handbook of Statistical
 * Methods, 6.3.2, from memory.
 */
const meanRangeOfTwo = 1.128;
const upperRangeOfTwo = 3.267;
/** So many in a row on one side of the centre are not chance alone (Western Electric rules). */
const runLength = 8;

/**
 * The chart of individuals and moving ranges: limits three deviations from the mean, the deviation estimated by the mean difference
 * between neighbours. O(values).
 * @param values in the order in which they came; a quantity that is never below 0 has no limit below 0
 * @returns undefined for fewer than two values, of which no difference is known
 */
export function controlChart(values: readonly number[]): ControlChart | undefined {
  if (values.length < 2) return undefined;
  const centre = mean(values);
  const ranges = values.slice(1).map((value, at) => Math.abs(value - (values[at] as number)));
  const usual = mean(ranges);
  const reach = (3 * usual) / meanRangeOfTwo;
  const isPositive = values.every((value) => value >= 0);
  const [lower, upper] = [isPositive ? Math.max(0, centre - reach) : centre - reach, centre + reach];
  const unusual: Unusual[] = [];
  let side = 0;
  let long = 0;
  for (const [at, value] of values.entries()) {
    const now = Math.sign(value - centre);
    long = now !== 0 && now === side ? long + 1 : now === 0 ? 0 : 1;
    side = now;
    if (value < lower || value > upper) unusual.push({ at, rule: "beyond" });
    else if (long >= runLength) unusual.push({ at, rule: "run" });
  }
  return { centre, lower, upper, range: { centre: usual, upper: usual * upperRangeOfTwo }, unusual };
}

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;
