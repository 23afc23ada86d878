import type { CaseData } from "../feel";
import { type Element, isActivity, type Model } from "../model";
import type { Act, Happened, Place } from "../tokens";
import { CaseBook } from "./caseBook";
import { courseOf } from "./courses";
import { dataIn } from "./dataInScope";

/** How tokens go on: which way is taken, who came and left by it, and what is not waited for any more. */
export abstract class Stepping extends CaseBook {
  /** A signal that was thrown is heard also where the first of several events is waited for. */
  protected abstract toRaces(model: Model, thrower: Element): void;

  /** The one way on, or the chosen one; none is an incident. */
  protected go(place: Place, node: number, acts: readonly Act[], own?: CaseData): void {
    const { model } = place.scope;
    const element = place.scope.elements[node] as Element;
    const known = this.waitsAt(place, node);
    const act = this.running.choosing.way(model, element, acts, dataIn(this.held, this.ownData, place, own));
    if (act) {
      // An incident at a gateway is over; that of somebody's work is not by another's.
      const over = known.filter(({ kind, isWork }) => kind === "incident" && !isWork);
      for (const wait of over) this.open.delete(wait.id);
      this.step(place, node, act, undefined, over.length > 0);
      return;
    }
    if (known.some(({ kind }) => kind === "incident")) return;
    const reason = "no condition holds, and there is no default";
    const before = this.retried.get(`${place.key} ${element.id}`) ?? 0;
    const wait = this.set(place, node, "incident", { reason, times: before + 1 });
    // It has come here, though it cannot go on: whoever counts sees it once.
    if (before === 0 && !isActivity(element.type)) this.note("enter", place, element.id);
    this.tell("incident", wait, reason);
  }

  /** Does an act; notes who came and who left; takes away what it ended. */
  protected step(place: Place, node: number, act: Act, times?: number, isEntered = false): void {
    this.steps++;
    const places = new Map(this.play.places().map((one) => [one.key, one]));
    const course = courseOf(this.running.world, place.scope, node);
    const isWork = course === "work" || (course === "wait" && isActivity(place.scope.elements[node]?.type ?? ""));
    const happened = this.play.step(act, times);
    if (isWork) {
      // That work began was noted when it did; it is left once a token goes on.
      if (act.does !== "begin" && act.does !== "again") this.note("leave", place, act.node);
    } else if (act.does === "pass" || act.does === "fire") {
      const isKnown = isEntered || this.retried.has(`${place.key} ${act.node}`);
      if (!isKnown) this.note("enter", place, act.node);
      // An event sub-process is left when it is over.
      if (place.scope.elements[node]?.triggeredByEvent !== true) this.note("leave", place, act.node);
    } else if (act.does === "finish") this.note("leave", place, act.node);
    this.noteAll(happened.slice(1), places);
    const signal = place.scope.elements[node];
    if (signal) this.toRaces(place.scope.model, signal);
    this.clean();
  }

  /** What followed at once: events that caught what was thrown, work that was undone. */
  protected noteAll(happened: readonly Happened[], before: ReadonlyMap<string, Place>): void {
    for (const { at, node, event } of happened) {
      const place = this.play.placeAt(at) ?? before.get(at);
      this.note("enter", place, node);
      // An event sub-process is left when it is over.
      if (place?.scope.model.elements.get(node)?.triggeredByEvent === true) continue;
      if (event === "undone") {
        this.note("start", place, node);
        this.note("complete", place, node);
      }
      this.note("leave", place, node);
    }
  }

  /** What is waited for in scopes that are gone, or at nodes that no token stands at any more, ends. */
  protected clean(): void {
    for (const wait of [...this.open.values()]) {
      const place = this.play.placeAt(wait.at);
      const node = place?.scope.nodeAt.get(wait.node) ?? -1;
      if (!place || node < 0) {
        this.abort(wait);
        continue;
      }
      const isEdge = courseOf(this.running.world, place.scope, node) === "edge";
      if (!isEdge && !this.isStandingAt(place, node)) this.abort(wait);
    }
    for (const key of this.ownData.keys()) if (!this.play.placeAt(key)) this.ownData.delete(key);
    for (const key of this.passed) if (!this.play.placeAt(key.slice(0, key.indexOf(" ")))) this.passed.delete(key);
  }

  /** Whether what an event hangs on is under way. */
  protected isAlive(place: Place, node: number): boolean {
    const { net } = place.scope;
    const host = net.nodes[node]?.host;
    return host === undefined ? place.busy > 0 : place.state[net.flows.length + host] !== 0;
  }
}
