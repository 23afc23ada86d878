import { arithmetic } from "./arithmetic";
import { Decimal } from "./decimal";
import { fail, shown } from "./failures";
import { pathOf } from "./parts";
import type { Expression, Iteration, UnaryTest, UnaryTests } from "./syntax";
import { DateAndTime, Day, DaysAndTime, Months, readDurationOf, TimeOfDay } from "./temporal";
import { compareValues, equalValues, FeelContext, FeelFunction, FeelRange, type FeelValue, isWithin } from "./values";

/** So many steps an evaluation may take, so that none runs for ever. */
const mostSteps = 2_000_000;
/** So deep functions may call each other: less than the platform's own stack holds. */
const deepestCall = 200;

/** What names mean. */
export class Scope {
  constructor(
    readonly names: ReadonlyMap<string, FeelValue>,
    readonly outer?: Scope,
    readonly effort: { left: number; depth: number } = outer?.effort ?? { left: mostSteps, depth: 0 },
  ) {}
  find(name: string): FeelValue | undefined {
    return this.names.has(name) ? this.names.get(name) : this.outer?.find(name);
  }
  /** The nearest function of a name: data that is called like one ("date") does not hide it. */
  findFunction(name: string): FeelFunction | undefined {
    const found = this.names.get(name);
    return found instanceof FeelFunction ? found : this.outer?.findFunction(name);
  }
  with(...names: readonly (readonly [string, FeelValue])[]): Scope {
    return new Scope(new Map(names), this);
  }
}

/**
 * The value of an expression (DMN 1.5, chapter 10.3; from memory). Where the standard has null for what goes wrong (other types than an
 * operation takes, arguments a function has no answer for, a name nothing is known of), the reason is told instead.
 * @throws FeelFailure with the reason. O(steps), bounded.
 */
export function evaluateExpression(expression: Expression, scope: Scope): FeelValue {
  if (--scope.effort.left < 0) fail("it takes too many steps");
  const of = (inner: Expression, within = scope) => evaluateExpression(inner, within);
  switch (expression.kind) {
    case "number":
      return Decimal.read(expression.text) ?? fail(`${expression.text} is too large`);
    case "text":
      return expression.value;
    case "literal":
      return expression.value;
    case "at":
      return readTemporal(expression.value) ?? fail(`@"${expression.value}" is no date, time or duration`);
    case "name": {
      const value = scope.find(expression.name);
      return value === undefined ? fail(`nothing is known of "${expression.name}"`) : value;
    }
    case "negate": {
      const value = of(expression.of);
      if (value === null) return null;
      if (value instanceof Decimal) return value.negated();
      if (value instanceof Months) return new Months(-value.months || 0);
      if (value instanceof DaysAndTime) return new DaysAndTime(-value.seconds || 0);
      return fail(`${shown(value)} cannot be negated`);
    }
    case "binary":
      return binary(expression, scope);
    case "between": {
      const [value, from, to] = [of(expression.of), of(expression.from), of(expression.to)];
      if (value === null || from === null || to === null) return null;
      const [a, b] = [compareValues(value, from), compareValues(value, to)];
      if (a === undefined || b === undefined)
        return fail(`${shown(value)} cannot be compared with ${shown(from)} and ${shown(to)}`);
      return a >= 0 && b <= 0;
    }
    case "in": {
      const value = of(expression.of);
      return someTest(expression.tests, value, scope);
    }
    case "instance":
      return isOfType(of(expression.of), expression.type);
    case "path":
      return pathOf(of(expression.of), expression.name);
    case "filter":
      return filtered(of(expression.of), expression.by, scope);
    case "call":
      return called(expression, scope);
    case "list":
      return expression.items.map((item) => of(item));
    case "context": {
      const entries = new Map<string, FeelValue>();
      for (const { key, value } of expression.entries) entries.set(key, of(value, new Scope(entries, scope)));
      return new FeelContext(entries);
    }
    case "range": {
      const [start, end] = [expression.start, expression.end].map((one) => (one ? of(one) : null)) as [
        FeelValue,
        FeelValue,
      ];
      if (start !== null && end !== null && compareValues(start, end) === undefined)
        fail(`there is no range from ${shown(start)} to ${shown(end)}`);
      return new FeelRange(start, end, expression.hasStart, expression.hasEnd);
    }
    case "if":
      return of(of(expression.test) === true ? expression.then : expression.otherwise);
    case "for": {
      const results: FeelValue[] = [];
      // What came so far is handed over only where it is asked for: it is copied each time.
      const asksForPartial = mentions(expression.result, "partial");
      iterate(expression.over, scope, (within) => {
        if (asksForPartial) within.effort.left -= results.length;
        results.push(of(expression.result, asksForPartial ? within.with(["partial", [...results]]) : within));
        return true;
      });
      return results;
    }
    case "quantified": {
      let result: FeelValue = expression.isEvery;
      iterate(expression.over, scope, (within) => {
        const holds = of(expression.test, within);
        if (holds === !expression.isEvery) {
          result = !expression.isEvery;
          return false;
        }
        if (typeof holds !== "boolean") result = null;
        return true;
      });
      return result;
    }
    case "function": {
      const { parameters, body } = expression;
      return new FeelFunction(parameters, (args) =>
        of(body, scope.with(...parameters.map((name, at) => [name, args[at] ?? null] as const))),
      );
    }
  }
}

/** Whether a value passes the tests of a cell; what is tested is known as "?". */
export function passes(tests: UnaryTests, value: FeelValue, scope: Scope): boolean {
  if (tests.kind === "any") return true;
  const some = someTest(tests.tests, value, scope);
  return tests.kind === "none" ? some !== true : some === true;
}

function someTest(tests: readonly UnaryTest[], value: FeelValue, scope: Scope): boolean | null {
  let result: boolean | null = false;
  for (const test of tests) {
    const one = passesOne(test, value, scope);
    if (one === true) return true;
    if (one === null) result = null;
  }
  return result;
}

function passesOne(test: UnaryTest, value: FeelValue, scope: Scope): boolean | null {
  const within = scope.with(["?", value]);
  if (test.kind === "compare") {
    const to = evaluateExpression(test.to, within);
    if (test.operator === "=" || test.operator === "!=") {
      const same = equalValues(value, to);
      return same === undefined ? null : same === (test.operator === "=");
    }
    if (value === null || to === null) return null;
    const order = compareValues(value, to);
    if (order === undefined) return fail(`${shown(value)} cannot be compared with ${shown(to)}`);
    return holdsFor(test.operator, order);
  }
  const found = evaluateExpression(test.value, within);
  if (found instanceof FeelRange) {
    if (value instanceof FeelRange) return equalValues(value, found) === true;
    const inside = isWithin(value, found);
    if (inside === undefined && value !== null)
      fail(`${shown(value)} is of another type than the range it is tested against`);
    return inside ?? null;
  }
  if (Array.isArray(found) && !Array.isArray(value))
    return found.some((one) =>
      one instanceof FeelRange ? isWithin(value, one) === true : equalValues(value, one) === true,
    );
  if (Array.isArray(found) && Array.isArray(value))
    return equalValues(value, found) === true || found.some((one) => equalValues(value, one) === true);
  // A condition about "?" decides by itself.
  if (typeof found === "boolean" && (typeof value !== "boolean" || mentions(test.value, "?"))) return found;
  return equalValues(value, found) ?? false;
}

/** Whether an expression uses a name anywhere in it. */
export function mentions(expression: Expression, name: string): boolean {
  const visit = (part: unknown): boolean =>
    typeof part === "object" &&
    part !== null &&
    (((part as Expression).kind === "name" && (part as { name: string }).name === name) ||
      Object.values(part).some(visit));
  return visit(expression);
}

const holdsFor = (operator: "<" | "<=" | ">" | ">=", order: number): boolean =>
  ({ "<": order < 0, "<=": order <= 0, ">": order > 0, ">=": order >= 0 })[operator];

function binary({ operator, left, right }: Extract<Expression, { kind: "binary" }>, scope: Scope): FeelValue {
  const a = evaluateExpression(left, scope);
  if (operator === "and" || operator === "or") {
    // Three values: what decides does so, whatever the other is.
    const decides = operator === "or";
    if (a === decides) return decides;
    const b = evaluateExpression(right, scope);
    if (b === decides) return decides;
    return typeof a === "boolean" && typeof b === "boolean" ? !decides : null;
  }
  const b = evaluateExpression(right, scope);
  if (operator === "=" || operator === "!=") {
    const same = equalValues(a, b);
    return same === undefined ? null : same === (operator === "=");
  }
  if (a === null || b === null) return null;
  if (operator === "<" || operator === "<=" || operator === ">" || operator === ">=") {
    const order = compareValues(a, b);
    if (order === undefined) return fail(`${shown(a)} cannot be compared with ${shown(b)}`);
    return holdsFor(operator, order);
  }
  try {
    return arithmetic(operator, a, b) ?? fail(`${shown(a)} ${operator} ${shown(b)} has no value`);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return fail(`${shown(a)} ${operator} ${shown(b)} is too large`);
  }
}

/** "list[2]", "list[item > 1]", "people[age > 60]". */
function filtered(value: FeelValue, by: Expression, scope: Scope): FeelValue {
  if (value === null) return null;
  const list: readonly FeelValue[] = Array.isArray(value) ? value : [value];
  // A number is a place; whether it is one shows without looking at the items, where it speaks of none of them.
  if (by.kind === "number" || by.kind === "negate" || !speaksOfItems(by, list)) {
    const place = evaluateExpression(by, scope);
    if (place instanceof Decimal) {
      const at = Number(place);
      return list[at < 0 ? list.length + at : at - 1] ?? null;
    }
  }
  return list.filter((item) => {
    const fields = item instanceof FeelContext ? item.entries : new Map<string, FeelValue>();
    const within = new Scope(new Map([...fields, ["item", fields.get("item") ?? item]]), scope);
    return evaluateExpression(by, within) === true;
  });
}
function speaksOfItems(by: Expression, list: readonly FeelValue[]): boolean {
  const names = new Set([
    "item",
    ...list.flatMap((one) => (one instanceof FeelContext ? [...one.entries.keys()] : [])),
  ]);
  const speaks = (part: unknown): boolean =>
    typeof part === "object" &&
    part !== null &&
    (((part as Expression).kind === "name" && names.has((part as { name: string }).name)) ||
      Object.values(part).some(speaks));
  return speaks(by);
}

function called({ of, args, names }: Extract<Expression, { kind: "call" }>, scope: Scope): FeelValue {
  const named = of.kind === "name" ? of.name : "it";
  const found = (of.kind === "name" ? scope.findFunction(of.name) : undefined) ?? evaluateExpression(of, scope);
  if (!(found instanceof FeelFunction)) return fail(`"${named}" is no function`);
  const values = args.map((arg) => evaluateExpression(arg, scope));
  if (!names) return calledWithin(found, values, scope);
  const placed: FeelValue[] = [];
  for (const [at, name] of names.entries()) {
    const place = found.parameters.indexOf(name);
    if (place < 0) fail(`"${named}" has no parameter "${name}"`);
    placed[place] = values[at] ?? null;
  }
  return calledWithin(
    found,
    Array.from(placed, (value) => value ?? null),
    scope,
  );
}

function calledWithin(found: FeelFunction, values: readonly FeelValue[], { effort }: Scope): FeelValue {
  if (effort.depth >= deepestCall) return fail("functions call each other too deep");
  effort.depth++;
  try {
    return found.call(values);
  } finally {
    effort.depth--;
  }
}

/** Runs through all combinations; the later ones change first, and may speak of the earlier. */
function iterate(over: readonly Iteration[], scope: Scope, each: (within: Scope) => boolean): boolean {
  const [first, ...rest] = over;
  if (!first) return each(scope);
  for (const value of itemsOf(first, scope)) {
    const within = scope.with([first.name, value]);
    if (--within.effort.left < 0) fail("it takes too many steps");
    if (!iterate(rest, within, each)) return false;
  }
  return true;
}
function itemsOf({ in: first, to }: Iteration, scope: Scope): Iterable<FeelValue> {
  const value = evaluateExpression(first, scope);
  const end = to ? evaluateExpression(to, scope) : undefined;
  if (end === undefined) {
    if (value instanceof FeelRange && value.start !== null && value.end !== null)
      return steps(value.start, value.end).filter((one) => isWithin(one, value) === true);
    return Array.isArray(value) ? value : value === null ? [] : [value];
  }
  return steps(value, end);
}
function steps(from: FeelValue, to: FeelValue): FeelValue[] {
  if (from instanceof Decimal && to instanceof Decimal) {
    const [start, end] = [Number(from), Number(to)];
    const count = Math.floor(Math.abs(end - start)) + 1;
    if (count > mostSteps) fail("it takes too many steps");
    return Array.from({ length: count }, (_, at) => from.plus(Decimal.of(start <= end ? at : -at)));
  }
  if (from instanceof Day && to instanceof Day) {
    const [start, end] = [from.days(), to.days()];
    const count = Math.abs(end - start) + 1;
    if (count > mostSteps) fail("it takes too many steps");
    return Array.from({ length: count }, (_, at) => Day.fromDays(start <= end ? start + at : start - at));
  }
  return fail(`there are no steps from ${shown(from)} to ${shown(to)}`);
}

/** Whether a value is of a type, by the names of the language; a name it does not know is a type nothing is of. */
function isOfType(value: FeelValue, type: string): boolean {
  const plain = type.replace(/\s+/g, " ").trim();
  if (plain === "Any") return value !== null;
  if (value === null) return plain === "Null";
  const list = /^list ?< ?(.+) ?>$/.exec(plain)?.[1];
  if (list) return Array.isArray(value) && value.every((one) => isOfType(one, list));
  const classes: { readonly [name: string]: (one: FeelValue) => boolean } = {
    number: (one) => one instanceof Decimal,
    string: (one) => typeof one === "string",
    boolean: (one) => typeof one === "boolean",
    date: (one) => one instanceof Day,
    time: (one) => one instanceof TimeOfDay,
    "date and time": (one) => one instanceof DateAndTime,
    "years and months duration": (one) => one instanceof Months,
    "days and time duration": (one) => one instanceof DaysAndTime,
    list: (one) => Array.isArray(one),
    context: (one) => one instanceof FeelContext,
    function: (one) => one instanceof FeelFunction,
    range: (one) => one instanceof FeelRange,
  };
  const known = classes[plain.replace(/ ?<.*$/, "")];
  return known?.(value) ?? false;
}

/** What a text of ISO 8601 says: a date, a time, both, or a duration. */
export const readTemporal = (text: string): Day | TimeOfDay | DateAndTime | Months | DaysAndTime | undefined =>
  Day.read(text) ??
  (text.includes("T") && !/^-?P/.test(text) ? DateAndTime.read(text) : undefined) ??
  TimeOfDay.read(text) ??
  readDurationOf(text);
