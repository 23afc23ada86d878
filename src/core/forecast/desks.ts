import type { NeedPlan, ResourcePlan } from "./resources";
import { Series } from "./series";

/** Somebody who waits for resources. Larger priorities go first, among equal ones who came first. */
export interface Request<By = unknown> {
  readonly by: By;
  readonly needs: NeedPlan;
  /** All that may serve it. */
  readonly desks: readonly Desk[];
  readonly priority: number;
  readonly asked: number;
  state: "queued" | "served" | "gone";
  /** What it got. */
  granted: readonly Grant[];
  /** Whether its waiting counts in the figures. */
  readonly counts: boolean;
}

export interface Grant {
  readonly desk: Desk;
  readonly count: number;
}

/** A resource while cases run: who works, who waits, and what came of it since counting began. */
export class Desk {
  busy = 0;
  readonly queue: Request[] = [];
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
      if (this.busy > 0) this.#busyOpen += this.busy * this.plan.hours.between(from, now);
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
export class Desks<By> {
  readonly list: readonly Desk[];

  constructor(
    plans: readonly ResourcePlan[],
    /** Told when a resource's hours begin again for which somebody waits. */
    readonly wake: (desk: Desk, at: number) => void,
    /** Told when somebody who waited can begin. */
    readonly serve: (by: By) => void,
  ) {
    this.list = plans.map((plan, at) => new Desk(plan, at));
  }

  /** Asks for what is needed: it is granted at once, or waits. O(queue) at worst. */
  ask(request: Request<By>, now: number): boolean {
    const grants = this.#grants(request, now, true);
    if (grants) {
      this.#grant(request, grants, now);
      return true;
    }
    for (const desk of request.desks) {
      let at = desk.queue.length;
      while (at > 0 && (desk.queue[at - 1] as Request).priority < request.priority) at--;
      if (at === desk.queue.length) desk.queue.push(request);
      else desk.queue.splice(at, 0, request);
      desk.change(now, 1);
      this.#wakeWhenOpen(desk, now);
    }
    return false;
  }

  /** The desks of a need, found once for each. */
  of(needs: NeedPlan): readonly Desk[] {
    const known = this.#of.get(needs);
    if (known) return known;
    const found = [...new Set(needs.flatMap(({ oneOf }) => oneOf.map((at) => this.list[at] as Desk)))];
    this.#of.set(needs, found);
    return found;
  }
  readonly #of = new Map<NeedPlan, readonly Desk[]>();

  /** What would be granted; undefined where not all of it is there. Nobody overtakes one of the same desk who could be served. */
  #grants(request: Request, now: number, isNew: boolean): Grant[] | undefined {
    const single = request.needs.length === 1 && request.desks.length === 1 ? request.desks[0] : undefined;
    if (single) {
      const { count } = request.needs[0] as { readonly count: number };
      if (isNew && single.waiting > 0 && this.#isBehind(single, request)) return undefined;
      return single.busy + count <= single.capacityAt(now) ? [{ desk: single, count }] : undefined;
    }
    const grants: Grant[] = [];
    for (const { oneOf, count } of request.needs) {
      let chosen: Desk | undefined;
      for (const at of oneOf) {
        const desk = this.list[at] as Desk;
        const taken = grants.reduce((sum, grant) => (grant.desk === desk ? sum + grant.count : sum), 0);
        if (isNew && desk.waiting > 0 && this.#isBehind(desk, request)) continue;
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
  #isBehind(desk: Desk, request: Request): boolean {
    const first = desk.queue.find((other) => other.state === "queued");
    return first !== undefined && first.priority >= request.priority && first.needs.length === 1;
  }

  #grant(request: Request, grants: readonly Grant[], now: number): void {
    request.state = "served";
    request.granted = grants;
    for (const { desk, count } of grants) {
      desk.take(now, count);
      if (!request.counts) continue;
      desk.waits++;
      desk.waited += now - request.asked;
      desk.waitedOpen += desk.plan.hours.between(request.asked, now);
    }
  }

  /** Somebody who waited gives up. */
  leave(request: Request, now: number): void {
    if (request.state !== "queued") return;
    request.state = "gone";
    for (const desk of request.desks) desk.change(now, -1);
  }

  /** What was granted is free again, and goes to who waits longest. */
  free(request: Request, now: number): void {
    const { granted } = request;
    request.granted = [];
    for (const { desk, count } of granted) desk.give(now, count);
    for (const { desk } of granted) this.dispatch(desk, now);
  }

  /** Serves those who wait at a desk, as far as it can. O(served + those who wait for something else as well). */
  dispatch(desk: Desk, now: number): void {
    const { queue } = desk;
    let kept = 0;
    let at = 0;
    for (; at < queue.length; at++) {
      const request = queue[at] as Request;
      if (request.state !== "queued") continue;
      const isFull = desk.busy >= desk.capacityAt(now);
      const grants = isFull ? undefined : this.#grants(request, now, false);
      if (!grants) {
        queue[kept++] = request;
        // Nobody overtakes who waits for this desk alone.
        if (isFull || request.needs.length === 1) {
          at++;
          break;
        }
        continue;
      }
      for (const other of request.desks) other.change(now, -1);
      this.#grant(request, grants, now);
      this.serve(request.by as By);
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
