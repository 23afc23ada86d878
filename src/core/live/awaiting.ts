import { holds } from "../feel";
import { type Element, type Id, isActivity, type Model } from "../model";
import type { Act, Place } from "../tokens";
import { conditionOf, courseOf, eventOf, interrupts, nameOfAwaited, signalOf, triggerKind } from "./courses";
import { dataIn } from "./dataInScope";
import type { Wait } from "./liveCase";
import { Repeating } from "./repeating";
import { nextRound, timerSet } from "./timers";

/** Events: what is waited for in the flow, at edges, and where the first of several counts. */
export abstract class Awaiting extends Repeating {
  /** Conditions that hold by now. */
  protected conditions(): boolean {
    for (const wait of this.open.values()) {
      if (wait.kind !== "condition") continue;
      const known = this.elementOf(wait);
      if (!known) continue;
      const event = eventOf(known.model, known.element);
      if (holds(conditionOf(known.model, event), this.dataAt(wait)) !== true) continue;
      this.open.delete(wait.id);
      this.goOff(wait);
      return true;
    }
    return false;
  }

  /** An event in the flow, or a step that waits for a message. */
  protected await(place: Place, node: number, acts: readonly Act[]): void {
    const { net, model, expects } = place.scope;
    const element = place.scope.elements[node] as Element;
    const one = net.nodes[node];
    const isTask = isActivity(element.type);
    const key = `${place.key} ${element.id}`;
    const known = this.waitsAt(place, node);
    if (one?.kind === "held" && place.state[net.flows.length + node] === 0) {
      if (acts[0]?.does === "begin") this.beginAt(place, node, acts[0]);
      return;
    }
    const passing = acts.filter(({ does }) => does !== "begin");
    // It has happened at the gateway before it.
    if (this.passed.has(key) && passing.length > 0) {
      this.passed.delete(key);
      if (isTask) for (const kind of ["enter", "start", "complete"] as const) this.note(kind, place, element.id);
      this.passOn(place, node, passing);
      return;
    }
    if (!this.isStandingAt(place, node)) return;
    const isHeard = (expects[node] as readonly Id[]).length > 0;
    if (isHeard) {
      if (passing.length === 0) {
        if (known.length === 0) this.setMessage(place, node, element, isTask);
        return;
      }
      if (isTask && known.length === 0) this.setMessage(place, node, element, isTask);
      const [first] = this.waitsAt(place, node);
      if (first) {
        this.open.delete(first.id);
        if (isTask) {
          if (first.begun === undefined) this.tell("start", first);
          this.tell("complete", first);
        }
      }
      this.passOn(place, node, passing);
      return;
    }
    let wanted = 0;
    if (one?.kind === "held") wanted = 1;
    else for (const flow of one?.ins ?? []) wanted += place.state[flow] as number;
    for (let at = known.length; at < wanted; at++) this.awaited(place, node, element, model, isTask);
  }

  protected passOn(place: Place, node: number, acts: readonly Act[]): void {
    if (place.scope.net.nodes[node]?.kind === "held") this.finish(place, node, acts);
    else this.go(place, node, acts);
  }

  protected setMessage(place: Place, node: number, element: Element, isTask: boolean): void {
    if (isTask) this.note("enter", place, element.id);
    this.set(place, node, "message", { name: nameOfAwaited(place.scope.model, element), isInside: true });
  }

  protected awaited(place: Place, node: number, element: Element, model: Model, isTask: boolean): void {
    if (isTask) this.note("enter", place, element.id);
    const kind = triggerKind(model, element);
    const wait = this.waitFor(place, node, element, kind);
    if (wait) return;
    // An event that nothing sets off by itself is passed.
    this.passOn(place, node, place.acts[node] as readonly Act[]);
  }

  /** What an event waits for, set; undefined where it waits for nothing. */
  protected waitFor(
    place: Place,
    node: number,
    event: Element,
    kind: ReturnType<typeof triggerKind>,
    more: Partial<Wait> = {},
  ): Wait | undefined {
    const { model } = place.scope;
    switch (kind) {
      case "timer": {
        const data = dataIn(this.held, this.ownData, place);
        const timer = timerSet(model, event, this.running.now, this.running.zone, data);
        if (timer) {
          const { due, left } = timer;
          return this.set(place, node, "timer", { left, ...(Number.isFinite(due) && { due }), ...more });
        }
        const reason = "its time cannot be read";
        const wait = this.set(place, node, "incident", { reason, times: 1, ...more });
        this.tell("incident", wait, reason);
        return wait;
      }
      case "message":
        return this.set(place, node, "message", { name: nameOfAwaited(model, event), ...more });
      case "signal":
        return this.set(place, node, "signal", { name: nameOfAwaited(model, event), ...more });
      case "condition":
        return this.set(place, node, "condition", more);
      default:
        return undefined;
    }
  }

  protected edge(place: Place, node: number, acts: readonly Act[]): void {
    const { model, expects } = place.scope;
    const element = place.scope.elements[node] as Element;
    const known = this.waitsAt(place, node);
    const ending = acts.find(({ does }) => does === "finish");
    if (ending) {
      this.step(place, node, ending);
      return;
    }
    const fires = acts.filter(({ does }) => does === "fire");
    const isHeard = (expects[node] as readonly Id[]).length > 0;
    if (fires.length === 0) {
      if (!isHeard || !this.isAlive(place, node)) for (const wait of known) this.open.delete(wait.id);
      return;
    }
    if (isHeard) {
      this.goEdge(place, node, fires);
      return;
    }
    if (known.length > 0) return;
    const event = eventOf(model, element);
    this.waitFor(place, node, event, triggerKind(model, event));
  }

  protected goEdge(place: Place, node: number, fires: readonly Act[]): void {
    const element = place.scope.elements[node] as Element;
    this.go(place, node, fires);
    // What does not end its host may go off again while that is under way; a condition only once it has not held in between.
    if (triggerKind(place.scope.model, eventOf(place.scope.model, element)) === "condition") return;
    if (!interrupts(place.scope.model, element) && this.play.placeAt(place.key) === place && this.isAlive(place, node))
      place.setFired(node, 0);
  }

  /** The first of several events: each is waited for, and whichever comes first takes the token. */
  protected race(place: Place, node: number, acts: readonly Act[]): void {
    const known = this.waitsAt(place, node);
    if (!this.isStandingAt(place, node)) return;
    const { net, model, expects } = place.scope;
    const targets = (net.nodes[node]?.outs ?? []).map((flow) => net.flows[flow]?.to ?? -1);
    for (const target of targets) {
      const event = place.scope.elements[target];
      if (!event) continue;
      const isHeard = (expects[target] as readonly Id[]).length > 0;
      if (isHeard) {
        const act = acts.find((one) => one.move.give.some((flow) => net.flows[flow]?.to === target));
        if (!act) continue;
        for (const wait of this.waitsAt(place, node)) this.open.delete(wait.id);
        this.passed.add(`${place.key} ${event.id}`);
        this.step(place, node, act);
        return;
      }
      if (known.some((wait) => wait.event === event.id)) continue;
      const kind = triggerKind(model, event);
      if (kind === "none" || kind === "thrown") continue;
      this.waitFor(place, node, event, kind, { event: event.id });
    }
  }

  /** What was awaited has come. */
  protected goOff(wait: Wait): void {
    const place = this.placeOf(wait);
    const node = this.nodeOf(place, wait);
    const { net, model } = place.scope;
    const element = place.scope.elements[node] as Element;
    const acts = this.play.actsAt(place, node);
    if (wait.event !== undefined) {
      const target = place.scope.nodeAt.get(wait.event);
      const act = acts.find((one) => one.move.give.some((flow) => net.flows[flow]?.to === target));
      if (!act) return;
      for (const other of this.waitsAt(place, node)) this.open.delete(other.id);
      this.passed.add(`${place.key} ${wait.event}`);
      this.step(place, node, act);
      return;
    }
    if (courseOf(this.running.world, place.scope, node) !== "edge") {
      if (isActivity(element.type)) {
        if (wait.begun === undefined) this.tell("start", wait);
        this.tell("complete", wait);
      }
      const passing = acts.filter(({ does }) => does !== "begin");
      if (passing.length > 0) this.passOn(place, node, passing);
      return;
    }
    const fires = acts.filter(({ does }) => does === "fire");
    if (fires.length === 0) return;
    this.goEdge(place, node, fires);
    const event = eventOf(model, element);
    const isThere = this.play.placeAt(place.key) === place && this.isAlive(place, node);
    if (interrupts(model, element) || !isThere) return;
    if (wait.kind !== "timer") return;
    const left = wait.left ?? 0;
    const data = dataIn(this.held, this.ownData, place);
    const due =
      left === 0 || wait.due === undefined ? undefined : nextRound(model, event, wait.due, this.running.zone, data);
    // A timer that has gone off for the last time stands there without a time, so that it is not set again.
    this.set(place, node, "timer", due === undefined ? { left: 0 } : { due, left: left < 0 ? -1 : left - 1 });
  }

  /** A signal that was thrown is heard by races, which wait before the event itself; and by other cases, for whoever has these. */
  protected toRaces(model: Model, thrower: Element): void {
    if (thrower.type !== "endEvent" && thrower.type !== "intermediateThrowEvent") return;
    const thrown = signalOf(model, thrower);
    if (triggerKind(model, thrower) !== "signal") return;
    this.thrown.push(nameOfAwaited(model, thrower));
    for (const wait of [...this.open.values()]) {
      if (wait.kind !== "signal" || wait.event === undefined) continue;
      const known = this.elementOf(wait);
      const wanted = known && signalOf(known.model, known.element);
      if (wanted !== undefined && wanted !== thrown) continue;
      this.open.delete(wait.id);
      this.goOff(wait);
    }
  }
}
