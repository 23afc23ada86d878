import { Decimal } from "./decimal";
import { equalValues, type FeelValue } from "./values";

/** What the functions of the language share: arguments as they take them, and having no answer. */
export type Args = readonly FeelValue[];
export const none = Symbol("no answer");
export type Answer = FeelValue | typeof none;
export type Entry = readonly [name: string, parameters: string, run: (...args: FeelValue[]) => Answer];

export const number = (value: FeelValue | undefined): Decimal | undefined =>
  value instanceof Decimal ? value : undefined;
export const whole = (value: FeelValue | undefined): number | undefined => {
  const found = number(value);
  return found?.isWhole ? Number(found) : undefined;
};
export const text = (value: FeelValue | undefined): string | undefined =>
  typeof value === "string" ? value : undefined;
export const of = (value: number) => Decimal.of(value);
/** A list, given as one or as the arguments themselves. */
export const listOf = (args: Args): readonly FeelValue[] | undefined => {
  const [first] = args;
  if (args.length === 1) return Array.isArray(first) ? first : first === null ? undefined : [first as FeelValue];
  return args;
};
export const numbersOf = (args: Args): Decimal[] | undefined => {
  const list = listOf(args);
  return list?.every((one) => one instanceof Decimal) ? (list as Decimal[]) : undefined;
};
export const givenList = (value: FeelValue | undefined): readonly FeelValue[] | undefined =>
  Array.isArray(value) ? value : value === null || value === undefined ? undefined : [value];
export const same = (a: FeelValue, b: FeelValue) => equalValues(a, b) === true;
export const distinct = (list: readonly FeelValue[]) =>
  list.filter((one, at) => list.findIndex((other) => same(one, other)) === at);
/** Text by its characters, not by their halves. */
export const letters = (value: string) => [...value];
