import {
  builtInNames,
  DateAndTime,
  Day,
  type Expression,
  FeelSyntaxError,
  parseExpression,
  readTemporal,
  TimeOfDay,
  type UnaryTest,
} from "./language";

/** What kind of value a condition asks for (the types of DMN 1.3, 10.3.1.3, that conditions of processes decide by). */
export type DataType = "number" | "text" | "yesNo" | "date" | "dateAndTime" | "time" | "duration";

const constructors: { readonly [word: string]: DataType } = {
  date: "date",
  "date and time": "dateAndTime",
  time: "time",
  duration: "duration",
};
const comparing = new Set(["=", "!=", "<", "<=", ">", ">="]);

/**
 * The kinds of values a condition asks for, by name, as far as its words tell: a name held against a number is a number, one that
 * stands where something holds or not is yes or no. Names that nothing is told of are left out. O(length).
 * @example typesAsked("rated power <= 10 and urgent", ["rated power"]) // rated power: number, urgent: yesNo
 */
export function typesAsked(condition: string, dataInReach: readonly string[] = []): ReadonlyMap<string, DataType> {
  const found = new Map<string, DataType>();
  const tell = (part: Expression, type: DataType | undefined) => {
    if (part.kind === "name" && type && !found.has(part.name)) found.set(part.name, type);
  };
  const compare = (parts: readonly Expression[]) => {
    for (const one of parts) tell(one, parts.flatMap((other) => (other === one ? [] : (typeOf(other) ?? [])))[0]);
  };
  const look = (part: Expression) => {
    switch (part.kind) {
      case "binary":
        if (comparing.has(part.operator)) compare([part.left, part.right]);
        else if (part.operator === "and" || part.operator === "or")
          for (const one of [part.left, part.right]) tell(one, "yesNo");
        break;
      case "between":
        compare([part.of, part.from, part.to]);
        break;
      case "in":
        compare([part.of, ...part.tests.map(valueOfTest)]);
        break;
      case "if":
        tell(part.test, "yesNo");
        break;
      case "call":
        if (part.of.kind === "name" && part.of.name === "not") for (const one of part.args) tell(one, "yesNo");
        break;
    }
    if (isOfNumbers(part)) for (const one of insideOf(part)) tell(one, "number");
    for (const one of insideOf(part)) look(one);
  };
  try {
    const whole = parseExpression(condition, [...builtInNames, ...dataInReach]);
    // A name alone is a question by itself.
    tell(whole, "yesNo");
    look(whole);
  } catch (error) {
    // Words for people ask for nothing.
    if (!(error instanceof FeelSyntaxError)) throw error;
  }
  return found;
}

const valueOfTest = (test: UnaryTest): Expression => (test.kind === "compare" ? test.to : test.value);

function insideOf(part: Expression): readonly Expression[] {
  switch (part.kind) {
    case "negate":
    case "instance":
    case "path":
      return [part.of];
    case "binary":
      return [part.left, part.right];
    case "between":
      return [part.of, part.from, part.to];
    case "in":
      return [part.of, ...part.tests.map(valueOfTest)];
    case "filter":
      return [part.of, part.by];
    case "call":
      return part.args;
    case "list":
      return part.items;
    case "context":
      return part.entries.map(({ value }) => value);
    case "range":
      return [part.start, part.end].filter((one) => one !== undefined);
    case "if":
      return [part.test, part.then, part.otherwise];
    case "for":
      return [...part.over.map((one) => one.in), part.result];
    case "quantified":
      return [...part.over.map((one) => one.in), part.test];
    default:
      return [];
  }
}

/** Texts, dates and lengths can be added as well; a sum with one of these tells nothing of the names in it. */
function isOfNumbers(part: Expression): boolean {
  if (part.kind === "negate") return (typeOf(part.of) ?? "number") === "number";
  const isSum = part.kind === "binary" && ["+", "-", "*", "/", "**"].includes(part.operator);
  return isSum && insideOf(part).every((one) => (typeOf(one) ?? "number") === "number");
}

/** The kind of a value whose words tell it, also by the first of a list or the ends of a range. */
function typeOf(part: Expression): DataType | undefined {
  switch (part.kind) {
    case "number":
      return "number";
    case "text":
      return "text";
    case "literal":
      return part.value === null ? undefined : "yesNo";
    case "at": {
      const value = readTemporal(part.value);
      if (value === undefined) return undefined;
      if (value instanceof Day) return "date";
      if (value instanceof DateAndTime) return "dateAndTime";
      return value instanceof TimeOfDay ? "time" : "duration";
    }
    case "call":
      return part.of.kind === "name" ? constructors[part.of.name] : undefined;
    case "list":
    case "range":
      return insideOf(part).flatMap((one) => typeOf(one) ?? [])[0];
    default:
      return isOfNumbers(part) ? "number" : undefined;
  }
}
