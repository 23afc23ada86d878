import {
  compareValues,
  DateAndTime,
  Day,
  DaysAndTime,
  Decimal,
  equalValues,
  type FeelValue,
  kindOf,
  Months,
  TimeOfDay,
  textOf,
} from "../feel/language";
import { literalFor } from "./literal";

/** A piece of an input's values within which no cell of the table changes its mind. */
export interface Segment {
  /** A value of it. */
  readonly sample: FeelValue;
  /** A single value, or what lies between two of them (undefined where it has no end); undefined for "any other text". */
  readonly at?: FeelValue;
  readonly between?: readonly [low: FeelValue | undefined, high: FeelValue | undefined];
}

/** The values of an input cut at all that its cells speak of, in order. */
export interface Axis {
  readonly name: string;
  readonly segments: readonly Segment[];
}

const noon = new TimeOfDay(43_200, undefined, undefined);
/** A value of a type where nothing is said of it. */
const usual: { readonly [type: string]: FeelValue } = {
  number: Decimal.of(0),
  string: "any",
  date: new Day(2027, 1, 1),
  time: noon,
  "date and time": new DateAndTime(new Day(2027, 1, 1), noon),
  dateTime: new DateAndTime(new Day(2027, 1, 1), noon),
  "days and time duration": new DaysAndTime(0),
  dayTimeDuration: new DaysAndTime(0),
  "years and months duration": new Months(0),
  yearMonthDuration: new Months(0),
};

/** A value as much above another, or below; undefined where there is none in between or beyond. */
function beyond(value: FeelValue, way: 1 | -1): FeelValue | undefined {
  if (value instanceof Decimal) return value.plus(Decimal.of(way));
  if (value instanceof Day) return Day.fromDays(value.days() + way);
  if (value instanceof Months) return new Months(value.months + way);
  if (value instanceof DaysAndTime) return new DaysAndTime(value.seconds + way * 3600);
  if (value instanceof DateAndTime) return value.plus(way * 3600);
  if (value instanceof TimeOfDay) {
    const seconds = way > 0 ? (value.seconds + 86_400) / 2 : value.seconds / 2;
    return seconds === value.seconds ? undefined : new TimeOfDay(seconds, value.offset, value.zone);
  }
  return undefined;
}
/** Dates are whole days and months whole months; all else has no smallest step. */
function midway(low: FeelValue, high: FeelValue): FeelValue | undefined {
  if (low instanceof Decimal && high instanceof Decimal) return low.plus(high).over(Decimal.of(2));
  if (low instanceof Day && high instanceof Day)
    return high.days() - low.days() > 1 ? Day.fromDays(low.days() + 1) : undefined;
  if (low instanceof Months && high instanceof Months)
    return high.months - low.months > 1 ? new Months(low.months + 1) : undefined;
  if (low instanceof DaysAndTime && high instanceof DaysAndTime)
    return new DaysAndTime((low.seconds + high.seconds) / 2);
  if (low instanceof DateAndTime && high instanceof DateAndTime) return low.plus((high.order() - low.order()) / 2);
  if (low instanceof TimeOfDay && high instanceof TimeOfDay)
    return new TimeOfDay((low.seconds + high.seconds) / 2, low.offset, low.zone);
  return undefined;
}

/**
 * Cuts the values of an input.
 * @param points all values its cells and its allowed values speak of
 * @returns undefined where these are of several kinds. O(points log points)
 */
export function axisOf(name: string, type: string | undefined, points: readonly FeelValue[]): Axis | undefined {
  if (new Set(points.map(kindOf)).size > 1) return undefined;
  const [first] = points;
  const isTruth = type === "boolean" || typeof first === "boolean";
  if (isTruth) return { name, segments: [true, false].map((value) => ({ sample: value, at: value })) };
  if (typeof first === "string" || (first === undefined && type === "string")) {
    const texts = [...new Set(points as readonly string[])];
    let other = "another";
    while (texts.includes(other)) other += "'";
    return { name, segments: [...texts.map((text) => ({ sample: text, at: text })), { sample: other }] };
  }
  if (first === undefined)
    return { name, segments: [{ sample: usual[type ?? ""] ?? null, between: [undefined, undefined] }] };
  if (beyond(first, 1) === undefined && beyond(first, -1) === undefined) return undefined;
  const ordered = [...points].sort((a, b) => compareValues(a, b) ?? 0);
  const own = ordered.filter((value, at) => at === 0 || equalValues(value, ordered[at - 1] ?? null) !== true);
  const segments: Segment[] = [];
  const below = beyond(own[0] as FeelValue, -1);
  if (below !== undefined) segments.push({ sample: below, between: [undefined, own[0]] });
  for (const [at, value] of own.entries()) {
    segments.push({ sample: value, at: value });
    const next = own[at + 1];
    const sample = next === undefined ? beyond(value, 1) : midway(value, next);
    if (sample !== undefined) segments.push({ sample, between: [value, next] });
  }
  return { name, segments };
}

/** Some segments in words: "from 18 to under 65", "high or low", "any other"; "" for all of them. */
export function wordsFor({ segments }: Axis, chosen: ReadonlySet<number>, allowed: ReadonlySet<number>): string {
  if ([...allowed].every((at) => chosen.has(at))) return "";
  return runsOf(segments, chosen)
    .map((run) => runWords(segments, run))
    .join(" or ");
}
/** Segments that follow each other, where they have an order. */
function runsOf(segments: readonly Segment[], chosen: ReadonlySet<number>): number[][] {
  const runs: number[][] = [];
  const isOrdered = segments.some(({ between }) => between);
  for (const at of [...chosen].sort((a, b) => a - b)) {
    const run = runs.at(-1);
    if (isOrdered && run && run.at(-1) === at - 1) run.push(at);
    else runs.push([at]);
  }
  return runs;
}
/** Some segments as the tests of a cell: "[18..65)", "not(\"high\")"; "-" for all of them. */
export function testsFor({ segments }: Axis, chosen: ReadonlySet<number>, allowed: ReadonlySet<number>): string {
  if ([...allowed].every((at) => chosen.has(at))) return "-";
  const other = segments.findIndex(({ at, between }) => at === undefined && between === undefined);
  const single = (at: number) => literalFor(segments[at]?.at ?? null);
  if (chosen.has(other))
    // "Any other" is whatever is not named: all names that are left out are.
    return `not(${segments.flatMap((_, at) => (at === other || chosen.has(at) ? [] : [single(at)])).join(", ")})`;
  return runsOf(segments, chosen)
    .map((run) => runTests(segments, run))
    .join(", ");
}
function runTests(segments: readonly Segment[], run: readonly number[]): string {
  const [first, last] = [segments[run[0] as number] as Segment, segments[run.at(-1) as number] as Segment];
  if (first === last && first.at !== undefined) return literalFor(first.at);
  const [low, high] = [first.between ? first.between[0] : first.at, last.between ? last.between[1] : last.at];
  if (low === undefined && high === undefined) return "-";
  if (low === undefined) return `${last.between ? "<" : "<="} ${literalFor(high as FeelValue)}`;
  if (high === undefined) return `${first.between ? ">" : ">="} ${literalFor(low)}`;
  return `${first.between ? "(" : "["}${literalFor(low)}..${literalFor(high)}${last.between ? ")" : "]"}`;
}

function runWords(segments: readonly Segment[], run: readonly number[]): string {
  const [first, last] = [segments[run[0] as number] as Segment, segments[run.at(-1) as number] as Segment];
  const said = (value: FeelValue | undefined) => (value === undefined ? "" : (textOf(value) ?? "null"));
  if (first === last && first.at !== undefined) return said(first.at);
  if (first === last && !first.between) return "any other";
  const low = first.between
    ? first.between[0] === undefined
      ? ""
      : `over ${said(first.between[0])}`
    : `from ${said(first.at)}`;
  const high = last.between
    ? last.between[1] === undefined
      ? ""
      : `under ${said(last.between[1])}`
    : `${low === "" ? "up " : ""}to ${said(last.at)}`;
  if (low === "" || high === "") return `${low}${high}` || "any";
  return last.between ? `${low} to ${high}` : `${low} ${high}`;
}
