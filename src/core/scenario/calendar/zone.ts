/** A moment as a clock on a wall shows it. Months from 1. */
export interface WallTime {
  readonly year: number;
  readonly month: number;
  readonly day: number;
  readonly hour: number;
  readonly minute: number;
  readonly second: number;
}

const formats = new Map<string, Intl.DateTimeFormat | undefined>();

/** Undefined for a zone that nobody knows. */
function formatOf(zone: string): Intl.DateTimeFormat | undefined {
  if (formats.has(zone)) return formats.get(zone);
  let format: Intl.DateTimeFormat | undefined;
  try {
    format = new Intl.DateTimeFormat("en-GB", {
      timeZone: zone,
      hourCycle: "h23",
      year: "numeric",
      month: "2-digit",
      day: "2-digit",
      hour: "2-digit",
      minute: "2-digit",
      second: "2-digit",
    });
  } catch {
    format = undefined;
  }
  formats.set(zone, format);
  return format;
}

export const isZone = (zone: string): boolean => zone === "UTC" || formatOf(zone) !== undefined;

/** What a clock in a zone shows at a moment (milliseconds since 1970, UTC). */
export function wallAt(moment: number, zone: string): WallTime {
  const format = zone === "UTC" ? undefined : formatOf(zone);
  if (!format) {
    const date = new Date(moment);
    return {
      year: date.getUTCFullYear(),
      month: date.getUTCMonth() + 1,
      day: date.getUTCDate(),
      hour: date.getUTCHours(),
      minute: date.getUTCMinutes(),
      second: date.getUTCSeconds(),
    };
  }
  const parts = new Map(format.formatToParts(new Date(moment)).map(({ type, value }) => [type, Number(value)]));
  const get = (type: Intl.DateTimeFormatPartTypes) => parts.get(type) ?? 0;
  return {
    year: get("year"),
    month: get("month"),
    day: get("day"),
    hour: get("hour"),
    minute: get("minute"),
    second: get("second"),
  };
}

const asUtc = ({ year, month, day, hour, minute, second }: WallTime) =>
  Date.UTC(year, month - 1, day, hour, minute, second);

const day = 86_400_000;
/** The days of a calendar fall alike every 400 years, which are so many, and so do the rules of zones that are still to come. */
const daysOf400Years = 146_097;
/** 1 January 2100, in days since 1970: until then each is asked for by itself, since to ask takes long. */
const byItself = 47_482;
/** Behind that clocks are not put on and back again within so many days. */
const stretch = 8;
const offsets = new Map<string, Map<number, number>>();

/** Milliseconds that a zone's clocks are ahead of UTC at the beginning of a day of UTC, asked for once. */
function offsetOfDay(number: number, zone: string): number {
  const later = number - byItself;
  if (later >= daysOf400Years) return offsetOfDay(byItself + (later % daysOf400Years), zone);
  if (later > 0 && later % stretch !== 0) {
    const [before, after] = [number - (later % stretch), number - (later % stretch) + stretch];
    const offset = offsetOfDay(before, zone);
    if (offset === offsetOfDay(after, zone)) return offset;
  }
  const ofZone = offsets.get(zone) ?? new Map<number, number>();
  offsets.set(zone, ofZone);
  const offset = ofZone.get(number) ?? asUtc(wallAt(number * day, zone)) - number * day;
  ofZone.set(number, offset);
  return offset;
}

/** The same at any moment: clocks are put on or back on few days, and on the others it is what it was at their beginning. */
function offsetAt(moment: number, zone: string): number {
  const number = Math.floor(moment / day);
  const [before, after] = [offsetOfDay(number, zone), offsetOfDay(number + 1, zone)];
  return before === after ? before : asUtc(wallAt(moment, zone)) - moment;
}

/**
 * The moment at which a clock in a zone shows a time. Days and hours that go over are carried. A time that is left out when summer time
 * begins is the moment an hour on; one that comes twice when it ends is the first.
 */
export function momentOf(wall: WallTime, zone: string): number {
  const guess = asUtc(wall);
  if (zone === "UTC") return guess;
  // Of the two offsets around a change, the one before it gives the earlier moment.
  const before = guess - offsetAt(guess - day, zone);
  if (before + offsetAt(before, zone) === guess) return before;
  const after = guess - offsetAt(guess + day, zone);
  return after + offsetAt(after, zone) === guess ? after : before;
}
