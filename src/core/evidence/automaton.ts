import { type Element, eventDefinitionsOf, type Id, isActivity, isEvent, type Model } from "../model";
import { type Act, type Case, type CaseScope, insideOf, loopOf, modelsOf, Play, type World } from "../tokens";

/** What can happen in a state: a step that a log would show, or nothing that one would; and the state after it. */
export interface Edge {
  /** The step that is done; undefined where nothing is to be seen. */
  readonly step: Id | undefined;
  readonly to: number;
}

/** More states than this are not looked at. */
const mostStates = 10_000;

/**
 * The states of a process, as the token game knows them, found as they are come to and kept for all traces: what a log can show of it
 * (steps that are done), and what happens unseen between. Unseen moves that take nothing from any other are made at once, so that it is
 * as small as what matters. Times, data and conditions are not asked.
 */
export class Automaton {
  readonly #states: Case[] = [];
  readonly #known = new Map<string, number>();
  readonly #edges: (readonly Edge[] | undefined)[] = [];
  readonly #final: boolean[] = [];
  readonly starts: readonly number[];
  readonly #isUndisturbed: boolean;
  /** Whether there were more states than are looked at. */
  isCut = false;

  constructor(
    readonly world: World,
    readonly process: Id,
    starts: readonly Id[],
    others: readonly Id[] = [],
  ) {
    this.#isUndisturbed = modelsOf(world).every((model) => [...model.elements].every((one) => !disturbs(one)));
    const begun = (starts.length > 0 ? starts : [undefined]).map((start) => {
      const play = Play.begin(world, process, start);
      for (const other of others) play.enter(other);
      return this.#intern(play);
    });
    this.starts = [...new Set(begun)];
  }

  get size(): number {
    return this.#states.length;
  }

  /**
   * Steps that have to be done before a case is over, in a state: those that a token stands before, where nothing can take it away. A bound
   * from below for what is left.
   */
  due(state: number): number {
    if (!this.#isUndisturbed) return 0;
    return new Set(this.edges(state).flatMap(({ step }) => step ?? [])).size;
  }

  /** Whether a case may be over in a state. */
  isFinal = (state: number): boolean => this.#final[state] === true;

  /** What can happen in a state. O(1) once it was asked. */
  edges(state: number): readonly Edge[] {
    const known = this.#edges[state];
    if (known) return known;
    const found = this.#expand(state);
    this.#edges[state] = found;
    return found;
  }

  #expand(state: number): readonly Edge[] {
    const from = this.#states[state] as Case;
    const edges: Edge[] = [];
    const here = Play.load(this.world, from);
    for (const act of here.acts()) {
      if (act.does === "pick" && isPicked(here, act)) continue;
      for (const times of this.#timesFor(from, act)) {
        const play = Play.load(this.world, from);
        const place = play.placeAt(act.at);
        const model = place?.scope.model ?? this.world.model;
        const element = model.elements.get(act.node);
        if (!element) continue;
        if (act.does === "again" && isRepeatedStep(this.world, model, element)) continue;
        play.step(act, times);
        const to = this.#intern(play);
        const step = isShown(element, act) ? act.node : undefined;
        if (to >= 0 && (step !== undefined || to !== state)) edges.push({ step, to });
        // Of a step that is done as often as its data says, one more time is seen without leaving it.
        if (act.does === "finish" && isRepeatedStep(this.world, model, element))
          edges.push({ step: act.node, to: state });
      }
    }
    return edges;
  }

  /** How many instances of an inside are tried, where the model does not say. */
  #timesFor(from: Case, act: Act): readonly (number | undefined)[] {
    if (act.does !== "begin") return [undefined];
    const place = Play.load(this.world, from).placeAt(act.at);
    if (!place) return [undefined];
    const { model } = place.scope;
    const element = model.elements.get(act.node);
    const loop = loopOf(model, act.node);
    const isOpen = loop?.type === "multiInstanceLoopCharacteristics" && textOf(loop.loopCardinality) === "";
    return isOpen && element && insideOf(this.world, model, element) ? [1, 2, 3] : [undefined];
  }

  /** The number of a state, as it is once all that happens unseen and takes nothing away has happened; -1 where there are too many. */
  #intern(play: Play): number {
    settle(play);
    const saved = play.saved();
    const state = { pools: saved.pools.map(withoutRounds), sent: saved.sent };
    const key = JSON.stringify(state);
    const known = this.#known.get(key);
    if (known !== undefined) return known;
    if (this.#states.length >= mostStates) {
      this.isCut = true;
      return -1;
    }
    const number = this.#states.length;
    this.#known.set(key, number);
    this.#states.push(state);
    this.#final.push(play.isOver() || play.uncaught.length > 0);
    return number;
  }
}

/** Whether an element can take tokens from where they stand: what ends a step, a scope or a case from elsewhere. */
const disturbs = ({ type, triggeredByEvent }: Element): boolean =>
  type === "boundaryEvent" ||
  triggeredByEvent === true ||
  /^(?:terminate|error|cancel|escalation|compensate)EventDefinition$/.test(type);

/** Makes all moves that nothing is seen of and that take nothing from any other. */
function settle(play: Play): void {
  for (let round = 0; round < 10_000; round++) {
    const act = free(play);
    if (!act) return;
    play.step(act);
  }
}

/** A move that is the only one of its node, is not seen, and changes nothing but its own tokens. */
function free(play: Play): Act | undefined {
  for (const place of play.places()) {
    const acts = play.acts().filter(({ at }) => at === place.key);
    const byNode = new Map<Id, number>();
    for (const { node } of acts) byNode.set(node, (byNode.get(node) ?? 0) + 1);
    for (const act of acts) {
      if (byNode.get(act.node) !== 1) continue;
      const { model } = place.scope;
      const element = model.elements.get(act.node);
      if (!element || act.move.clears || act.move.fire !== undefined || act.move.had !== undefined) continue;
      if (element.type === "boundaryEvent" || element.triggeredByEvent === true) continue;
      if (element.type === "startEvent" || isPlain(model, element)) if (act.does === "pass") return act;
      const loop = loopOf(model, element.id);
      if (act.does === "begin" && isActivity(element.type) && !loop) return act;
      if (act.does === "finish" && isUnseenInside(element) && !loop) return act;
    }
  }
  return undefined;
}

/** Whether passing a node does nothing elsewhere: it throws nothing and ends nothing. */
const isPlain = (model: Model, { id, type }: Element): boolean =>
  type.endsWith("Gateway") ? type !== "eventBasedGateway" : isEvent(type) && eventDefinitionsOf(model, id).length === 0;

/** Whether a step of an ad-hoc sub-process is under way already: once more of it, before that is done, shows nothing new. */
function isPicked(play: Play, { at, node, move }: Act): boolean {
  const place = play.placeAt(at);
  if (!place) return true;
  const { nodeAt, net } = place.scope;
  const isActive = place.state[net.flows.length + (nodeAt.get(node) ?? 0)] !== 0;
  return isActive || move.give.some((flow) => place.state[flow] !== 0);
}

/** What is over as soon as nothing is left to do inside; an ad-hoc one may be over before anything was done in it, and need not. */
const isUnseenInside = ({ type }: Element): boolean => type === "subProcess" || type === "transaction";

/** Whether a log shows an element: a task, or a call. */
export const isShownStep = ({ type }: { readonly type: string }): boolean =>
  type === "task" || type.endsWith("Task") || type === "callActivity";

/** Whether a log shows an act: that a task or a call was done. */
const isShown = (element: Element, { does }: Act): boolean =>
  isShownStep(element) && (does === "pass" || does === "finish" || does === "again");

/** A step without an inside that is done several times, as often as is not said. */
function isRepeatedStep(world: World, model: Model, element: Element): boolean {
  const loop = isActivity(element.type) ? loopOf(model, element.id) : undefined;
  if (!loop || insideOf(world, model, element)) return false;
  return loop.type !== "multiInstanceLoopCharacteristics" || !/^\d+$/.test(textOf(loop.loopCardinality));
}

const textOf = (held: unknown): string => ((held as { readonly text?: string } | undefined)?.text ?? "").trim();

/** How often a loop without a number went round is no part of a state: keys of what is inside count it. */
function withoutRounds(scope: CaseScope): CaseScope {
  return renamed(scope, scope.key);
}

function renamed(scope: CaseScope, key: string): CaseScope {
  return {
    ...scope,
    key,
    finished: [...new Set(scope.finished)],
    underWay: scope.underWay.map(([node, { times, finished, scopes }]) => [
      node,
      {
        ...(times !== undefined && { times }),
        finished: times === undefined ? Math.min(finished, 1) : finished,
        scopes: scopes.map((inner, at) => {
          const said = inner.key.slice(inner.key.lastIndexOf("/") + 1);
          const [place = "", number = ""] = said.split(":");
          return renamed(inner, `${key}/${place}:${times === undefined ? at : number}`);
        }),
      },
    ]),
  };
}
