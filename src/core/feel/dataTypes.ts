import { parseExpression } from "feelin";

/** What kind of value a condition asks for (the types of DMN 1.3, 10.3.1.3, that conditions of processes decide by). */
export type DataType = "number" | "text" | "yesNo" | "date" | "dateAndTime" | "time" | "duration";

/** A node of a read expression, with those inside it. */
interface Part {
  readonly name: string;
  readonly words: string;
  readonly inside: Part[];
}

const literals: { readonly [node: string]: DataType } = {
  NumericLiteral: "number",
  StringLiteral: "text",
  BooleanLiteral: "yesNo",
};
const constructors: { readonly [word: string]: DataType } = {
  date: "date",
  "date and time": "dateAndTime",
  time: "time",
  duration: "duration",
};

/**
 * The kinds of values a condition asks for, by name, as far as its words tell: a name held against a number is a number, one that
 * stands where something holds or not is yes or no. Names that nothing is told of are left out. O(length).
 * @example typesAsked("rated power <= 10 and urgent", ["rated power"]) // rated power: number, urgent: yesNo
 */
export function typesAsked(condition: string, dataInReach: readonly string[] = []): ReadonlyMap<string, DataType> {
  const found = new Map<string, DataType>();
  const tell = (part: Part, type: DataType | undefined) => {
    if (part.name === "VariableName" && type && !found.has(part.words)) found.set(part.words, type);
  };
  const look = ({ name, inside, words }: Part) => {
    if (name === "Comparison")
      for (const one of inside) tell(one, comparedWith(inside.filter((other) => other !== one)));
    if (name === "Conjunction" || name === "Disjunction") for (const one of inside) tell(one, "yesNo");
    if (name === "IfExpression" && inside[1]) tell(inside[1], "yesNo");
    if (name === "FunctionInvocation" && /^not\s*\(/.test(words))
      for (const one of inside.find((part) => part.name === "PositionalParameters")?.inside ?? []) tell(one, "yesNo");
    if (isOfNumbers({ name, inside, words })) for (const one of inside) tell(one, "number");
    for (const one of inside) look(one);
  };
  const whole = partsOf(condition.trim(), dataInReach);
  const [only] = whole.inside;
  // A name alone is a question by itself.
  if (whole.inside.length === 1 && only) tell(only, "yesNo");
  look(whole);
  return found;
}

function partsOf(condition: string, dataInReach: readonly string[]): Part {
  const root: Part = { name: "", words: condition, inside: [] };
  const open: Part[] = [root];
  parseExpression(condition, Object.fromEntries(dataInReach.map((name) => [name, {}])), undefined).iterate({
    enter: ({ name, from, to }) => {
      const part: Part = { name, words: condition.slice(from, to), inside: [] };
      open.at(-1)?.inside.push(part);
      open.push(part);
      return true;
    },
    leave: () => {
      open.pop();
    },
  });
  return root.inside[0] ?? root;
}

/** Texts, dates and lengths can be added as well; a sum with one of these tells nothing of the names in it. */
const isOfNumbers = ({ name, inside }: Part): boolean =>
  name === "ArithmeticExpression" && inside.every((one) => (typeOf(one) ?? "number") === "number");

function typeOf(part: Part): DataType | undefined {
  const { name, inside } = part;
  if (name === "DateTimeLiteral") return constructors[inside[0]?.words ?? ""];
  if (name === "ArithmeticExpression") return isOfNumbers(part) ? "number" : undefined;
  return literals[name];
}

/** The first value among what a name is held against, also in a list or between two bounds. */
function comparedWith(others: readonly Part[]): DataType | undefined {
  for (const part of others) {
    if (
      typeOf(part) === undefined &&
      /^(VariableName|PathExpression|FunctionInvocation|ArithmeticExpression)$/.test(part.name)
    )
      continue;
    const type = typeOf(part) ?? comparedWith(part.inside);
    if (type) return type;
  }
  return undefined;
}
