import {
  builtInNames,
  builtIns,
  evaluateExpression,
  FeelFailure,
  FeelSyntaxError,
  fromJson,
  parseExpression,
  Scope,
  textOf,
  toJson,
} from "../feel/language";
import { type Decided, decide } from "./decide";
import type { Decision, DecisionModel } from "./model";
import { Proof, Unclear } from "./proof";

/** What should come out for some data. */
export interface TestCase {
  readonly name: string;
  readonly given: { readonly [input: string]: unknown };
  readonly expected: unknown;
}
export interface TestOutcome {
  readonly test: TestCase;
  readonly isPassed: boolean;
  readonly got: Decided;
}

/** Decides each case, and says whether what should come out does. */
export const runTestCases = (model: DecisionModel, decision: Decision, cases: readonly TestCase[]): TestOutcome[] =>
  cases.map((test) => {
    const got = decide(model, decision, test.given);
    return { test, got, isPassed: got.problems.length === 0 && sameValue(got.result, test.expected) };
  });

/** Whether two pieces of data are the same; numbers by their value, the parts of a structure in any order. */
function sameValue(one: unknown, other: unknown): boolean {
  if (Array.isArray(one) && Array.isArray(other))
    return one.length === other.length && one.every((item, at) => sameValue(item, other[at]));
  if (isRecord(one) && isRecord(other)) {
    const keys = Object.keys(one);
    return (
      keys.length === Object.keys(other).length && keys.every((key) => key in other && sameValue(one[key], other[key]))
    );
  }
  return one === other || (one == null && other == null);
}
const isRecord = (value: unknown): value is { readonly [key: string]: unknown } =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** A value of data as one reads it. */
export const shownValue = (value: unknown): string => textOf(fromJson(value ?? null), true) ?? "null";

/** A value somebody typed as what should come out: FEEL where it is, else words as a text. */
export function typedResult(words: string): unknown {
  try {
    return toJson(evaluateExpression(parseExpression(words.trim(), builtInNames), new Scope(builtIns())));
  } catch (error) {
    if (error instanceof FeelSyntaxError || error instanceof FeelFailure) return words.trim();
    throw error;
  }
}

/**
 * Test cases for a table: each rule is met once, and each boundary of an input from both sides, in as few cases as one after the other gives.
 * What should come out is what comes out now; somebody has to say whether that is right.
 * @returns none where the table cannot be looked at, or an input is not given but worked out
 * O(inputs × pieces × rules).
 */
export function suggestedTestCases(model: DecisionModel, decision: Decision): TestCase[] {
  const table = decision.logic;
  if (table.kind !== "table" || table.rules.length === 0) return [];
  const given = new Set([...model.inputs.values()].map(({ name }) => name));
  if (!table.inputs.every(({ expression }) => given.has(expression.text))) return [];
  let proof: Proof;
  try {
    proof = new Proof(model, table);
  } catch (error) {
    if (error instanceof Unclear) return [];
    throw error;
  }
  const { axes, allowed, boxes } = proof;
  const metRules = new Set<number>();
  const metPieces = axes.map(() => new Set<number>());
  const places: number[][] = [];
  const add = (place: number[]) => {
    places.push(place);
    for (const [column, piece] of place.entries()) metPieces[column]?.add(piece);
    for (const [at, box] of boxes.entries())
      if (box.every((pieces, column) => pieces.has(place[column] as number))) metRules.add(at);
  };
  // A piece that no case met yet goes first, so that few cases meet all.
  const fresh = (column: number, pieces: ReadonlySet<number>) =>
    [...pieces].find((piece) => !metPieces[column]?.has(piece)) ?? ([...pieces][0] as number);
  for (const [at, box] of boxes.entries())
    if (!metRules.has(at) && box.every((pieces) => pieces.size > 0))
      add(box.map((pieces, column) => fresh(column, pieces)));
  for (const [column, pieces] of allowed.entries())
    for (const piece of pieces) {
      if (metPieces[column]?.has(piece)) continue;
      // Where some rule takes it, by that rule: what it decides is worth holding; else a gap is.
      const rule = boxes.find((box) => box[column]?.has(piece) && box.every((one) => one.size > 0)) ?? allowed;
      add(rule.map((one, other) => (other === column ? piece : fresh(other, one))));
    }
  return places.map((place, at) => {
    const data = Object.fromEntries(
      axes.map(({ name, segments }, column) => [name, toJson(segments[place[column] as number]?.sample ?? null)]),
    );
    const { result } = decide(model, decision, data);
    return { name: `Case ${at + 1}`, given: data, expected: result };
  });
}
