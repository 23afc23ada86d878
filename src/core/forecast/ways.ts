import type { CaseData } from "../feel";
import { type Act, actTaking, flowsByData, isBarred, type Place } from "../tokens";
import type { NodePlan, Plan } from "./plan";
import type { Stream } from "./random";
import { type Running, visitOf } from "./running";

/** Of several ways to go on, one by chance. */
export function wayOn(plan: Plan, run: Running, place: Place, node: NodePlan, acts: readonly Act[]): Act {
  if (acts.length === 1) return acts[0] as Act;
  const { shares } = plan.of(place.scope);
  const chance = node.choice.at(run.number, visitOf(run, node));
  const byHand = run.follower?.take(node.id, acts);
  if (byHand) return byHand;
  const byData = run.data && wayByData(run.data, place, acts);
  if (byData) return byData;
  const isOne = acts.every(({ move }) => move.give.length === 1);
  const isExclusive = place.scope.net.nodes[acts[0]?.move.node ?? -1]?.kind === "exclusive";
  if (!isExclusive || !isOne) return someOf(acts, shares, chance);
  let left = chance.next();
  for (const act of acts) {
    const share = shares[act.move.give[0] as number] as number;
    const own = Number.isNaN(share) ? 1 / acts.length : share;
    if (left < own) return act;
    left -= own;
  }
  return acts.at(-1) as Act;
}

/** The way the data of a case decides for, where its conditions ask for nothing else. */
function wayByData(data: CaseData, { scope }: Place, acts: readonly Act[]): Act | undefined {
  const element = scope.elements[acts[0]?.move.node ?? -1];
  const flows = element && flowsByData(scope.model, element, data);
  return element && flows && actTaking(scope.model, element, acts, flows);
}

/** Whether the data of a case keeps it from going on: no condition holds, and there is no default. */
export const isBarredByData = ({ data }: Running, { scope }: Place, node: number): boolean => {
  const element = data && scope.elements[node];
  return element !== undefined && isBarred(scope.model, element, data);
};

/** The sets of ways that acts go: those that every one goes, those that chance decides of, and the act by which of these it goes, a bit each. */
interface Sets {
  readonly always: readonly number[];
  readonly asked: readonly number[];
  readonly byBits: ReadonlyMap<number, Act>;
}
const setsOf = new WeakMap<readonly Act[], Sets>();

/** O(acts × ways) the first time they are asked of, then O(1). */
function setsAmong(acts: readonly Act[]): Sets {
  const known = setsOf.get(acts);
  if (known) return known;
  const flows = [...new Set(acts.flatMap(({ move }) => move.give))];
  const always = flows.filter((flow) => acts.every(({ move }) => move.give.includes(flow)));
  const asked = flows.filter((flow) => !always.includes(flow));
  const byBits = new Map<number, Act>();
  for (const act of acts) {
    const bits = asked.reduce((all, flow, at) => (act.move.give.includes(flow) ? all + 2 ** at : all), 0);
    if (!byBits.has(bits)) byBits.set(bits, act);
  }
  const made = { always, asked, byBits };
  setsOf.set(acts, made);
  return made;
}

/** A set of ways out: each by its own chance; of none, all are drawn again, as often as it takes, within reason. */
function someOf(acts: readonly Act[], shares: Float64Array, chance: Stream): Act {
  const { always, asked, byBits } = setsAmong(acts);
  for (let tries = 0; tries < 100; tries++) {
    let bits = 0;
    for (let at = 0; at < asked.length; at++) {
      const share = shares[asked[at] as number] as number;
      if (chance.next() < (Number.isNaN(share) ? 0.5 : share)) bits += 2 ** at;
    }
    const found = byBits.get(bits);
    if (found) return found;
    // None of them: the one that stands for that, where there is one whose share is 0 (the default).
    if (bits === 0) {
      const fallback = acts.find(
        ({ move }) =>
          move.give.length === always.length + 1 &&
          move.give.every((flow) => always.includes(flow) || shares[flow] === 0),
      );
      if (fallback) return fallback;
    }
  }
  return acts[0] as Act;
}
