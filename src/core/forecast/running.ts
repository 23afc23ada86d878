import type { CaseData } from "../feel";
import { type Distribution, draw, type Given, type Hours } from "../scenario";
import type { Act, Place, Play } from "../tokens";
import type { Desk, Request } from "./desks";
import type { Follower } from "./follower";
import { givenAt, type NodePlan, type Plan } from "./plan";
import type { Crossing } from "./resources";
import type { Source } from "./sources";

/** A case under way. */
export interface Running {
  readonly number: number;
  readonly source: Source;
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

/** Something that goes on at a node of a case. */
export interface Pending {
  readonly kind: "pending";
  readonly of: Running;
  readonly place: Place;
  readonly node: number;
  readonly plan: NodePlan;
  readonly since: number;
  readonly work: number;
  state: "delayed" | "queued" | "busy" | "message" | "crossing" | "gone";
  /** Ways between sites it has still to go before it is begun. */
  ways: readonly Crossing[];
  /** Of a race: a person chose which event is first. */
  isLed: boolean;
  /** The message it waits for was sent, and is on its way. */
  isSent: boolean;
  begun: number;
  hours: Hours;
  request: Request | undefined;
  /** Of a race: what happens when it is won, and when each can. */
  act: Act | undefined;
  /** The how-manieth time its node is come to in this case, for its chances; of a race, once that is asked. */
  visit: number | undefined;
  due: number;
}

/** What comes: a case, what was to come of one, or a resource's hours. Something that was put off comes twice, the first time too early. */
export type Coming =
  | Pending
  | { readonly kind: "case"; readonly source: Source }
  | { readonly kind: "opens"; readonly desk: Desk };

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
