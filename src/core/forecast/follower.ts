import type { Id } from "../model";
import type { Act } from "../tokens";
import type { Pending, Running } from "./running";

/** What was chosen where a case could go several ways: what it did, and along which flows. */
export interface Chosen {
  readonly does: Act["does"];
  readonly flows: readonly Id[];
}
/** By node: what is chosen each time, in order; undefined where chance decides. */
export type ChosenByHand = ReadonlyMap<Id, readonly (Chosen | undefined)[]>;

/** A moment of a case: something happened to it, or it began to wait, or somebody began to work on it. */
export interface Moment {
  /** Seconds since the start of the scenario. */
  readonly at: number;
  readonly what:
    | { readonly kind: "act"; readonly act: TokenAct; readonly times?: number; readonly choice?: Choice }
    /** It waits: for these resources, or for a time or an event where there are none. */
    | { readonly kind: "waits"; readonly element: Id; readonly for: readonly Id[] }
    | { readonly kind: "works"; readonly element: Id; readonly by: readonly Id[] };
  /** Seconds of the case, and money, up to here: of what is over. */
  readonly waited: number;
  readonly worked: number;
  readonly cost: number;
}

/** That there were several ways: where, which, and the how-manieth choice there it was. */
export interface Choice {
  /** What was asked: of an event at an edge the step it is at. */
  readonly node: Id;
  readonly turn: number;
  readonly ways: readonly Chosen[];
}

/** An act as it is told from its alternatives. */
export interface TokenAct extends Chosen {
  readonly at: string;
  readonly node: Id;
  readonly give: readonly number[];
}

/** So many moments of a case are kept; one that goes on longer is shown up to there. */
export const mostMoments = 2_000;

/** Follows one case of a run: keeps its moments, and lets it go the ways that were chosen. */
export class Follower {
  readonly moments: Moment[] = [];
  isCut = false;
  #run: Running | undefined;
  readonly #turns = new Map<Id, number>();
  /** Choices that were asked for and not taken yet, by scope and node: an event-based gateway takes its time. */
  readonly #offered = new Map<string, Choice>();

  constructor(
    readonly number: number,
    readonly chosen: ChosenByHand,
  ) {}

  begin(run: Running): void {
    this.#run = run;
  }
  get run(): Running | undefined {
    return this.#run;
  }
  get isOver(): boolean {
    return this.#run?.isOver === true;
  }

  /** Of several acts of a node, the one that was chosen for this time. */
  take(node: Id, acts: readonly Act[]): Act | undefined {
    const turn = this.#turns.get(node) ?? 0;
    this.#turns.set(node, turn + 1);
    const ways = acts.map(({ does, flows }) => ({ does, flows }));
    const choice = { node, turn, ways };
    for (const act of acts) this.#offered.set(`${act.at} ${act.node}`, choice);
    const chosen = this.chosen.get(node)?.[turn];
    return chosen && acts.find((act) => isChosen(act, chosen));
  }

  did(run: Running, now: number, act: Act, times: number | undefined): void {
    const { at, node, does, flows, move } = act;
    const choice = this.#offered.get(`${at} ${node}`);
    if (choice) for (const [key, one] of this.#offered) if (one === choice) this.#offered.delete(key);
    this.#keep(run, now, {
      kind: "act",
      act: { at, node, does, flows, give: move.give },
      ...(times !== undefined && { times }),
      ...(choice && { choice }),
    });
  }

  waits(run: Running, now: number, { plan, wanted }: Pending): void {
    const desks = wanted.desks.map((desk) => desk.plan.id);
    this.#keep(run, now, { kind: "waits", element: plan.id, for: [...new Set(desks)] });
  }

  works(run: Running, now: number, { plan, granted }: Pending): void {
    const by = granted.map(({ desk }) => desk.plan.id);
    this.#keep(run, now, { kind: "works", element: plan.id, by });
  }

  #keep({ waiting, working, cost }: Running, at: number, what: Moment["what"]): void {
    if (this.moments.length >= mostMoments) this.isCut = true;
    else this.moments.push({ at, what, waited: waiting, worked: working, cost });
  }
}

const isChosen = ({ does, flows }: Act, chosen: Chosen): boolean =>
  does === chosen.does && flows.length === chosen.flows.length && flows.every((flow) => chosen.flows.includes(flow));
