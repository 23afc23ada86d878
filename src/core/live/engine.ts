import type { CaseData } from "../feel";
import { holds } from "../feel";
import { type Element, type Id, isActivity, type Model } from "../model";
import { type Act, decidedAt, failWith, type Happened, loopOf, type Place, Play, type World } from "../tokens";
import type { Choosing } from "./choosing";
import { itemName, outputList } from "./collections";
import {
  conditionOf,
  courseOf,
  eventOf,
  interrupts,
  nameOfAwaited,
  processOfScope,
  signalOf,
  triggerKind,
} from "./courses";
import { dataIn, merged } from "./dataInScope";
import type { CaseState, LiveCase, LiveEvent, Wait, WaitKind } from "./liveCase";
import { nextRound, timerSet } from "./timers";

/** A case with more steps than this is stopped. */
export const mostSteps = 10_000;

export interface Running {
  readonly world: World;
  readonly choosing: Choosing;
  /** Whose clock dates without a zone are read on. */
  readonly zone: string;
  /** Milliseconds since 1970. */
  readonly now: number;
}

/**
 * A case that is run: what happens by itself happens at once, and what takes somebody, something or some time is waited for. All of it on
 * the tokens of `core/tokens`; what is waited for, and the data, stand beside them. `saved` gives it as plain data.
 * Execution semantics: BPMN 2.0, chapter 13.
 */
export class Engine {
  readonly events: LiveEvent[] = [];
  /** Elements that were waited at since it was opened, whether or not they came to anything. */
  readonly reached = new Set<Id>();
  readonly #waits = new Map<number, Wait>();
  readonly #happened: Set<string>;
  readonly #own: Map<string, CaseData>;
  #data: CaseData;
  #next: number;
  #steps: number;
  #state: CaseState;
  #failure: LiveCase["failure"];

  private constructor(
    private running: Running,
    readonly play: Play,
    readonly process: Id,
    from: Omit<LiveCase, "tokens" | "process">,
  ) {
    for (const wait of from.waits) this.#waits.set(wait.id, { ...wait });
    this.#happened = new Set(from.happened);
    this.#own = new Map(Object.entries(from.own));
    this.#data = from.data;
    this.#next = from.next;
    this.#steps = from.steps;
    this.#state = from.state;
    this.#failure = from.failure;
  }

  /**
   * A new case, up to what it waits for first.
   * @param start the start event it begins with; the first of the process where none is named
   * @param also processes of other pools that begin with it
   */
  static begin(running: Running, process: Id, data: CaseData, start?: Id, also: readonly Id[] = []): Engine {
    const play = Play.begin(running.world, process, start);
    for (const other of also) play.enter(other);
    const engine = new Engine(running, play, process, {
      data,
      own: {},
      waits: [],
      happened: [],
      next: 1,
      steps: 0,
      state: "open",
    });
    engine.#settle();
    return engine;
  }

  /**
   * A case that was saved, to be gone on with.
   * @throws RangeError where it stands somewhere that the model does not have
   */
  static load(running: Running, saved: LiveCase): Engine {
    return new Engine(running, Play.load(running.world, saved.tokens), saved.process, saved);
  }

  saved(): LiveCase {
    return {
      process: this.process,
      tokens: this.play.saved(),
      data: this.#data,
      own: Object.fromEntries(this.#own),
      waits: [...this.#waits.values()],
      happened: [...this.#happened],
      next: this.#next,
      steps: this.#steps,
      state: this.#state,
      ...(this.#failure && { failure: this.#failure }),
    };
  }

  /** The time it is; only whoever runs it lets it pass. */
  get now(): number {
    return this.running.now;
  }
  set now(moment: number) {
    this.running = { ...this.running, now: moment };
  }

  /** The nodes that tokens stand before, or that are under way. */
  standingAt(): Id[] {
    return this.play
      .places()
      .flatMap((place) => place.waiting().flatMap((node) => place.scope.net.nodes[node]?.id ?? []));
  }

  get state(): CaseState {
    return this.#state;
  }
  get data(): CaseData {
    return this.#data;
  }
  get waits(): Iterable<Wait> {
    return this.#waits.values();
  }
  wait(id: number): Wait | undefined {
    return this.#waits.get(id);
  }

  /** The element that is waited for: of a race the event. */
  elementOf(wait: Wait): { readonly element: Element; readonly model: Model } | undefined {
    const place = this.play.placeAt(wait.at);
    const element = place?.scope.model.elements.get(wait.event ?? wait.node);
    return place && element ? { element, model: place.scope.model } : undefined;
  }

  /** The data that is seen where something is waited for. */
  dataAt(wait: Wait): CaseData {
    return dataIn(this.#data, this.#own, this.play.placeAt(wait.at), wait.own);
  }

  /** Somebody begins a piece of work. */
  beginWork(id: number): void {
    const wait = this.#waits.get(id);
    if (!wait || wait.begun !== undefined) return;
    wait.begun = this.running.now;
    this.#tell("start", wait);
  }

  /** A piece of work that was begun is given back. */
  giveBack(id: number): void {
    const wait = this.#waits.get(id);
    if (wait) delete wait.begun;
  }

  /** Values become data of the case, or of the instance that has them. */
  setData(values: CaseData): void {
    this.#data = merged(this.#data, values);
    this.#settle();
  }

  /**
   * A piece of work is done, or a service has answered: its values become data, and the case goes on.
   * @throws RangeError where nothing of that number is waited for
   */
  complete(id: number, values: CaseData = {}): void {
    const wait = this.#needed(id);
    const place = this.#placeOf(wait);
    const node = this.#nodeOf(place, wait);
    const element = place.scope.elements[node] as Element;
    this.#take(wait, place, element, values);
    const decided = decidedAt(this.running.world, element, this.dataAt(wait));
    if (decided) this.#data = { ...this.#data, [decided.by.result]: decided.data[decided.by.result] };
    if (wait.begun === undefined) this.beginWork(id);
    this.#waits.delete(id);
    this.#tell("complete", wait);
    this.#finishWork(place, node, wait.own);
    this.#settle();
  }

  /** What was awaited has come: a time, a message with its data, or whatever a person says has happened. */
  happen(id: number, values: CaseData = {}): void {
    const wait = this.#needed(id);
    if (wait.kind === "work" || wait.kind === "service") {
      this.complete(id, values);
      return;
    }
    if (Object.keys(values).length > 0) this.#data = merged(this.#data, values);
    this.#waits.delete(id);
    this.#goOff(wait);
    this.#settle();
  }

  /**
   * A service or a step fails with an error that the model may catch.
   * @returns whether it was caught; where it was not, nothing has changed
   */
  fail(id: number, code: string): boolean {
    const wait = this.#needed(id);
    const place = this.#placeOf(wait);
    const happened: Happened[] = [];
    if (!failWith(this.play, place, this.#nodeOf(place, wait), code, happened)) return false;
    this.#steps++;
    this.#noteAll(happened, new Map());
    this.#clean();
    this.#settle();
    return true;
  }

  /** Something cannot go on: it is an incident from now on, or once more. */
  incident(id: number, reason: string): void {
    const wait = this.#needed(id);
    const isWork = wait.kind === "work" || wait.kind === "service";
    this.#waits.set(id, { ...wait, kind: "incident", reason, times: (wait.times ?? 0) + 1, ...(isWork && { isWork }) });
    this.#tell("incident", wait, reason);
  }

  /** An incident is tried again: it waits for what it waited for before; a gateway looks at its conditions anew. */
  retry(id: number): void {
    const wait = this.#needed(id);
    if (wait.kind !== "incident") return;
    const place = this.#placeOf(wait);
    const node = this.#nodeOf(place, wait);
    const element = place.scope.elements[node] as Element;
    if (courseOf(this.running.world, place.scope, node) === "work" && wait.isWork) {
      // The work itself stays what it was: only who does it failed.
      const { reason: _, ...rest } = wait;
      this.#waits.set(id, { ...rest, kind: isByMachine(element) ? "service" : "work", since: this.running.now });
      return;
    }
    this.#waits.delete(id);
    place.look(node);
    this.#retried.set(`${wait.at} ${wait.node}`, wait.times ?? 1);
    this.#settle();
    this.#retried.clear();
  }
  readonly #retried = new Map<string, number>();

  /** A gateway at an incident is led along some of its ways by hand. */
  lead(id: number, flows: readonly Id[]): void {
    const wait = this.#needed(id);
    const place = this.#placeOf(wait);
    const node = this.#nodeOf(place, wait);
    const act = this.play
      .actsAt(place, node)
      .find((one) => one.flows.length === flows.length && flows.every((flow) => one.flows.includes(flow)));
    if (!act) throw new RangeError("No token can go along these ways from here.");
    this.#waits.delete(id);
    this.#step(place, node, act);
    this.#settle();
  }

  /** The token of a piece of work goes to another node of the same scope, as if it had just come there. */
  move(id: number, to: Id): void {
    const wait = this.#needed(id);
    const place = this.#placeOf(wait);
    const flow = this.#wayInto(place, to);
    if (flow === undefined) throw new RangeError("No token of this scope can come there.");
    const node = this.#nodeOf(place, wait);
    this.#abort(wait);
    if (place.scope.net.nodes[node]?.kind === "held") {
      this.play.end(place, node);
      place.setActive(node, false);
    } else {
      const from = place.scope.net.nodes[node]?.ins.find((one) => place.state[one] !== 0);
      if (from !== undefined) place.put(from, -1);
    }
    place.put(flow, 1);
    this.#clean();
    this.#settle();
  }

  /** Whether a token can be put before a node of a wait's scope by hand. */
  canMove(id: number, to: Id): boolean {
    const wait = this.#waits.get(id);
    const place = wait && this.play.placeAt(wait.at);
    return place !== undefined && this.#wayInto(place, to) !== undefined;
  }

  cancel(): void {
    for (const wait of [...this.#waits.values()]) this.#abort(wait);
    this.#state = "cancelled";
  }

  /** Goes on with whatever can go on; after time or data have changed elsewhere. */
  settle(): void {
    this.#settle();
  }

  #wayInto(place: Place, to: Id): number | undefined {
    const at = place.scope.nodeAt.get(to);
    return at === undefined ? undefined : place.scope.net.nodes[at]?.ins[0];
  }

  #needed(id: number): Wait {
    const wait = this.#waits.get(id);
    if (!wait) throw new RangeError(`Nothing of the number ${id} is waited for in this case.`);
    return wait;
  }
  #placeOf(wait: Wait): Place {
    const place = this.play.placeAt(wait.at);
    if (!place) throw new RangeError(`There is no scope “${wait.at}” under way in this case.`);
    return place;
  }
  #nodeOf = (place: Place, wait: Wait): number => place.scope.nodeAt.get(wait.node) ?? -1;

  #tell(kind: LiveEvent["kind"], wait: Wait, reason?: string): void {
    const place = this.play.placeAt(wait.at);
    this.#note(kind, place, wait.event ?? wait.node, {
      wait: wait.id,
      ...(wait.instance !== undefined && { instance: wait.instance }),
      ...(reason !== undefined && { reason }),
    });
  }

  #note(kind: LiveEvent["kind"], place: Place | undefined, element: Id, more: Partial<LiveEvent> = {}): void {
    const process = place && processOfScope(place.scope.model, place.scope.net.scope);
    this.events.push({
      kind,
      at: this.running.now,
      element,
      ...(process !== undefined && { process }),
      ...(place && { scope: place.key }),
      ...more,
    });
  }

  /** Values that come with what is done: of an instance its own, or gathered in the list of all. */
  #take(wait: Wait, place: Place, element: Element, values: CaseData): void {
    if (Object.keys(values).length === 0) return;
    const { model } = place.scope;
    const loop = loopOf(model, element.id);
    const output = loop && itemName(model, loop, "outputDataItem");
    const list = loop && outputList(model, loop);
    let rest = values;
    if (wait.instance !== undefined && output !== undefined && list !== undefined && output in values) {
      const { [output]: given, ...others } = values;
      const known = this.#data[list];
      const gathered = Array.isArray(known) ? [...known] : [];
      gathered[wait.instance] = given;
      this.#data = { ...this.#data, [list]: Array.from(gathered, (one) => one ?? null) };
      rest = others;
    }
    // What an instance around has of its own is changed there, the rest in the case.
    let toCase = rest;
    for (let here: Place | undefined = place; here; here = here.outer) {
      const held = this.#own.get(here.key);
      if (!held) continue;
      const mine = Object.fromEntries(Object.entries(toCase).filter(([name]) => name in held));
      if (Object.keys(mine).length === 0) continue;
      this.#own.set(here.key, merged(held, mine));
      toCase = Object.fromEntries(Object.entries(toCase).filter(([name]) => !(name in held)));
    }
    this.#data = merged(this.#data, toCase);
  }

  /** Lets happen what happens at once, until everything waits for something. */
  #settle(): void {
    if (this.#state !== "open") return;
    for (;;) {
      const place = this.play.changed();
      if (!place) {
        if (this.#pick() || this.#conditions()) continue;
        break;
      }
      this.#look(place, this.play.changedNode);
      if (this.#state !== "open") return;
      if (this.play.uncaught.length > 0) {
        this.#failed();
        return;
      }
      if (this.#steps > mostSteps) {
        this.#state = "stopped";
        this.events.push({ kind: "stopped", at: this.running.now });
        return;
      }
    }
    this.#clean();
    if (!this.play.isOver()) return;
    this.#state = "completed";
    this.#waits.clear();
    this.events.push({ kind: "completed", at: this.running.now });
  }

  #failed(): void {
    const [thrown] = this.play.uncaught;
    const element = thrown?.node ?? "";
    for (const wait of [...this.#waits.values()]) this.#abort(wait);
    this.#state = "failed";
    this.#failure = { element, error: element };
    this.events.push({ kind: "failed", at: this.running.now, element });
  }

  /** Steps of an ad-hoc sub-process that nothing leads to: each once, one after the other or all at once, as it says. */
  #pick(): boolean {
    for (const place of this.play.places()) {
      if (!place.scope.isAdHoc) continue;
      const done = this.#picked(place);
      const all = this.play.picks(place);
      const act = all.find((one) => !done.has(one.node));
      if (!act) continue;
      this.#happened.add(`${place.key} picked ${act.node}`);
      this.#steps++;
      this.play.step(act);
      return true;
    }
    return false;
  }
  #picked(place: Place): Set<Id> {
    const prefix = `${place.key} picked `;
    return new Set([...this.#happened].filter((one) => one.startsWith(prefix)).map((one) => one.slice(prefix.length)));
  }

  /** Conditions that hold by now. */
  #conditions(): boolean {
    for (const wait of this.#waits.values()) {
      if (wait.kind !== "condition") continue;
      const known = this.elementOf(wait);
      if (!known) continue;
      const event = eventOf(known.model, known.element);
      if (holds(conditionOf(known.model, event), this.dataAt(wait)) !== true) continue;
      this.#waits.delete(wait.id);
      this.#goOff(wait);
      return true;
    }
    return false;
  }

  #look(place: Place, node: number): void {
    const acts = place.acts[node] as readonly Act[];
    switch (courseOf(this.running.world, place.scope, node)) {
      case "pass":
        if (acts.length > 0) this.#go(place, node, acts);
        return;
      case "hold":
        this.#hold(place, node, acts);
        return;
      case "edge":
        this.#edge(place, node, acts);
        return;
      case "race":
        this.#race(place, node, acts);
        return;
      case "wait":
        this.#await(place, node, acts);
        return;
      case "work":
        this.#work(place, node, acts);
    }
  }

  /** The one way on, or the chosen one; none is an incident. */
  #go(place: Place, node: number, acts: readonly Act[], own?: CaseData): void {
    const { model } = place.scope;
    const element = place.scope.elements[node] as Element;
    const known = this.#waitsAt(place, node);
    const act = this.running.choosing.way(model, element, acts, dataIn(this.#data, this.#own, place, own));
    if (act) {
      // An incident at a gateway is over; that of somebody's work is not by another's.
      const over = known.filter(({ kind, isWork }) => kind === "incident" && !isWork);
      for (const wait of over) this.#waits.delete(wait.id);
      this.#step(place, node, act, undefined, over.length > 0);
      return;
    }
    if (known.some(({ kind }) => kind === "incident")) return;
    const reason = "no condition holds, and there is no default";
    const before = this.#retried.get(`${place.key} ${element.id}`) ?? 0;
    const wait = this.#set(place, node, "incident", { reason, times: before + 1 });
    // It has come here, though it cannot go on: whoever counts sees it once.
    if (before === 0 && !isActivity(element.type)) this.#note("enter", place, element.id);
    this.#tell("incident", wait, reason);
  }

  /** Does an act; notes who came and who left; takes away what it ended. */
  #step(place: Place, node: number, act: Act, times?: number, isEntered = false): void {
    this.#steps++;
    const places = new Map(this.play.places().map((one) => [one.key, one]));
    const course = courseOf(this.running.world, place.scope, node);
    const isWork = course === "work" || (course === "wait" && isActivity(place.scope.elements[node]?.type ?? ""));
    const happened = this.play.step(act, times);
    if (isWork) {
      // That work began was noted when it did; it is left once a token goes on.
      if (act.does !== "begin" && act.does !== "again") this.#note("leave", place, act.node);
    } else if (act.does === "pass" || act.does === "fire") {
      const isKnown = isEntered || this.#retried.has(`${place.key} ${act.node}`);
      if (!isKnown) this.#note("enter", place, act.node);
      // An event sub-process is left when it is over.
      if (place.scope.elements[node]?.triggeredByEvent !== true) this.#note("leave", place, act.node);
    } else if (act.does === "finish") this.#note("leave", place, act.node);
    this.#noteAll(happened.slice(1), places);
    const signal = place.scope.elements[node];
    if (signal) this.#toRaces(place.scope.model, signal);
    this.#clean();
  }

  /** What followed at once: events that caught what was thrown, work that was undone. */
  #noteAll(happened: readonly Happened[], before: ReadonlyMap<string, Place>): void {
    for (const { at, node, event } of happened) {
      const place = this.play.placeAt(at) ?? before.get(at);
      this.#note("enter", place, node);
      // An event sub-process is left when it is over.
      if (place?.scope.model.elements.get(node)?.triggeredByEvent === true) continue;
      if (event === "undone") {
        this.#note("start", place, node);
        this.#note("complete", place, node);
      }
      this.#note("leave", place, node);
    }
  }

  /** What is waited for in scopes that are gone, or at nodes that no token stands at any more, ends. */
  #clean(): void {
    for (const wait of [...this.#waits.values()]) {
      const place = this.play.placeAt(wait.at);
      const node = place?.scope.nodeAt.get(wait.node) ?? -1;
      if (!place || node < 0) {
        this.#abort(wait);
        continue;
      }
      const isEdge = courseOf(this.running.world, place.scope, node) === "edge";
      if (!isEdge && !this.#isStandingAt(place, node)) this.#abort(wait);
    }
    for (const key of this.#own.keys()) if (!this.play.placeAt(key)) this.#own.delete(key);
    for (const key of this.#happened)
      if (!this.play.placeAt(key.slice(0, key.indexOf(" ")))) this.#happened.delete(key);
  }

  #isStandingAt(place: Place, node: number): boolean {
    const { net } = place.scope;
    if (place.state[net.flows.length + node] !== 0) return true;
    return net.nodes[node]?.ins.some((flow) => place.state[flow] !== 0) ?? false;
  }

  #abort(wait: Wait): void {
    this.#waits.delete(wait.id);
    if (wait.kind === "work" || wait.kind === "service") this.#tell("abort", wait);
  }

  #waitsAt(place: Place, node: number): Wait[] {
    const id = place.scope.net.nodes[node]?.id;
    return [...this.#waits.values()].filter((wait) => wait.at === place.key && wait.node === id);
  }

  #set(place: Place, node: number, kind: WaitKind, more: Partial<Wait> = {}): Wait {
    const wait: Wait = {
      id: this.#next++,
      kind,
      at: place.key,
      node: place.scope.net.nodes[node]?.id as Id,
      since: this.running.now,
      ...more,
    };
    this.#waits.set(wait.id, wait);
    this.reached.add(wait.event ?? wait.node);
    return wait;
  }

  /** How a repeated step begins: how often, and what each instance has; an incident where that cannot be told. */
  #beginAt(place: Place, node: number, act: Act): void {
    const element = place.scope.elements[node] as Element;
    const { model } = place.scope;
    const loop = loopOf(model, element.id);
    const data = dataIn(this.#data, this.#own, place);
    const isMulti = loop?.type === "multiInstanceLoopCharacteristics";
    const isSkipped =
      loop?.type === "standardLoopCharacteristics" &&
      loop.testBefore === true &&
      !this.running.choosing.again(model, element, loop, data, true);
    const instances = isMulti ? this.running.choosing.instances(model, element, loop, data) : undefined;
    if (instances && "problem" in instances) {
      if (this.#waitsAt(place, node).some(({ kind }) => kind === "incident")) return;
      const times = (this.#retried.get(`${place.key} ${element.id}`) ?? 0) + 1;
      const wait = this.#set(place, node, "incident", { reason: instances.problem, times });
      this.#tell("incident", wait, instances.problem);
      return;
    }
    if (isSkipped || instances?.times === 0) {
      this.#skip(place, node, act);
      return;
    }
    this.#step(place, node, act, instances?.times);
    const under = place.underWay.get(node);
    for (const [at, inner] of (under?.places ?? []).entries()) {
      const own = instances?.own(at);
      if (own) this.#own.set(inner.key, own);
    }
    if (courseOf(this.running.world, place.scope, node) === "hold")
      for (let at = 0; at < (under?.places.length ?? 0); at++) this.#enterInside(place, element, at);
  }

  /** A step that is to be done no time is passed by. */
  #skip(place: Place, node: number, act: Act): void {
    this.#steps++;
    this.play.step(act, 1);
    const under = place.underWay.get(node);
    for (const inner of under?.places ?? []) {
      this.play.endAll(inner);
      inner.clear(true);
    }
    this.play.end(place, node);
    const finish = this.play.actsAt(place, node).filter(({ does }) => does === "finish");
    if (finish.length > 0) this.#go(place, node, finish);
  }

  #hold(place: Place, node: number, acts: readonly Act[]): void {
    const [first] = acts;
    if (!first) {
      this.#enoughInside(place, node);
      return;
    }
    if (first.does === "begin") {
      this.#beginAt(place, node, first);
      return;
    }
    const under = place.underWay.get(node);
    const hasPicks = under?.places.some((inner) => inner.scope.isAdHoc && this.#picksLeft(inner));
    if (hasPicks) return;
    this.#finish(place, node, acts);
  }

  /** Of instances at once that have an inside: where enough of them are over, the others end. */
  #enoughInside(place: Place, node: number): void {
    const under = place.underWay.get(node);
    const loop = place.scope.loops[node];
    const enough = (loop?.completionCondition as { readonly text?: string } | undefined)?.text;
    if (!under || !loop || !enough || loop.isSequential === true) return;
    const over = under.places.filter((inner) => inner.busy === 0).length;
    if (over === 0 || over === under.places.length) return;
    const counts = {
      numberOfInstances: under.places.length,
      numberOfCompletedInstances: over,
      numberOfActiveInstances: under.places.length - over,
      numberOfTerminatedInstances: 0,
    };
    if (holds(enough, { ...dataIn(this.#data, this.#own, place), ...counts }) !== true) return;
    for (const inner of under.places) {
      this.play.endAll(inner);
      inner.clear(true);
    }
    this.#clean();
  }

  #picksLeft(place: Place): boolean {
    const done = this.#picked(place);
    const condition = (
      place.scope.model.elements.get(place.scope.net.scope)?.completionCondition as { text?: string } | undefined
    )?.text;
    if (condition && holds(condition, dataIn(this.#data, this.#own, place)) === true) return false;
    return place.scope.net.entries.flat().some((flow) => {
      const target = place.scope.net.nodes[place.scope.net.flows[flow]?.to ?? -1];
      return target !== undefined && !done.has(target.id);
    });
  }

  /** What was under way at a node has ended: another round, an event at its edge, or on. */
  #finish(place: Place, node: number, acts: readonly Act[], own?: CaseData): void {
    const { model } = place.scope;
    const element = place.scope.elements[node] as Element;
    const again = acts.find(({ does }) => does === "again");
    const finishing = acts.filter(({ does }) => does === "finish" || does === "pass");
    const loop = loopOf(model, element.id);
    if (again && loop && this.#goesRound(place, node, loop, finishing.length > 0, own)) {
      const isHeld = courseOf(this.running.world, place.scope, node) === "hold";
      const before = place.underWay.get(node)?.finished ?? 0;
      if (isHeld) this.#leaveInside(place, element, before, 1);
      this.#step(place, node, again);
      if (!isHeld) return;
      const done = place.underWay.get(node)?.finished ?? 0;
      this.#enterInside(place, element, done);
      const instances =
        loop.type === "multiInstanceLoopCharacteristics"
          ? this.running.choosing.instances(model, element, loop, dataIn(this.#data, this.#own, place))
          : undefined;
      const mine = instances && "own" in instances ? instances.own(done) : undefined;
      const inner = place.underWay.get(node)?.places[0];
      if (inner && mine) this.#own.set(inner.key, mine);
      return;
    }
    if (finishing.length === 0) return;
    for (const edge of place.scope.edges[node] as readonly number[]) {
      const event = place.scope.elements[edge] as Element;
      if (!this.running.choosing.edge(model, event)) continue;
      const fires = this.play.actsAt(place, edge);
      if (fires.length === 0) continue;
      this.#go(place, edge, fires);
      if (interrupts(model, event)) return;
    }
    const under = place.underWay.get(node);
    if (courseOf(this.running.world, place.scope, node) === "hold")
      this.#leaveInside(place, element, under?.finished ?? 0, under?.places.length ?? 1);
    this.#go(place, node, finishing, own);
  }

  /** What has an inside begins; of a call, which is one piece of work for who looks from outside, that is told as well. */
  #enterInside(place: Place, element: Element, instance: number): void {
    this.#note("enter", place, element.id, { instance });
    if (element.type === "callActivity") this.#note("start", place, element.id, { instance });
  }
  #leaveInside(place: Place, element: Element, from: number, count: number): void {
    if (element.type !== "callActivity") return;
    for (let at = 0; at < count; at++) this.#note("complete", place, element.id, { instance: from + at });
  }

  /** Whether a repeated step is done once more: instances that are left, unless enough of them are done; rounds while a condition holds. */
  #goesRound(place: Place, node: number, loop: Element, canFinish: boolean, own: CaseData | undefined): boolean {
    const { model } = place.scope;
    const element = place.scope.elements[node] as Element;
    const data = dataIn(this.#data, this.#own, place, own);
    if (loop.type !== "multiInstanceLoopCharacteristics")
      return !canFinish || this.running.choosing.again(model, element, loop, data, false);
    const under = place.underWay.get(node);
    const enough = (loop.completionCondition as { readonly text?: string } | undefined)?.text;
    if (!under || !enough) return true;
    const done = under.finished + 1;
    const counts = {
      numberOfInstances: under.times ?? 0,
      numberOfCompletedInstances: done,
      numberOfActiveInstances: Math.max(0, (under.times ?? 0) - done),
      numberOfTerminatedInstances: 0,
    };
    if (holds(enough, { ...data, ...counts }) !== true) return true;
    // The others are not waited for any more.
    this.play.end(place, node);
    const finishing = this.play.actsAt(place, node).filter(({ does }) => does === "finish");
    this.#go(place, node, finishing, own);
    return false;
  }

  /** A piece of work for each token before a step, or for each instance that is due. */
  #work(place: Place, node: number, acts: readonly Act[]): void {
    const { net } = place.scope;
    const one = net.nodes[node];
    const element = place.scope.elements[node] as Element;
    const known = this.#waitsAt(place, node);
    let wanted = 0;
    if (one?.kind === "held") {
      const isActive = place.state[net.flows.length + node] !== 0;
      if (!isActive) {
        for (const wait of known) if (wait.kind !== "incident") this.#abort(wait);
        if (acts[0]?.does === "begin") this.#beginAt(place, node, acts[0]);
        return;
      }
      const under = place.underWay.get(node);
      const loop = loopOf(place.scope.model, element.id);
      const isAtOnce = loop?.type === "multiInstanceLoopCharacteristics" && loop.isSequential !== true;
      wanted = isAtOnce ? (under?.times ?? 1) - (under?.finished ?? 0) : 1;
    } else for (const flow of one?.ins ?? []) wanted += place.state[flow] as number;
    for (let at = known.length; at > wanted; at--) this.#abort(known[at - 1] as Wait);
    for (let at = known.length; at < wanted; at++) this.#workAt(place, node, at);
  }

  #workAt(place: Place, node: number, at: number): void {
    const { model } = place.scope;
    const element = place.scope.elements[node] as Element;
    const loop = loopOf(model, element.id);
    let more: Partial<Wait> = {};
    if (loop?.type === "multiInstanceLoopCharacteristics") {
      const instance = (place.underWay.get(node)?.finished ?? 0) + at;
      const data = dataIn(this.#data, this.#own, place);
      const instances = this.running.choosing.instances(model, element, loop, data);
      const own = instances && "own" in instances ? instances.own(instance) : undefined;
      more = { instance, ...(own && { own }) };
    }
    const kind = isByMachine(element) ? "service" : "work";
    this.#set(place, node, kind, more);
    this.#note("enter", place, element.id, more.instance === undefined ? {} : { instance: more.instance });
  }

  /** What goes on behind a piece of work that is done. */
  #finishWork(place: Place, node: number, own: CaseData | undefined): void {
    const acts = this.play.actsAt(place, node);
    if (acts.length === 0) return;
    if (place.scope.net.nodes[node]?.kind === "held") this.#finish(place, node, acts, own);
    else this.#go(place, node, acts, own);
  }

  /** An event in the flow, or a step that waits for a message. */
  #await(place: Place, node: number, acts: readonly Act[]): void {
    const { net, model, expects } = place.scope;
    const element = place.scope.elements[node] as Element;
    const one = net.nodes[node];
    const isTask = isActivity(element.type);
    const key = `${place.key} ${element.id}`;
    const known = this.#waitsAt(place, node);
    if (one?.kind === "held" && place.state[net.flows.length + node] === 0) {
      if (acts[0]?.does === "begin") this.#beginAt(place, node, acts[0]);
      return;
    }
    const passing = acts.filter(({ does }) => does !== "begin");
    // It has happened at the gateway before it.
    if (this.#happened.has(key) && passing.length > 0) {
      this.#happened.delete(key);
      if (isTask) for (const kind of ["enter", "start", "complete"] as const) this.#note(kind, place, element.id);
      this.#passOn(place, node, passing);
      return;
    }
    if (!this.#isStandingAt(place, node)) return;
    const isHeard = (expects[node] as readonly Id[]).length > 0;
    if (isHeard) {
      if (passing.length === 0) {
        if (known.length === 0) this.#setMessage(place, node, element, isTask);
        return;
      }
      if (isTask && known.length === 0) this.#setMessage(place, node, element, isTask);
      const [first] = this.#waitsAt(place, node);
      if (first) {
        this.#waits.delete(first.id);
        if (isTask) {
          if (first.begun === undefined) this.#tell("start", first);
          this.#tell("complete", first);
        }
      }
      this.#passOn(place, node, passing);
      return;
    }
    let wanted = 0;
    if (one?.kind === "held") wanted = 1;
    else for (const flow of one?.ins ?? []) wanted += place.state[flow] as number;
    for (let at = known.length; at < wanted; at++) this.#awaited(place, node, element, model, isTask);
  }

  #passOn(place: Place, node: number, acts: readonly Act[]): void {
    if (place.scope.net.nodes[node]?.kind === "held") this.#finish(place, node, acts);
    else this.#go(place, node, acts);
  }

  #setMessage(place: Place, node: number, element: Element, isTask: boolean): void {
    if (isTask) this.#note("enter", place, element.id);
    this.#set(place, node, "message", { name: nameOfAwaited(place.scope.model, element), isInside: true });
  }

  #awaited(place: Place, node: number, element: Element, model: Model, isTask: boolean): void {
    if (isTask) this.#note("enter", place, element.id);
    const kind = triggerKind(model, element);
    const wait = this.#waitFor(place, node, element, kind);
    if (wait) return;
    // An event that nothing sets off by itself is passed.
    this.#passOn(place, node, place.acts[node] as readonly Act[]);
  }

  /** What an event waits for, set; undefined where it waits for nothing. */
  #waitFor(
    place: Place,
    node: number,
    event: Element,
    kind: ReturnType<typeof triggerKind>,
    more: Partial<Wait> = {},
  ): Wait | undefined {
    const { model } = place.scope;
    switch (kind) {
      case "timer": {
        const data = dataIn(this.#data, this.#own, place);
        const timer = timerSet(model, event, this.running.now, this.running.zone, data);
        if (timer) {
          const { due, left } = timer;
          return this.#set(place, node, "timer", { left, ...(Number.isFinite(due) && { due }), ...more });
        }
        const reason = "its time cannot be read";
        const wait = this.#set(place, node, "incident", { reason, times: 1, ...more });
        this.#tell("incident", wait, reason);
        return wait;
      }
      case "message":
        return this.#set(place, node, "message", { name: nameOfAwaited(model, event), ...more });
      case "signal":
        return this.#set(place, node, "signal", { name: nameOfAwaited(model, event), ...more });
      case "condition":
        return this.#set(place, node, "condition", more);
      default:
        return undefined;
    }
  }

  #edge(place: Place, node: number, acts: readonly Act[]): void {
    const { model, expects } = place.scope;
    const element = place.scope.elements[node] as Element;
    const known = this.#waitsAt(place, node);
    const ending = acts.find(({ does }) => does === "finish");
    if (ending) {
      this.#step(place, node, ending);
      return;
    }
    const fires = acts.filter(({ does }) => does === "fire");
    const isHeard = (expects[node] as readonly Id[]).length > 0;
    if (fires.length === 0) {
      if (!isHeard || !this.#isAlive(place, node)) for (const wait of known) this.#waits.delete(wait.id);
      return;
    }
    if (isHeard) {
      this.#goEdge(place, node, fires);
      return;
    }
    if (known.length > 0) return;
    const event = eventOf(model, element);
    this.#waitFor(place, node, event, triggerKind(model, event));
  }

  /** Whether what an event hangs on is under way. */
  #isAlive(place: Place, node: number): boolean {
    const { net } = place.scope;
    const host = net.nodes[node]?.host;
    return host === undefined ? place.busy > 0 : place.state[net.flows.length + host] !== 0;
  }

  #goEdge(place: Place, node: number, fires: readonly Act[]): void {
    const element = place.scope.elements[node] as Element;
    this.#go(place, node, fires);
    // What does not end its host may go off again while that is under way; a condition only once it has not held in between.
    if (triggerKind(place.scope.model, eventOf(place.scope.model, element)) === "condition") return;
    if (!interrupts(place.scope.model, element) && this.play.placeAt(place.key) === place && this.#isAlive(place, node))
      place.setFired(node, 0);
  }

  /** The first of several events: each is waited for, and whichever comes first takes the token. */
  #race(place: Place, node: number, acts: readonly Act[]): void {
    const known = this.#waitsAt(place, node);
    if (!this.#isStandingAt(place, node)) return;
    const { net, model, expects } = place.scope;
    const targets = (net.nodes[node]?.outs ?? []).map((flow) => net.flows[flow]?.to ?? -1);
    for (const target of targets) {
      const event = place.scope.elements[target];
      if (!event) continue;
      const isHeard = (expects[target] as readonly Id[]).length > 0;
      if (isHeard) {
        const act = acts.find((one) => one.move.give.some((flow) => net.flows[flow]?.to === target));
        if (!act) continue;
        for (const wait of this.#waitsAt(place, node)) this.#waits.delete(wait.id);
        this.#happened.add(`${place.key} ${event.id}`);
        this.#step(place, node, act);
        return;
      }
      if (known.some((wait) => wait.event === event.id)) continue;
      const kind = triggerKind(model, event);
      if (kind === "none" || kind === "thrown") continue;
      this.#waitFor(place, node, event, kind, { event: event.id });
    }
  }

  /** What was awaited has come. */
  #goOff(wait: Wait): void {
    const place = this.#placeOf(wait);
    const node = this.#nodeOf(place, wait);
    const { net, model } = place.scope;
    const element = place.scope.elements[node] as Element;
    const acts = this.play.actsAt(place, node);
    if (wait.event !== undefined) {
      const target = place.scope.nodeAt.get(wait.event);
      const act = acts.find((one) => one.move.give.some((flow) => net.flows[flow]?.to === target));
      if (!act) return;
      for (const other of this.#waitsAt(place, node)) this.#waits.delete(other.id);
      this.#happened.add(`${place.key} ${wait.event}`);
      this.#step(place, node, act);
      return;
    }
    if (courseOf(this.running.world, place.scope, node) !== "edge") {
      if (isActivity(element.type)) {
        if (wait.begun === undefined) this.#tell("start", wait);
        this.#tell("complete", wait);
      }
      const passing = acts.filter(({ does }) => does !== "begin");
      if (passing.length > 0) this.#passOn(place, node, passing);
      return;
    }
    const fires = acts.filter(({ does }) => does === "fire");
    if (fires.length === 0) return;
    this.#goEdge(place, node, fires);
    const event = eventOf(model, element);
    const isThere = this.play.placeAt(place.key) === place && this.#isAlive(place, node);
    if (interrupts(model, element) || !isThere) return;
    if (wait.kind !== "timer") return;
    const left = wait.left ?? 0;
    const data = dataIn(this.#data, this.#own, place);
    const due =
      left === 0 || wait.due === undefined ? undefined : nextRound(model, event, wait.due, this.running.zone, data);
    // A timer that has gone off for the last time stands there without a time, so that it is not set again.
    this.#set(place, node, "timer", due === undefined ? { left: 0 } : { due, left: left < 0 ? -1 : left - 1 });
  }

  /** A signal that was thrown is heard by races, which wait before the event itself. */
  #toRaces(model: Model, thrower: Element): void {
    if (thrower.type !== "endEvent" && thrower.type !== "intermediateThrowEvent") return;
    const thrown = signalOf(model, thrower);
    if (triggerKind(model, thrower) !== "signal") return;
    for (const wait of [...this.#waits.values()]) {
      if (wait.kind !== "signal" || wait.event === undefined) continue;
      const known = this.elementOf(wait);
      const wanted = known && signalOf(known.model, known.element);
      if (wanted !== undefined && wanted !== thrown) continue;
      this.#waits.delete(wait.id);
      this.#goOff(wait);
    }
  }
}

/** What needs nobody: a service answers, a script runs, a rule decides, a message goes out. */
export const isByMachine = ({ type }: { readonly type: string }): boolean =>
  /^(?:service|script|businessRule|send)Task$|^callActivity$|ubProcess$|^transaction$/.test(type);
