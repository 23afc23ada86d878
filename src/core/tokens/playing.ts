import type { Id } from "../model";
import type { Act } from "./acts";
import type { WalkChoices } from "./choices";
import { type Next, Player, type Playing } from "./player";
import { actsOf, isCaseOver, standingAt } from "./standing";
import type { World } from "./world";

/** A case of a process, before its first step. */
export const beginPlaying = (world: World, process: Id, start?: Id): Playing =>
  Player.begin(world, process, start).playing();

/** The case after an act; what was chosen by it is noted. */
export function played(world: World, before: Playing, act: Act, times?: number): Playing {
  const player = Player.from(world, before);
  player.do(act, times);
  return player.playing();
}

/** What happens next by itself (Player.next). */
export const nextAct = (world: World, playing: Playing, choices: WalkChoices): Next | undefined =>
  Player.from(world, playing).next(choices);

/** How a case that was played has come out. */
export function outcomeOf(world: World, { state }: Playing): "completed" | "stuck" | "under way" {
  if (isCaseOver(world, state)) return "completed";
  return actsOf(world, state).length === 0 ? "stuck" : "under way";
}

/** Where tokens are left: the nodes they stand before, or that are under way. */
export const leftAt = (world: World, { state }: Playing): Id[] => [
  ...new Set(standingAt(world, state).map(({ node }) => node)),
];
