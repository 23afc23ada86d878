import { partiesOf } from "../check";
import type { DecisionModel } from "../decisions";
import type { CaseData } from "../feel";
import { flowNodesIn, type Id, type Model, processesOf } from "../model";
import { draw, type Scenario } from "../scenario";
import { type World, worldWith } from "../tokens";
import { Chance } from "./chance";
import type { Engine } from "./engine";
import type { LiveEvent } from "./liveCase";
import { SimulatedCase } from "./simulatedCase";

/** Monday, 4 January 2027, 8:00 UTC, where nothing says when a run begins. */
const usualStart = Date.UTC(2027, 0, 4, 8);

export interface RunRequest {
  /** Data of each case, by which it decides; or how many cases there are, which go by chance. */
  readonly cases: number | readonly CaseData[];
  readonly scenario?: Scenario | undefined;
  readonly seed: number;
  /** Hears the events of each case when it is over. */
  readonly log?: (number: number, events: readonly LiveEvent[]) => void;
}

export interface RunOutcome {
  readonly started: number;
  readonly completed: number;
  readonly failed: number;
  readonly open: number;
  readonly elements: readonly { readonly id: Id; readonly entered: number; readonly completed: number }[];
  readonly incidents: readonly { readonly element: Id; readonly reason: string; readonly times: number }[];
}

/** A world to run cases in: pools play together, messages go by flow and by name. */
export const runWorld = (
  model: Model,
  called: ReadonlyMap<Id, Model> = new Map(),
  decisions: ReadonlyMap<Id, DecisionModel> = new Map(),
): World => ({ ...worldWith(model, called, true, decisions), isRun: true });

/** Processes of other pools that begin with a case, since no message of another begins them. */
export const begunWith = (model: Model, process: Id): readonly Id[] =>
  partiesOf(model)
    .filter((group) => group.some((party) => party.process === process))
    .flatMap((group) =>
      group
        .filter((party) => party.process !== process && !party.waitsToStart && party.ownStarts.length > 0)
        .map((party) => party.process),
    );

/** The first process of a model that has steps. */
export const firstProcess = (model: Model): Id | undefined =>
  processesOf(model).find(({ id }) => flowNodesIn(model, id).length > 0)?.id;

/**
 * Runs cases of a process without a server: simulated people complete the work, stand-ins answer, timers go off, and the clock jumps to
 * what comes next. How long work takes, and what outside parties send, is as the scenario says; nobody is waited for. The same seed gives
 * the same run. O(cases × steps).
 */
export function runCases(world: World, process: Id, request: RunRequest): RunOutcome {
  const { cases, scenario, seed } = request;
  const count = typeof cases === "number" ? cases : cases.length;
  const tally = new Tally();
  const also = begunWith(world.model, process);
  const start = flowNodesIn(world.model, process).find(({ type }) => type === "startEvent");
  const interval = (start && scenario?.of.get(start.id)?.interval) ?? scenario?.of.get(process)?.interval;
  let arrival = scenario?.start ?? usualStart;
  for (let number = 0; number < count; number++) {
    const chance = new Chance(seed, number);
    if (number > 0 && interval?.[0])
      arrival += draw(interval[0].value, chance.of(start?.id ?? process, "arrival")) * 1000;
    const data = typeof cases === "number" ? undefined : cases[number];
    const one = new SimulatedCase({ world, process, began: arrival, data, chance, scenario, also });
    one.run();
    tally.add(one.engine);
    request.log?.(number, one.engine.events);
  }
  return tally.outcome(count);
}

/** Counts what happened in all cases. */
class Tally {
  readonly #elements = new Map<Id, { entered: number; completed: number }>();
  readonly #incidents = new Map<string, { element: Id; reason: string; times: number }>();
  #completed = 0;
  #failed = 0;

  #of(id: Id) {
    const known = this.#elements.get(id) ?? { entered: 0, completed: 0 };
    this.#elements.set(id, known);
    return known;
  }

  add(engine: Engine): void {
    if (engine.state === "completed") this.#completed++;
    if (engine.state === "failed") this.#failed++;
    for (const { kind, element, reason = "" } of engine.events) {
      if (element === undefined) continue;
      if (kind === "enter") this.#of(element).entered++;
      if (kind === "leave") this.#of(element).completed++;
      if (kind !== "incident") continue;
      const key = `${element}\n${reason}`;
      const known = this.#incidents.get(key) ?? { element, reason, times: 0 };
      known.times++;
      this.#incidents.set(key, known);
    }
    // What a token still stands before was reached as well.
    for (const id of [...engine.reached, ...(engine.state === "completed" ? [] : engine.standingAt())]) this.#of(id);
  }

  outcome(started: number): RunOutcome {
    return {
      started,
      completed: this.#completed,
      failed: this.#failed,
      open: started - this.#completed - this.#failed,
      elements: [...this.#elements].map(([id, counts]) => ({ id, ...counts })),
      incidents: [...this.#incidents.values()],
    };
  }
}
