import { Decimal } from "./decimal";
import { DateAndTime, Day, DaysAndTime, Months, TimeOfDay } from "./temporal";

/** A value of the language. */
export type FeelValue =
  | null
  | boolean
  | string
  | Decimal
  | Day
  | TimeOfDay
  | DateAndTime
  | Months
  | DaysAndTime
  | readonly FeelValue[]
  | FeelContext
  | FeelRange
  | FeelFunction;

export class FeelContext {
  constructor(readonly entries: ReadonlyMap<string, FeelValue>) {}
}
export class FeelRange {
  constructor(
    /** Null where it is open at that end. */
    readonly start: FeelValue,
    readonly end: FeelValue,
    readonly hasStart: boolean,
    readonly hasEnd: boolean,
  ) {}
}
export class FeelFunction {
  constructor(
    readonly parameters: readonly string[],
    readonly call: (args: readonly FeelValue[]) => FeelValue,
  ) {}
}

/** Why something cannot be worked out; whoever asks for a value gets null and this reason. */
export class FeelFailure extends Error {}

const ordered = (value: FeelValue): number | Decimal | string | undefined => {
  if (value instanceof Decimal || typeof value === "string") return value;
  if (value instanceof Day || value instanceof TimeOfDay || value instanceof DateAndTime) return value.order();
  if (value instanceof Months) return value.months;
  if (value instanceof DaysAndTime) return value.seconds;
  return undefined;
};
export const kindOf = (value: FeelValue): string =>
  value === null
    ? "null"
    : Array.isArray(value)
      ? "list"
      : typeof value === "object"
        ? value.constructor.name
        : typeof value;

/** Less than, equal, greater: -1, 0, 1; undefined where two values have no order (DMN 1.5, 10.3.2.13, tables 42 and 55; from memory). */
export function compareValues(a: FeelValue, b: FeelValue): number | undefined {
  if (kindOf(a) !== kindOf(b)) return undefined;
  const [one, other] = [ordered(a), ordered(b)];
  if (one === undefined || other === undefined) return undefined;
  if (one instanceof Decimal) return one.compare(other as Decimal);
  return one < other ? -1 : one > other ? 1 : 0;
}

/** Equality: null only equals null; of values of different kinds undefined, which is null in the language. */
export function equalValues(a: FeelValue, b: FeelValue): boolean | undefined {
  if (a === null || b === null) return a === b;
  if (kindOf(a) !== kindOf(b)) return undefined;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((one, at) => equalValues(one, b[at] as FeelValue) === true);
  if (a instanceof FeelContext && b instanceof FeelContext)
    return (
      a.entries.size === b.entries.size &&
      [...a.entries].every(
        ([key, value]) => b.entries.has(key) && equalValues(value, b.entries.get(key) ?? null) === true,
      )
    );
  if (a instanceof FeelRange && b instanceof FeelRange)
    return (
      a.hasStart === b.hasStart &&
      a.hasEnd === b.hasEnd &&
      equalValues(a.start, b.start) === true &&
      equalValues(a.end, b.end) === true
    );
  if (typeof a === "boolean") return a === b;
  const order = compareValues(a, b);
  return order === undefined ? a === b : order === 0;
}

/** Whether a value lies in a range; undefined where the two cannot be compared. */
export function isWithin(value: FeelValue, { start, end, hasStart, hasEnd }: FeelRange): boolean | undefined {
  if (value === null) return undefined;
  const [from, to] = [start === null ? 1 : compareValues(value, start), end === null ? -1 : compareValues(value, end)];
  if (from === undefined || to === undefined) return undefined;
  return (from > 0 || (hasStart && from === 0)) && (to < 0 || (hasEnd && to === 0));
}

/** A value as JSON has it: numbers as numbers, dates and durations as text of ISO 8601. Functions and ranges are no data. */
export function toJson(value: FeelValue): unknown {
  if (value === null || typeof value === "boolean" || typeof value === "string") return value;
  if (value instanceof Decimal) return Number(value);
  if (Array.isArray(value)) return value.map(toJson);
  if (value instanceof FeelContext)
    return Object.fromEntries([...value.entries].map(([key, one]) => [key, toJson(one)]));
  if (value instanceof FeelRange || value instanceof FeelFunction) return null;
  return String(value);
}

/** JSON as values; text stays text, whatever it looks like. */
export function fromJson(value: unknown): FeelValue {
  if (value === null || value === undefined) return null;
  if (typeof value === "boolean" || typeof value === "string") return value;
  if (typeof value === "number") return Decimal.of(value);
  if (Array.isArray(value)) return value.map(fromJson);
  return new FeelContext(new Map(Object.entries(value as object).map(([key, one]) => [key, fromJson(one)])));
}
