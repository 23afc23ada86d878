import type { Id } from "../model";
import type { ElementFigures, Forecast, ResourceFigures } from "./forecast";

/** What an analyst asks of a forecast first. Times in seconds a case, on average. */
export interface Story {
  readonly within90: number;
  readonly within50: number;
  /** The share of a case's time in which nobody works on it; 0 to 1. */
  readonly waitingShare: number;
  /** Waiting for somebody who is there and busy. */
  readonly forPeople: number;
  /** Waiting for something to come: answers, dates, hours at which somebody works again. */
  readonly forOthers: number;
  /** Who is waited for longest in all while being busy, and where most of it. */
  readonly bottleneck: { readonly resource: ResourceFigures; readonly element: ElementFigures | undefined } | undefined;
  /** Where most is waited for something to come. */
  readonly event: ElementFigures | undefined;
  /** More comes than can be done: queues grow as long as the run lasts. */
  readonly overrun: readonly Id[];
}

/** From this share of their hours on, people count as having more to do than they can. */
const full = 0.97;

export function storyOf(forecast: Forecast): Story {
  const { cycleTime, waitingTime, processingTime, resources, elements, cases } = forecast;
  const each = Math.max(1, cases + forecast.underWay);
  const waitedFor = (one: ResourceFigures) => one.requests * one.waitingBusyMean;
  const worst = [...resources].sort((a, b) => waitedFor(b) - waitedFor(a))[0];
  const waited = (one: ElementFigures) => one.count * one.waitingMean;
  const most = (list: readonly ElementFigures[]) => [...list].sort((a, b) => waited(b) - waited(a))[0];
  const forPeople = resources.reduce((sum, one) => sum + waitedFor(one), 0) / each;
  const element = worst && most(elements.filter(({ by }) => by.includes(worst.id)));
  const event = most(elements.filter(({ by, waitingMean }) => by.length === 0 && waitingMean > 0));
  const all = waitingTime.mean + processingTime.mean;
  return {
    within90: cycleTime.p90,
    within50: cycleTime.p50,
    waitingShare: all > 0 ? waitingTime.mean / all : 0,
    forPeople: Math.min(forPeople, waitingTime.mean),
    forOthers: Math.max(0, waitingTime.mean - forPeople),
    bottleneck: worst && waitedFor(worst) > 0 ? { resource: worst, element } : undefined,
    event,
    overrun: resources.filter(({ utilization }) => utilization >= full).map(({ id }) => id),
  };
}
