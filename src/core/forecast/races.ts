import type { Act } from "../tokens";
import { takenWords } from "./gaps";
import type { Plan } from "./plan";
import { drawn, type Pending, type Running, visitOf } from "./running";
import { goesOffAt } from "./timers";
import { wayOn } from "./ways";

/** What happens at an event-based gateway, and when. */
export interface First {
  readonly act: Act;
  readonly at: number;
}

/**
 * The first of several events: by hand where somebody chose, by shares where these are said, else whichever comes first. Where nothing
 * is said of any of them, each is as likely, and comes at once. The same visit gives the same times each time it is asked.
 */
export function firstOf(
  plan: Plan,
  run: Running,
  pending: Pending,
  acts: readonly Act[],
  byHand: Act | undefined,
  now: number,
): First {
  const { place, plan: gateway, since, visit = 0 } = pending;
  const { shares, nodes } = plan.of(place.scope);
  const timeOf = (act: Act): number => {
    const of = nodes[place.scope.net.flows[act.move.give[0] as number]?.to ?? -1];
    // A message that is there has come, from elsewhere after its way; what was timed is timed from when the gateway was come to.
    if (!of) return now;
    if (of.isHeard) {
      const ways = of.calls.flatMap(({ delay }) => (delay ? [delay] : []));
      return ways.length > 0 ? now + drawn(plan, run, of, now, ways, visit + 3072) : now;
    }
    const said = [...(of.interval ? [of.interval] : []), ...of.waits, ...of.works];
    if (said.length > 0) return since + drawn(plan, run, of, now, said, visit);
    return of.timer ? goesOffAt(of.timer, since) : Number.POSITIVE_INFINITY;
  };
  /** Of one that is chosen without a time: at once. */
  const chosen = (act: Act): First => {
    const at = timeOf(act);
    return { act, at: Math.max(now, Number.isFinite(at) ? at : since) };
  };
  if (byHand) return chosen(byHand);
  if (acts.every(({ move }) => !Number.isNaN(shares[move.give[0] as number] as number)))
    return chosen(wayOn(plan, run, place, gateway, acts));
  let best: First | undefined;
  for (const act of acts) {
    const at = Math.max(now, timeOf(act));
    if (!best || at < best.at) best = { act, at };
  }
  if (best && best.at < Number.POSITIVE_INFINITY) return best;
  const name = plan.elements[gateway.element]?.name ?? gateway.id;
  plan.gaps.add("event", gateway.id, name, takenWords.evenShares);
  const chance = gateway.choice.at(run.number, visitOf(run, gateway)).next();
  return { act: acts[Math.floor(chance * acts.length)] as Act, at: now };
}
