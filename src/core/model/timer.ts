import { type Said, say } from "../messages";
import { durationWords, readDuration } from "./duration";

export type TimerField = "timeDate" | "timeDuration" | "timeCycle";

/** When a timer goes off: which of the standard's three fields says so, and in ISO 8601. */
export interface Timer {
  readonly field: TimerField;
  readonly iso: string;
  /** Something a person ought to know of how it was understood. */
  readonly remark?: Said;
}

const months = "january february march april may june july august september october november december".split(" ");
const weekdays = "sunday monday tuesday wednesday thursday friday saturday".split(" ");
const monthPattern = months.map((month) => `${month.slice(0, 3)}(?:${month.slice(3)})?`).join("|");
const two = (value: number) => String(value).padStart(2, "0");
const isoDay = (date: Date) => `${date.getUTCFullYear()}-${two(date.getUTCMonth() + 1)}-${two(date.getUTCDate())}`;

/**
 * A timer as people say it, as ISO 8601 (dates, durations and repeating intervals): "3 days", "10 working days", "every night at
 * 2:00", "every Monday at 8:00", "every 2 hours", "3 times every 10 min", "on 1 March 2027 at 9:00", or ISO 8601 itself.
 * @param today the day from which repetition is counted, "2026-11-25"; the clock is the caller's
 * @returns undefined for words that are no time. Source of the forms: ISO 8601-1:2019, clauses 5.4 to 5.6, from memory.
 */
export function readTimer(text: string, today: string): Timer | undefined {
  const typed = text.trim().replace(/\s+/g, " ").replace(/[.]$/, "");
  if (typed === "") return undefined;
  return readIso(typed) ?? readCycle(typed, today) ?? readDate(typed) ?? readWorkingDays(typed) ?? readSpan(typed);
}

function readIso(typed: string): Timer | undefined {
  if (/^R\d*\/.+/.test(typed)) return { field: "timeCycle", iso: typed };
  if (/^\d{4}-\d{2}-\d{2}(T\d{2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:\d{2})?)?$/.test(typed))
    return { field: "timeDate", iso: typed.includes("T") ? typed : `${typed}T00:00:00` };
  return undefined;
}

function readSpan(typed: string): Timer | undefined {
  const iso = readDuration(typed.replace(/^(after|in|for) /i, ""));
  // A bare number is minutes in a table of working times, but no time to wait for.
  return iso === undefined || /^\d+$/.test(typed) ? undefined : { field: "timeDuration", iso };
}

/** Working days have no place in ISO 8601: as days of weeks of five working days. */
function readWorkingDays(typed: string): Timer | undefined {
  const found = /^(?:after |in )?(\d+) (?:working|business) days?$/i.exec(typed);
  if (!found) return undefined;
  const working = Number(found[1]);
  const days = working + 2 * Math.floor(working / 5);
  const remark =
    working === 1
      ? say`1 working day is 1 day, with five working days a week.`
      : say`${working} working days are ${days} days, with five working days a week.`;
  return { field: "timeDuration", iso: `P${days}D`, remark };
}

function readClock(words: string | undefined): string | undefined {
  if (words === undefined) return "00:00:00";
  const found = /^(\d{1,2})(?:[:.](\d{2}))?(?::(\d{2}))? ?(am|pm)?$/i.exec(words.trim());
  if (!found) return { noon: "12:00:00", midnight: "00:00:00" }[words.trim().toLowerCase()];
  const [, hours, minutes = "0", seconds = "0", half] = found;
  let hour = Number(hours);
  if (half) hour = (hour % 12) + (half.toLowerCase() === "pm" ? 12 : 0);
  if (hour > 23 || Number(minutes) > 59 || Number(seconds) > 59) return undefined;
  return `${two(hour)}:${two(Number(minutes))}:${two(Number(seconds))}`;
}

function readDate(typed: string): Timer | undefined {
  const found = new RegExp(`^(?:on )?(\\d{1,2})\\.? (${monthPattern})\\.? (\\d{4})(?:,? (?:at )?(.+))?$`, "i").exec(
    typed,
  );
  if (!found) return undefined;
  const [, day, month, year, clock] = found;
  const time = readClock(clock);
  const at = months.findIndex((name) => name.startsWith((month as string).slice(0, 3).toLowerCase()));
  const date = new Date(Date.UTC(Number(year), at, Number(day)));
  // 31 February is no day: the calendar would silently make it one of March.
  if (time === undefined || date.getUTCDate() !== Number(day)) return undefined;
  return { field: "timeDate", iso: `${isoDay(date)}T${time}` };
}

function readCycle(typed: string, today: string): Timer | undefined {
  const found = /^(?:(\d+) times,? )?(every|each|daily|nightly|weekly|monthly|yearly)(?: (.*))?$/i.exec(typed);
  if (!found) return undefined;
  const [, times = "", word = "", rest = ""] = found;
  const begin = `R${times}/`;
  const short: { readonly [word: string]: string } = {
    daily: "day",
    nightly: "night",
    weekly: "week",
    monthly: "month",
    yearly: "year",
  };
  const every = short[word.toLowerCase()] ? `${short[word.toLowerCase()]}${rest ? ` ${rest}` : ""}` : rest;
  const named = /^(day|night|morning|week|month|year|[a-z]+day)(?: (?:at )?(.+))?$/i.exec(every);
  if (named) {
    const [, unit = "", clock] = named;
    const time = readClock(clock);
    const weekday = weekdays.indexOf(unit.toLowerCase());
    const period =
      { day: "P1D", night: "P1D", morning: "P1D", week: "P7D", month: "P1M", year: "P1Y" }[unit.toLowerCase()] ??
      (weekday >= 0 ? "P7D" : undefined);
    if (period === undefined || time === undefined) return undefined;
    return { field: "timeCycle", iso: `${begin}${firstDay(today, weekday)}T${time}/${period}` };
  }
  const span = readDuration(every.replace(/^(other|second) /i, "2 ").replace(/^([a-z])/i, "1 $1"));
  return span === undefined ? undefined : { field: "timeCycle", iso: `${begin}${span}` };
}

/** Tomorrow, or the next such weekday. */
function firstDay(today: string, weekday: number): string {
  const day = new Date(`${today}T00:00:00Z`);
  do day.setUTCDate(day.getUTCDate() + 1);
  while (weekday >= 0 && day.getUTCDay() !== weekday);
  return isoDay(day);
}

/** A timer in words: "R/2026-11-26T02:00:00/P1D" is "every day at 2:00". What is no plain form stays as it is written. */
export function timerWords(field: TimerField, iso: string): string {
  if (field === "timeDuration") return durationWords(iso);
  if (field === "timeDate") return dateWords(iso) ?? iso;
  const found = /^R(\d*)\/(?:(\d{4}-\d{2}-\d{2})T(\d{2}:\d{2})(?::\d{2})?(?:Z|[+-]\d{2}:\d{2})?\/)?(P.+)$/.exec(iso);
  if (!found) return iso;
  const [, times = "", start, clock, period = ""] = found;
  const often = times ? `${times} times, ` : "";
  if (!start) return `${often}every ${durationWords(period).replace(/^1 /, "")}`;
  const at = clock === "00:00" ? "" : ` at ${clockWords(clock as string)}`;
  const unit = { P1D: "day", P7D: weekdayOf(start), P1W: weekdayOf(start), P1M: "month", P1Y: "year" }[period];
  return unit
    ? `${often}every ${unit}${at}`
    : `${often}every ${durationWords(period)} from ${dateWords(`${start}T${clock}`)}`;
}

const clockWords = (clock: string) => clock.replace(/^0(\d)/, "$1");
const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1);
const weekdayOf = (day: string) => capital(weekdays[new Date(`${day}T00:00:00Z`).getUTCDay()] ?? "");

function dateWords(iso: string): string | undefined {
  const found = /^(\d{4})-(\d{2})-(\d{2})(?:T(\d{2}:\d{2})(?::\d{2})?(Z|[+-]\d{2}:\d{2})?)?$/.exec(iso);
  if (!found) return undefined;
  const [, year, month, day, clock, zone] = found;
  const at =
    !clock || (clock === "00:00" && !zone) ? "" : ` at ${clockWords(clock)}${zone === "Z" ? " UTC" : (zone ?? "")}`;
  return `${Number(day)} ${capital(months[Number(month) - 1] ?? "")} ${year}${at}`;
}
