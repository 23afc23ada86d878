import { Decimal } from "./decimal";
import { DateAndTime, Day, DaysAndTime, Months, TimeOfDay } from "./temporal";
import { type FeelValue, kindOf } from "./values";

/** DMN 1.5, 10.3.2.15, tables 50 to 54 (from memory). */
export function arithmetic(operator: "+" | "-" | "*" | "/" | "**", a: FeelValue, b: FeelValue): FeelValue | undefined {
  if (a instanceof Decimal && b instanceof Decimal) {
    switch (operator) {
      case "+":
        return a.plus(b);
      case "-":
        return a.minus(b);
      case "*":
        return a.times(b);
      case "/":
        return a.over(b);
      default:
        return a.power(b);
    }
  }
  if (operator === "+" && typeof a === "string" && typeof b === "string") return a + b;
  const sign = operator === "-" ? -1 : 1;
  if (operator === "+" || operator === "-") {
    if (a instanceof Months && b instanceof Months) return new Months(a.months + sign * b.months);
    if (a instanceof DaysAndTime && b instanceof DaysAndTime) return new DaysAndTime(a.seconds + sign * b.seconds);
    if (b instanceof Months && (a instanceof Day || a instanceof DateAndTime)) return a.plusMonths(sign * b.months);
    if (b instanceof DaysAndTime) {
      if (a instanceof TimeOfDay || a instanceof DateAndTime) return a.plus(sign * b.seconds);
      if (a instanceof Day) {
        const moved = new DateAndTime(a, new TimeOfDay(0, undefined, undefined)).plus(sign * b.seconds);
        return moved.date;
      }
    }
    if (operator === "+" && (a instanceof Months || a instanceof DaysAndTime)) return arithmetic("+", b, a);
    if (operator === "-" && isMoment(a) && isMoment(b) && kindOf(a) === kindOf(b))
      return new DaysAndTime(a.order() - b.order());
    if (operator === "-" && a instanceof DateAndTime && b instanceof Day) return new DaysAndTime(a.order() - b.order());
    if (operator === "-" && a instanceof Day && b instanceof DateAndTime) return new DaysAndTime(a.order() - b.order());
    return undefined;
  }
  if (operator === "*") {
    if (a instanceof Decimal && (b instanceof Months || b instanceof DaysAndTime)) return arithmetic("*", b, a);
    if (a instanceof Months && b instanceof Decimal) return new Months(Math.trunc(a.months * Number(b)));
    if (a instanceof DaysAndTime && b instanceof Decimal) return new DaysAndTime(a.seconds * Number(b));
  }
  if (operator === "/") {
    if (a instanceof Months && b instanceof Months) return Decimal.of(a.months).over(Decimal.of(b.months));
    if (a instanceof DaysAndTime && b instanceof DaysAndTime) return Decimal.of(a.seconds).over(Decimal.of(b.seconds));
    if (b instanceof Decimal && Number(b) !== 0) {
      if (a instanceof Months) return new Months(Math.trunc(a.months / Number(b)));
      if (a instanceof DaysAndTime) return new DaysAndTime(a.seconds / Number(b));
    }
  }
  return undefined;
}
const isMoment = (value: FeelValue): value is Day | TimeOfDay | DateAndTime =>
  value instanceof Day || value instanceof TimeOfDay || value instanceof DateAndTime;
