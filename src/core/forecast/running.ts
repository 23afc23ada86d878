import type { CaseData } from "../feel";
import { always, type Distribution, draw, type Given, type Hours } from "../scenario";
import type { Act, Place, Play } from "../tokens";
import { type Asking, type Desk, type Grants, noGrants, nothingWanted, type Wanted } from "./desks";
import type { Follower } from "./follower";
import { givenAt, type NodePlan, type Plan } from "./plan";
import type { Crossing } from "./resources";
import type { Source } from "./sources";

/** A case under way. */
export interface Running {
  readonly number: number;
  readonly from: Arriving;
  readonly began: number;
  readonly play: Play;
  /** What was drawn for it, and what decisions came to since; undefined where no data is drawn. */
  data: CaseData | undefined;
  readonly pending: Pending[];
  /** How often each element was come to, for its chances. */
  readonly visits: number[];
  /** Where there are sites: by element, the how-manieth done step of this case it was last, and where that was. */
  readonly doneAs: number[];
  done: number;
  lastSite: string | undefined;
  readonly counts: boolean;
  /** Of the one case that is followed: who follows it. */
  readonly follower: Follower | undefined;
  steps: number;
  waiting: number;
  working: number;
  cost: number;
  isOver: boolean;
}

/** Something that goes on at a node of a case. When it is over it may be another one: there is one for each step, in millions. */
export class Pending implements Asking {
  readonly kind = "pending";
  state: "delayed" | "queued" | "busy" | "message" | "crossing" | "gone" = "delayed";
  since = 0;
  work = 0;
  begun = Number.NaN;
  due = Number.NaN;
  /** How often it is in the list of what is to come: something that was put off comes twice, the first time too early. */
  coming = 0;
  /** The how-manieth time its node is come to in this case, for its chances; of a race, once that is asked. */
  visit: number | undefined = undefined;
  hours: Hours = always;
  /** Ways between sites it has still to go before it is begun. */
  ways: readonly Crossing[] = noWays;
  /** Of a race: a person chose which event is first. */
  isLed = false;
  /** The message it waits for was sent, and is on its way. */
  isSent = false;
  /** Of a race: what happens when it is won, and when each can. */
  act: Act | undefined = undefined;

  wanted: Wanted = nothingWanted;
  asked = 0;
  asking: Asking["asking"] = "nothing";
  granted: Grants = noGrants;
  /** It stood in several queues, of which all but the one it was served from hold it until they are looked at. */
  isQueuedElsewhere = false;

  constructor(
    public of: Running,
    public place: Place,
    public node: number,
    public plan: NodePlan,
  ) {}

  /** As new, for another step. */
  anew(of: Running, place: Place, node: number, plan: NodePlan): this {
    this.of = of;
    this.place = place;
    this.node = node;
    this.plan = plan;
    this.begun = Number.NaN;
    this.due = Number.NaN;
    this.visit = undefined;
    this.hours = always;
    this.ways = noWays;
    this.isLed = false;
    this.isSent = false;
    this.act = undefined;
    this.wanted = nothingWanted;
    this.asking = "nothing";
    return this;
  }

  /** Whether nothing holds it any more. */
  get isIdle(): boolean {
    return this.state === "gone" && this.coming === 0 && this.asking !== "gone" && !this.isQueuedElsewhere;
  }

  get priority(): number {
    return this.plan.priority;
  }
  get counts(): boolean {
    return this.of.counts;
  }
}

export const noWays: readonly Crossing[] = [];

/** Cases of a source: how many came so far. */
export interface Arriving {
  readonly kind: "case";
  readonly source: Source;
  came: number;
}

/** What comes: a case, what was to come of one, or a resource's hours. */
export type Coming = Pending | Arriving | { readonly kind: "opens"; readonly desk: Desk };

/** Counts that an element is come to once more, and gives how often it was before. */
export function visitOf(run: Running, plan: NodePlan): number {
  const visit = run.visits[plan.element] ?? 0;
  run.visits[plan.element] = visit + 1;
  return visit;
}

/** Whether something of a chance happens this time. */
export const happens = (run: Running, plan: NodePlan, chance: number): boolean =>
  plan.choice.at(run.number, visitOf(run, plan)).next() < chance;

/** The sum of what several times come to at a moment, by the chances of a visit. */
export function drawn(
  { calendars }: Plan,
  run: Running,
  { time: stream }: NodePlan,
  now: number,
  times: readonly (readonly Given<Distribution>[])[],
  visit: number,
): number {
  let sum = 0;
  if (times.length === 0) return sum;
  const chance = stream.at(run.number, visit);
  for (const time of times) {
    const given = givenAt(time, calendars, now);
    if (given) sum += Math.max(0, draw(given, chance));
  }
  return sum;
}
