import { type CaseData, holds } from "../feel";
import type { Element, Id } from "../model";
import { type Act, loopOf, type Place } from "../tokens";
import { courseOf, interrupts, isByMachine } from "./courses";
import { dataIn } from "./dataInScope";
import type { Wait } from "./liveCase";
import { Stepping } from "./stepping";

/** Work and what has an inside: how often it is done, when it is over, and what goes on behind it. */
export abstract class Repeating extends Stepping {
  protected picked(place: Place): Set<Id> {
    const prefix = `${place.key} picked `;
    return new Set([...this.passed].filter((one) => one.startsWith(prefix)).map((one) => one.slice(prefix.length)));
  }

  /** How a repeated step begins: how often, and what each instance has; an incident where that cannot be told. */
  protected beginAt(place: Place, node: number, act: Act): void {
    const element = place.scope.elements[node] as Element;
    const { model } = place.scope;
    const loop = loopOf(model, element.id);
    const data = dataIn(this.held, this.ownData, place);
    const isMulti = loop?.type === "multiInstanceLoopCharacteristics";
    const isSkipped =
      loop?.type === "standardLoopCharacteristics" &&
      loop.testBefore === true &&
      !this.running.choosing.again(model, element, loop, data, true);
    const instances = isMulti ? this.running.choosing.instances(model, element, loop, data) : undefined;
    if (instances && "problem" in instances) {
      if (this.waitsAt(place, node).some(({ kind }) => kind === "incident")) return;
      const times = (this.retried.get(`${place.key} ${element.id}`) ?? 0) + 1;
      const wait = this.set(place, node, "incident", { reason: instances.problem, times });
      this.tell("incident", wait, instances.problem);
      return;
    }
    if (isSkipped || instances?.times === 0) {
      this.skip(place, node, act);
      return;
    }
    this.step(place, node, act, instances?.times);
    const under = place.underWay.get(node);
    for (const [at, inner] of (under?.places ?? []).entries()) {
      const own = instances?.own(at);
      if (own) this.ownData.set(inner.key, own);
    }
    if (courseOf(this.running.world, place.scope, node) === "hold")
      for (let at = 0; at < (under?.places.length ?? 0); at++) this.enterInside(place, element, at);
  }

  /** A step that is to be done no time is passed by. */
  protected skip(place: Place, node: number, act: Act): void {
    this.steps++;
    this.play.step(act, 1);
    const under = place.underWay.get(node);
    for (const inner of under?.places ?? []) {
      this.play.endAll(inner);
      inner.clear(true);
    }
    this.play.end(place, node);
    const finish = this.play.actsAt(place, node).filter(({ does }) => does === "finish");
    if (finish.length > 0) this.go(place, node, finish);
  }

  protected hold(place: Place, node: number, acts: readonly Act[]): void {
    const [first] = acts;
    if (!first) {
      this.enoughInside(place, node);
      return;
    }
    if (first.does === "begin") {
      this.beginAt(place, node, first);
      return;
    }
    const under = place.underWay.get(node);
    const hasPicks = under?.places.some((inner) => inner.scope.isAdHoc && this.picksLeft(inner));
    if (hasPicks) return;
    this.finish(place, node, acts);
  }

  /** Of instances at once that have an inside: where enough of them are over, the others end. */
  protected enoughInside(place: Place, node: number): void {
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
    if (holds(enough, { ...dataIn(this.held, this.ownData, place), ...counts }) !== true) return;
    for (const inner of under.places) {
      this.play.endAll(inner);
      inner.clear(true);
    }
    this.clean();
  }

  protected picksLeft(place: Place): boolean {
    const done = this.picked(place);
    const condition = (
      place.scope.model.elements.get(place.scope.net.scope)?.completionCondition as { text?: string } | undefined
    )?.text;
    if (condition && holds(condition, dataIn(this.held, this.ownData, place)) === true) return false;
    return place.scope.net.entries.flat().some((flow) => {
      const target = place.scope.net.nodes[place.scope.net.flows[flow]?.to ?? -1];
      return target !== undefined && !done.has(target.id);
    });
  }

  /** What was under way at a node has ended: another round, an event at its edge, or on. */
  protected finish(place: Place, node: number, acts: readonly Act[], own?: CaseData): void {
    const { model } = place.scope;
    const element = place.scope.elements[node] as Element;
    const again = acts.find(({ does }) => does === "again");
    const finishing = acts.filter(({ does }) => does === "finish" || does === "pass");
    const loop = loopOf(model, element.id);
    if (again && loop && this.goesRound(place, node, loop, finishing.length > 0, own)) {
      const isHeld = courseOf(this.running.world, place.scope, node) === "hold";
      const before = place.underWay.get(node)?.finished ?? 0;
      if (isHeld) this.leaveInside(place, element, before, 1);
      this.step(place, node, again);
      if (!isHeld) return;
      const done = place.underWay.get(node)?.finished ?? 0;
      this.enterInside(place, element, done);
      const instances =
        loop.type === "multiInstanceLoopCharacteristics"
          ? this.running.choosing.instances(model, element, loop, dataIn(this.held, this.ownData, place))
          : undefined;
      const mine = instances && "own" in instances ? instances.own(done) : undefined;
      const inner = place.underWay.get(node)?.places[0];
      if (inner && mine) this.ownData.set(inner.key, mine);
      return;
    }
    if (finishing.length === 0) return;
    for (const edge of place.scope.edges[node] as readonly number[]) {
      const event = place.scope.elements[edge] as Element;
      if (!this.running.choosing.edge(model, event)) continue;
      const fires = this.play.actsAt(place, edge);
      if (fires.length === 0) continue;
      this.go(place, edge, fires);
      if (interrupts(model, event)) return;
    }
    const under = place.underWay.get(node);
    if (courseOf(this.running.world, place.scope, node) === "hold")
      this.leaveInside(place, element, under?.finished ?? 0, under?.places.length ?? 1);
    this.go(place, node, finishing, own);
  }

  /** What has an inside begins; of a call, which is one piece of work for who looks from outside, that is told as well. */
  protected enterInside(place: Place, element: Element, instance: number): void {
    this.note("enter", place, element.id, { instance });
    if (element.type === "callActivity") this.note("start", place, element.id, { instance });
  }

  protected leaveInside(place: Place, element: Element, from: number, count: number): void {
    if (element.type !== "callActivity") return;
    for (let at = 0; at < count; at++) this.note("complete", place, element.id, { instance: from + at });
  }

  /** Whether a repeated step is done once more: instances that are left, unless enough of them are done; rounds while a condition holds. */
  protected goesRound(
    place: Place,
    node: number,
    loop: Element,
    canFinish: boolean,
    own: CaseData | undefined,
  ): boolean {
    const { model } = place.scope;
    const element = place.scope.elements[node] as Element;
    const data = dataIn(this.held, this.ownData, place, own);
    if (loop.type !== "multiInstanceLoopCharacteristics")
      return (
        !canFinish ||
        this.running.choosing.again(
          model,
          element,
          loop,
          { ...data, loopCounter: (place.underWay.get(node)?.finished ?? 0) + 1 },
          false,
        )
      );
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
    this.go(place, node, finishing, own);
    return false;
  }

  /** A piece of work for each token before a step, or for each instance that is due. */
  protected work(place: Place, node: number, acts: readonly Act[]): void {
    const { net } = place.scope;
    const one = net.nodes[node];
    const element = place.scope.elements[node] as Element;
    const known = this.waitsAt(place, node);
    let wanted = 0;
    if (one?.kind === "held") {
      const isActive = place.state[net.flows.length + node] !== 0;
      if (!isActive) {
        for (const wait of known) if (wait.kind !== "incident") this.abort(wait);
        if (acts[0]?.does === "begin") this.beginAt(place, node, acts[0]);
        return;
      }
      const under = place.underWay.get(node);
      const loop = loopOf(place.scope.model, element.id);
      const isAtOnce = loop?.type === "multiInstanceLoopCharacteristics" && loop.isSequential !== true;
      wanted = isAtOnce ? (under?.times ?? 1) - (under?.finished ?? 0) : 1;
    } else for (const flow of one?.ins ?? []) wanted += place.state[flow] as number;
    for (let at = known.length; at > wanted; at--) this.abort(known[at - 1] as Wait);
    for (let at = known.length; at < wanted; at++) this.workAt(place, node, at);
  }

  protected workAt(place: Place, node: number, at: number): void {
    const { model } = place.scope;
    const element = place.scope.elements[node] as Element;
    const loop = loopOf(model, element.id);
    let more: Partial<Wait> = {};
    if (loop?.type === "multiInstanceLoopCharacteristics") {
      const instance = (place.underWay.get(node)?.finished ?? 0) + at;
      const data = dataIn(this.held, this.ownData, place);
      const instances = this.running.choosing.instances(model, element, loop, data);
      const own = instances && "own" in instances ? instances.own(instance) : undefined;
      more = { instance, ...(own && { own }) };
    }
    const kind = isByMachine(element) ? "service" : "work";
    this.set(place, node, kind, more);
    this.note("enter", place, element.id, more.instance === undefined ? {} : { instance: more.instance });
  }

  /** What goes on behind a piece of work that is done. */
  protected finishWork(place: Place, node: number, own: CaseData | undefined): void {
    const acts = this.play.actsAt(place, node);
    if (acts.length === 0) return;
    if (place.scope.net.nodes[node]?.kind === "held") this.finish(place, node, acts, own);
    else this.go(place, node, acts, own);
  }
}
