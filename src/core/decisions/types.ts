import {
  DateAndTime,
  Day,
  DaysAndTime,
  Decimal,
  FeelContext,
  type FeelValue,
  Months,
  passes,
  readTemporal,
  type Scope,
  TimeOfDay,
} from "../feel/language";
import type { DecisionModel, ItemType } from "./model";

/** What is wrong with a value, in words; undefined where nothing is. */
export type Fault = string | undefined;
export type Typed = { readonly value: FeelValue } | { readonly fault: string };

type Moment = new (...args: never[]) => object;
const moments: { readonly [type: string]: Moment } = {
  date: Day,
  time: TimeOfDay,
  "date and time": DateAndTime,
  dateTime: DateAndTime,
  "years and months duration": Months,
  yearMonthDuration: Months,
  "days and time duration": DaysAndTime,
  dayTimeDuration: DaysAndTime,
};
const plainTypes: { readonly [type: string]: (value: FeelValue) => boolean } = {
  number: (value) => value instanceof Decimal,
  string: (value) => typeof value === "string",
  boolean: (value) => typeof value === "boolean",
  context: (value) => value instanceof FeelContext,
};

/** The simple type a type comes down to, and what it allows on the way. */
export function simpleType(model: DecisionModel, type: string | undefined): string | undefined {
  const seen = new Set<string>();
  let name = type;
  for (let item = model.types.get(name ?? ""); item?.base && !seen.has(item.name); item = model.types.get(name ?? "")) {
    seen.add(item.name);
    name = item.base;
  }
  return name;
}

/**
 * A value as its type has it: texts of ISO 8601 become dates and durations where one is asked for. Null is of every type.
 * @returns why it is not of the type, or outside of what that allows
 */
export function asType(
  model: DecisionModel,
  value: FeelValue,
  type: string | undefined,
  scope: Scope,
  depth = 0,
): Typed {
  if (type === undefined || type === "Any" || value === null || depth > 20) return { value };
  const item = model.types.get(type);
  return item ? asItem(model, value, item, scope, depth) : asSimple(value, type);
}

function asSimple(value: FeelValue, type: string): Typed {
  const moment = moments[type];
  if (moment) {
    const read = typeof value === "string" ? readTemporal(value) : value;
    const found = type === "date and time" || type === "dateTime" ? withTime(read) : read;
    return found instanceof moment ? { value: found as FeelValue } : { fault: `is no ${type}` };
  }
  if (type === "duration") {
    const read = typeof value === "string" ? readTemporal(value) : value;
    return read instanceof Months || read instanceof DaysAndTime ? { value: read } : { fault: "is no duration" };
  }
  const isOf = plainTypes[type];
  // What a file names and nobody defines is not held against the data.
  if (!isOf) return { value };
  return isOf(value) ? { value } : { fault: `is no ${type}` };
}
const withTime = (value: FeelValue | undefined) =>
  value instanceof Day ? new DateAndTime(value, new TimeOfDay(0, undefined, undefined)) : value;

function asItem(model: DecisionModel, value: FeelValue, item: ItemType, scope: Scope, depth: number): Typed {
  if (item.isCollection) {
    const list: readonly FeelValue[] = Array.isArray(value) ? value : [value];
    const one: ItemType = { ...item, isCollection: false };
    const typed: FeelValue[] = [];
    for (const entry of list) {
      const found = entry === null ? { value: null } : asItem(model, entry, one, scope, depth + 1);
      if ("fault" in found) return found;
      typed.push(found.value);
    }
    return { value: typed };
  }
  let typed: Typed = { value };
  if (item.parts.length > 0) {
    if (!(value instanceof FeelContext)) return { fault: `is no ${item.name}` };
    const entries = new Map(value.entries);
    for (const part of item.parts) {
      const held = entries.get(part.name);
      if (held === undefined || held === null) continue;
      const found = asItem(model, held, part, scope, depth + 1);
      if ("fault" in found) return { fault: `has a ${part.name} that ${found.fault}` };
      entries.set(part.name, found.value);
    }
    typed = { value: new FeelContext(entries) };
  } else if (item.base !== undefined) typed = asType(model, value, item.base, scope, depth + 1);
  if ("fault" in typed || !item.allowed) return typed;
  const { read, text } = item.allowed;
  if (read instanceof Error) return { fault: `has a type whose allowed values cannot be read (${text})` };
  return passes(read, typed.value, scope) ? typed : { fault: `is not among the allowed values ${text}` };
}
