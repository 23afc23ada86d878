import fc from "fast-check";
import { expect, test } from "vitest";
import type { Model } from "../model";
import { randomProcess } from "../testing/randomProcess";
import {
  afterMove,
  initialStates,
  isOver,
  keyOfState,
  type Move,
  movesOf,
  type ScopeState,
  scopeNetOf,
} from "../tokens";
import { type LiveEvent, runCases, runWorld } from ".";

/**
 * Replays a case on the net of its process, whose moves are those the checks look at, not those the engine plays: all states that the
 * steps done so far may have led to are kept, gateways and events moving unseen between them.
 */
class Replay {
  readonly #net;
  #states: ReadonlyMap<string, ScopeState>;

  constructor(model: Model, process: string) {
    this.#net = scopeNetOf(model, process);
    this.#states = this.#unseenFrom(initialStates(this.#net));
  }

  /** Whether the step can have been done now. */
  does(step: string): boolean {
    const after: ScopeState[] = [];
    for (const state of this.#states.values())
      for (const move of movesOf(this.#net, state))
        if (this.#stepOf(move) === step) after.push(afterMove(this.#net, state, move));
    this.#states = this.#unseenFrom(after);
    return after.length > 0;
  }

  get mayBeOver(): boolean {
    return [...this.#states.values()].some((state) => isOver(this.#net, state));
  }

  #stepOf(move: Move): string | undefined {
    const node = this.#net.nodes[move.node];
    const ends = node?.kind === "held" ? move.stop === move.node : node?.kind === "each";
    return ends && node?.id.startsWith("userTask") ? node.id : undefined;
  }

  #unseenFrom(states: readonly ScopeState[]): Map<string, ScopeState> {
    const all = new Map(states.map((state) => [keyOfState(state), state]));
    for (const state of all.values())
      for (const move of movesOf(this.#net, state)) {
        if (this.#stepOf(move) !== undefined) continue;
        const next = afterMove(this.#net, state, move);
        all.set(keyOfState(next), next);
      }
    return all;
  }
}

const stepsDone = (events: readonly LiveEvent[]): string[] =>
  events.flatMap(({ kind, element }) => (kind === "complete" && element?.startsWith("userTask") ? [element] : []));

test("what a case has logged can be played on the net of its process, to its end; a step too many cannot", () => {
  let [cases, completed, steps] = [0, 0, 0];
  fc.assert(
    fc.property(fc.nat({ max: 1_000_000 }), fc.integer({ min: 4, max: 26 }), fc.boolean(), (seed, nodes, wild) => {
      const model = randomProcess({ seed, nodes, lanes: 1, wild });
      runCases(runWorld(model), "process", {
        cases: 3,
        seed,
        log: (_, events) => {
          const replay = new Replay(model, "process");
          const done = stepsDone(events);
          cases++;
          steps += done.length;
          for (const step of done) expect(replay.does(step), `${step} of ${done.join(", ")}`).toBe(true);
          const isCompleted = events.some(({ kind }) => kind === "completed");
          if (isCompleted) expect(replay.mayBeOver).toBe(true);
          completed += isCompleted ? 1 : 0;
          // Made of blocks alone nothing is done twice, so that one line too many has no run.
          const [twice] = wild ? [] : done;
          if (twice !== undefined) expect(replay.does(twice)).toBe(false);
        },
      });
    }),
    { numRuns: 80 },
  );
  // What was looked at is more than nothing.
  expect(cases).toBe(240);
  expect(completed).toBeGreaterThan(100);
  expect(steps).toBeGreaterThan(500);
});
