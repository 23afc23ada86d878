import type { Weight } from "../model";

/** What is weighed: its figures by criterion, as far as they are known. */
export interface Weighed {
  readonly id: string;
  readonly figures: { readonly [criterion: string]: number | undefined };
}

/** How one of them comes out. */
export interface Ranked {
  readonly id: string;
  /** From 1; the same for those that come out the same. */
  readonly rank: number;
  /** 0 to 1: the weighted mean of its normalised figures. */
  readonly score: number;
  /** By criterion: what it adds to the score. */
  readonly shares: { readonly [criterion: string]: number };
  /** Criteria that count and of which nothing is known: they add nothing. */
  readonly unknown: readonly string[];
}

/** The smallest change of one weight, the others as they are, at which the first and the second come out the same. */
export interface Swap {
  readonly criterion: string;
  readonly from: number;
  readonly to: number;
}

export interface Weighing {
  /** The best first; of those that come out the same, in the order they were given. */
  readonly ranking: readonly Ranked[];
  /** Undefined where no weight can be changed so that the second overtakes the first, or there are no two. */
  readonly swap: Swap | undefined;
}

/**
 * Weighs alternatives by several criteria: each figure is brought to 0 to 1 between the least and the most of all alternatives (turned
 * round where less is better; 1 for all where all are the same), and the weighted mean of them is the score.
 * Sources of the methods: weighted sum after min-max normalisation; sensitivity of the order to one weight after E. Triantaphyllou and
 * A. Sánchez (Decision Sciences 28, 1997), both from memory. O(alternatives × criteria, and n log n).
 */
export function weigh(alternatives: readonly Weighed[], weights: readonly Weight[]): Weighing {
  const counting = weights.filter(({ weight }) => weight > 0);
  const whole = counting.reduce((sum, { weight }) => sum + weight, 0);
  // Those that count nothing can still be the ones whose weight would turn the order.
  const normal = new Map(weights.map((one) => [one.criterion, normalised(alternatives, one)]));
  const standing = (at: number, criterion: string) => normal.get(criterion)?.[at] ?? 0;
  const scored = alternatives.map(({ id, figures }, at) => {
    const shares = Object.fromEntries(
      counting.map(({ criterion, weight }) => [criterion, (weight * standing(at, criterion)) / whole]),
    );
    return {
      id,
      at,
      score: Object.values(shares).reduce((sum, share) => sum + share, 0),
      shares,
      unknown: counting.filter(({ criterion }) => figures[criterion] === undefined).map(({ criterion }) => criterion),
    };
  });
  const ordered = [...scored].sort((a, b) => b.score - a.score || a.at - b.at);
  const ranking = ordered.map(({ at: _, ...one }) => ({
    ...one,
    rank: 1 + ordered.filter(({ score }) => score > one.score + 1e-12).length,
  }));
  const [first, second] = ordered;
  if (!first || !second || whole === 0) return { ranking, swap: undefined };
  const ahead = (first.score - second.score) * whole;
  let swap: Swap | undefined;
  for (const { criterion, weight } of weights) {
    const difference = standing(first.at, criterion) - standing(second.at, criterion);
    if (difference === 0) continue;
    const to = weight - ahead / difference;
    if (to < 0) continue;
    if (!swap || Math.abs(to - weight) < Math.abs(swap.to - swap.from)) swap = { criterion, from: weight, to };
  }
  return { ranking, swap };
}

function normalised(alternatives: readonly Weighed[], { criterion, isLessBetter }: Weight): number[] {
  const known = alternatives.flatMap(({ figures }) => figures[criterion] ?? []);
  const [least, most] = [Math.min(...known), Math.max(...known)];
  return alternatives.map(({ figures }) => {
    const value = figures[criterion];
    if (value === undefined) return 0;
    if (most === least) return 1;
    return isLessBetter ? (most - value) / (most - least) : (value - least) / (most - least);
  });
}
