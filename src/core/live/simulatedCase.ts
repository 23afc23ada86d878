import type { CaseData } from "../feel";
import type { Id } from "../model";
import type { Scenario } from "../scenario";
import type { World } from "../tokens";
import { byChance, type Chance } from "./chance";
import { byData } from "./choosing";
import { Engine } from "./engine";
import type { Wait } from "./liveCase";

/** What a case is simulated in. */
export interface Surroundings {
  readonly world: World;
  readonly process: Id;
  /** Milliseconds since 1970. */
  readonly began: number;
  /** What it decides by; it goes by chance where there is none. */
  readonly data?: CaseData | undefined;
  readonly chance: Chance;
  readonly scenario?: Scenario | undefined;
  readonly also?: readonly Id[];
  /** Seconds until somebody begins a piece of work, on average, where nothing is said of it; nobody is waited for where this is not either. */
  readonly idle?: number;
  /** What people fill in and services answer. */
  readonly values?: (engine: Engine, wait: Wait) => CaseData;
}

/** A case with its simulated surroundings. */
export class SimulatedCase {
  readonly engine: Engine;
  /** When what is waited for comes, by wait; drawn when it is first seen. */
  readonly #due = new Map<number, { readonly begins: number; readonly ends: number } | undefined>();

  constructor(readonly around: Surroundings) {
    const { world, process, began, data, chance, scenario, also = [] } = around;
    const choosing = data ? byData : byChance(scenario, chance);
    const running = { world, choosing, zone: scenario?.zone ?? "UTC", now: began };
    this.engine = Engine.begin(running, process, data ?? {}, undefined, also);
  }

  /** Runs it until nothing more can come, or up to a moment. */
  run(until = Number.POSITIVE_INFINITY): void {
    const { engine } = this;
    while (engine.state === "open") {
      const next = this.#next();
      if (!next || next.at > until) return;
      engine.now = Math.max(engine.now, next.at);
      if (next.isBeginning) engine.beginWork(next.wait.id);
      else engine.happen(next.wait.id, this.around.values?.(engine, next.wait));
    }
  }

  /** What comes first; of what comes at the same moment, what was waited for first. */
  #next(): { readonly wait: Wait; readonly at: number; readonly isBeginning: boolean } | undefined {
    let first: { wait: Wait; at: number; isBeginning: boolean } | undefined;
    for (const wait of this.engine.waits) {
      const due = this.#dueOf(wait);
      if (!due) continue;
      const isWork = wait.kind === "work" || wait.kind === "service";
      const isBeginning = isWork && wait.begun === undefined;
      const at = isBeginning ? due.begins : due.ends;
      if (!first || at < first.at) first = { wait, at, isBeginning };
    }
    return first;
  }

  #dueOf(wait: Wait) {
    if (wait.kind === "timer") return wait.due === undefined ? undefined : { begins: wait.due, ends: wait.due };
    if (this.#due.has(wait.id)) return this.#due.get(wait.id);
    const due = this.#drawn(wait);
    this.#due.set(wait.id, due);
    return due;
  }

  #drawn(wait: Wait) {
    const element = wait.event ?? wait.node;
    const said = this.around.scenario?.of.get(element);
    const waits = [said?.times.transfer, said?.times.queue, said?.times.wait, said?.times.lag];
    const works = [said?.times.setUp, said?.times.processing, said?.times.validation, said?.times.rework];
    switch (wait.kind) {
      case "work":
      case "service": {
        const { chance, idle } = this.around;
        const isSaid = waits.some((one) => one !== undefined);
        const rest = wait.kind === "work" && idle !== undefined && !isSaid ? idle : undefined;
        // At random: most soon, some late (an exponential distribution).
        const until =
          rest === undefined
            ? chance.seconds(element, "wait", waits)
            : -rest * Math.log(chance.of(element, "idle").inside());
        const begins = wait.since + until * 1000;
        return { begins, ends: begins + this.around.chance.seconds(element, "work", works) * 1000 };
      }
      case "message":
      case "signal":
      case "condition": {
        // What another pool of the model sends comes when it is sent; an outside party sends what the scenario says.
        if (wait.isInside) return undefined;
        const times = said?.interval ? [said.interval] : [...waits, ...works];
        if (times.every((one) => one === undefined)) {
          // By chance conditions are not asked: what the flow waits for holds; what hangs at an edge never comes.
          const isEdge = /boundaryEvent|ubProcess$/.test(this.engine.elementOf(wait)?.element.type ?? "");
          const passes = wait.kind === "condition" && this.around.data === undefined && !isEdge;
          return passes ? { begins: wait.since, ends: wait.since } : undefined;
        }
        const at = wait.since + this.around.chance.seconds(element, "wait", times) * 1000;
        return { begins: at, ends: at };
      }
      default:
        return undefined;
    }
  }
}
