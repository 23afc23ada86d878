import { holds } from "../feel";
import { type Element, type Id, processOf } from "../model";
import type { Act } from "./acts";
import type { Case } from "./case";
import { actTaking, type FireChoice, flowsByData, forVisit, isBarred, type WalkChoices } from "./choices";
import { CaseDataSoFar } from "./deciding";
import type { Happened, Place } from "./place";
import { Play } from "./play";
import { loopOf, type World } from "./world";

/** One line of a log. Elements of a called process say which. */
export interface WalkStep {
  readonly step: number;
  readonly element: Id;
  readonly event: Happened["event"];
  readonly flows: readonly Id[];
  readonly process: Id;
}

/** A case being played: where it stands, what has happened, and what was chosen, so that it can be told again. */
export interface Playing {
  readonly state: Case;
  readonly step: number;
  readonly log: readonly WalkStep[];
  readonly told: WalkChoices;
  /** Since which step each node can act, so that what waits longest goes first. */
  readonly since: ReadonlyMap<string, number>;
}

/** How the next act was found: told, by data, by default, as the first in the file, or the only one there is. */
export type Reason = "told" | "data" | "default" | "first" | "only";

export interface Next {
  readonly act: Act;
  readonly times?: number;
  readonly reason: Reason;
}

const placeOf = (act: Act) => `${act.at} ${act.node}`;

/** Plays a case on and on: what happens next by itself, what has happened, what was chosen. `playing` gives it as it stands. */
export class Player {
  step = 0;
  readonly log: WalkStep[] = [];
  told: WalkChoices;
  readonly play: Play;
  #since = new Map<string, number>();
  readonly #entered = new Map<Id, number>();
  readonly #left = new Map<Id, number>();

  private constructor(
    readonly world: World,
    play: Play,
    told: WalkChoices,
  ) {
    this.play = play;
    this.told = told;
  }

  /** A case of a process, before its first step. */
  static begin(world: World, process: Id, start?: Id): Player {
    const player = new Player(world, Play.begin(world, process, start), start === undefined ? {} : { start });
    player.#wait();
    return player;
  }

  /** A case to be gone on with. */
  static from(world: World, { state, step, log, told, since }: Playing): Player {
    const player = new Player(world, Play.load(world, state), told);
    player.step = step;
    player.#since = new Map(since);
    for (const line of log) player.#note(line);
    return player;
  }

  /** How it stands, as a value that never changes. O(what is under way + what has happened). */
  playing(): Playing {
    const { step, log, told } = this;
    return { state: this.play.saved(), step, log: [...log], told, since: new Map(this.#since) };
  }

  #note(line: WalkStep): void {
    this.log.push(line);
    const count = line.event === "left" ? this.#left : this.#entered;
    count.set(line.element, (count.get(line.element) ?? 0) + 1);
  }

  enteredTimes = (element: Id): number => this.#entered.get(element) ?? 0;

  #soFar: CaseDataSoFar | undefined;
  /** What is told, with the data as it stands now: what decisions on the way have come to is part of it. */
  #now(choices: WalkChoices): WalkChoices {
    if (!choices.data || !this.world.decisions?.size) return choices;
    if (this.#soFar?.given !== choices.data) this.#soFar = new CaseDataSoFar(this.world, choices.data);
    return { ...choices, data: this.#soFar.after(this.log) };
  }

  /** Since which step each node can act. */
  #wait(): void {
    const since = new Map<string, number>();
    for (const node of this.play.readyNodes()) since.set(node, this.#since.get(node) ?? this.step);
    this.#since = since;
  }

  /** Does an act; what was chosen by it is noted. */
  do(act: Act, times?: number): void {
    const told = this.#noted(act, times);
    const before = new Map(this.play.places().map((one) => [one.key, one]));
    const happened = this.play.step(act, times);
    this.step++;
    this.told = told;
    for (const { at, node, event, flows } of happened) {
      const { model, net } = (this.play.placeAt(at) ?? (before.get(at) as Place)).scope;
      const process = processOf(model, net.scope)?.id ?? net.scope;
      this.#note({ step: this.step, element: node, event, flows, process });
    }
    this.#since.delete(placeOf(act));
    this.#wait();
  }

  /** What was told so far, and this act, where it was one of several. */
  #noted(act: Act, times: number | undefined): WalkChoices {
    let { told } = this;
    const add = <Entry>(all: ReadonlyMap<Id, readonly Entry[]> | undefined, entry: Entry) =>
      new Map([...(all ?? []), [act.node, [...(all?.get(act.node) ?? []), entry]]]);
    if (act.does === "fire") {
      const last = this.log.at(-1)?.element;
      const fire: FireChoice =
        last === undefined
          ? { element: act.node }
          : { element: act.node, after: { element: last, times: this.enteredTimes(last) } };
      return { ...told, fire: [...(told.fire ?? []), fire] };
    }
    if (act.does === "begin" && times !== undefined) return { ...told, times: add(told.times, times) };
    if (act.does === "finish") {
      const under = this.play.placeAt(act.at)?.underWay.get(act.move.node);
      if (under && under.times === undefined) told = { ...told, times: add(told.times, under.finished + 1) };
    }
    const others = this.play
      .acts()
      .filter((one) => placeOf(one) === placeOf(act) && one.does === act.does && one.does !== "pick");
    return others.length > 1 ? { ...told, choose: add(told.choose, act.flows) } : told;
  }

  /**
   * What happens next by itself: events that were told to go off, else what can happen longest, in the order of the file among
   * equals, so that parallel branches go on in turn and the same choices give the same run.
   * @returns undefined where nothing can happen
   */
  next(told: WalkChoices): Next | undefined {
    const choices = this.#now(told);
    const acts = this.play.acts();
    const fired = acts.find((act) => act.does === "fire" && this.#isToFire(act, choices));
    if (fired) return { act: fired, reason: "told" };
    const own = acts.filter((act) => act.does !== "fire" && !this.#isBarred(act, choices));
    const since = (act: Act) => this.#since.get(placeOf(act)) ?? this.step;
    const first = own
      .filter((act) => act.does !== "pick")
      .reduce<Act | undefined>((best, act) => (best === undefined || since(act) < since(best) ? act : best), undefined);
    const picked = own.find((act) => act.does === "pick" && this.enteredTimes(act.node) === 0);
    if (!first || (picked && first.does === "finish")) return picked && { act: picked, reason: "first" };
    return this.#chosen(
      own.filter((act) => placeOf(act) === placeOf(first)),
      choices,
    );
  }

  /** Nothing that was told leads on, and no condition holds: others may go on, and the case stays here. */
  #isBarred(act: Act, choices: WalkChoices): boolean {
    const model = this.play.placeAt(act.at)?.scope.model;
    const node = model?.elements.get(act.node);
    if (!model || !node || !choices.data || act.does === "pick") return false;
    const told = forVisit(choices.choose?.get(node.id), this.told.choose?.get(node.id)?.length ?? 0);
    return told === undefined && isBarred(model, node, choices.data);
  }

  #isToFire(act: Act, { fire = [] }: WalkChoices): boolean {
    const { model } = this.world;
    const isMeant = ({ element }: FireChoice) =>
      element === act.node || model.elements.get(element)?.parent === act.node;
    const told = fire.filter(isMeant)[this.enteredTimes(act.node)];
    return told !== undefined && (!told.after || this.enteredTimes(told.after.element) >= told.after.times);
  }

  /** Among the alternatives of one node: what was told for this visit, what data decides, the default, the first of the file. */
  #chosen(acts: readonly Act[], choices: WalkChoices): Next {
    const [first] = acts as [Act, ...Act[]];
    const at = this.play.placeAt(first.at) as Place;
    const { model } = at.scope;
    const node = model.elements.get(first.node) as Element;
    const visit = this.#left.get(first.node) ?? 0;
    const wanted = forVisit(choices.times?.get(first.node), visit);
    if (first.does === "begin") return { act: first, ...(wanted !== undefined && { times: wanted }), reason: "only" };
    const again = acts.find((act) => act.does === "again");
    const finishes = acts.filter((act) => act !== again);
    if (again) {
      if (finishes.length === 0) return { act: again, reason: "only" };
      const done = (at.underWay.get(again.move.node)?.finished ?? 0) + 1;
      const condition = loopOf(model, node.id)?.loopCondition as { readonly text: string } | undefined;
      const goesOn = wanted === undefined ? holds(condition?.text ?? "", choices.data ?? {}) : done < wanted;
      if (goesOn) return { act: again, reason: wanted === undefined ? "data" : "told" };
    }
    if (finishes.length === 1)
      return { act: finishes[0] as Act, reason: again && wanted === undefined ? "first" : "only" };
    const told = forVisit(choices.choose?.get(node.id), this.told.choose?.get(node.id)?.length ?? 0);
    const byTold = told && actTaking(model, node, finishes, told);
    if (byTold) return { act: byTold, reason: "told" };
    const flows = choices.data && flowsByData(model, node, choices.data);
    const byData = flows && actTaking(model, node, finishes, flows);
    if (byData) return { act: byData, reason: "data" };
    const byDefault = typeof node.default === "string" ? actTaking(model, node, finishes, [node.default]) : undefined;
    if (byDefault) return { act: byDefault, reason: "default" };
    return { act: finishes.find((act) => act.flows.length > 0) ?? (finishes[0] as Act), reason: "first" };
  }
}
