import type { Id } from "../model";
import type { Scenario } from "../scenario";
import { type Act, actsOf, beginPlaying, type Playing, played, type World } from "../tokens";
import { type ChosenByHand, Follower, type Moment, type TokenAct } from "./follower";
import { seedOf, usualSeed } from "./forecast";
import { Plan, worldAssumed } from "./plan";
import { Simulation } from "./simulation";

/** One case of a forecast, among the others that come before and beside it. */
export interface Followed {
  readonly number: number;
  readonly process: Id;
  readonly start: Id | undefined;
  /** Seconds since the start of the scenario. */
  readonly began: number;
  readonly moments: readonly Moment[];
  /** It went on for longer than is kept. */
  readonly isCut: boolean;
}

/** Events at a time, between two looks at whether it was cancelled. */
const atATime = 20_000;
/** A run ends when so many events went by without anything of the followed case: its next one is too far away to be waited for. */
const mostIdle = 2_000_000;

/**
 * Follows one case of the first replication of a forecast: what the forecast of the same seed has in it, case by case, where nothing is
 * chosen by hand. The number counts all cases from 0, also those that come while nothing is counted yet.
 * @param chosen what is chosen by hand; what came before is as it was without it, since chance goes by case, step and visit
 * @param tell hears how far it is, 0 to 1, and may throw to end it
 * @returns undefined where no such case ever comes. O(events up to its end × log of what is under way).
 */
export function follow(
  world: World,
  scenario: Scenario,
  number: number,
  chosen: ChosenByHand = new Map(),
  seed = scenario.seed ?? usualSeed,
  tell: (share: number) => void = () => undefined,
): Followed | undefined {
  const plan = new Plan(worldAssumed(world, scenario), scenario, seedOf(seed, 0));
  const follower = new Follower(number, chosen);
  const simulation = new Simulation(plan, { cases: number + 1, warmUp: 0 }, 0, follower);
  for (let idle = 0, seen = 0; !follower.isOver && !follower.isCut && idle < mostIdle; idle += atATime) {
    if (!simulation.run(atATime)) break;
    if (follower.moments.length > seen) [idle, seen] = [0, follower.moments.length];
    tell(Math.min(0.99, simulation.done / (number + 1)));
  }
  const { run, moments, isCut } = follower;
  if (!run) return undefined;
  const { process, start } = run.from.source;
  return { number, process, start: start === process ? undefined : start, began: run.began, moments, isCut };
}

/** The act of a case as it stands that a moment tells of; undefined where the case does not stand there. */
function actOf(world: World, { state }: Playing, told: TokenAct): Act | undefined {
  const same = (a: readonly unknown[], b: readonly unknown[]) =>
    a.length === b.length && a.every((one, at) => one === b[at]);
  return actsOf(world, state).find(
    ({ at, node, does, flows, move }) =>
      at === told.at &&
      node === told.node &&
      does === told.does &&
      same(flows, told.flows) &&
      same(move.give, told.give),
  );
}

/** How a followed case stands before its first moment, by the player that plays walks. */
export const standsFirst = (world: World, { process, start }: Followed): Playing => beginPlaying(world, process, start);

/**
 * How a followed case stands after a moment: only acts move it.
 * @param world the assumed one (`worldAssumed`)
 * @throws RangeError where the moment is none of this case
 */
export function standsAfter(world: World, before: Playing, { what }: Moment): Playing {
  if (what.kind !== "act") return before;
  const act = actOf(world, before, what.act);
  if (!act) throw new RangeError(`"${what.act.node}" cannot do this here.`);
  return played(world, before, act, what.times);
}
