import type { Said } from "../messages";
import type { Id } from "../model";
import type { CalendarEvent } from "./calendar/iCalendar";
import type { Distribution } from "./distributions";
import type { DrawnData } from "./drawnData";
import type { Sites } from "./sites";

/** What a parameter is said to be, and the calendar while which that holds. */
export interface Given<Value> {
  readonly value: Value;
  /** The id of a calendar; always, where none is named. */
  readonly during?: Id;
}

/** Times of a step, in the standard's kinds (BPSim 1.0, time parameters); all in seconds. */
export const timeKinds = ["transfer", "queue", "wait", "setUp", "processing", "validation", "rework", "lag"] as const;
export type TimeKind = (typeof timeKinds)[number];

/** What is assumed of one element of the model. */
export interface Assumption {
  readonly times: { readonly [kind in TimeKind]?: readonly Given<Distribution>[] };
  /** Between two cases, or until an event comes. Seconds. */
  readonly interval?: readonly Given<Distribution>[];
  /** How many cases start here at most. */
  readonly count?: number;
  /** Of a flow that leaves a decision, or an event; 0 to 1. */
  readonly probability?: number;
  /** Of a resource or lane: how many there are. */
  readonly quantity?: readonly Given<number>[];
  /** Calendars while which a resource works, or does not. */
  readonly available?: readonly Given<boolean>[];
  /** The roles a resource stands for. */
  readonly roles?: readonly string[];
  /** What a step needs. */
  readonly needs?: Need;
  readonly priority?: number;
  /** Each time. Money. */
  readonly fixedCost?: readonly Given<Distribution>[];
  /** Money for each second. */
  readonly unitCost?: number;
  /** Of a resource: where it is. */
  readonly site?: string;
  /** Of a process or what starts it: data that is drawn for each case, and decides where a condition or a decision asks for it. */
  readonly drawn?: readonly DrawnData[];
}

/** Resources a step needs all of, each with the others that will do instead. */
export type Need = readonly { readonly oneOf: readonly Id[]; readonly count: number }[];

/** What a forecast assumes, by element. */
export interface Scenario {
  readonly id: Id;
  readonly name: string;
  /** The scenario it takes over what it does not say itself. */
  readonly inherits?: Id;
  /** ISO 4217, or what a file calls its money. */
  readonly currency: string;
  /** Milliseconds since 1970. */
  readonly start: number;
  readonly zone: string;
  /** Seconds. */
  readonly duration?: number;
  readonly warmUp?: number;
  readonly replications?: number;
  readonly seed?: number;
  readonly calendars: ReadonlyMap<Id, { readonly name: string; readonly events: readonly CalendarEvent[] }>;
  readonly sites: Sites;
  readonly of: ReadonlyMap<Id, Assumption>;
  /** What it says itself of elements, without what it takes over. */
  readonly own: ReadonlyMap<Id, Assumption>;
  /** What of it could not be read, in words. */
  readonly problems: readonly Said[];
}
