import { type Answer, type Entry, none, number, of, whole } from "./answers";
import type { Decimal, Rounding } from "./decimal";
import { DaysAndTime, Months } from "./temporal";
import type { FeelValue } from "./values";

const rounding =
  (how: Rounding) =>
  (value: FeelValue, scale: FeelValue = of(0)): Answer => {
    const places = whole(scale);
    return number(value)?.round(places ?? 0, how) ?? none;
  };
const real =
  (work: (value: number) => number) =>
  (value: FeelValue): Answer => {
    const result = work(Number(number(value) ?? Number.NaN));
    return Number.isFinite(result) ? of(result) : none;
  };

/** Functions of numbers (DMN 1.5, 10.3.4.5; from memory). */
export const numberFunctions: readonly Entry[] = [
  ["decimal", "n, scale", (value, scale) => (whole(scale) === undefined ? none : rounding("half even")(value, scale))],
  ["floor", "n, scale", rounding("floor")],
  ["ceiling", "n, scale", rounding("ceiling")],
  ["round up", "n, scale", rounding("up")],
  ["round down", "n, scale", rounding("down")],
  ["round half up", "n, scale", rounding("half up")],
  ["round half down", "n, scale", rounding("half down")],
  [
    "abs",
    "n",
    (value) => {
      if (value instanceof Months) return new Months(Math.abs(value.months));
      if (value instanceof DaysAndTime) return new DaysAndTime(Math.abs(value.seconds));
      return number(value)?.abs() ?? none;
    },
  ],
  [
    "modulo",
    "dividend, divisor",
    (a, b) => (number(a) && number(b) ? (number(a)?.modulo(b as Decimal) ?? none) : none),
  ],
  ["sqrt", "number", real(Math.sqrt)],
  ["log", "number", real(Math.log)],
  ["exp", "number", real(Math.exp)],
  ["odd", "number", (value) => (whole(value) === undefined ? none : Math.abs((whole(value) ?? 0) % 2) === 1)],
  ["even", "number", (value) => (whole(value) === undefined ? none : (whole(value) ?? 1) % 2 === 0)],
];
