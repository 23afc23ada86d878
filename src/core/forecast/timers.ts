import { type Element, eventDefinitionsOf, isoSeconds, type Model } from "../model";
import { momentOf } from "../scenario";

/** When a timer of the model goes off: so long after it is set, at a moment, or at the next of several. Seconds, since the start. */
export type TimerPlan =
  | { readonly kind: "after"; readonly seconds: number }
  | { readonly kind: "at"; readonly moment: number }
  | { readonly kind: "every"; readonly from: number | undefined; readonly seconds: number };

/** The timer of an event; undefined where its text is no time in ISO 8601. */
export function timerOf(model: Model, event: Element, start: number, zone: string): TimerPlan | undefined {
  const definition = eventDefinitionsOf(model, event.id).find(({ type }) => type === "timerEventDefinition");
  const text = (field: string) => (definition?.[field] as { readonly text?: string } | undefined)?.text?.trim();
  const duration = text("timeDuration");
  if (duration !== undefined) {
    const seconds = isoSeconds(duration);
    return seconds === undefined ? undefined : { kind: "after", seconds };
  }
  const date = text("timeDate");
  if (date !== undefined) {
    const moment = momentIn(date, zone);
    return moment === undefined ? undefined : { kind: "at", moment: (moment - start) / 1000 };
  }
  const [, from, every] = /^R\d*\/(?:([^/P][^/]*)\/)?(P[^/]+)$/.exec(text("timeCycle") ?? "") ?? [];
  const seconds = every === undefined ? undefined : isoSeconds(every);
  if (seconds === undefined || seconds <= 0) return undefined;
  const begins = from === undefined ? undefined : momentIn(from, zone);
  return { kind: "every", from: begins === undefined ? undefined : (begins - start) / 1000, seconds };
}

function momentIn(text: string, zone: string): number | undefined {
  const found = /^(\d{4})-(\d\d)-(\d\d)(?:T(\d\d):(\d\d)(?::(\d\d))?(?:\.\d+)?)?(Z|[+-]\d\d:\d\d)?$/.exec(text);
  if (!found) return undefined;
  if (found[7] !== undefined) return Date.parse(text);
  const [year = 0, month = 0, day = 0, hour = 0, minute = 0, second = 0] = found
    .slice(1, 7)
    .map((part) => Number(part ?? 0));
  return momentOf({ year, month, day, hour, minute, second }, zone);
}

/** When a timer that is set now goes off. */
export function goesOffAt(timer: TimerPlan, now: number): number {
  if (timer.kind === "after") return now + timer.seconds;
  if (timer.kind === "at") return Math.max(now, timer.moment);
  if (timer.from === undefined) return now + timer.seconds;
  if (now < timer.from) return timer.from;
  return timer.from + (Math.floor((now - timer.from) / timer.seconds) + 1) * timer.seconds;
}
