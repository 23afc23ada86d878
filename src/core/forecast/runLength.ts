import type { Scenario } from "../scenario";
import type { World } from "../tokens";
import { forecast, lengthOf, seedOf, usualSeed } from "./forecast";
import { Plan, worldAssumed } from "./plan";
import { Simulation } from "./simulation";
import { meanOf, proposedWarmUp, replicationsFor } from "./statistics";

/** How a scenario had better be run. */
export interface RunProposal {
  /** Seconds from the start after which cases take as long as they will: whole hours, days of what is longer than two. */
  readonly warmUp: number;
  /** So many of the cases of a run came before that. */
  readonly cases: number;
  readonly ofCases: number;
  /** Runs after which the mean is known to within the wished distance. */
  readonly replications: number;
  /** Seconds: the mean, and how far off it may be after the runs that were done for this. */
  readonly mean: number;
  readonly half: number;
  readonly done: number;
}

const atATime = 20_000;
/** So often it is run at least, to see how far the runs lie apart. */
const leastRuns = 10;

/**
 * What of a run had better not be counted (MSER-5 over its cases, in the order in which they end), and how often it has to be run for
 * the mean duration to be known to within a share of itself, with 95 of 100 chance (Student's interval).
 * @param within 0 to 1
 * @returns undefined where no case came to its end
 */
export function proposeRun(
  world: World,
  scenario: Scenario,
  within: number,
  tell: (share: number) => void = () => undefined,
): RunProposal | undefined {
  const length = lengthOf(scenario);
  const seed = scenario.seed ?? usualSeed;
  const plan = new Plan(worldAssumed(world, scenario), scenario, seedOf(seed, 0));
  const simulation = new Simulation(plan, { ...length, warmUp: 0 });
  while (simulation.run(atATime))
    tell(
      Math.min(
        1,
        length.cases === undefined ? simulation.now / (length.duration ?? 1) : simulation.done / length.cases,
      ) /
        (leastRuns + 1),
    );
  const { durations, ended } = simulation.end().recorder;
  if (durations.count === 0) return undefined;
  const cases = proposedWarmUp(durations.values);
  const warmUp = cases === 0 ? 0 : rounded(ended[cases - 1] ?? 0);
  const runs = Math.max(leastRuns, scenario.replications ?? 1);
  const { means, cycleTime } = forecast(world, { ...scenario, warmUp }, { replications: runs }, (share) =>
    tell((1 + share * leastRuns) / (leastRuns + 1)),
  );
  const cycleTimes = means.map((one) => one.cycleTime);
  const mean = meanOf(cycleTimes);
  return {
    warmUp,
    cases,
    ofCases: durations.count,
    replications: replicationsFor(cycleTimes, within * mean),
    mean,
    half: (cycleTime.ci95[1] - cycleTime.ci95[0]) / 2,
    done: runs,
  };
}

function rounded(seconds: number): number {
  const size = seconds > 2 * 86_400 ? 86_400 : 3600;
  return Math.ceil(seconds / size) * size;
}
