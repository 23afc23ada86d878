import { draw } from "../scenario";
import { givenAt } from "./plan";
import type { Calendars } from "./resources";
import type { Source } from "./sources";
import { goesOffAt } from "./timers";

/**
 * When the next case comes from a source: behind the one that just came, by its interval or timer. Nothing comes while a calendar that is
 * said of what comes is closed.
 * @param came how many came before
 * @returns Infinity where none comes any more, undefined where nothing is said of when: then the next one comes when this one is over
 */
export function nextArrival(
  { interval, timer, stream }: Source,
  came: number,
  now: number,
  calendars: Calendars,
  isFirst: boolean,
): number | undefined {
  if (!interval) return timer ? goesOffAt(timer, now) : isFirst ? now : undefined;
  let from = now;
  let given = givenAt(interval, calendars, from);
  if (!given) {
    from = Math.min(...interval.map(({ during }) => calendars.of(during).nextOpen(now)));
    given = Number.isFinite(from) ? givenAt(interval, calendars, from) : undefined;
  }
  if (!given) return Number.POSITIVE_INFINITY;
  const during = interval.find(({ value }) => value === given)?.during;
  const gap = Math.max(0, draw(given, stream.at(came, 0)));
  const isAlways = interval.some((one) => one.during === undefined);
  return isAlways ? from + gap : calendars.of(during).afterWork(from, gap);
}
