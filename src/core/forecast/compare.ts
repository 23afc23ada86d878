import type { Forecast } from "./forecast";
import { interval95, meanOf } from "./statistics";

/** What a figure changes by from one forecast to another. */
export interface Difference {
  readonly figure: "cycleTime" | "waiting" | "processing" | "cost";
  readonly from: number;
  readonly to: number;
  readonly difference: number;
  /** Of what it was; 0 to 1 and beyond. Null where it was nothing. */
  readonly share: number | null;
  readonly ci95: readonly [number, number];
  /** Whether the interval leaves out "no difference". Null where one replication can tell nothing. */
  readonly isMoreThanChance: boolean | null;
}

/**
 * Two forecasts held against each other, replication by replication: with the same seed both met the same cases, so that chance is in both
 * and goes out (paired intervals under common random numbers; A. M. Law, "Simulation Modeling and Analysis", 10.2.1 and 11.2).
 */
export function compared(from: Forecast, to: Forecast): readonly Difference[] {
  return (["cycleTime", "waiting", "processing", "cost"] as const).map((figure) => {
    const [before, after] = [from.means.map((one) => one[figure]), to.means.map((one) => one[figure])];
    const pairs = Math.min(before.length, after.length);
    const differences = Array.from({ length: pairs }, (_, at) => (after[at] as number) - (before[at] as number));
    const [low, high] = interval95(differences);
    const [one, other] = [meanOf(before), meanOf(after)];
    return {
      figure,
      from: one,
      to: other,
      difference: other - one,
      share: one === 0 ? null : (other - one) / one,
      ci95: [low, high],
      isMoreThanChance: pairs < 2 ? null : low > 0 || high < 0,
    };
  });
}
