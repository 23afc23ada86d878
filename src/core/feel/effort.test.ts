import { expect, test } from "vitest";
import { effortOf, mostEffort } from "./effort";
import { holds } from "./evaluate";
import { readCondition } from "./readCondition";

test.each<[expression: string, data: Record<string, unknown>, isTooMuch: boolean]>([
  ["count(for i in 1..100000, j in 1..100000 return i) > 3", {}, true],
  ["count(for i in 1..n, j in 1..n return i) > 3", { n: 100_000 }, true],
  ["count(for i in 1..100000 return for j in 1..100000 return j) > 3", {}, true],
  ["some x in 1..100000 satisfies some y in 1..100000 satisfies x = y", {}, true],
  ["count(for i in 1..1000, j in 1..i return j) > 3", {}, true],
  ["count((for i in 1..5000 return i)[count(for j in 1..5000 return j) > item]) > 0", {}, true],
  ['matches("aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa!", "(a+)+$")', {}, true],
  ["matches(text, pattern)", { text: "a", pattern: "b" }, true],
  ["rated power <= 10", { "rated power": 8 }, false],
  ["count(for i in 1..100 return i * 2) = 100", {}, false],
  ["some x in parts satisfies x > 2", { parts: [1, 2, 3] }, false],
  ["sum(for x in parts return x) > 5 and max(parts) = 3", { parts: [1, 2, 3] }, false],
  ['matches(name, "^[A-Z][a-z]+$")', { name: "Mara" }, false],
  ['if kind = "express" then true else days > 3', { kind: "express", days: 1 }, false],
])("%s: too much is %s", (expression, data, isTooMuch) => {
  const start = performance.now();
  expect(effortOf(expression, data) > mostEffort).toBe(isTooMuch);
  expect(holds(expression, { ...data, any: 1 })).toBe(isTooMuch ? undefined : true);
  expect(performance.now() - start).toBeLessThan(1_000);
});

test("a condition that takes too much says so where it is written", () => {
  expect(readCondition("count(for i in 1..100000, j in 1..100000 return i) > 3", [])).toEqual({
    kind: "words",
    isEndless: true,
  });
});
