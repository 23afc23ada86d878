/**
 * Dates, times and durations of the language, after ISO 8601 and the proleptic Gregorian calendar (DMN 1.5, 10.3.2.3.4 to 10.3.2.3.8; from
 * memory). Zones are kept as they are written; an offset counts when two are compared.
 */
const day = 86_400;
const pad = (value: number, width = 2) => String(Math.abs(value)).padStart(width, "0");

/** Days since 1970-01-01 of a date of the Gregorian calendar. Source: Howard Hinnant, "chrono-compatible low-level date algorithms" (2013), from memory. */
function daysFrom(year: number, month: number, dayOfMonth: number): number {
  const y = month <= 2 ? year - 1 : year;
  const era = Math.floor(y / 400);
  const yearOfEra = y - era * 400;
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + dayOfMonth - 1;
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear;
  return era * 146_097 + dayOfEra - 719_468;
}
function dateFrom(days: number): readonly [year: number, month: number, day: number] {
  const shifted = days + 719_468;
  const era = Math.floor(shifted / 146_097);
  const dayOfEra = shifted - era * 146_097;
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36_524) - Math.floor(dayOfEra / 146_096)) / 365,
  );
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const part = Math.floor((5 * dayOfYear + 2) / 153);
  const month = part < 10 ? part + 3 : part - 9;
  const year = yearOfEra + era * 400 + (month <= 2 ? 1 : 0);
  return [year, month, dayOfYear - Math.floor((153 * part + 2) / 5) + 1];
}
const isLeap = (year: number) => (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
export const daysInMonth = (year: number, month: number): number =>
  month === 2 ? (isLeap(year) ? 29 : 28) : [4, 6, 9, 11].includes(month) ? 30 : 31;

/** A date. */
export class Day {
  constructor(
    readonly year: number,
    readonly month: number,
    readonly day: number,
  ) {}
  /** Undefined where there is no such date. */
  static of(year: number, month: number, dayOfMonth: number): Day | undefined {
    const isDate =
      [year, month, dayOfMonth].every(Number.isInteger) &&
      Math.abs(year) <= 999_999_999 &&
      month >= 1 &&
      month <= 12 &&
      dayOfMonth >= 1 &&
      dayOfMonth <= daysInMonth(year, month);
    return isDate ? new Day(year, month, dayOfMonth) : undefined;
  }
  static read(text: string): Day | undefined {
    const [, year, month, dayOfMonth] = /^(-?(?:\d{4}|[1-9]\d{4,8}))-(\d\d)-(\d\d)$/.exec(text) ?? [];
    return year === undefined ? undefined : Day.of(Number(year), Number(month), Number(dayOfMonth));
  }
  static fromDays(days: number): Day {
    return new Day(...dateFrom(days));
  }
  /** Days since 1970-01-01. */
  days(): number {
    return daysFrom(this.year, this.month, this.day);
  }
  order(): number {
    return this.days() * day;
  }
  /** Monday is 1. */
  weekday(): number {
    return ((((this.days() + 3) % 7) + 7) % 7) + 1;
  }
  plusMonths(months: number): Day {
    const all = this.year * 12 + this.month - 1 + months;
    const [year, month] = [Math.floor(all / 12), (((all % 12) + 12) % 12) + 1];
    return new Day(year, month, Math.min(this.day, daysInMonth(year, month)));
  }
  toString(): string {
    return `${this.year < 0 ? "-" : ""}${pad(this.year, 4)}-${pad(this.month)}-${pad(this.day)}`;
  }
}

/** A time of day, with an offset from UTC or a zone where one is said. */
export class TimeOfDay {
  constructor(
    /** Seconds since midnight, with parts. */
    readonly seconds: number,
    /** Seconds east of UTC; undefined for a local time. */
    readonly offset: number | undefined,
    readonly zone: string | undefined,
  ) {}
  static read(text: string): TimeOfDay | undefined {
    const [, hour, minute, second = "0", , rest = ""] =
      /^(\d\d):(\d\d)(?::(\d\d(\.\d+)?))(Z|[+-]\d\d:\d\d(?::\d\d)?|@[A-Za-z_]+(?:\/[\w+-]+)*)?$/.exec(text) ?? [];
    if (hour === undefined || Number(hour) > 23 || Number(minute) > 59 || Number(second) >= 60) return undefined;
    const seconds = Number(hour) * 3600 + Number(minute) * 60 + Number(second);
    if (rest === "") return new TimeOfDay(seconds, undefined, undefined);
    if (rest === "Z") return new TimeOfDay(seconds, 0, undefined);
    if (rest.startsWith("@")) {
      const zone = rest.slice(1);
      return isKnownZone(zone) ? new TimeOfDay(seconds, undefined, zone) : undefined;
    }
    const [hours, minutes, more = 0] = rest.slice(1).split(":").map(Number);
    if ((hours ?? 0) > 18 || (minutes ?? 0) > 59) return undefined;
    const offset = ((hours ?? 0) * 3600 + (minutes ?? 0) * 60 + more) * (rest[0] === "-" ? -1 : 1);
    return new TimeOfDay(seconds, offset, undefined);
  }
  order(): number {
    return this.seconds - (this.offset ?? 0);
  }
  /** Around midnight. */
  plus(seconds: number): TimeOfDay {
    return new TimeOfDay((((this.seconds + seconds) % day) + day) % day, this.offset, this.zone);
  }
  get hour(): number {
    return Math.floor(this.seconds / 3600);
  }
  get minute(): number {
    return Math.floor(this.seconds / 60) % 60;
  }
  get second(): number {
    return this.seconds % 60;
  }
  toString(): string {
    const whole = Math.floor(this.second);
    const part = this.second - whole;
    const rest = part === 0 ? "" : part.toFixed(9).slice(1).replace(/0+$/, "");
    return `${pad(this.hour)}:${pad(this.minute)}:${pad(whole)}${rest}${this.#where()}`;
  }
  #where(): string {
    if (this.zone !== undefined) return `@${this.zone}`;
    if (this.offset === undefined) return "";
    if (this.offset === 0) return "Z";
    const all = Math.abs(this.offset);
    const seconds = all % 60 === 0 ? "" : `:${pad(all % 60)}`;
    return `${this.offset < 0 ? "-" : "+"}${pad(Math.floor(all / 3600))}:${pad(Math.floor(all / 60) % 60)}${seconds}`;
  }
}

/** Zones of the time zone database are named by area and place; what they mean hangs on the machine, so only their names are looked at. */
const isKnownZone = (zone: string) => zone === "UTC" || /^[A-Z][A-Za-z_]+(?:\/[A-Za-z_+-]+)+$/.test(zone);

/** A date with a time of day. */
export class DateAndTime {
  constructor(
    readonly date: Day,
    readonly time: TimeOfDay,
  ) {}
  static read(text: string): DateAndTime | undefined {
    const at = text.indexOf("T");
    const date = Day.read(at < 0 ? text : text.slice(0, at));
    const time = at < 0 ? new TimeOfDay(0, undefined, undefined) : TimeOfDay.read(text.slice(at + 1));
    return date && time && new DateAndTime(date, time);
  }
  order(): number {
    return this.date.order() + this.time.order();
  }
  plus(seconds: number): DateAndTime {
    const all = this.time.seconds + seconds;
    const days = Math.floor(all / day);
    const time = new TimeOfDay(all - days * day, this.time.offset, this.time.zone);
    return new DateAndTime(Day.fromDays(this.date.days() + days), time);
  }
  plusMonths(months: number): DateAndTime {
    return new DateAndTime(this.date.plusMonths(months), this.time);
  }
  toString(): string {
    return `${this.date}T${this.time}`;
  }
}

/** A duration of years and months. */
export class Months {
  constructor(readonly months: number) {}
  toString(): string {
    const all = Math.abs(this.months);
    const [years, months] = [Math.floor(all / 12), all % 12];
    if (all === 0) return "P0M";
    return `${this.months < 0 ? "-" : ""}P${years > 0 ? `${years}Y` : ""}${months > 0 ? `${months}M` : ""}`;
  }
}

/** A duration of days, hours, minutes and seconds. */
export class DaysAndTime {
  constructor(readonly seconds: number) {}
  toString(): string {
    const all = Math.abs(this.seconds);
    if (all === 0) return "PT0S";
    const [days, hours, minutes] = [Math.floor(all / day), Math.floor(all / 3600) % 24, Math.floor(all / 60) % 60];
    const seconds = Number((all % 60).toFixed(9));
    const time = `${hours > 0 ? `${hours}H` : ""}${minutes > 0 ? `${minutes}M` : ""}${seconds > 0 ? `${seconds}S` : ""}`;
    return `${this.seconds < 0 ? "-" : ""}P${days > 0 ? `${days}D` : ""}${time === "" ? "" : `T${time}`}`;
  }
}

/** A duration as ISO 8601 writes it; years and months do not mix with days and times. */
export function readDurationOf(text: string): Months | DaysAndTime | undefined {
  const [, sign, years, months, days, hours, minutes, seconds] =
    /^(-?)P(?=\d|T\d)(?:(\d+)Y)?(?:(\d+)M)?(?:(\d+)D)?(?:T(?=\d)(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:\.\d+)?)S)?)?$/.exec(
      text,
    ) ?? [];
  if (sign === undefined) return undefined;
  const factor = sign === "-" ? -1 : 1;
  const hasMonths = years !== undefined || months !== undefined;
  const hasDays = [days, hours, minutes, seconds].some((one) => one !== undefined);
  if (hasMonths && hasDays) return undefined;
  if (hasMonths) return new Months(factor * (Number(years ?? 0) * 12 + Number(months ?? 0)) || 0);
  const all = Number(days ?? 0) * day + Number(hours ?? 0) * 3600 + Number(minutes ?? 0) * 60 + Number(seconds ?? 0);
  return new DaysAndTime(factor * all || 0);
}
