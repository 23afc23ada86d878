import type { Id } from "../model";
import type { Act } from "./acts";
import type { Case } from "./case";
import { Play } from "./play";
import type { World } from "./world";

/** What a case has to do to come to something: how it begins, and its acts. */
export interface Way {
  readonly start: Id | undefined;
  readonly acts: readonly Act[];
}

export interface Reach {
  /** By sequence flow: a shortest way on which it gets a token. */
  readonly ways: ReadonlyMap<Id, Way>;
  /** Whether everything a case can do was looked at, so that what has no way here has none. */
  readonly isKnown: boolean;
}

interface Seen {
  readonly state: Case;
  readonly from: number;
  readonly act: Act | undefined;
  readonly start: Id | undefined;
}

/** More states than this are not looked at: some tenths of a second on models as people draw them. */
const mostStates = 3_000;

/**
 * How a case can come to some sequence flows: every state it can be in is looked at, nearest first, up to a bound.
 * O(states × acts × size of a state).
 */
export function reach(world: World, process: Id, starts: readonly Id[], wanted: ReadonlySet<Id>): Reach {
  const seen: Seen[] = [];
  const known = new Set<string>();
  const ways = new Map<Id, Way>();
  let isKnown = true;
  const visit = (one: Seen) => {
    const key = JSON.stringify(one.state);
    if (known.has(key)) return;
    if (seen.length >= mostStates) {
      isKnown = false;
      return;
    }
    known.add(key);
    seen.push(one);
  };
  const wayTo = (at: number, last: Act): Way => {
    const acts = [last];
    let here = seen[at] as Seen;
    while (here.act) {
      acts.unshift(here.act);
      here = seen[here.from] as Seen;
    }
    return { start: here.start, acts };
  };
  for (const start of starts.length > 0 ? starts : [undefined])
    visit({ state: Play.begin(world, process, start).saved(), from: -1, act: undefined, start });
  for (let at = 0; at < seen.length && ways.size < wanted.size; at++) {
    const { state, start } = seen[at] as Seen;
    for (const act of Play.load(world, state).acts()) {
      for (const flow of act.flows) if (wanted.has(flow) && !ways.has(flow)) ways.set(flow, wayTo(at, act));
      const play = Play.load(world, state);
      play.step(act);
      visit({ state: play.saved(), from: at, act, start });
    }
  }
  return { ways, isKnown: isKnown || ways.size === wanted.size };
}
