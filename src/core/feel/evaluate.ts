import { type DataType, typesAsked } from "./dataTypes";
import {
  builtInNames,
  builtIns,
  evaluateExpression,
  FeelFailure,
  FeelSyntaxError,
  type FeelValue,
  fromJson,
  namesUsed,
  parseExpression,
  readTemporal,
  Scope,
  toJson,
} from "./language";

/** Data of a case, by name. */
export type CaseData = { readonly [name: string]: unknown };

const functions = builtIns();
/** Steps that a condition may take: one on a flow takes a few dozen, and a walk asks it often. */
const mostSteps = 200_000;
/** So many names of parts are known to paths, and so deep. */
const [mostNames, deepest] = [2_000, 6];

/**
 * Whether a condition holds for some data (DMN 1.5, chapter 10). What is missing is null.
 * @returns undefined where the data does not decide it: names are missing, the words are not FEEL, the answer is neither true nor false,
 *   or working it out would take too many steps. O(steps), bounded.
 */
export function holds(condition: string, data: CaseData): boolean | undefined {
  if (Object.keys(data).length === 0) return undefined;
  const value = worth(condition, data);
  return typeof value === "boolean" ? value : undefined;
}

/** What an expression comes to for some data, as JSON; null where it comes to nothing. Undefined as with `holds`. */
export function valueFor(expression: string, data: CaseData): unknown {
  const value = worth(expression, data);
  return value === undefined ? undefined : toJson(value);
}

function worth(expressionText: string, data: CaseData): FeelValue | undefined {
  const typed = expressionText.trim();
  if (typed === "") return undefined;
  try {
    const known = [...builtInNames, ...namesIn(data)];
    const expression = parseExpression(typed, known);
    const values = new Map<string, FeelValue>();
    for (const { name } of namesUsed(typed, known)) if (!builtInNames.includes(name)) values.set(name, null);
    for (const [name, value] of Object.entries(data)) values.set(name, fromJson(value));
    for (const [name, type] of momentsAsked(typed, data)) {
      const value = data[name];
      if (typeof value === "string") values.set(name, momentOf(value, type));
    }
    return evaluateExpression(
      expression,
      new Scope(values, new Scope(functions, undefined, { left: mostSteps, depth: 0 })),
    );
  } catch (error) {
    // What is no FEEL, or fails, decides nothing; `readCondition` says so where it is written.
    if (error instanceof FeelSyntaxError || error instanceof FeelFailure) return undefined;
    throw error;
  }
}

/** The names of data and of its parts. */
function namesIn(data: CaseData): Set<string> {
  const names = new Set<string>();
  const visit = (value: unknown, depth: number) => {
    if (typeof value !== "object" || value === null || depth > deepest || names.size > mostNames) return;
    if (Array.isArray(value)) for (const one of value.slice(0, 100)) visit(one, depth + 1);
    else
      for (const [name, inside] of Object.entries(value)) {
        names.add(name);
        visit(inside, depth + 1);
      }
  };
  visit(data, 0);
  return names;
}

const moments: ReadonlySet<DataType> = new Set(["date", "dateAndTime", "time", "duration"]);

/** Points in time and lengths are kept as words of ISO 8601; where a condition holds them against such, they are read as such. */
const momentsAsked = (condition: string, data: CaseData): [string, DataType][] =>
  Object.values(data).some((value) => typeof value === "string")
    ? [...typesAsked(condition, Object.keys(data))].filter(([, type]) => moments.has(type))
    : [];

const momentOf = (words: string, type: DataType): FeelValue =>
  readTemporal(type === "dateAndTime" && !words.includes("T") ? `${words}T00:00:00` : words) ?? words;
