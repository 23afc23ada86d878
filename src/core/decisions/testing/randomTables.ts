import fc from "fast-check";
import type { table } from "./tables";

const bound = fc.integer({ min: 0, max: 4 });
/** The cell of a number: whatever, a point, a side, a range, or what some of it leaves. */
const numberCell = fc.oneof(
  fc.constant("-"),
  bound.map((at) => `${at}`),
  bound.map((at) => `< ${at}`),
  bound.map((at) => `>= ${at}`),
  fc
    .tuple(bound, bound, fc.constantFrom("[", "("), fc.constantFrom("]", ")"))
    .map(([a, b, from, to]) => `${from}${Math.min(a, b)}..${Math.max(a, b)}${to}`),
  fc.tuple(bound, bound).map(([a, b]) => `not(${a}, > ${b})`),
);
const textCell = fc.constantFrom("-", '"x"', '"y"', '"x","y"', 'not("x")');

/** Tables of two numbers and a text, a rule a line. */
export const randomRules = (mostRules = 6) =>
  fc
    .array(fc.tuple(numberCell, numberCell, textCell, fc.integer({ min: 1, max: 2 })), { maxLength: mostRules })
    .map((rules) => rules.map(([a, b, k, r]) => `${a}; ${b}; ${k} -> ${r}`));
export const randomInputs: Parameters<typeof table>[0] = ["a: number", "b: number", 'k: string = "x","y","z"'];

/** Every point of the grid of all boundaries and all middles between them. */
export const gridPoints: readonly { readonly a: number; readonly b: number; readonly k: string }[] = [
  -1, 0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 5,
].flatMap((a, _, places) => places.flatMap((b) => ["x", "y", "z"].map((k) => ({ a, b, k }))));
