import type { Id, Model } from "../model";
import type { WalkChoices } from "./choices";
import { Player, type WalkStep } from "./player";
import { leftAt } from "./playing";
import type { World } from "./world";

export interface Walked {
  /** Whether the case came to its end, waits for what never comes, or was stopped by the bound. */
  readonly outcome: "completed" | "stuck" | "stopped";
  readonly entered: readonly { readonly element: Id; readonly times: number }[];
  readonly log: readonly WalkStep[];
  /** Where tokens are left: the nodes they stand before, or that are under way. */
  readonly left: readonly Id[];
  /** What was chosen on the way, by whatever chose it. */
  readonly told: WalkChoices;
}

const mostSteps = 10_000;

/**
 * Plays one case with tokens to its end.
 * @throws RangeError for a process that is not in the model
 * O(steps × nodes).
 */
export function walk(world: World | Model, process: Id, choices: WalkChoices = {}): Walked {
  const within: World = "elements" in world ? { model: world } : world;
  if (!within.model.elements.has(process)) throw new RangeError(`There is no process "${process}" in this model.`);
  const player = Player.begin(within, process, choices.start);
  const bound = choices.bound ?? mostSteps;
  let next = player.next(choices);
  while (next && player.step < bound) {
    player.do(next.act, next.times);
    next = player.next(choices);
  }
  return walkedOf(player, next !== undefined, choices);
}

function walkedOf(player: Player, isStopped: boolean, { data }: WalkChoices): Walked {
  const playing = player.playing();
  const isOver = player.play.isOver();
  const times = new Map<Id, number>();
  for (const { element, event } of playing.log) if (event !== "left") times.set(element, (times.get(element) ?? 0) + 1);
  return {
    outcome: isStopped ? "stopped" : isOver ? "completed" : "stuck",
    entered: [...times].map(([element, count]) => ({ element, times: count })),
    log: playing.log,
    left: isOver ? [] : leftAt(player.world, playing),
    told: { ...playing.told, ...(data && { data }) },
  };
}
