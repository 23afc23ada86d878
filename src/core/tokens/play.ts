import type { Element, Id, Model } from "../model";
import { isActivity } from "../model";
import type { Act, Deed } from "./acts";
import type { Case, CaseScope } from "./case";
import { type Compiled, compiledScope } from "./compiled";
import { actOf, type Happened, knownActsAt, movesOfPlace, noActs, Place, type UnderWay } from "./place";
import type { NetNode } from "./scopeNet";
import { type Move, moveOf } from "./scopeState";
import type { SparePlaces } from "./sparePlaces";
import { throwFrom } from "./throwing";
import type { World } from "./world";

/**
 * A case being played. `step` moves its tokens in place and looks again only at the nodes that may do something else afterwards, so that
 * a step costs what it changes; `saved` gives the case as plain data.
 * Execution semantics: BPMN 2.0, chapter 13.
 */
export class Play {
  readonly pools: Place[] = [];
  /** Messages on their way, by their flows. */
  #sent: Map<Id, number> | undefined;
  /** What is under way inside of something, by its key. */
  #inner: Map<string, Place> | undefined;
  #places: Place[] | undefined;

  /** Scopes that are closed, until the case is over. */
  readonly #closed: Place[] = [];
  /** The node that `changed` told of. */
  changedNode = -1;
  /** Where a token came to a node, and what it can do is known already; it is told of by `changed` all the same. */
  #cameIn: Place | undefined;
  #cameTo = -1;
  /** Whether a scope was opened whose steps are picked. */
  hasAdHoc = false;

  constructor(
    readonly world: World,
    readonly spare?: SparePlaces,
  ) {}

  /** A case of a process at its beginning. `spare`: where its scopes come from, and go to when it is left. */
  static begin(world: World, process: Id, start?: Id, spare?: SparePlaces): Play {
    const play = new Play(world, spare);
    play.pools.push(play.open(world.model, process, "0", start));
    return play;
  }

  /**
   * A case that was saved, to be gone on with.
   * @throws RangeError where it stands somewhere that the model does not have
   */
  static load(world: World, saved: Case): Play {
    const play = new Play(world);
    for (const pool of saved.pools) play.pools.push(play.#loaded(pool, world.model, undefined, -1));
    for (const [flow, count] of saved.sent) play.#sentNow().set(flow, count);
    return play;
  }

  #loaded(saved: CaseScope, model: Model, outer: Place | undefined, node: number): Place {
    const scope = compiledScope(this.world, model, saved.scope);
    const place = new Place(saved.key, scope, outer, node);
    this.#known(place);
    const missing = (what: string): never => {
      throw new RangeError(`This case stands at ${what}, which its process does not have.`);
    };
    const nodeAt = (id: Id) => scope.nodeAt.get(id) ?? missing(id);
    for (const [on, count] of saved.tokens) place.put(scope.flowAt.get(on) ?? missing(on), count);
    for (const id of saved.active) place.setActive(nodeAt(id), true);
    for (const [id, what] of saved.fired) place.setFired(nodeAt(id), what);
    place.finished.push(...saved.finished);
    for (const [id, { times, finished, scopes }] of saved.underWay) {
      const at = nodeAt(id);
      const inside = scope.insides[at];
      const places = scopes.map((inner) => this.#loaded(inner, inside?.model ?? model, place, at));
      place.underWay.set(at, { times, finished, places });
    }
    return place;
  }

  /** Where it stands, as plain data. O(what is under way). */
  saved(): Case {
    return { pools: this.pools.map((pool) => savedScope(pool)), sent: [...this.sent] };
  }

  /** A scope with the tokens it begins with. An ad-hoc one begins with none: what is done in it is picked. */
  open(model: Model, id: Id, key: string, start?: Id, outer?: Place, node = -1): Place {
    const scope = compiledScope(this.world, model, id);
    const place = this.spare ? this.spare.take(scope, key, outer, node) : new Place(key, scope, outer, node);
    this.#known(place);
    const { net } = scope;
    if (scope.isAdHoc) this.hasAdHoc = true;
    const at =
      start === undefined
        ? 0
        : net.entries.findIndex(([flow]) => net.nodes[net.flows[flow as number]?.to ?? -1]?.id === start);
    if (!scope.isAdHoc) for (const flow of net.entries[Math.max(0, at)] ?? []) place.put(flow, 1);
    return place;
  }

  #known(place: Place): void {
    this.#places = undefined;
    if (!place.outer) return;
    this.#inner ??= new Map();
    this.#inner.set(place.key, place);
  }

  #close(place: Place): void {
    this.#inner?.delete(place.key);
    place.isOpen = false;
    this.#places = undefined;
    if (this.#cameIn === place) this.#cameIn = undefined;
    if (this.spare) this.#closed.push(place);
    for (const { places } of place.underWay.values()) for (const inner of places) this.#close(inner);
  }

  /** Nobody goes on with this case, nor looks at it: its scopes may be used again. */
  leave(): void {
    if (!this.spare) return;
    for (const place of this.places()) this.spare.give(place);
    for (const place of this.#closed) this.spare.give(place);
    this.#closed.length = 0;
  }

  /** What is under way at a node ends, with all that is inside. */
  end(place: Place, node: number): void {
    for (const inner of place.underWay.get(node)?.places ?? []) this.#close(inner);
    place.underWay.delete(node);
    place.look(node);
  }

  /** Another process of the model begins in the same case. */
  enter(process: Id, start?: Id): void {
    this.pools.push(this.open(this.world.model, process, String(this.pools.length), start));
  }

  /** Messages that would have begun a process which is under way, and were heard by nobody. */
  unheard = 0;

  /** Errors that nothing caught, by the scope and the event they were thrown in. */
  readonly uncaught: { readonly at: string; readonly node: Id }[] = [];

  /** How much is under way, in flows and nodes. */
  size(): number {
    return this.places().reduce((sum, { state }) => sum + state.length, 0);
  }

  /**
   * A key for tables of states: what can still happen is the same where it is. Pools that are over, and how often a loop without a number
   * went round, are no part of it.
   */
  key(): string {
    let key = "";
    for (const place of this.places()) {
      if (place.busy === 0 && !place.outer) continue;
      key += `${place.outer ? place.key : place.scope.net.scope}\u0000`;
      for (const count of place.state) key += String.fromCharCode(count & 0xffff);
      for (const [node, { times, finished }] of place.underWay)
        if (times !== undefined) key += `${node}:${finished}/${times} `;
      key += "\u0001";
    }
    return `${key}${[...this.sent].sort().join("\u0002")}`;
  }

  get sent(): ReadonlyMap<Id, number> {
    return this.#sent ?? noneSent;
  }

  #sentNow(): Map<Id, number> {
    this.#sent ??= new Map();
    return this.#sent;
  }

  placeAt(key: string): Place | undefined {
    for (const pool of this.pools) if (pool.key === key) return pool;
    return this.#inner?.get(key);
  }

  /** Every scope under way, outer ones first. */
  places(): readonly Place[] {
    if (!this.#inner || this.#inner.size === 0) return this.pools;
    if (!this.#places) {
      this.#places = [];
      withInner(this.pools, this.#places);
    }
    return this.#places;
  }

  isOver(): boolean {
    for (const pool of this.pools) if (pool.busy > 0) return false;
    return true;
  }

  /** Everything that can happen next, outer scopes first, in the order of the file. O(nodes of the scopes under way). */
  acts(): Act[] {
    return this.places().flatMap((place) => {
      this.#refresh(place);
      const acts = place.ready.length === 0 ? [] : place.acts.flat();
      return place.scope.isAdHoc ? [...acts, ...this.#picks(place)] : acts;
    });
  }

  /** The nodes that can do something, by scope and node. */
  *readyNodes(): Iterable<string> {
    for (const place of this.places()) {
      this.#refresh(place);
      for (const node of place.ready) yield `${place.key} ${place.scope.net.nodes[node]?.id}`;
      if (place.scope.isAdHoc) for (const act of this.#picks(place)) yield `${act.at} ${act.node}`;
    }
  }

  /** What can happen next at one node of one scope that can do something, chosen by a number from 0 to below 1; undefined where nothing can. */
  someActs(random: number): readonly Act[] | undefined {
    const places = this.places();
    let count = 0;
    for (const place of places) {
      if (place.scope.isAdHoc) {
        const all = this.acts();
        return all.length === 0 ? undefined : [all[Math.floor(random * all.length)] as Act];
      }
      this.#refresh(place);
      count += place.ready.length;
    }
    let chosen = Math.floor(random * count);
    for (const { ready, acts } of places) {
      if (chosen < ready.length) return acts[ready[chosen] as number];
      chosen -= ready.length;
    }
    return undefined;
  }

  /**
   * The place of a node at which something else may be possible than when this was asked last; which is in `changedNode`. Each is told
   * once, in no order, until nothing is left to tell. What is possible there is then in `place.acts`. For whoever lets time pass between
   * what happens. O(1).
   */
  changed(): Place | undefined {
    const place = this.#cameIn;
    if (place) {
      this.#cameIn = undefined;
      // One that is to be looked at again is told of then.
      if (place.isDirty[this.#cameTo] === 0) {
        this.changedNode = this.#cameTo;
        return place;
      }
    }
    for (const place of this.places()) {
      const node = place.dirty.pop();
      if (node === undefined) continue;
      this.#refreshNode(place, node);
      this.changedNode = node;
      return place;
    }
    return undefined;
  }

  /** What can happen now at one node; whoever is told of changes is told of this one all the same. */
  actsAt(place: Place, node: number): readonly Act[] {
    this.#refreshNode(place, node);
    return place.acts[node] as readonly Act[];
  }

  #refresh(place: Place): void {
    for (let node = place.dirty.pop(); node !== undefined; node = place.dirty.pop()) this.#refreshNode(place, node);
  }

  #refreshNode(place: Place, node: number): void {
    place.isDirty[node] = 0;
    this.#know(place, node, this.#actsAt(place, node));
  }

  #know(place: Place, node: number, acts: readonly Act[]): void {
    const { ready, readyAt } = place;
    place.acts[node] = acts;
    const at = readyAt[node] as number;
    if (acts.length > 0 && at < 0) {
      readyAt[node] = ready.length;
      ready.push(node);
    } else if (acts.length === 0 && at >= 0) {
      const last = ready.pop() as number;
      if (last !== node) {
        ready[at] = last;
        readyAt[last] = at;
      }
      readyAt[node] = -1;
    }
  }

  /** The steps of an ad-hoc sub-process that may be picked now. */
  picks(place: Place): readonly Act[] {
    return this.#picks(place);
  }

  #actsAt(place: Place, at: number): readonly Act[] {
    const fixed = knownActsAt(place, at);
    if (fixed) return fixed;
    const { scope } = place;
    const { kind } = scope.net.nodes[at] as NetNode;
    const moves = movesOfPlace(place, at);
    if (moves.length === 0) return noActs;
    const element = scope.elements[at] as Element;
    const isOpen = (scope.expects[at] as readonly Id[]).length === 0 || this.#mayReceive(scope, at);
    const isRace = element.type === "eventBasedGateway";
    const acts: Act[] = [];
    for (const move of moves) {
      // What waits for a message comes under way, so that an event at its edge can end the wait; it does not end without the message.
      if (!isOpen && move.start === undefined) continue;
      if (isRace) {
        const target = scope.to[move.give[0] ?? -1];
        if (target !== undefined && !this.#mayReceive(scope, target)) continue;
      }
      if (kind === "called") {
        if (move.stop === at) this.#finishing(place, move, acts);
        else acts.push(actOf(place, move, "fire"));
      } else if (move.start !== undefined) acts.push(actOf(place, move, "begin"));
      else if (move.stop !== undefined) this.#finishing(place, move, acts);
      else acts.push(actOf(place, move, "pass"));
    }
    return acts;
  }

  #mayReceive({ elements, expects }: Compiled, node: number): boolean {
    const flows = expects[node] as readonly Id[];
    return flows.length === 0 || elements[node]?.type === "startEvent" || flows.some((flow) => this.sent.has(flow));
  }

  /** What is under way ends when its inside is over, and not before its rounds are done. */
  #finishing(place: Place, move: Move, acts: Act[]): void {
    const { scope, underWay } = place;
    const { node } = move;
    const one = underWay.get(node);
    if (one?.places.some((inner) => inner.busy > 0)) return;
    const loop = scope.loops[node];
    const finish = () => acts.push(actOf(place, move, "finish"));
    if (!one || !loop) return void finish();
    const allAtOnce =
      scope.insides[node] !== undefined &&
      loop.type === "multiInstanceLoopCharacteristics" &&
      loop.isSequential !== true;
    if (allAtOnce) return void finish();
    const done = one.finished + 1;
    if (one.times !== undefined) {
      acts.push(actOf(place, move, done < one.times ? "again" : "finish"));
      return;
    }
    const most = typeof loop.loopMaximum === "number" ? loop.loopMaximum : Number.POSITIVE_INFINITY;
    finish();
    if (done < most) acts.push(actOf(place, move, "again"));
  }

  /** In an ad-hoc sub-process any step may be next that nothing leads to, in a sequential one when no other is under way. */
  #picks(place: Place): Act[] {
    const { net, model } = place.scope;
    if (model.elements.get(net.scope)?.ordering === "Sequential" && place.busy > 0) return [];
    return net.entries.flat().map((flow) => {
      const node = net.flows[flow]?.to ?? -1;
      return actOf(place, moveOf(node, [], [flow]), "pick");
    });
  }

  /**
   * Does one act, with what follows at once: an error caught, a signal heard, a message sent.
   * @param times for an activity with several instances: how many
   * @throws RangeError for an act of a scope that is not under way
   * O(what it changes), with joins that look around O(their scope).
   */
  step(act: Act, times?: number): Happened[] {
    const place = this.placeAt(act.at);
    if (!place) throw new RangeError(`There is no scope "${act.at}" under way in this case.`);
    const { does } = act;
    const happened: Happened[] =
      does === "pick"
        ? []
        : [{ at: act.at, node: act.node, event: does === "finish" ? "left" : "entered", flows: act.flows }];
    this.#do(place, act, times, happened);
    return happened;
  }

  /**
   * The same for whoever lets time pass and asks only how much else happened by it: an act of a scope that is under way. A node that has
   * acted and has no token left is not told of by `changed`.
   */
  run(place: Place, act: Act, times?: number): number {
    const { move } = act;
    if (move.goesOn && act.does === "pass" && place.scope.isPlain[move.node] === 1) {
      this.#goOn(place, move);
      return 0;
    }
    if (others.length > 0) others.length = 0;
    this.#do(place, act, times, others);
    return others.length;
  }

  #do(place: Place, { does, move }: Act, times: number | undefined, happened: Happened[]): void {
    if (does === "pick") return this.moveIn(place, move);
    if (does === "again") return this.#oneMore(place, move.node);
    this.moved(place, move, times);
    const element = place.scope.elements[move.node] as Element;
    this.#receive(place.scope, move.node, element, does);
    if (does !== "begin") throwFrom(this, place, move.node, element, happened);
  }

  /** As `moveIn` for the move that most are: as many tokens as before, in the same scope. */
  #goOn(place: Place, { node, take, give }: Move): void {
    const { state, scope } = place;
    const from = take[0] as number;
    const to = give[0] as number;
    const left = (state[from] as number) - 1;
    state[from] = left;
    state[to] = (state[to] as number) + 1;
    place.watched += (scope.isWatched[to] as number) - (scope.isWatched[from] as number);
    if (left === 0 && (scope.net.nodes[node] as NetNode).ins.length === 1) this.#know(place, node, noActs);
    else place.look(node);
    this.#come(place, to, scope.to[to] as number);
    place.lookAround();
  }

  /** A token came along a flow to a node, where nothing else changed. */
  #come(place: Place, flow: number, node: number): void {
    const acts = place.known.passing[flow];
    const isToldFirst = place.scope.isFree[node] === 1 && place.isDirty[node] === 0 && !this.#cameIn;
    // As most come: to a node before which no other token stands.
    if (acts && isToldFirst && place.tokensBefore(node) === 1) {
      this.#know(place, node, acts);
      this.#cameIn = place;
      this.#cameTo = node;
    } else place.look(node);
  }

  /** Tokens of a scope after a move of its net. */
  moveIn(place: Place, move: Move): void {
    for (const flow of move.take) place.put(flow, -1);
    if (move.clears) place.clear();
    if (move.stop !== undefined) {
      place.setActive(move.stop, false);
      // Its next activation is another one, in which its events may go off again.
      for (const edge of place.scope.edges[move.stop] as readonly number[]) place.setFired(edge, 0);
    }
    if (move.start !== undefined) place.setActive(move.start, true);
    if (move.had !== undefined) place.setFired(move.node, move.had);
    if (move.fire !== undefined) place.setFired(move.fire, 1);
    for (const flow of move.give) place.put(flow, 1);
    place.lookAround();
  }

  /** The same, and what comes under way is opened, what stops is closed. */
  moved(place: Place, move: Move, times?: number): void {
    const { scope } = place;
    if (move.clears) this.endAll(place);
    if (move.stop !== undefined) this.end(place, move.stop);
    this.moveIn(place, move);
    const element = scope.elements[move.node] as Element;
    if (move.start !== undefined) this.#opening(place, move.start, times);
    else if (
      scope.undoable[move.node] === 1 &&
      isActivity(element.type) &&
      scope.net.nodes[move.node]?.kind !== "called"
    )
      place.finished.push(element.id);
  }

  endAll(place: Place): void {
    for (const node of [...place.underWay.keys()]) this.end(place, node);
  }

  #opening(place: Place, node: number, wanted: number | undefined): void {
    const { loops, insides } = place.scope;
    const loop = loops[node];
    const inside = insides[node];
    if (!loop && !inside) return;
    const isMulti = loop?.type === "multiInstanceLoopCharacteristics";
    const times = !loop ? 1 : isMulti ? Math.max(1, wanted ?? cardinalityOf(loop) ?? 1) : wanted;
    const atOnce = isMulti && loop.isSequential !== true ? (times ?? 1) : 1;
    const one: UnderWay = { times, finished: 0, places: [] };
    place.underWay.set(node, one);
    this.#places = undefined;
    if (inside)
      for (let number = 0; number < atOnce; number++)
        one.places.push(
          this.open(inside.model, inside.scope, `${place.key}/${node}:${number}`, undefined, place, node),
        );
    place.look(node);
  }

  /** The next round of a repeated activity. */
  #oneMore(place: Place, node: number): void {
    const one = place.underWay.get(node) as UnderWay;
    const inside = place.scope.insides[node];
    for (const inner of one.places) this.#close(inner);
    one.finished++;
    one.places = inside
      ? [this.open(inside.model, inside.scope, `${place.key}/${node}:${one.finished}`, undefined, place, node)]
      : [];
    place.look(node);
  }

  /** A message that came is used up where it is received. */
  #receive({ expects }: Compiled, node: number, element: Element, does: Deed): void {
    const flows = expects[node] as readonly Id[];
    if (flows.length === 0) return;
    if (does === "finish" && element.type !== "receiveTask") return;
    if (does === "begin" && element.type === "receiveTask") return;
    const flow = flows.find((one) => this.sent.has(one));
    if (flow !== undefined) this.send(flow, -1);
  }

  /** A message is on its way, or was taken. */
  send(flow: Id, change: number): void {
    const sent = this.#sentNow();
    const count = (sent.get(flow) ?? 0) + change;
    if (count > 0) sent.set(flow, count);
    else sent.delete(flow);
    for (const place of this.places()) for (const node of place.scope.expecting) place.look(node);
  }
}

const noneSent: ReadonlyMap<Id, number> = new Map();

function withInner(places: readonly Place[], found: Place[]): void {
  for (const place of places) {
    found.push(place);
    for (const { places: inner } of place.underWay.values()) withInner(inner, found);
  }
}

/** What else happened by an act, where it is only counted. */
const others: Happened[] = [];

/** How many instances a model itself says there are, where it says a number. */
export function cardinalityOf(loop: Element): number | undefined {
  const text = (loop.loopCardinality as { readonly text: string } | undefined)?.text.trim() ?? "";
  return /^\d{1,3}$/.test(text) ? Number(text) : undefined;
}

function savedScope({ key, scope, state, underWay, finished }: Place): CaseScope {
  const { flows, nodes } = scope.net;
  const numbers = (from: number, names: (at: number) => string, count: number): [string, number][] => {
    const found: [string, number][] = [];
    for (let at = 0; at < count; at++) if (state[from + at] !== 0) found.push([names(at), state[from + at] as number]);
    return found;
  };
  const nodeId = (at: number) => nodes[at]?.id as Id;
  return {
    key,
    scope: scope.net.scope,
    tokens: numbers(0, (at) => scope.flowKeys[at] as string, flows.length),
    active: numbers(flows.length, nodeId, nodes.length).map(([id]) => id),
    fired: numbers(flows.length + nodes.length, nodeId, nodes.length),
    finished: [...finished],
    underWay: [...underWay].map(([node, { times, finished: done, places }]) => [
      nodeId(node),
      { ...(times !== undefined && { times }), finished: done, scopes: places.map(savedScope) },
    ]),
  };
}
