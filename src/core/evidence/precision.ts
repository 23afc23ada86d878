import type { Id } from "../model";
import type { Automaton } from "./automaton";
import type { Variant } from "./holding";

/** How much more a model allows than what happened, and how likely what has not happened yet is to be allowed. */
export interface Closeness {
  /** Of what could have been done each time something was, the share that ever was: 1 where nothing else is allowed. */
  readonly precision: number;
  /** How unlikely it is that what is done next, wherever cases were before, is something that was never done there. */
  readonly generalisation: number;
}

/** Where a case can be, as far as what was done tells: states, what can be done there, and where that leads. */
interface Place {
  readonly enabled: ReadonlySet<Id>;
  readonly next: Map<Id, string>;
  readonly states: readonly number[];
}

/**
 * Precision and generalisation by state, over all that was done as modelled or has to have been done (W. van der Aalst, A. Adriansyah, B. van
 * Dongen, "Replaying history on process models for conformance checking and performance analysis", 2012): precision is the mean of what was
 * done in a state as a share of what can be done there; generalisation is 1 less the mean chance w(w + 1) ÷ (n(n − 1)) that the next visit
 * shows something new, where w different steps were seen in n visits, and 1 where n < w + 2. O(moves × states at once).
 */
export function closeness(automaton: Automaton, variants: readonly Variant[]): Closeness {
  const places = new Map<string, Place>();
  const place = (states: readonly number[]): string => {
    const closed = closure(automaton, states);
    const key = closed.join(" ");
    if (!places.has(key)) {
      const enabled = new Set(closed.flatMap((state) => automaton.edges(state).flatMap(({ step }) => step ?? [])));
      places.set(key, { enabled, next: new Map(), states: closed });
    }
    return key;
  };
  const seen = new Map<string, { visits: number; steps: Set<Id> }>();
  const begin = place(automaton.starts.filter((state) => state >= 0));
  for (const { alignment, traces } of variants) {
    let here = begin;
    for (const move of alignment.moves) {
      if (move.kind === "log") continue;
      const now = places.get(here) as Place;
      // An alignment that was cut off need not be a run.
      if (!now.enabled.has(move.step)) break;
      const own = seen.get(here) ?? { visits: 0, steps: new Set<Id>() };
      seen.set(here, own);
      own.visits += traces.length;
      own.steps.add(move.step);
      let then = now.next.get(move.step);
      if (then === undefined) {
        then = place(
          now.states.flatMap((state) =>
            automaton.edges(state).flatMap((edge) => (edge.step === move.step ? edge.to : [])),
          ),
        );
        now.next.set(move.step, then);
      }
      here = then;
    }
  }
  let [done, precise, fresh] = [0, 0, 0];
  for (const [key, { visits, steps }] of seen) {
    const { enabled } = places.get(key) as Place;
    done += visits;
    precise += (visits * steps.size) / enabled.size;
    fresh += visits * chanceOfNew(steps.size, visits);
  }
  return done === 0
    ? { precision: 1, generalisation: 1 }
    : { precision: precise / done, generalisation: 1 - fresh / done };
}

const chanceOfNew = (different: number, visits: number): number =>
  visits >= different + 2 ? (different * (different + 1)) / (visits * (visits - 1)) : 1;

/** States that are come to unseen, in their order. */
function closure(automaton: Automaton, states: readonly number[]): number[] {
  const found = new Set<number>();
  const pending = [...states];
  for (let state = pending.pop(); state !== undefined; state = pending.pop()) {
    if (state < 0 || found.has(state)) continue;
    found.add(state);
    for (const { step, to } of automaton.edges(state)) if (step === undefined) pending.push(to);
  }
  return [...found].sort((one, other) => one - other);
}
