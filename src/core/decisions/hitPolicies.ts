import type { UnaryTests } from "../feel/language";
import { compareValues, Decimal, equalValues, type FeelValue } from "../feel/language";
import { Broken } from "./broken";
import type { TableOutput, Written } from "./model";

/** Outputs by the order of their allowed values, the first output before the second. */
export function inOrder(
  outcomes: readonly FeelValue[][],
  outputs: readonly TableOutput[],
  listed: (allowed: Written<UnaryTests>) => readonly FeelValue[],
): FeelValue[][] {
  const lists = outputs.map(({ allowed }) => (allowed ? listed(allowed) : []));
  const placeOf = (value: FeelValue, column: number) => {
    const at = (lists[column] ?? []).findIndex((one) => equalValues(one, value) === true);
    return at < 0 ? Number.POSITIVE_INFINITY : at;
  };
  return [...outcomes].sort((a, b) => {
    for (const column of outputs.keys()) {
      const difference = placeOf(a[column] ?? null, column) - placeOf(b[column] ?? null, column);
      if (difference !== 0 && !Number.isNaN(difference)) return difference;
    }
    return 0;
  });
}

/** Outputs of all rules that match, taken together (DMN 1.5, 8.2.8 and 8.2.11, from memory). */
export function aggregated(
  how: "SUM" | "COUNT" | "MIN" | "MAX",
  values: readonly FeelValue[],
  name: string,
): FeelValue {
  if (how === "COUNT") return Decimal.of(values.length);
  if (how === "SUM") {
    if (!values.every((one) => one instanceof Decimal)) throw new Broken(`"${name}" adds up what is no number`);
    return (values as Decimal[]).reduce((sum, one) => sum.plus(one), Decimal.of(0));
  }
  const sign = how === "MIN" ? -1 : 1;
  return values.reduce((best, one) => {
    const order = compareValues(one, best);
    if (order === undefined) throw new Broken(`"${name}" compares what cannot be compared`);
    return order * sign > 0 ? one : best;
  });
}
