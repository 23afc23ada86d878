import type { NeedPlan, ResourcePlan } from "./resources";
import { Series } from "./series";

/** What is needed, with all that may serve it; found once for each need. */
export interface Wanted {
  readonly needs: NeedPlan;
  readonly desks: readonly Desk[];
  /** What is granted where there is one desk for all of it. */
  readonly only: Grants | undefined;
}

/** Somebody who asks for resources. Larger priorities go first, among equal ones who came first. */
export interface Asking {
  wanted: Wanted;
  readonly priority: number;
  asked: number;
  asking: "nothing" | "queued" | "served" | "gone";
  /** What it got. */
  granted: Grants;
  /** Whether its waiting counts in the figures. */
  readonly counts: boolean;
}

export interface Grant {
  readonly desk: Desk;
  readonly count: number;
}
export type Grants = readonly Grant[];
export const noGrants: Grants = [];
export const nothingWanted: Wanted = { needs: [], desks: [], only: undefined };

/** A resource while cases run: who works, who waits, and what came of it since counting began. */
export class Desk {
  busy = 0;
  readonly queue: Asking[] = [];
  waiting = 0;
  waits = 0;
  waited = 0;
  /** Of that, while the resource was there: what more of them would make shorter. */
  waitedOpen = 0;
  mostWaiting = 0;
  readonly queueSeries = new Series();
  readonly busySeries = new Series();
  #busyOpen = 0;
  #queueTime = 0;
  #since = 0;
  /** Open seconds up to then, where they are known. */
  #openSince = -1;
  #begins = 0;
  /** The moment for which it will look again whether somebody works. */
  opensAt = Number.NaN;

  constructor(
    readonly plan: ResourcePlan,
    /** Its number among the resources of the run. */
    readonly at: number,
  ) {}

  capacityAt(now: number): number {
    let sum = 0;
    for (const { count, hours } of this.plan.shifts) if (hours.isAlways || hours.isOpen(now)) sum += count;
    return sum;
  }

  /** Counts up to a moment. */
  count(now: number): void {
    const from = Math.max(this.#since, this.#begins);
    if (now > from) {
      if (this.busy > 0) {
        const { hours } = this.plan;
        const open = hours.isAlways ? now : hours.until(now);
        const isKnown = this.#openSince >= 0 && from === this.#since;
        const before = isKnown ? this.#openSince : hours.isAlways ? from : hours.until(from);
        this.#busyOpen += this.busy * (open - before);
        this.#openSince = open;
      } else this.#openSince = -1;
      this.#queueTime += this.waiting * (now - from);
    }
    this.#since = Math.max(this.#since, now);
  }

  beginCounting(at: number): void {
    this.#begins = at;
  }

  take(now: number, count: number): void {
    this.count(now);
    this.busy += count;
    this.busySeries.set(now, this.busy);
  }

  give(now: number, count: number): void {
    this.count(now);
    this.busy -= count;
    this.busySeries.set(now, this.busy);
  }

  change(now: number, waiting: number): void {
    this.count(now);
    this.waiting += waiting;
    if (this.waiting > this.mostWaiting) this.mostWaiting = this.waiting;
    this.queueSeries.set(now, this.waiting);
  }

  /** Figures from when counting began to a moment. */
  figures(end: number) {
    this.count(end);
    const { shifts } = this.plan;
    const open = shifts.reduce((sum, { count, hours }) => sum + count * hours.between(this.#begins, end), 0);
    return {
      busySeconds: this.#busyOpen,
      openSeconds: open,
      queueMean: end > this.#begins ? this.#queueTime / (end - this.#begins) : 0,
      waits: this.waits,
      waitedSeconds: this.waited,
      waitedOpenSeconds: this.waitedOpen,
    };
  }
}

/** All resources of a run. */
export class Desks<Who extends Asking> {
  readonly list: readonly Desk[];
  readonly #wanted = new Map<NeedPlan, Wanted>();

  constructor(
    plans: readonly ResourcePlan[],
    /** Told when a resource's hours begin again for which somebody waits. */
    readonly wake: (desk: Desk, at: number) => void,
    /** Told when somebody who waited can begin. */
    readonly serve: (who: Who) => void,
  ) {
    this.list = plans.map((plan, at) => new Desk(plan, at));
  }

  /** Asks for what is needed: it is granted at once, or waits. O(queue) at worst. */
  ask(who: Who, needs: NeedPlan, now: number): boolean {
    const wanted = this.#wanted.get(needs) ?? this.#found(needs);
    who.wanted = wanted;
    who.asked = now;
    const grants = this.#grants(who, now, true);
    if (grants) {
      this.#grant(who, grants, now);
      return true;
    }
    who.asking = "queued";
    for (const desk of wanted.desks) {
      let at = desk.queue.length;
      while (at > 0 && (desk.queue[at - 1] as Asking).priority < who.priority) at--;
      if (at === desk.queue.length) desk.queue.push(who);
      else desk.queue.splice(at, 0, who);
      desk.change(now, 1);
      this.#wakeWhenOpen(desk, now);
    }
    return false;
  }

  #found(needs: NeedPlan): Wanted {
    const desks = [...new Set(needs.flatMap(({ oneOf }) => oneOf.map((at) => this.list[at] as Desk)))];
    const [need] = needs;
    const [desk] = desks;
    const only = needs.length === 1 && desks.length === 1 && need && desk ? [{ desk, count: need.count }] : undefined;
    const wanted = { needs, desks, only };
    this.#wanted.set(needs, wanted);
    return wanted;
  }

  /** What would be granted; undefined where not all of it is there. Nobody overtakes one of the same desk who could be served. */
  #grants(who: Asking, now: number, isNew: boolean): Grants | undefined {
    const { needs, only } = who.wanted;
    if (only) {
      const { desk, count } = only[0] as Grant;
      if (isNew && desk.waiting > 0 && this.#isBehind(desk, who)) return undefined;
      return desk.busy + count <= desk.capacityAt(now) ? only : undefined;
    }
    const grants: Grant[] = [];
    for (const { oneOf, count } of needs) {
      let chosen: Desk | undefined;
      for (const at of oneOf) {
        const desk = this.list[at] as Desk;
        const taken = grants.reduce((sum, grant) => (grant.desk === desk ? sum + grant.count : sum), 0);
        if (isNew && desk.waiting > 0 && this.#isBehind(desk, who)) continue;
        if (desk.busy + taken + count <= desk.capacityAt(now)) {
          chosen = desk;
          break;
        }
      }
      if (!chosen) return undefined;
      grants.push({ desk: chosen, count });
    }
    return grants;
  }

  /** Whether somebody of at least the same priority waits for nothing but this desk. */
  #isBehind(desk: Desk, who: Asking): boolean {
    for (const other of desk.queue)
      if (other.asking === "queued") return other.priority >= who.priority && other.wanted.needs.length === 1;
    return false;
  }

  #grant(who: Asking, grants: Grants, now: number): void {
    who.asking = "served";
    who.granted = grants;
    for (const { desk, count } of grants) {
      desk.take(now, count);
      if (!who.counts) continue;
      desk.waits++;
      if (now === who.asked) continue;
      desk.waited += now - who.asked;
      desk.waitedOpen += desk.plan.hours.between(who.asked, now);
    }
  }

  /** Somebody who waited gives up. */
  leave(who: Asking, now: number): void {
    if (who.asking !== "queued") return;
    who.asking = "gone";
    for (const desk of who.wanted.desks) desk.change(now, -1);
  }

  /** What was granted is free again, and goes to who waits longest. */
  free(who: Asking, now: number): void {
    const { granted } = who;
    who.granted = noGrants;
    for (let at = 0; at < granted.length; at++) {
      const { desk, count } = granted[at] as Grant;
      desk.give(now, count);
    }
    for (let at = 0; at < granted.length; at++) this.dispatch((granted[at] as Grant).desk, now);
  }

  /** Serves those who wait at a desk, as far as it can. O(served + those who wait for something else as well). */
  dispatch(desk: Desk, now: number): void {
    const { queue } = desk;
    let kept = 0;
    let at = 0;
    for (; at < queue.length; at++) {
      const who = queue[at] as Asking;
      if (who.asking !== "queued") continue;
      const isFull = desk.busy >= desk.capacityAt(now);
      const grants = isFull ? undefined : this.#grants(who, now, false);
      if (!grants) {
        queue[kept++] = who;
        // Nobody overtakes who waits for this desk alone.
        if (isFull || who.wanted.needs.length === 1) {
          at++;
          break;
        }
        continue;
      }
      for (const other of who.wanted.desks) other.change(now, -1);
      this.#grant(who, grants, now);
      this.serve(who as Who);
    }
    // Mostly the first alone goes, and the second was looked at.
    if (at - kept === 1 && at <= 2) queue.shift();
    else if (kept < at) queue.splice(kept, at - kept);
    if (desk.waiting > 0) this.#wakeWhenOpen(desk, now);
  }

  #wakeWhenOpen(desk: Desk, now: number): void {
    // What was looked for is still to come.
    if (desk.opensAt > now) return;
    let next = Number.POSITIVE_INFINITY;
    for (const { hours } of desk.plan.shifts) {
      if (hours.isAlways) continue;
      const open = hours.nextOpen(now);
      // Of several shifts another one may come while this one is on.
      next = Math.min(next, open > now ? open : hours.nextOpen(hours.nextClose(now)));
    }
    if (!Number.isFinite(next)) return;
    desk.opensAt = next;
    this.wake(desk, next);
  }
}
