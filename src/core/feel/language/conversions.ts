import { type Answer, type Entry, none, number, of, text, whole } from "./answers";
import { Decimal } from "./decimal";
import { readTemporal } from "./interpret";
import { DateAndTime, Day, DaysAndTime, Months, readDurationOf, TimeOfDay } from "./temporal";
import { compareValues, equalValues, FeelContext, FeelFunction, FeelRange, type FeelValue } from "./values";

function dateOf(...args: FeelValue[]): Answer {
  const [first, month, day] = args;
  if (args.length > 1) {
    const found = Day.of(whole(first) ?? Number.NaN, whole(month) ?? Number.NaN, whole(day) ?? Number.NaN);
    return found ?? none;
  }
  if (first instanceof DateAndTime) return first.date;
  if (first instanceof Day) return first;
  return Day.read(text(first) ?? "") ?? none;
}
function timeOf(...args: FeelValue[]): Answer {
  const [first, minute, second, offset] = args;
  if (args.length > 1) {
    const [h, m, s] = [whole(first), whole(minute), number(second)];
    if (h === undefined || m === undefined || !s || h > 23 || m > 59 || Number(s) >= 60) return none;
    return new TimeOfDay(
      h * 3600 + m * 60 + Number(s),
      offset instanceof DaysAndTime ? offset.seconds : undefined,
      undefined,
    );
  }
  if (first instanceof DateAndTime) return first.time;
  if (first instanceof TimeOfDay) return first;
  if (first instanceof Day) return new TimeOfDay(0, 0, undefined);
  return TimeOfDay.read(text(first) ?? "") ?? none;
}
function dateAndTimeOf(first: FeelValue, second?: FeelValue): Answer {
  if (second !== undefined) {
    const date = first instanceof DateAndTime ? first.date : first;
    return date instanceof Day && second instanceof TimeOfDay ? new DateAndTime(date, second) : none;
  }
  if (first instanceof DateAndTime) return first;
  if (first instanceof Day) return new DateAndTime(first, new TimeOfDay(0, undefined, undefined));
  return DateAndTime.read(text(first) ?? "") ?? none;
}
function numberOf(from: FeelValue, grouping?: FeelValue, decimal?: FeelValue): Answer {
  if (from instanceof Decimal) return from;
  let words = text(from);
  if (words === undefined) return none;
  const [group, point] = [text(grouping ?? null), text(decimal ?? null)];
  if (group !== undefined) {
    if (![" ", ",", "."].includes(group) || group === point) return none;
    words = words.split(group).join("");
  }
  if (point !== undefined) {
    if (![",", "."].includes(point)) return none;
    words = words.replace(point, ".");
  }
  return Decimal.read(words) ?? none;
}
/** Text of a value, as a person would write it. */
export function textOf(value: FeelValue, isInside = false): string | null {
  if (value === null) return isInside ? "null" : null;
  if (typeof value === "string") return isInside ? `"${value.replace(/["\\]/g, "\\$&")}"` : value;
  if (Array.isArray(value)) return `[${value.map((one) => textOf(one, true)).join(", ")}]`;
  if (value instanceof FeelContext)
    return `{${[...value.entries]
      .map(
        ([key, one]) =>
          `${/^[\p{L}_][\p{L}\p{N}_ ]*$/u.test(key) ? key : `"${key.replace(/["\\]/g, "\\$&")}"`}: ${textOf(one, true)}`,
      )
      .join(", ")}}`;
  if (value instanceof FeelFunction) return "function";
  if (value instanceof FeelRange)
    return `${value.hasStart ? "[" : "("}${textOf(value.start, true)}..${textOf(value.end, true)}${value.hasEnd ? "]" : ")"}`;
  return String(value);
}
function monthsBetween(from: FeelValue, to: FeelValue): Answer {
  const [a, b] = [from, to].map((one) =>
    one instanceof DateAndTime ? one.date : one instanceof Day ? one : undefined,
  );
  if (!a || !b) return none;
  const [first, last, sign] = a.order() <= b.order() ? [a, b, 1] : [b, a, -1];
  const all = (last.year - first.year) * 12 + last.month - first.month - (last.day < first.day ? 1 : 0);
  return new Months(sign * all || 0);
}

const weekdays = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];
const months = "January February March April May June July August September October November December".split(" ");
const dayIn = (value: FeelValue) =>
  value instanceof DateAndTime ? value.date : value instanceof Day ? value : undefined;
const dayOfYear = (date: Day) => date.days() - new Day(date.year, 1, 1).days() + 1;
/** The week of ISO 8601: that with the year's first Thursday is the first. */
function weekOf(date: Day): number {
  const thursday = Day.fromDays(date.days() + 4 - date.weekday());
  return Math.floor((dayOfYear(thursday) - 1) / 7) + 1;
}
function part(work: (date: Day) => FeelValue) {
  return (value: FeelValue): Answer => {
    const date = dayIn(value);
    return date ? work(date) : none;
  };
}

/** "[1..5)", "(..2027-03-31]": a range in a text, of literals. */
function rangeOf(words: string): Answer {
  const [, opens, start = "", end = "", closes] =
    /^\s*([[\](])\s*(.*?)\s*\.\.\s*(.*?)\s*([\])[])\s*$/.exec(words) ?? [];
  if (opens === undefined) return none;
  const literal = (one: string): FeelValue | undefined => {
    if (one === "") return null;
    const plain = /^(?:@|date\(|time\(|date and time\(|duration\()?"(.*)"\)?$/.exec(one)?.[1];
    if (plain !== undefined) return one.startsWith('"') ? plain : readTemporal(plain);
    return Decimal.read(one) ?? readTemporal(one);
  };
  const [from, to] = [literal(start), literal(end)];
  if (from === undefined || to === undefined || (from === null && to === null)) return none;
  if (from !== null && to !== null && (compareValues(from, to) ?? 1) > 0) return none;
  return new FeelRange(from, to, opens === "[" && from !== null, closes === "]" && to !== null);
}

/** Functions that make one kind of value of another, and parts of dates (DMN 1.5, 10.3.4.1, 10.3.4.2 and 10.3.4.8; from memory). */
export const conversions: readonly Entry[] = [
  ["date", "from", dateOf],
  ["time", "from", timeOf],
  ["date and time", "date, time", dateAndTimeOf],
  [
    "duration",
    "from",
    (from) =>
      from instanceof Months || from instanceof DaysAndTime ? from : (readDurationOf(text(from) ?? "") ?? none),
  ],
  ["years and months duration", "from, to", monthsBetween],
  ["number", "from, grouping separator, decimal separator", numberOf],
  ["string", "from", (from) => textOf(from)],
  ["range", "from", (from) => rangeOf(text(from) ?? "")],
  ["not", "negand", (value) => (typeof value === "boolean" ? !value : null)],
  ["is", "value1, value2", (a, b) => equalValues(a, b) === true],
  ["day of year", "date", part((date) => of(dayOfYear(date)))],
  ["day of week", "date", part((date) => weekdays[date.weekday() - 1] ?? null)],
  ["month of year", "date", part((date) => months[date.month - 1] ?? null)],
  ["week of year", "date", part((date) => of(weekOf(date)))],
];
