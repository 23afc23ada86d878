import { type Id, processesOf } from "../model";
import { always, bothOf, draw, type Hours, knownHours } from "../scenario";
import { type Act, compiledScope, decidedAt, type Place, Play, SparePlaces } from "../tokens";
import { nextArrival } from "./arrivals";
import { drawnCase } from "./caseData";
import { doneAt, waysTo } from "./crossing";
import { Desks, type Grant, nothingWanted } from "./desks";
import type { Follower } from "./follower";
import { Heap } from "./heap";
import { givenAt, type NodePlan, type Plan } from "./plan";
import { firstOf } from "./races";
import { Recorder } from "./recorder";
import type { Crossing } from "./resources";
import { type Arriving, type Coming, drawn, happens, noWays, Pending, type Running, visitOf } from "./running";
import { sourcesOf } from "./sources";
import { goesOffAt } from "./timers";
import { isBarredByData, wayOn } from "./ways";

/** How long a run goes: so many counted cases, or a time. */
export interface Extent {
  readonly cases?: number;
  /** Seconds. */
  readonly duration?: number;
  /** Seconds from the start of which nothing is counted. */
  readonly warmUp: number;
  /** So many durations are kept one by one. */
  readonly kept?: number;
}

/** A case that needs more steps than this does not end. */
export const mostSteps = 10_000;

/**
 * One run of a plan: cases come, work is done and waited for, time jumps to what comes next. Discrete events over the token semantics of
 * `core/tokens`. O(steps × log of what is under way).
 * Source of the method: A. M. Law, "Simulation Modeling and Analysis" (5th ed., 2015), chapter 1.
 */
export class Simulation {
  readonly recorder: Recorder;
  readonly #heap = new Heap<Coming>();
  readonly #desks: Desks<Pending>;
  readonly #spare = new SparePlaces();
  /** What was pending and is nobody's any more. */
  readonly #idle: Pending[] = [];
  /** Nothing happens behind this moment: that which was asked for, or up to which it is known when people work. */
  readonly #last: number;
  #isCut = false;
  #now = 0;
  #cases = 0;
  #counted = 0;
  #countedOver = 0;
  #underWay = 0;
  /** Counted cases under way, by when they began. */
  readonly #open = new Map<Running, number>();

  constructor(
    readonly plan: Plan,
    readonly extent: Extent,
    samples = 0,
    readonly follower?: Follower,
  ) {
    const known = plan.scenario.calendars.size > 0 ? knownHours : Number.POSITIVE_INFINITY;
    this.#last = Math.min(known, extent.duration ?? known);
    const sources = sourcesOf(plan);
    // Plans of all processes first, so that their resources are known before anybody asks for one.
    for (const { id } of processesOf(plan.world.model)) plan.of(compiledScope(plan.world, plan.world.model, id));
    this.#desks = new Desks(
      plan.resources,
      (desk, at) => this.#heap.push(at, { kind: "opens", desk }),
      (pending) => {
        const [way, ...rest] = pending.ways;
        if (pending.state === "crossing" && way) this.#along(pending, way, rest);
        else this.#begin(pending);
      },
    );
    for (const desk of this.#desks.list) desk.beginCounting(extent.warmUp);
    this.recorder = new Recorder(plan, this.#desks.list, samples, extent.kept);
    for (const source of sources) this.#nextCase({ kind: "case", source, came: 0 }, true);
  }

  get now(): number {
    return this.#now;
  }
  /** Counted cases that are over. */
  get done(): number {
    return this.#countedOver;
  }

  /** Goes on for some events. Gives whether there is more to come. */
  run(events: number): boolean {
    const { cases, duration } = this.extent;
    for (let left = events; left > 0; left--) {
      if (duration === undefined && cases !== undefined && this.#countedOver >= cases) return false;
      const { next } = this.#heap;
      if (next === Number.POSITIVE_INFINITY) return false;
      if (next > this.#last) {
        this.#now = this.#last;
        this.#isCut = this.#last !== duration;
        return false;
      }
      this.#now = next;
      const coming = this.#heap.pop() as Coming;
      if (coming.kind === "pending") {
        coming.coming--;
        if (coming.state !== "gone" && coming.due === next) this.#due(coming);
      } else if (coming.kind === "case") this.#arrive(coming);
      else this.#desks.dispatch(coming.desk, next);
    }
    return true;
  }

  /** What came of it, from when counting began. */
  end() {
    return this.recorder.finish(
      this.#now,
      this.extent.warmUp,
      [...this.#open.values()].map((began) => this.#now - began),
      this.#neverBegun(),
      this.#isCut,
    );
  }

  /** Steps that nobody was ever free for, though cases wait before them, one for half of the time or longer. */
  #neverBegun(): readonly number[] {
    const waiting = new Map<number, { cases: number; since: number }>();
    for (const { pending } of this.#open.keys())
      for (const { state, due, plan, since } of pending) {
        if (state !== "queued" && !(state === "busy" && due === Number.POSITIVE_INFINITY)) continue;
        const before = waiting.get(plan.element);
        waiting.set(plan.element, {
          cases: (before?.cases ?? 0) + 1,
          since: Math.min(before?.since ?? since, since),
        });
      }
    return [...waiting]
      .filter(([at, { cases, since }]) => this.recorder.counts.at(at) === cases && since <= this.#now / 2)
      .map(([at]) => at);
  }

  #nextCase(arriving: Arriving, isFirst = false): void {
    const { source, came } = arriving;
    if (source.count !== undefined && came >= source.count) return;
    // Cases go on coming while those that count are under way, so that the last of them meet the same queues; not for ever.
    const { cases } = this.extent;
    if (cases !== undefined && this.extent.duration === undefined && this.#cases >= 2 * cases + 1000) return;
    const at = nextArrival(source, came, this.#now, this.plan.calendars, isFirst);
    if (at === undefined) return;
    arriving.came++;
    if (Number.isFinite(at)) this.#heap.push(at, arriving);
  }

  #arrive(from: Arriving): void {
    const { source } = from;
    const { world } = this.plan;
    const { cases } = this.extent;
    const counts =
      this.#now >= this.extent.warmUp &&
      (this.extent.duration !== undefined || cases === undefined || this.#counted < cases);
    const start = source.start === source.process ? undefined : source.start;
    const number = this.#cases++;
    const run: Running = {
      number,
      from,
      began: this.#now,
      play: Play.begin(world, source.process, start, this.#spare),
      data: drawnCase(source.drawn, number),
      pending: [],
      visits: [],
      doneAs: [],
      done: 0,
      lastSite: undefined,
      counts,
      follower: number === this.follower?.number ? this.follower : undefined,
      steps: 0,
      waiting: 0,
      working: 0,
      cost: 0,
      isOver: false,
    };
    run.follower?.begin(run);
    if (counts) {
      this.#counted++;
      this.#open.set(run, run.began);
    }
    this.#underWay++;
    this.recorder.underWay(this.#now, this.#underWay);
    if (source.interval || source.timer) this.#nextCase(from);
    this.#advance(run);
  }

  /** Lets happen what happens at once, and sets going what takes time. */
  #advance(run: Running): void {
    const { play } = run;
    for (;;) {
      const changed = play.changed();
      if (!changed) {
        if (this.#pick(run)) continue;
        break;
      }
      if (run.isOver) return;
      const node = play.changedNode;
      this.#look(run, changed, node);
      if (run.steps > mostSteps) {
        this.#finish(run, "stopped", changed.scope.elements[node]?.id);
        return;
      }
    }
    if (run.isOver) return;
    if (play.isOver()) this.#finish(run, "done");
    else if (run.pending.length === 0) this.#finish(run, "stuck", this.#standsAt(run));
  }

  #standsAt({ play }: Running): Id | undefined {
    for (const place of play.places()) {
      const [node] = place.waiting();
      if (node !== undefined) return place.scope.elements[node]?.id;
    }
    return undefined;
  }

  /** The next step of an ad-hoc sub-process: each is done once, one after the other or all at once, as it says. */
  #pick(run: Running): boolean {
    if (!run.play.hasAdHoc) return false;
    for (const place of run.play.places()) {
      if (!place.scope.isAdHoc) continue;
      const done = this.#picked.get(place) ?? 0;
      if (done >= place.scope.net.entries.flat().length) continue;
      const act = run.play.picks(place)[done];
      if (!act) continue;
      this.#picked.set(place, done + 1);
      this.#play(run, place, act);
      return true;
    }
    return false;
  }
  readonly #picked = new WeakMap<Place, number>();
  readonly #hasPicks = (place: Place) =>
    place.scope.isAdHoc && (this.#picked.get(place) ?? 0) < place.scope.net.entries.flat().length;

  #look(run: Running, place: Place, node: number): void {
    const plan = this.plan.of(place.scope).nodes[node] as NodePlan;
    const acts = place.acts[node] as readonly Act[];
    switch (plan.course) {
      case "pass":
        // Of what is first at an event-based gateway the way was gone before it was first.
        if (plan.isHeard && plan.calls.length > 0 && place.scope.elements[node]?.type === "startEvent")
          this.#arriving(run, place, node, plan, acts);
        else if (acts.length > 0 && run.data && isBarredByData(run, place, node)) this.#finish(run, "stuck", plan.id);
        else if (acts.length > 0) this.#step(run, place, plan, wayOn(this.plan, run, place, plan, acts));
        return;
      case "hold":
        this.#hold(run, place, node, plan, acts);
        return;
      case "edge":
        this.#edge(run, place, node, plan, acts);
        return;
      case "race":
        this.#race(run, place, node, plan, acts);
        return;
      default:
        this.#workAt(run, place, node, plan, acts);
    }
  }

  /** Gives how much else happened by it. */
  #play(run: Running, place: Place, act: Act, times?: number): number {
    if (run.counts) this.recorder.steps++;
    run.follower?.did(run, this.#now, act, times);
    return run.play.run(place, act, times);
  }

  /** Does an act, and takes away what it ended. */
  #step(run: Running, place: Place, plan: NodePlan, act: Act, times?: number): void {
    run.steps++;
    if (act.does !== "finish" && act.does !== "again") this.#enter(run, plan);
    const others = this.#play(run, place, act, times);
    const ends = act.move.clears || act.does === "fire" || others > 0 || act.move.stop !== undefined;
    if (!ends || run.pending.every(isInOpenPlace)) return;
    for (const pending of [...run.pending]) if (!pending.place.isOpen) this.#cancel(pending);
  }

  #enter(run: Running, plan: NodePlan): void {
    const { fixedCost } = plan;
    let cost = 0;
    if (fixedCost) {
      const visit = run.visits[plan.element] ?? 0;
      const given = givenAt(fixedCost, this.plan.calendars, this.#now);
      if (given) cost = draw(given, plan.choice.at(run.number, 2048 + visit));
    }
    run.cost += cost;
    if (run.counts) this.recorder.enter(plan.element, cost);
  }

  #hold(run: Running, place: Place, node: number, plan: NodePlan, acts: readonly Act[]): void {
    const first = acts[0];
    if (!first) return;
    if (first.does === "begin") {
      this.#step(run, place, plan, first, plan.instances);
      return;
    }
    if (place.underWay.get(node)?.places.some(this.#hasPicks)) return;
    this.#done(run, place, node, plan, acts);
  }

  /** What is under way at a node is done: another round, an event at its edge, or on. */
  #done(run: Running, place: Place, node: number, plan: NodePlan, acts: readonly Act[]): void {
    const only = acts[0];
    // As most are done.
    if (acts.length === 1 && only?.does !== "again" && (place.scope.edges[node] as readonly number[]).length === 0) {
      this.#step(run, place, plan, only as Act);
      return;
    }
    const again = acts.find(({ does }) => does === "again");
    const finishing = acts.filter(({ does }) => does !== "again");
    const byHand = again && finishing.length > 0 ? run.follower?.take(plan.id, acts) : undefined;
    if (byHand) {
      this.#step(run, place, plan, byHand);
      return;
    }
    if (again && (finishing.length === 0 || (plan.again !== undefined && happens(run, plan, plan.again)))) {
      this.#step(run, place, plan, again);
      return;
    }
    if (finishing.length === 0) return;
    const edges = (place.scope.edges[node] as readonly number[]).filter(
      (edge) =>
        this.plan.of(place.scope).nodes[edge]?.chance !== undefined && (place.acts[edge] as readonly Act[]).length > 0,
    );
    const led = edges.length === 0 ? undefined : this.#atEdgeByHand(run, place, plan, edges, finishing);
    for (const edge of edges) {
      const ofEdge = this.plan.of(place.scope).nodes[edge] as NodePlan;
      const all = place.acts[edge] as readonly Act[];
      const [fire] = all;
      if (!fire || !(led ? all.includes(led) : happens(run, ofEdge, ofEdge.chance ?? 0))) continue;
      this.#step(run, place, ofEdge, led ?? wayOn(this.plan, run, place, ofEdge, all));
      if (fire.move.stop !== undefined) return;
    }
    const isLed = led !== undefined && finishing.includes(led);
    this.#step(run, place, plan, isLed ? led : wayOn(this.plan, run, place, plan, finishing));
  }

  /** Whether something at its edge ends a step or it ends by itself, where a person leads the case. */
  #atEdgeByHand(run: Running, place: Place, plan: NodePlan, edges: readonly number[], finishing: readonly Act[]) {
    const fires = edges.flatMap((edge) => (place.acts[edge] as readonly Act[]).filter(({ flows }) => flows.length > 0));
    return run.follower?.take(plan.id, [...finishing, ...fires]);
  }

  /** A message from elsewhere that begins something, or ends what it is at the edge of, is on its way first. */
  #arriving(run: Running, place: Place, node: number, plan: NodePlan, acts: readonly Act[]): void {
    if (acts.length === 0) return this.#cancelAt(run, place, node);
    if (pendingAt(run, place, node)) return;
    if (plan.course !== "edge") this.#enter(run, plan);
    const pending = this.#set(run, place, node, plan, "message", 0);
    pending.visit = visitOf(run, plan);
    pending.isSent = true;
    pending.ways = plan.calls;
    this.#cross(pending);
  }

  #edge(run: Running, place: Place, node: number, plan: NodePlan, acts: readonly Act[]): void {
    if (acts[0]?.does === "finish") {
      this.#step(run, place, plan, acts[0]);
      return;
    }
    if (acts.length === 0) return this.#cancelAt(run, place, node);
    if (pendingAt(run, place, node)) return;
    const { timer, interval } = plan;
    const timerFails = timer === undefined && interval === undefined;
    if (plan.isHeard && timerFails) {
      if (plan.calls.length > 0) this.#arriving(run, place, node, plan, acts);
      else this.#step(run, place, plan, wayOn(this.plan, run, place, plan, acts));
      return;
    }
    // What is thrown inside is caught without asking; the rest is as the scenario says, or never comes.
    if (timerFails) return;
    const pending = this.#set(run, place, node, plan, "delayed", 0);
    const wait = interval ? drawn(this.plan, run, plan, this.#now, [interval], visitOf(run, plan)) : 0;
    this.#schedule(pending, interval ? this.#now + wait : timer ? goesOffAt(timer, this.#now) : this.#now);
  }

  /** The first of several events: when each comes is drawn once, and looked at again when a message comes. */
  #race(run: Running, place: Place, node: number, plan: NodePlan, acts: readonly Act[]): void {
    const known = pendingAt(run, place, node);
    if (acts.length === 0) {
      if (known && known.state !== "message") this.#cancel(known);
      const { ins } = place.scope.net.nodes[node] ?? { ins: [] };
      if (!known && ins.some((flow) => place.state[flow] !== 0)) this.#set(run, place, node, plan, "message", 0);
      return;
    }
    const pending = known ?? this.#set(run, place, node, plan, "delayed", 0);
    if (!known) run.follower?.waits(run, this.#now, pending);
    // Each time it is come to, the events are drawn anew; looked at again while it waits, they stay.
    if (pending.visit === undefined) pending.visit = visitOf(run, plan);
    const byHand = known ? undefined : run.follower?.take(plan.id, acts);
    if (known?.isLed) return;
    pending.isLed = byHand !== undefined;
    const best = firstOf(this.plan, run, pending, acts, byHand, this.#now);
    if (pending.act && pending.due <= best.at) return;
    pending.act = best.act;
    pending.state = "delayed";
    this.#schedule(pending, best.at);
  }

  /** Tokens before a step, or a step under way: for each somebody works, or something is waited for. */
  #workAt(run: Running, place: Place, node: number, plan: NodePlan, acts: readonly Act[]): void {
    const { net } = place.scope;
    const one = net.nodes[node];
    let wanted = 0;
    if (one?.kind === "held") {
      const isActive = place.state[net.flows.length + node] !== 0;
      if (!isActive) {
        this.#cancelAt(run, place, node);
        if (acts[0]?.does === "begin") this.#step(run, place, plan, acts[0], plan.instances);
        return;
      }
      const rounds = place.underWay.get(node);
      // Instances at once are all begun together; of others one is begun when the one before it is done.
      const left = rounds?.times === undefined ? 1 : rounds.times - rounds.finished;
      wanted = plan.atOnce ? left : 1;
    } else for (const flow of one?.ins ?? []) wanted += place.state[flow] as number;
    let known = 0;
    for (const one of run.pending) if (one.place === place && one.node === node) known++;
    // Of several those that began last.
    for (; known > wanted; known--)
      this.#cancel(run.pending.findLast((one) => one.place === place && one.node === node) as Pending);
    for (; known < wanted; known++) {
      if (one?.kind !== "held") this.#enter(run, plan);
      this.#startAt(run, place, node, plan);
    }
    if (!plan.isHeard || acts.length === 0) return;
    // The message it waits for is there.
    const waiting = run.pending.find((one) => one.place === place && one.node === node && one.state === "message");
    if (!waiting || !acts.some(({ does }) => does !== "begin")) return;
    if (plan.calls.length === 0) {
      this.#complete(waiting);
      return;
    }
    waiting.isSent = true;
    waiting.ways = plan.calls;
    this.#cross(waiting);
  }

  #startAt(run: Running, place: Place, node: number, plan: NodePlan): void {
    const visit = visitOf(run, plan);
    const isWait = plan.course === "wait";
    const work = isWait ? 0 : drawn(this.plan, run, plan, this.#now, plan.works, visit);
    const pending = this.#set(run, place, node, plan, plan.isHeard && isWait ? "message" : "delayed", work);
    pending.visit = visit;
    if (pending.state === "message") {
      run.follower?.waits(run, this.#now, pending);
      return;
    }
    pending.ways = plan.site === undefined ? noWays : waysTo(this.plan, run, plan);
    this.#cross(pending);
  }

  /** Goes along the next way between sites, where there is room on it; behind the last one it is begun. */
  #cross(pending: Pending): void {
    const { ways } = pending;
    const way = ways[0];
    if (!way) {
      if (pending.isSent) {
        const { of } = pending;
        this.#complete(pending);
        this.#advance(of);
      } else this.#wait(pending);
      return;
    }
    pending.state = "crossing";
    if (!way.needs || this.#desks.ask(pending, way.needs, this.#now)) this.#along(pending, way, ways.slice(1));
    else this.#queues(pending);
  }

  #queues(pending: Pending): void {
    if (pending.wanted.desks.length > 1) pending.isQueuedElsewhere = true;
    pending.of.follower?.waits(pending.of, this.#now, pending);
  }

  #along(pending: Pending, way: Crossing, rest: readonly Crossing[]): void {
    const { of: run, plan } = pending;
    pending.ways = rest;
    run.follower?.waits(run, this.#now, pending);
    // Drawn behind work and waits of the same visit.
    const place = (pending.visit ?? 0) + 3072 + rest.length;
    const time = way.delay ? drawn(this.plan, run, plan, this.#now, [way.delay], place) : 0;
    this.#schedule(pending, this.#now + time);
  }

  #wait(pending: Pending): void {
    const { of: run, plan, visit = 0 } = pending;
    const isWait = plan.course === "wait";
    // Waits are drawn behind the work of the same visit, so that a change of one leaves the other as it was.
    const delay = plan.delays ? drawn(this.plan, run, plan, this.#now, plan.delays, visit + 1024) : undefined;
    const timed =
      isWait && delay === undefined && plan.timer ? goesOffAt(plan.timer, this.#now) : this.#now + (delay ?? 0);
    pending.state = "delayed";
    if (timed > this.#now || isWait) {
      run.follower?.waits(run, this.#now, pending);
      this.#schedule(pending, timed);
    } else this.#ask(pending);
  }

  #cancelAt(run: Running, place: Place, node: number): void {
    for (let one = pendingAt(run, place, node); one; one = pendingAt(run, place, node)) this.#cancel(one);
  }

  #set(run: Running, place: Place, node: number, plan: NodePlan, state: Pending["state"], work: number): Pending {
    const pending = this.#idle.pop()?.anew(run, place, node, plan) ?? new Pending(run, place, node, plan);
    pending.state = state;
    pending.since = this.#now;
    pending.work = work;
    run.pending.push(pending);
    return pending;
  }

  #schedule(pending: Pending, at: number): void {
    pending.due = at;
    if (!Number.isFinite(at)) return;
    pending.coming++;
    this.#heap.push(at, pending);
  }

  /** What was to come has come: a delay is over, or work is done. */
  #due(pending: Pending): void {
    if (pending.state === "crossing") {
      this.#desks.free(pending, this.#now);
      pending.wanted = nothingWanted;
      this.#cross(pending);
      return;
    }
    if (pending.state === "delayed" && pending.plan.course === "work") {
      this.#ask(pending);
      return;
    }
    const { of } = pending;
    this.#complete(pending);
    this.#advance(of);
  }

  /** Asks for whoever is needed. */
  #ask(pending: Pending): void {
    const { needs } = pending.plan;
    if (!needs || needs.length === 0) {
      this.#begin(pending);
      return;
    }
    pending.state = "queued";
    if (this.#desks.ask(pending, needs, this.#now)) this.#begin(pending);
    else this.#queues(pending);
  }

  #begin(pending: Pending): void {
    pending.state = "busy";
    pending.begun = this.#now;
    const { granted, work } = pending;
    let hours = granted.length === 0 ? always : (granted[0] as Grant).desk.plan.hours;
    for (let at = 1; at < granted.length; at++) hours = this.#both(hours, (granted[at] as Grant).desk.plan.hours);
    pending.hours = hours;
    pending.of.follower?.works(pending.of, this.#now, pending);
    this.#schedule(pending, hours.isAlways ? this.#now + work : hours.afterWork(this.#now, work));
  }

  /** Hours of two desks together, worked out once. */
  #both(one: Hours, other: Hours): Hours {
    if (one.isAlways || other.isAlways || one === other) return bothOf(one, other);
    const of = this.#together.get(one) ?? new Map<Hours, Hours>();
    this.#together.set(one, of);
    const known = of.get(other) ?? bothOf(one, other);
    of.set(other, known);
    return known;
  }
  readonly #together = new Map<Hours, Map<Hours, Hours>>();

  #remove(pending: Pending): void {
    const { pending: list } = pending.of;
    if (list[list.length - 1] === pending) {
      list.pop();
      return;
    }
    const at = list.indexOf(pending);
    if (at >= 0) list.splice(at, 1);
  }

  /** Books what was worked and waited, and frees who worked. */
  #book(pending: Pending, worked: number): void {
    const { of: run, plan, since, granted } = pending;
    if (plan.course === "edge") return;
    const waited = Math.max(0, this.#now - since - worked);
    let cost = plan.rate * worked;
    for (const { desk, count } of granted) cost += (desk.plan.rate * worked + desk.plan.fixed) * count;
    run.waiting += waited;
    run.working += worked;
    run.cost += cost;
    if (run.counts)
      this.recorder.worked(run.number, plan.element, since, pending.begun, this.#now, waited, worked, cost, granted);
    if (granted.length > 0) this.#desks.free(pending, this.#now);
  }

  #complete(pending: Pending): void {
    const { of: run, place, node, plan, act: won } = pending;
    this.#letGo(pending, pending.work);
    doneAt(run, plan);
    const element = run.data && place.scope.elements[node];
    if (run.data && element) run.data = decidedAt(this.plan.world, element, run.data)?.data ?? run.data;
    const acts = place.acts[node] as readonly Act[];
    if (won) this.#step(run, place, plan, won);
    else if (acts.length === 0) return;
    else if (place.scope.net.nodes[node]?.kind === "held") this.#done(run, place, node, plan, acts);
    else if (plan.course === "edge") this.#step(run, place, plan, wayOn(this.plan, run, place, plan, acts));
    else {
      const act = wayOn(this.plan, run, place, plan, acts);
      run.steps++;
      this.#play(run, place, act);
    }
  }

  /** What goes on is broken off: who waited leaves, who worked is free. */
  #cancel(pending: Pending): void {
    if (pending.state === "gone") return;
    this.#desks.leave(pending, this.#now);
    const { state, work, hours, begun } = pending;
    this.#letGo(pending, state === "busy" ? Math.min(work, hours.between(begun, this.#now)) : 0);
  }

  /** It is over; where nothing holds it any more it is there for the next. */
  #letGo(pending: Pending, worked: number): void {
    this.#remove(pending);
    pending.state = "gone";
    this.#book(pending, worked);
    if (pending.isIdle) this.#idle.push(pending);
  }

  #finish(run: Running, how: "done" | "stuck" | "stopped", at?: Id): void {
    run.isOver = true;
    for (let [pending] = run.pending; pending; [pending] = run.pending) this.#cancel(pending);
    this.#underWay--;
    this.recorder.underWay(this.#now, this.#underWay);
    if (how === "done") this.recorder.done(this.#now);
    if (run.counts) {
      this.#open.delete(run);
      this.#countedOver++;
      this.recorder.over(this.#now, this.#now - run.began, run.waiting, run.working, run.cost, how, at);
    }
    run.play.leave();
    const { from } = run;
    const { interval, timer, count } = from.source;
    if (interval || timer) return;
    // Without a word on how often cases come, the next one comes when this one is over.
    if (count !== undefined && from.came >= count) return;
    from.came++;
    this.#heap.push(this.#now, from);
  }
}

const isInOpenPlace = ({ place }: Pending) => place.isOpen;

/** What goes on at a node, the first of several. */
function pendingAt({ pending }: Running, place: Place, node: number): Pending | undefined {
  for (const one of pending) if (one.place === place && one.node === node) return one;
  return undefined;
}
