import type { LiveTarget } from "../model";

/** What a target came to in its days. */
export interface Measured {
  /** How many were looked at. */
  readonly count: number;
  /** The share that kept it; of rework the share that was done again. */
  readonly share: number;
  readonly isKept: boolean;
}

/**
 * Holds times, or counts of how often a step was done, against a target. Nothing to look at keeps it.
 * @param values seconds of each case or wait; of rework how often the step was done in each case
 */
export function measured({ what, seconds, share }: LiveTarget, values: readonly number[]): Measured {
  const count = values.length;
  if (what === "rework") {
    const again = count === 0 ? 0 : values.filter((times) => times > 1).length / count;
    return { count, share: again, isKept: again <= share };
  }
  const within = count === 0 ? 1 : values.filter((value) => value <= seconds).length / count;
  return { count, share: within, isKept: within >= share };
}
