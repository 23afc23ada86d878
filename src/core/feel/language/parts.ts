import { Decimal } from "./decimal";
import { fail, shown } from "./failures";
import { DateAndTime, Day, DaysAndTime, Months, TimeOfDay } from "./temporal";
import { FeelContext, FeelRange, type FeelValue } from "./values";

/** A part of a value by its name (DMN 1.5, 10.3.2.11, table 61; from memory). */
export function pathOf(value: FeelValue, name: string): FeelValue {
  if (value === null) return null;
  if (Array.isArray(value)) return value.map((one) => pathOf(one, name));
  if (value instanceof FeelContext) return value.entries.get(name) ?? null;
  const parts = partsOf(value);
  if (!parts || !Object.hasOwn(parts, name)) return fail(`${shown(value)} has no ${name}`);
  const found = parts[name];
  return typeof found === "number" ? Decimal.of(found) : (found ?? null);
}
function partsOf(value: FeelValue): { readonly [name: string]: FeelValue | number | undefined } | undefined {
  const ofDay = ({ year, month, day, ...date }: Day) => ({
    year,
    month,
    day,
    weekday: Day.of(year, month, day)?.weekday(),
    ...date,
  });
  const ofTime = (time: TimeOfDay) => ({
    hour: time.hour,
    minute: time.minute,
    second: time.second,
    "time offset": time.offset === undefined ? null : new DaysAndTime(time.offset),
    timezone: time.zone ?? null,
  });
  if (value instanceof Day) return ofDay(value);
  if (value instanceof TimeOfDay) return ofTime(value);
  if (value instanceof DateAndTime) return { ...ofDay(value.date), ...ofTime(value.time) };
  if (value instanceof Months) return { years: Math.trunc(value.months / 12), months: value.months % 12 };
  if (value instanceof DaysAndTime) {
    const all = Math.abs(value.seconds);
    const sign = value.seconds < 0 ? -1 : 1;
    return {
      days: sign * Math.floor(all / 86_400) || 0,
      hours: sign * (Math.floor(all / 3600) % 24) || 0,
      minutes: sign * (Math.floor(all / 60) % 60) || 0,
      seconds: sign * (all % 60) || 0,
    };
  }
  if (value instanceof FeelRange)
    return {
      start: value.start,
      end: value.end,
      "start included": value.hasStart,
      "end included": value.hasEnd,
    };
  return undefined;
}
