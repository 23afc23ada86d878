import { type Answer, type Entry, none, same } from "./answers";
import { compareValues, FeelRange, type FeelValue } from "./values";

const startOf = (range: FeelRange) => range.start;
/** How points and ranges stand to each other (DMN 1.5, 10.3.4.11, table 79; from memory). */
const asRange = (value: FeelValue) => (value instanceof FeelRange ? value : new FeelRange(value, value, true, true));
const before = (a: FeelRange, b: FeelRange): boolean => {
  const order = compareValues(a.end, startOf(b));
  return order !== undefined && (order < 0 || (order === 0 && !(a.hasEnd && b.hasStart)));
};
const meets = (a: FeelRange, b: FeelRange) => same(a.end, b.start) && a.hasEnd && b.hasStart;
const startsNot = (a: FeelRange, b: FeelRange): number => {
  const order = compareValues(a.start, b.start) ?? Number.NaN;
  return order !== 0 ? order : a.hasStart === b.hasStart ? 0 : a.hasStart ? -1 : 1;
};
const endsNot = (a: FeelRange, b: FeelRange): number => {
  const order = compareValues(a.end, b.end) ?? Number.NaN;
  return order !== 0 ? order : a.hasEnd === b.hasEnd ? 0 : a.hasEnd ? 1 : -1;
};
const includes = (a: FeelRange, b: FeelRange) => startsNot(a, b) <= 0 && endsNot(a, b) >= 0;
const touches = (a: FeelRange, b: FeelRange) => !before(a, b) && !before(b, a);
const relation =
  (holds: (a: FeelRange, b: FeelRange) => boolean) =>
  (a: FeelValue, b: FeelValue): Answer =>
    a === null || b === null ? none : holds(asRange(a), asRange(b));
const overlapsBefore = (a: FeelRange, b: FeelRange) => touches(a, b) && startsNot(a, b) < 0 && endsNot(a, b) <= 0;
const startsWith = (a: FeelRange, b: FeelRange) => startsNot(a, b) === 0 && endsNot(a, b) <= 0;
const finishesIt = (a: FeelRange, b: FeelRange) => endsNot(a, b) === 0 && startsNot(a, b) >= 0;

/** How points and ranges stand to each other (DMN 1.5, 10.3.4.11; from memory). */
export const rangeFunctions: readonly Entry[] = [
  ["before", "value1, value2", relation(before)],
  ["after", "value1, value2", relation((a, b) => before(b, a))],
  ["meets", "range1, range2", relation(meets)],
  ["met by", "range1, range2", relation((a, b) => meets(b, a))],
  ["overlaps", "range1, range2", relation(touches)],
  ["overlaps before", "range1, range2", relation(overlapsBefore)],
  ["overlaps after", "range1, range2", relation((a, b) => touches(a, b) && startsNot(a, b) >= 0 && endsNot(a, b) > 0)],
  ["finishes", "value, range", relation(finishesIt)],
  ["finished by", "range, value", relation((a, b) => finishesIt(b, a))],
  ["includes", "range, value", relation(includes)],
  ["during", "value, range", relation((a, b) => includes(b, a))],
  ["starts", "value, range", relation(startsWith)],
  ["started by", "range, value", relation((a, b) => startsWith(b, a))],
  ["coincides", "value1, value2", relation((a, b) => startsNot(a, b) === 0 && endsNot(a, b) === 0)],
];
