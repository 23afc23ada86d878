import { type Said, say } from "../../messages";
import { isZone, momentOf, type WallTime } from "./zone";

/**
 * Calendars as the open text format has them: events that come again are the times at which somebody works, or something happens.
 * Source: RFC 5545, "Internet Calendaring and Scheduling Core Object Specification (iCalendar)": 3.1 (lines), 3.3.10 (recurrence rules),
 * 3.6.1 (events). Read are DTSTART, DTEND, DURATION, RRULE (by day, week, month and year, with INTERVAL, COUNT, UNTIL, BYDAY, BYMONTH,
 * BYMONTHDAY), RDATE and EXDATE.
 */
export interface CalendarEvent {
  readonly start: WallTime;
  readonly zone: string;
  /** Seconds on the wall. */
  readonly lasts: number;
  readonly rule: Rule | undefined;
  readonly also: readonly string[];
  readonly not: readonly string[];
}

interface Rule {
  readonly every: "day" | "week" | "month" | "year";
  readonly interval: number;
  readonly count: number | undefined;
  readonly until: number | undefined;
  readonly days: readonly { readonly day: number; readonly nth: number | undefined }[];
  readonly months: readonly number[];
  readonly monthDays: readonly number[];
}

export interface ReadCalendar {
  readonly events: readonly CalendarEvent[];
  /** What could not be read, in words. */
  readonly problems: readonly Said[];
}

const dayNames = ["SU", "MO", "TU", "WE", "TH", "FR", "SA"];
const frequencies = { DAILY: "day", WEEKLY: "week", MONTHLY: "month", YEARLY: "year" } as const;

interface Line {
  readonly name: string;
  readonly parameters: ReadonlyMap<string, string>;
  readonly value: string;
}

/** Reads a calendar. Times without a zone are those of `zone`. O(length). */
export function readCalendar(text: string, zone: string): ReadCalendar {
  const events: CalendarEvent[] = [];
  const problems: Said[] = [];
  let open: Line[] | undefined;
  // A line goes on where the next begins with a blank.
  for (const raw of text.replace(/\r?\n[ \t]/g, "").split(/\r?\n/)) {
    const line = lineOf(raw.trim());
    if (!line) continue;
    if (line.name === "BEGIN" && line.value.toUpperCase() === "VEVENT") open = [];
    else if (line.name === "END" && line.value.toUpperCase() === "VEVENT") {
      const event = open && eventOf(open, zone, problems);
      if (event) events.push(event);
      open = undefined;
    } else open?.push(line);
  }
  if (events.length === 0 && problems.length === 0) problems.push(say`it holds no event`);
  return { events, problems };
}

function lineOf(raw: string): Line | undefined {
  const [, head, value] = /^([^:]+?(?:;[^:=]+=(?:"[^"]*"|[^:;]*))*):(.*)$/.exec(raw) ?? [];
  if (head === undefined || value === undefined) return undefined;
  const [name = "", ...rest] = head.split(";");
  const parameters = new Map(
    rest.map((part): [string, string] => {
      const [key = "", of = ""] = part.split("=");
      return [key.toUpperCase(), of.replace(/^"|"$/g, "")];
    }),
  );
  return { name: name.toUpperCase(), parameters, value };
}

function eventOf(lines: readonly Line[], zone: string, problems: Said[]): CalendarEvent | undefined {
  const line = (name: string) => lines.find((one) => one.name === name);
  const first = line("DTSTART");
  const start = first && stampOf(first.value);
  if (!first || !start) {
    problems.push(first ? say`“${first.value}” is no time` : say`an event has no start`);
    return undefined;
  }
  const named = first.parameters.get("TZID");
  if (named !== undefined && !isZone(named)) problems.push(say`“${named}” is no known time zone; ${zone} is taken`);
  const own = first.value.endsWith("Z") ? "UTC" : named !== undefined && isZone(named) ? named : zone;
  const end = line("DTEND");
  const endStamp = end && stampOf(end.value);
  const duration = line("DURATION");
  const isDay = !first.value.includes("T");
  const lasts = endStamp
    ? (utc(endStamp) - utc(start)) / 1000
    : duration
      ? secondsOf(duration.value)
      : isDay
        ? 86_400
        : 0;
  if (!(lasts >= 0)) problems.push(say`the event of ${first.value} ends before it begins`);
  const ruleLine = line("RRULE");
  const rule = ruleLine && ruleOf(ruleLine.value, own, problems);
  const listed = (name: string) =>
    lines.filter((one) => one.name === name).flatMap((one) => one.value.split(",").map((stamp) => stamp.slice(0, 15)));
  return { start, zone: own, lasts: Math.max(0, lasts), rule, also: listed("RDATE"), not: listed("EXDATE") };
}

const utc = ({ year, month, day, hour, minute, second }: WallTime) =>
  Date.UTC(year, month - 1, day, hour, minute, second);

function stampOf(text: string): WallTime | undefined {
  const found = /^(\d{4})(\d\d)(\d\d)(?:T(\d\d)(\d\d)(\d\d)?Z?)?$/.exec(text.trim());
  if (!found) return undefined;
  const [year = 0, month = 0, day = 0, hour = 0, minute = 0, second = 0] = found
    .slice(1)
    .map((part) => Number(part ?? 0));
  return { year, month, day, hour, minute, second };
}

/** "PT8H", "P1D", "P2W". */
function secondsOf(text: string): number {
  const found = /^([+-])?P(?:(\d+)W)?(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?$/.exec(text.trim());
  if (!found) return Number.NaN;
  const [weeks, days, hours, minutes, seconds] = found.slice(2).map((part) => Number(part ?? 0)) as [
    number,
    number,
    number,
    number,
    number,
  ];
  return (found[1] === "-" ? -1 : 1) * ((((weeks * 7 + days) * 24 + hours) * 60 + minutes) * 60 + seconds);
}

function ruleOf(text: string, zone: string, problems: Said[]): Rule | undefined {
  const parts = new Map(
    text.split(";").map((part) => part.split("=").map((word) => word.toUpperCase()) as [string, string]),
  );
  const every = frequencies[parts.get("FREQ") as keyof typeof frequencies];
  if (!every) {
    problems.push(say`a rule that comes “${parts.get("FREQ") ?? ""}” is not read`);
    return undefined;
  }
  for (const name of parts.keys())
    if (!["FREQ", "INTERVAL", "COUNT", "UNTIL", "BYDAY", "BYMONTH", "BYMONTHDAY", "WKST"].includes(name))
      problems.push(say`${name} in a rule is not read`);
  const list = (name: string) => (parts.get(name) ?? "").split(",").filter((word) => word !== "");
  const until = parts.get("UNTIL");
  const stamp = until === undefined ? undefined : stampOf(until);
  return {
    every,
    interval: Math.max(1, Number(parts.get("INTERVAL") ?? 1) || 1),
    count: parts.has("COUNT") ? Number(parts.get("COUNT")) : undefined,
    until:
      stamp &&
      (until?.includes("T")
        ? momentOf(stamp, until.endsWith("Z") ? "UTC" : zone)
        : momentOf({ ...stamp, hour: 23, minute: 59, second: 59 }, zone)),
    days: list("BYDAY").flatMap((word) => {
      const [, nth, name = ""] = /^([+-]?\d+)?([A-Z]{2})$/.exec(word) ?? [];
      const day = dayNames.indexOf(name);
      return day < 0 ? [] : [{ day, nth: nth === undefined ? undefined : Number(nth) }];
    }),
    months: list("BYMONTH").map(Number),
    monthDays: list("BYMONTHDAY").map(Number),
  };
}

const daysIn = (year: number, month: number) => new Date(Date.UTC(year, month, 0)).getUTCDate();
const weekday = (year: number, month: number, day: number) => new Date(Date.UTC(year, month - 1, day)).getUTCDay();

/**
 * The spans of an event that begin before a moment and end behind another, in order. Milliseconds since 1970.
 * O(days from its start to the end).
 */
export function spansOf(event: CalendarEvent, from: number, to: number): [from: number, to: number][] {
  const spans: [number, number][] = [];
  const push = ({ year, month, day }: { year: number; month: number; day: number }): boolean => {
    const { hour, minute, second } = event.start;
    const wall = { year, month, day, hour, minute, second };
    const begins = momentOf(wall, event.zone);
    if (begins >= to) return false;
    if (event.not.some((stamp) => sameStart(stamp, wall))) return true;
    const ends = momentOf({ year, month, day, hour, minute, second: second + event.lasts }, event.zone);
    if (ends > from) spans.push([begins, ends]);
    return true;
  };
  for (const stamp of event.also) {
    const also = stampOf(stamp);
    if (also) push(also);
  }
  const { rule, start } = event;
  if (!rule) {
    push(start);
    return spans.sort((a, b) => a[0] - b[0]);
  }
  let count = 0;
  // Days long before are passed over, where they need not be counted.
  const first = Date.UTC(start.year, start.month - 1, start.day);
  const passed =
    rule.count === undefined ? Math.max(0, Math.floor((from - first) / 86_400_000 - event.lasts / 86_400) - 3) : 0;
  for (const day of daysOf(start, rule, passed)) {
    if (rule.until !== undefined && momentOf({ ...start, ...day }, event.zone) > rule.until) break;
    if (rule.count !== undefined && ++count > rule.count) break;
    if (!push(day)) break;
  }
  return spans.sort((a, b) => a[0] - b[0]);
}

function sameStart(stamp: string, wall: WallTime): boolean {
  const not = stampOf(stamp);
  if (not?.year !== wall.year || not.month !== wall.month || not.day !== wall.day) return false;
  return !stamp.includes("T") || (not.hour === wall.hour && not.minute === wall.minute);
}

/** The days a rule falls on, one after the other, from the start on; of daily and weekly ones so many days are passed over. */
function* daysOf(start: WallTime, rule: Rule, passed: number): Generator<{ year: number; month: number; day: number }> {
  const inMonth = (month: number) => rule.months.length === 0 || rule.months.includes(month);
  if (rule.every === "day" || rule.every === "week") {
    const sunday = weekday(start.year, start.month, start.day);
    const wanted =
      rule.days.length > 0 ? rule.days.map(({ day }) => day) : rule.every === "week" ? [sunday] : undefined;
    // Weeks begin on Monday.
    const toMonday = (sunday + 6) % 7;
    for (let at = passed; ; at++) {
      const date = new Date(Date.UTC(start.year, start.month - 1, start.day + at));
      const step = rule.every === "day" ? at : Math.floor((at + toMonday) / 7);
      if (step % rule.interval !== 0) continue;
      const [year, month, day] = [date.getUTCFullYear(), date.getUTCMonth() + 1, date.getUTCDate()];
      if (year > 9998) return;
      if ((!wanted || wanted.includes(date.getUTCDay())) && inMonth(month)) yield { year, month, day };
    }
  }
  const step = rule.every === "month" ? 1 : 12;
  for (let at = 0; at < 12 * 8000; at += step * rule.interval) {
    const months =
      rule.every === "year" && rule.months.length > 0
        ? [...rule.months].sort((a, b) => a - b)
        : [((start.month - 1 + at) % 12) + 1];
    const year = start.year + Math.floor((rule.every === "year" ? at : start.month - 1 + at) / 12);
    for (const month of months) {
      if (!inMonth(month)) continue;
      for (const day of daysOfMonth(year, month, start.day, rule))
        if (Date.UTC(year, month - 1, day) >= Date.UTC(start.year, start.month - 1, start.day))
          yield { year, month, day };
    }
  }
}

function daysOfMonth(year: number, month: number, usual: number, rule: Rule): number[] {
  const last = daysIn(year, month);
  if (rule.monthDays.length > 0)
    return rule.monthDays
      .map((day) => (day < 0 ? last + 1 + day : day))
      .filter((day) => day >= 1 && day <= last)
      .sort((a, b) => a - b);
  if (rule.days.length === 0) return usual <= last ? [usual] : [];
  const found: number[] = [];
  for (const { day, nth } of rule.days) {
    const all = Array.from({ length: last }, (_, at) => at + 1).filter((one) => weekday(year, month, one) === day);
    if (nth === undefined) found.push(...all);
    else {
      const one = nth > 0 ? all[nth - 1] : all.at(nth);
      if (one !== undefined) found.push(one);
    }
  }
  return found.sort((a, b) => a - b);
}
