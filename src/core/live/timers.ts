import { type CaseData, valueFor } from "../feel";
import { type Element, eventDefinitionsOf, flowNodesIn, type Id, type Model, triggerOf } from "../model";
import { momentOf, wallAt } from "../scenario";

/** When a timer goes off, and how often after that; -1 for without end. */
export interface TimerSet {
  /** Milliseconds since 1970. */
  readonly due: number;
  readonly left: number;
}

const durationForm =
  /^P(?=.)(?:(\d+(?:\.\d+)?)Y)?(?:(\d+(?:\.\d+)?)M)?(?:(\d+(?:\.\d+)?)W)?(?:(\d+(?:\.\d+)?)D)?(?:T(?=.)(?:(\d+(?:\.\d+)?)H)?(?:(\d+(?:\.\d+)?)M)?(?:(\d+(?:\.\d+)?)S)?)?$/;
const momentForm = /^(\d{4})-(\d\d)-(\d\d)(?:T(\d\d):(\d\d)(?::(\d\d))?(?:\.\d+)?)?(Z|[+-]\d\d:\d\d)?$/;

/**
 * A moment so long after another, as calendars count: years, months, weeks and days go by the clock on the wall of a zone, a day that a
 * month does not have being its last; hours, minutes and seconds by themselves.
 * Source: ISO 8601-1:2019, 5.5.2; carrying to the last day as in XML Schema 2, appendix E, both from memory.
 * @returns undefined for what is no duration
 */
export function after(moment: number, duration: string, zone: string): number | undefined {
  const found = durationForm.exec(duration.trim());
  if (!found) return undefined;
  const [years = 0, months = 0, weeks = 0, days = 0, hours = 0, minutes = 0, seconds = 0] = found
    .slice(1)
    .map((part) => Number(part ?? 0));
  const rest = (hours * 3600 + minutes * 60 + seconds) * 1000;
  const monthsInAll = years * 12 + months;
  const daysInAll = weeks * 7 + days;
  if (monthsInAll === 0 && daysInAll === 0) return moment + rest;
  const wholeMonths = Math.floor(monthsInAll);
  const wholeDays = Math.floor(daysInAll);
  // Parts of a day or a month are hours of it.
  const parts = (daysInAll - wholeDays + (monthsInAll - wholeMonths) * 30) * 86_400_000;
  const wall = wallAt(moment, zone);
  const month = wall.month - 1 + wholeMonths;
  const lastDay = new Date(Date.UTC(wall.year, month + 1, 0)).getUTCDate();
  const day = Math.min(wall.day, lastDay) + wholeDays;
  const within = ((moment % 1000) + 1000) % 1000;
  const carried = new Date(Date.UTC(wall.year, month, day, wall.hour, wall.minute, wall.second));
  const at = {
    year: carried.getUTCFullYear(),
    month: carried.getUTCMonth() + 1,
    day: carried.getUTCDate(),
    hour: wall.hour,
    minute: wall.minute,
    second: wall.second,
  };
  return momentOf(at, zone) + within + rest + parts;
}

/** A moment as ISO 8601 has it; without a zone of its own, on the clock of the one that is given. */
export function momentIn(text: string, zone: string): number | undefined {
  const found = momentForm.exec(text.trim());
  if (!found) return undefined;
  if (found[7] !== undefined) {
    const at = Date.parse(text.trim());
    return Number.isNaN(at) ? undefined : at;
  }
  const [year = 0, month = 0, day = 0, hour = 0, minute = 0, second = 0] = found
    .slice(1, 7)
    .map((part) => Number(part ?? 0));
  if (month < 1 || month > 12 || day < 1 || day > 31 || hour > 24 || minute > 59 || second > 60) return undefined;
  return momentOf({ year, month, day, hour, minute, second }, zone);
}

/** What a timer says: ISO 8601 itself, or an expression that comes to such words. */
function wordsOf(text: string, data: CaseData): string {
  const typed = text.trim().replace(/^=\s*/, "");
  if (/^(?:P|R\d*\/|\d{4}-)/.test(typed)) return typed;
  const value = valueFor(typed, data);
  return typeof value === "string" ? value.trim() : typed;
}

/** `R3/2027-01-01T08:00/P1D`, `R/PT1H`, `R5/PT10M/2027-01-01`: how often, from when, how long between, until when. */
function cycleOf(text: string, now: number, zone: string) {
  const [head = "", ...parts] = text.split("/");
  const times = /^R(\d*)$/.exec(head);
  if (!times || parts.length === 0 || parts.length > 2) return undefined;
  const often = times[1] === "" ? -1 : Number(times[1]);
  const [first = "", second] = parts;
  if (first.startsWith("P")) {
    const until = second === undefined ? undefined : momentIn(second, zone);
    if (second !== undefined && until === undefined) return undefined;
    return { often, from: undefined, every: first, until };
  }
  const from = momentIn(first, zone);
  if (from === undefined || second === undefined) return undefined;
  if (second.startsWith("P")) return { often, from, every: second, until: undefined };
  // Between two moments: so long as from the one to the other.
  const to = momentIn(second, zone);
  return to === undefined || to <= from
    ? undefined
    : { often, from, every: `PT${(to - from) / 1000}S`, until: undefined, now };
}

const mostRounds = 100_000;

/**
 * When a timer that is set now goes off first, and how often after that.
 * @param zone whose clock dates without one of their own are read on
 * @returns undefined where its words are no time
 */
export function timerSet(
  model: Model,
  event: Element,
  now: number,
  zone: string,
  data: CaseData,
): TimerSet | undefined {
  const definition = eventDefinitionsOf(model, event.id).find(({ type }) => type === "timerEventDefinition");
  const said = (field: "timeDuration" | "timeDate" | "timeCycle") => {
    const text = (definition?.[field] as { readonly text?: string } | undefined)?.text;
    return text === undefined || text.trim() === "" ? undefined : wordsOf(text, data);
  };
  const [duration, date, cycle] = [said("timeDuration"), said("timeDate"), said("timeCycle")];
  if (duration !== undefined) {
    const due = after(now, duration, zone);
    return due === undefined ? undefined : { due, left: 0 };
  }
  if (date !== undefined) {
    const due = momentIn(date, zone);
    // What is past goes off at once.
    return due === undefined ? undefined : { due: Math.max(now, due), left: 0 };
  }
  const read = cycle === undefined ? undefined : cycleOf(cycle, now, zone);
  if (!read) return undefined;
  const { often, from, every, until } = read;
  if (from === undefined) {
    const due = after(now, every, zone);
    if (due === undefined || due <= now || often === 0) return undefined;
    return until !== undefined && due > until
      ? { due: Number.POSITIVE_INFINITY, left: 0 }
      : { due, left: often < 0 ? -1 : often - 1 };
  }
  let due = from;
  let rounds = often < 0 ? Number.POSITIVE_INFINITY : often;
  for (let round = 0; due < now && rounds > 0 && round < mostRounds; round++) {
    const next = after(due, every, zone);
    if (next === undefined || next <= due) return undefined;
    due = next;
    rounds--;
  }
  if (rounds <= 0 || due < now) return { due: Number.POSITIVE_INFINITY, left: 0 };
  return { due, left: rounds === Number.POSITIVE_INFINITY ? -1 : rounds - 1 };
}

/** When a timer that goes off again and again does so next. */
export function nextRound(
  model: Model,
  event: Element,
  last: number,
  zone: string,
  data: CaseData,
): number | undefined {
  const definition = eventDefinitionsOf(model, event.id).find(({ type }) => type === "timerEventDefinition");
  const text = (definition?.timeCycle as { readonly text?: string } | undefined)?.text;
  const read = text === undefined ? undefined : cycleOf(wordsOf(text, data), last, zone);
  const next = read && after(last, read.every, zone);
  return next === undefined || (read?.until !== undefined && next > read.until) ? undefined : next;
}

/** By start event of a process with a timer: when it goes off first after a moment. What cannot be read is left out. */
export const startsSet = (model: Model, process: Id, now: number, zone: string): { readonly [start: Id]: TimerSet } =>
  Object.fromEntries(
    flowNodesIn(model, process)
      .filter((node) => node.type === "startEvent" && triggerOf(model, node) === "timerEventDefinition")
      .flatMap((node) => {
        const set = timerSet(model, node, now, zone, {});
        return set && Number.isFinite(set.due) ? [[node.id, set] as const] : [];
      }),
  );

/** What is left of a start's timer once it has gone off; undefined where that was the last time. */
export function startAgain(model: Model, start: Element, { due, left }: TimerSet, zone: string): TimerSet | undefined {
  if (left === 0) return undefined;
  const next = nextRound(model, start, due, zone, {});
  return next === undefined ? undefined : { due: next, left: left < 0 ? -1 : left - 1 };
}
