import type { Id } from "../model";
import type { ElementFigures, Forecast, ResourceFigures } from "./forecast";

/** Who is waited for, and where most of it. */
interface Waited {
  readonly resource: ResourceFigures;
  readonly element: ElementFigures | undefined;
}

/** What an analyst asks of a forecast first. Times in seconds a case, on average. */
export interface Story {
  readonly within90: number;
  readonly within50: number;
  /** The share of a case's time in which nobody works on it; 0 to 1. */
  readonly waitingShare: number;
  /** Waiting for somebody who is there and busy. */
  readonly forPeople: number;
  /** Who is waited for longest in all while being busy. */
  readonly bottleneck: Waited | undefined;
  /** Who is waited for longest in all only because they are not at work, and how long each time. Seconds. */
  readonly closed: (Waited & { readonly each: number }) | undefined;
  /** Where most is waited for something to come. */
  readonly event: ElementFigures | undefined;
  /** Which of the three a case waits for longest, as the clock on the wall goes. */
  readonly most: "bottleneck" | "closed" | "event" | undefined;
  /** More comes than can be done: queues grow as long as the run lasts. */
  readonly overrun: readonly Id[];
}

/** From this share of their hours on, people count as having more to do than they can. */
const full = 0.97;

/**
 * Reads the story out of a forecast's figures. Who stands in a queue stands there through the night as well: an hour
 * of a queue lasts, on the wall, as many hours as pass for one hour of work. Only what is waited beyond that is
 * waited because nobody was at work. O(resources + elements).
 */
export function storyOf(forecast: Forecast): Story {
  const { cycleTime, waitingTime, processingTime, resources, elements, cases } = forecast;
  const each = Math.max(1, cases + forecast.underWay);
  const whole = forecast.length - forecast.warmUp;
  const queuedEach = ({ quantity, openSeconds, waitingBusyMean, waitingMean }: ResourceFigures) =>
    openSeconds > 0 ? Math.min(waitingMean, (waitingBusyMean * quantity * whole) / openSeconds) : 0;
  const closedEach = (one: ResourceFigures) => one.waitingMean - queuedEach(one);
  const busy = (one: ResourceFigures) => one.requests * one.waitingBusyMean;
  const closed = (one: ResourceFigures) => one.requests * closedEach(one);
  const waited = (one: ElementFigures) => one.count * one.waitingMean;
  const where = (resource: ResourceFigures) =>
    largest(
      elements.filter(({ by }) => by.includes(resource.id)),
      waited,
    );
  const busiest = largest(resources, busy);
  const away = largest(resources, closed);
  const event = largest(
    elements.filter(({ by }) => by.length === 0),
    waited,
  );
  const reasons = [
    { most: "event" as const, time: event ? waited(event) : 0 },
    { most: "bottleneck" as const, time: busiest ? busiest.requests * queuedEach(busiest) : 0 },
    { most: "closed" as const, time: away ? closed(away) : 0 },
  ];
  const all = waitingTime.mean + processingTime.mean;
  const forPeople = resources.reduce((sum, one) => sum + busy(one), 0) / each;
  return {
    within90: cycleTime.p90,
    within50: cycleTime.p50,
    waitingShare: all > 0 ? waitingTime.mean / all : 0,
    forPeople: Math.min(forPeople, waitingTime.mean),
    bottleneck: busiest && { resource: busiest, element: where(busiest) },
    closed: away && { resource: away, element: where(away), each: closedEach(away) },
    event,
    most: largest(reasons, ({ time }) => time)?.most,
    overrun: resources.filter(({ utilization }) => utilization >= full).map(({ id }) => id),
  };
}

/** The first of the largest, if anything is above zero. */
function largest<T>(list: readonly T[], size: (one: T) => number): T | undefined {
  let found: T | undefined;
  for (const one of list) if (size(one) > (found === undefined ? 0 : size(found))) found = one;
  return found;
}
