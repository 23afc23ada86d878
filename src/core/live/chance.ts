import { Stream } from "../forecast";
import { type Element, type Id, outgoingOf, triggerOf } from "../model";
import { type Distribution, draw, type Given, type Scenario } from "../scenario";
import { type Act, actTaking, cardinalityOf } from "../tokens";
import type { Choosing } from "./choosing";

/** Chance of one case: what is drawn for an element depends on the case, the element and how often it was asked, and on nothing else. */
export class Chance {
  readonly #streams = new Map<string, Stream>();
  readonly #asked = new Map<string, number>();

  constructor(
    readonly seed: number,
    readonly number: number,
  ) {}

  /** A stream that stands at the next visit of an element for a purpose. */
  of(element: Id, purpose: string): Stream {
    const key = `${element} ${purpose}`;
    let stream = this.#streams.get(key);
    if (!stream) {
      stream = new Stream(this.seed, key);
      this.#streams.set(key, stream);
    }
    const visit = this.#asked.get(key) ?? 0;
    this.#asked.set(key, visit + 1);
    return stream.at(this.number, visit);
  }

  happens = (element: Id, purpose: string, chance: number): boolean => this.of(element, purpose).next() < chance;

  /** Seconds; the sum of what is said of several times, of each the first. */
  seconds(element: Id, purpose: string, times: readonly (readonly Given<Distribution>[] | undefined)[]): number {
    const said = times.flatMap((given) => given?.[0]?.value ?? []);
    if (said.length === 0) return 0;
    const stream = this.of(element, purpose);
    return said.reduce((sum, one) => sum + Math.max(0, draw(one, stream)), 0);
  }
}

const mostTries = 1_000;

/**
 * By the shares of a scenario, where nobody asks for data: at an exclusive gateway what is said of its ways, and what is left goes to the
 * default, or evenly to those of which nothing is said; of several ways each by its own chance, by one half where nothing is said, drawn
 * again as long as none of them comes.
 */
export function byChance(scenario: Scenario | undefined, chance: Chance): Choosing {
  const shareOf = (id: Id) => scenario?.of.get(id)?.probability;
  const one = (node: Element, acts: readonly Act[]): Act | undefined => {
    const shares = acts.map((act) => shareOf(act.flows[0] ?? ""));
    const left = Math.max(0, 1 - shares.reduce<number>((sum, share) => sum + (share ?? 0), 0));
    const open = acts.filter((_, at) => shares[at] === undefined);
    const fallback = open.length < acts.length ? open.find((act) => act.flows[0] === node.default) : undefined;
    const rest = fallback ? [fallback] : open;
    const weights = acts.map((act, at) => shares[at] ?? (rest.includes(act) ? left / rest.length : 0));
    const whole = weights.reduce((sum, weight) => sum + weight, 0);
    let drawn = chance.of(node.id, "way").next() * (whole > 0 ? whole : acts.length);
    for (const [at, act] of acts.entries()) {
      const weight = whole > 0 ? (weights[at] ?? 0) : 1;
      if (drawn < weight) return act;
      drawn -= weight;
    }
    return acts.findLast((_, at) => whole <= 0 || (weights[at] ?? 0) > 0);
  };
  return {
    way: (model, node, acts) => {
      if (acts.length < 2) return acts[0];
      if (node.type === "exclusiveGateway" || acts.every(({ flows }) => flows.length === 1)) return one(node, acts);
      const always = new Set(acts[0]?.flows.filter((flow) => acts.every(({ flows }) => flows.includes(flow))));
      const asked = outgoingOf(model, node.id).filter(({ id }) => !always.has(id));
      const stream = chance.of(node.id, "ways");
      for (let tries = 0; tries < mostTries; tries++) {
        const drawn = asked.filter(({ id }) => stream.next() < (shareOf(id) ?? 0.5)).map(({ id }) => id);
        const act = actTaking(model, node, acts, drawn);
        if (act && (act.flows.length > 0 || !node.type.endsWith("Gateway"))) return act;
      }
      return acts[0];
    },
    again: (_model, activity, _loop, _data, isFirst) => {
      const share = shareOf(activity.id);
      // A loop of which nothing is said is done once.
      if (share === undefined) return isFirst;
      return chance.happens(activity.id, "again", share);
    },
    instances: (_model, activity, loop) => {
      const times = scenario?.of.get(activity.id)?.count ?? cardinalityOf(loop);
      return times === undefined ? undefined : { times, own: () => undefined };
    },
    edge: (model, event) => {
      const share = shareOf(event.id);
      const isThrown = ["errorEventDefinition", "escalationEventDefinition"].includes(triggerOf(model, event));
      return isThrown && share !== undefined && chance.happens(event.id, "edge", share);
    },
  };
}
