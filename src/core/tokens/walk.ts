import type { Id, Model } from "../model";
import type { World } from "./caseState";
import type { WalkChoices } from "./choices";
import { beginPlaying, leftAt, nextAct, outcomeOf, type Playing, played, type WalkStep } from "./playing";

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
  let playing = beginPlaying(within, process, choices.start);
  const bound = choices.bound ?? mostSteps;
  let next = nextAct(within, playing, choices);
  while (next && playing.step < bound) {
    playing = played(within, playing, next.act, next.times);
    next = nextAct(within, playing, choices);
  }
  return walkedOf(within, playing, next !== undefined, choices);
}

function walkedOf(world: World, playing: Playing, isStopped: boolean, { data }: WalkChoices): Walked {
  const outcome = outcomeOf(world, playing);
  const times = new Map<Id, number>();
  for (const { element, event } of playing.log) if (event !== "left") times.set(element, (times.get(element) ?? 0) + 1);
  return {
    outcome: isStopped ? "stopped" : outcome === "completed" ? "completed" : "stuck",
    entered: [...times].map(([element, count]) => ({ element, times: count })),
    log: playing.log,
    left: outcome === "completed" ? [] : leftAt(playing),
    told: { ...playing.told, ...(data && { data }) },
  };
}
