import { type Answer, distinct, type Entry, givenList, listOf, none, numbersOf, of, same, whole } from "./answers";
import type { Decimal } from "./decimal";
import { compareValues, FeelFunction, type FeelValue } from "./values";

function extreme(sign: 1 | -1) {
  return (...args: FeelValue[]): Answer => {
    const list = listOf(args);
    if (!list || list.length === 0) return list ? null : none;
    let best = list[0] as FeelValue;
    for (const one of list) {
      const order = compareValues(one, best);
      if (order === undefined) return none;
      if (order * sign > 0) best = one;
    }
    return best;
  };
}
function spread(...args: FeelValue[]): Answer {
  const list = numbersOf(args);
  if (!list || list.length < 2) return none;
  const mean = sum(list).over(of(list.length)) ?? of(0);
  const squares = sum(list.map((one) => one.minus(mean).times(one.minus(mean))));
  return of(Math.sqrt(Number(squares.over(of(list.length - 1)) ?? of(0))));
}
const sum = (list: readonly Decimal[]) => list.reduce((all, one) => all.plus(one), of(0));
const sorted = (list: readonly Decimal[]) => [...list].sort((a, b) => a.compare(b));
function middle(...args: FeelValue[]): Answer {
  const list = numbersOf(args);
  if (!list) return none;
  if (list.length === 0) return null;
  const inOrder = sorted(list);
  const at = Math.floor(inOrder.length / 2);
  if (inOrder.length % 2 === 1) return inOrder[at] as Decimal;
  return (inOrder[at - 1] as Decimal).plus(inOrder[at] as Decimal).over(of(2)) ?? none;
}
function commonest(...args: FeelValue[]): Answer {
  const list = numbersOf(args);
  if (!list) return none;
  const counts = distinct(list).map((one) => [one, list.filter((other) => same(one, other)).length] as const);
  const most = Math.max(0, ...counts.map(([, count]) => count));
  return sorted(counts.flatMap(([one, count]) => (count === most ? [one as Decimal] : [])));
}
function truth(decides: boolean) {
  return (...args: FeelValue[]): Answer => {
    const list = listOf(args);
    if (!list) return none;
    if (list.includes(decides)) return decides;
    return list.every((one) => typeof one === "boolean") ? !decides : null;
  };
}
const flat = (list: readonly FeelValue[]): FeelValue[] =>
  list.flatMap((one) => (Array.isArray(one) ? flat(one) : [one]));
function sortedBy(list: FeelValue, precedes?: FeelValue): Answer {
  const items = givenList(list);
  if (!items) return none;
  const before = (a: FeelValue, b: FeelValue) =>
    precedes instanceof FeelFunction ? precedes.call([a, b]) === true : (compareValues(a, b) ?? 0) < 0;
  return [...items].sort((a, b) => (before(a, b) ? -1 : before(b, a) ? 1 : 0));
}
function replaced(list: FeelValue, at: FeelValue, by: FeelValue): Answer {
  const items = givenList(list);
  if (!items) return none;
  if (at instanceof FeelFunction) return items.map((one) => (at.call([one, by]) === true ? by : one));
  const place = whole(at);
  if (place === undefined || place === 0 || Math.abs(place) > items.length) return none;
  return items.with(place < 0 ? items.length + place : place - 1, by);
}

/** Functions of lists (DMN 1.5, 10.3.4.4; from memory). */
export const listFunctions: readonly Entry[] = [
  ["list contains", "list, element", (list, element) => givenList(list)?.some((one) => same(one, element)) ?? none],
  ["count", "list", (list) => (givenList(list) ? of((givenList(list) ?? []).length) : none)],
  ["min", "...", extreme(-1)],
  ["max", "...", extreme(1)],
  [
    "sum",
    "...",
    (...args) => {
      const list = numbersOf(args);
      return list ? (list.length === 0 ? null : sum(list)) : none;
    },
  ],
  [
    "product",
    "...",
    (...args) => {
      const list = numbersOf(args);
      return list ? (list.length === 0 ? null : list.reduce((all, one) => all.times(one), of(1))) : none;
    },
  ],
  [
    "mean",
    "...",
    (...args) => {
      const list = numbersOf(args);
      return list ? (list.length === 0 ? null : (sum(list).over(of(list.length)) ?? none)) : none;
    },
  ],
  ["median", "...", middle],
  ["stddev", "...", spread],
  ["mode", "...", commonest],
  ["all", "...", truth(false)],
  ["any", "...", truth(true)],
  ["and", "...", truth(false)],
  ["or", "...", truth(true)],
  [
    "sublist",
    "list, start position, length",
    (list, start, length) => {
      const [items, from] = [givenList(list), whole(start)];
      if (!items || from === undefined || from === 0) return none;
      const at = from < 0 ? items.length + from : from - 1;
      const count = length === undefined || length === null ? undefined : whole(length);
      return items.slice(at, count === undefined ? undefined : at + count);
    },
  ],
  ["append", "...", (list, ...items) => (givenList(list) ? [...(givenList(list) ?? []), ...items] : none)],
  [
    "concatenate",
    "...",
    (...lists) => (lists.every((one) => givenList(one)) ? lists.flatMap((one) => givenList(one) ?? []) : none),
  ],
  [
    "insert before",
    "list, position, newItem",
    (list, position, item) => {
      const [items, place] = [givenList(list), whole(position)];
      if (!items || place === undefined || place === 0 || Math.abs(place) > items.length) return none;
      return items.toSpliced(place < 0 ? items.length + place : place - 1, 0, item);
    },
  ],
  [
    "remove",
    "list, position",
    (list, position) => {
      const [items, place] = [givenList(list), whole(position)];
      if (!items || place === undefined || place === 0 || Math.abs(place) > items.length) return none;
      return items.toSpliced(place < 0 ? items.length + place : place - 1, 1);
    },
  ],
  ["list replace", "list, position, newItem", replaced],
  ["reverse", "list", (list) => givenList(list)?.toReversed() ?? none],
  [
    "index of",
    "list, match",
    (list, match) => givenList(list)?.flatMap((one, at) => (same(one, match) ? [of(at + 1)] : [])) ?? none,
  ],
  ["union", "...", (...lists) => distinct(lists.flatMap((one) => givenList(one) ?? []))],
  ["distinct values", "list", (list) => (givenList(list) ? distinct(givenList(list) ?? []) : none)],
  ["flatten", "list", (list) => (givenList(list) ? flat(givenList(list) ?? []) : none)],
  ["sort", "list, precedes", sortedBy],
];
