import type { CaseData } from "../feel";
import type { Element, Id } from "../model";
import { type Act, decidedAt, failWith, type Happened, type Place, Play } from "../tokens";
import { Awaiting } from "./awaiting";
import type { Running } from "./caseBook";
import { courseOf, isByMachine } from "./courses";
import { merged } from "./dataInScope";
import type { LiveCase } from "./liveCase";

/** A case with more steps than this is stopped. */
export const mostSteps = 10_000;

/**
 * A case that is run: what happens by itself happens at once, and what takes somebody, something or some time is waited for. All of it on
 * the tokens of `core/tokens`; what is waited for, and the data, stand beside them. `saved` gives it as plain data.
 * Execution semantics: BPMN 2.0, chapter 13.
 */
export class Engine extends Awaiting {
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
    engine.goOn();
    return engine;
  }

  /**
   * A case that was saved, to be gone on with.
   * @throws RangeError where it stands somewhere that the model does not have
   */
  static load(running: Running, saved: LiveCase): Engine {
    return new Engine(running, Play.load(running.world, saved.tokens), saved.process, saved);
  }

  /** Somebody begins a piece of work. */
  beginWork(id: number): void {
    const wait = this.open.get(id);
    if (!wait || wait.begun !== undefined) return;
    wait.begun = this.running.now;
    this.tell("start", wait);
  }

  /** A piece of work that was begun is given back. */
  giveBack(id: number): void {
    const wait = this.open.get(id);
    if (wait) delete wait.begun;
  }

  /** Values become data of the case, or of the instance that has them. */
  setData(values: CaseData): void {
    this.held = merged(this.held, values);
    this.goOn();
  }

  /**
   * A piece of work is done, or a service has answered: its values become data, and the case goes on.
   * @throws RangeError where nothing of that number is waited for
   */
  complete(id: number, values: CaseData = {}): void {
    const wait = this.needed(id);
    const place = this.placeOf(wait);
    const node = this.nodeOf(place, wait);
    const element = place.scope.elements[node] as Element;
    this.take(wait, place, element, values);
    const decided = decidedAt(this.running.world, element, this.dataAt(wait));
    if (decided) this.held = { ...this.held, [decided.by.result]: decided.data[decided.by.result] };
    if (wait.begun === undefined) this.beginWork(id);
    this.open.delete(id);
    this.tell("complete", wait);
    this.finishWork(place, node, wait.own);
    this.goOn();
  }

  /** What was awaited has come: a time, a message with its data, or whatever a person says has happened. */
  happen(id: number, values: CaseData = {}): void {
    const wait = this.needed(id);
    if (wait.kind === "work" || wait.kind === "service") {
      this.complete(id, values);
      return;
    }
    if (Object.keys(values).length > 0) this.held = merged(this.held, values);
    this.open.delete(id);
    this.goOff(wait);
    this.goOn();
  }

  /**
   * A service or a step fails with an error that the model may catch.
   * @returns whether it was caught; where it was not, nothing has changed
   */
  fail(id: number, code: string): boolean {
    const wait = this.needed(id);
    const place = this.placeOf(wait);
    const happened: Happened[] = [];
    if (!failWith(this.play, place, this.nodeOf(place, wait), code, happened)) return false;
    this.steps++;
    this.noteAll(happened, new Map());
    this.clean();
    this.goOn();
    return true;
  }

  /** Something cannot go on: it is an incident from now on, or once more. */
  incident(id: number, reason: string): void {
    const wait = this.needed(id);
    const isWork = wait.kind === "work" || wait.kind === "service";
    this.open.set(id, { ...wait, kind: "incident", reason, times: (wait.times ?? 0) + 1, ...(isWork && { isWork }) });
    this.tell("incident", wait, reason);
  }

  /** An incident is tried again: it waits for what it waited for before; a gateway looks at its conditions anew. */
  retry(id: number): void {
    const wait = this.needed(id);
    if (wait.kind !== "incident") return;
    const place = this.placeOf(wait);
    const node = this.nodeOf(place, wait);
    const element = place.scope.elements[node] as Element;
    if (courseOf(this.running.world, place.scope, node) === "work" && wait.isWork) {
      // The work itself stays what it was: only who does it failed.
      const { reason: _, ...rest } = wait;
      this.open.set(id, { ...rest, kind: isByMachine(element) ? "service" : "work", since: this.running.now });
      return;
    }
    this.open.delete(id);
    place.look(node);
    this.retried.set(`${wait.at} ${wait.node}`, wait.times ?? 1);
    this.goOn();
    this.retried.clear();
  }

  /** A gateway at an incident is led along some of its ways by hand. */
  lead(id: number, flows: readonly Id[]): void {
    const wait = this.needed(id);
    const place = this.placeOf(wait);
    const node = this.nodeOf(place, wait);
    const act = this.play
      .actsAt(place, node)
      .find((one) => one.flows.length === flows.length && flows.every((flow) => one.flows.includes(flow)));
    if (!act) throw new RangeError("No token can go along these ways from here.");
    this.open.delete(id);
    this.step(place, node, act);
    this.goOn();
  }

  /** The token of a piece of work goes to another node of the same scope, as if it had just come there. */
  move(id: number, to: Id): void {
    const wait = this.needed(id);
    const place = this.placeOf(wait);
    const flow = this.wayInto(place, to);
    if (flow === undefined) throw new RangeError("No token of this scope can come there.");
    const node = this.nodeOf(place, wait);
    this.abort(wait);
    if (place.scope.net.nodes[node]?.kind === "held") {
      this.play.end(place, node);
      place.setActive(node, false);
    } else {
      const from = place.scope.net.nodes[node]?.ins.find((one) => place.state[one] !== 0);
      if (from !== undefined) place.put(from, -1);
    }
    place.put(flow, 1);
    this.clean();
    this.goOn();
  }

  /** Whether a token can be put before a node of a wait's scope by hand. */
  canMove(id: number, to: Id): boolean {
    const wait = this.open.get(id);
    const place = wait && this.play.placeAt(wait.at);
    return place !== undefined && this.wayInto(place, to) !== undefined;
  }

  cancel(): void {
    for (const wait of [...this.open.values()]) this.abort(wait);
    this.standing = "cancelled";
  }

  /** Goes on with whatever can go on; after time or data have changed elsewhere. */
  settle(): void {
    this.goOn();
  }

  protected wayInto(place: Place, to: Id): number | undefined {
    const at = place.scope.nodeAt.get(to);
    return at === undefined ? undefined : place.scope.net.nodes[at]?.ins[0];
  }

  /** Lets happen what happens at once, until everything waits for something. */
  protected goOn(): void {
    if (this.standing !== "open") return;
    for (;;) {
      const place = this.play.changed();
      if (!place) {
        if (this.pick() || this.conditions()) continue;
        break;
      }
      this.look(place, this.play.changedNode);
      if (this.standing !== "open") return;
      if (this.play.uncaught.length > 0) {
        this.failed();
        return;
      }
      if (this.steps > mostSteps) {
        this.standing = "stopped";
        this.events.push({ kind: "stopped", at: this.running.now });
        return;
      }
    }
    this.clean();
    if (!this.play.isOver()) return;
    this.standing = "completed";
    this.open.clear();
    this.events.push({ kind: "completed", at: this.running.now });
  }

  protected failed(): void {
    const [thrown] = this.play.uncaught;
    const element = thrown?.node ?? "";
    for (const wait of [...this.open.values()]) this.abort(wait);
    this.standing = "failed";
    this.failure = { element, error: element };
    this.events.push({ kind: "failed", at: this.running.now, element });
  }

  /** Steps of an ad-hoc sub-process that nothing leads to: each once, one after the other or all at once, as it says. */
  protected pick(): boolean {
    for (const place of this.play.places()) {
      if (!place.scope.isAdHoc) continue;
      const done = this.picked(place);
      const all = this.play.picks(place);
      const act = all.find((one) => !done.has(one.node));
      if (!act) continue;
      this.passed.add(`${place.key} picked ${act.node}`);
      this.steps++;
      this.play.step(act);
      return true;
    }
    return false;
  }

  protected look(place: Place, node: number): void {
    const acts = place.acts[node] as readonly Act[];
    switch (courseOf(this.running.world, place.scope, node)) {
      case "pass":
        if (acts.length > 0) this.go(place, node, acts);
        return;
      case "hold":
        this.hold(place, node, acts);
        return;
      case "edge":
        this.edge(place, node, acts);
        return;
      case "race":
        this.race(place, node, acts);
        return;
      case "wait":
        this.await(place, node, acts);
        return;
      case "work":
        this.work(place, node, acts);
    }
  }
}
