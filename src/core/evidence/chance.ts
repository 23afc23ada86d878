import { logGamma } from "../forecast";
import { normalShare } from "../scenario";

const logFactorial = (count: number): number => logGamma(count + 1);

/**
 * Fisher's exact test of a table of two by two, two-sided: how likely a table with the same sums is that is as unlikely as this one, were the
 * two groups alike (R. A. Fisher, "The Design of Experiments", 1935). O(smallest sum).
 * @param some of the first group that have it, and that do not
 * @param others of the second group the same
 */
export function fisherExact(some: readonly [number, number], others: readonly [number, number]): number {
  const [a, b, c, d] = [...some, ...others] as [number, number, number, number];
  const [first, second, having] = [a + b, c + d, a + c];
  const whole =
    logFactorial(first) +
    logFactorial(second) +
    logFactorial(having) +
    logFactorial(b + d) -
    logFactorial(first + second);
  const likely = (x: number) =>
    Math.exp(
      whole - logFactorial(x) - logFactorial(first - x) - logFactorial(having - x) - logFactorial(second - having + x),
    );
  // What is as unlikely but for rounding counts as well.
  const least = likely(a) * (1 + 1e-7);
  let sum = 0;
  for (let x = Math.max(0, having - second); x <= Math.min(first, having); x++) {
    const own = likely(x);
    if (own <= least) sum += own;
  }
  return Math.min(1, sum);
}

/**
 * The test of H. Mann and D. Whitney (1947), two-sided, by the normal distribution with ties and continuity corrected: how likely two samples
 * are to lie as far apart as these, were they of one distribution. 1 where either is empty, or all are the same. O(n log n).
 */
export function mannWhitney(some: readonly number[], others: readonly number[]): number {
  const [n, m] = [some.length, others.length];
  const all = [...some.map((value) => [value, true] as const), ...others.map((value) => [value, false] as const)].sort(
    ([one], [other]) => one - other,
  );
  let [ranks, ties] = [0, 0];
  for (let from = 0; from < all.length; ) {
    let until = from;
    while (until < all.length && all[until]?.[0] === all[from]?.[0]) until++;
    const rank = (from + until + 1) / 2;
    for (let at = from; at < until; at++) if (all[at]?.[1]) ranks += rank;
    ties += (until - from) ** 3 - (until - from);
    from = until;
  }
  const total = n + m;
  const variance = ((n * m) / 12) * (total + 1 - ties / (total * (total - 1)));
  if (n === 0 || m === 0 || !(variance > 0)) return 1;
  const apart = Math.abs(ranks - (n * (n + 1)) / 2 - (n * m) / 2);
  return Math.min(1, 2 * (1 - normalShare(Math.max(0, apart - 0.5) / Math.sqrt(variance))));
}

/** Chances of several tests on the same cases, so that all of them together are wrong no more often than one (S. Holm, 1979). O(n log n). */
export function holm(chances: readonly number[]): number[] {
  const order = [...chances.keys()].sort((one, other) => (chances[one] as number) - (chances[other] as number));
  const corrected = new Array<number>(chances.length);
  let most = 0;
  for (const [rank, at] of order.entries()) {
    most = Math.max(most, Math.min(1, (chances[at] as number) * (chances.length - rank)));
    corrected[at] = most;
  }
  return corrected;
}
