import { describe, expect, test } from "vitest";
import { caseDataOf, holds } from ".";

/** Truth of expressions: DMN 1.3, 10.3.2 "Semantics" and 10.3.4 "Built-in functions" (cases from memory). */
describe("FEEL decides", () => {
  test.each<[string, { readonly [name: string]: unknown }, boolean | undefined]>([
    ["rated power <= 10", { "rated power": 10 }, true],
    ["rated power <= 10", { "rated power": 10.5 }, false],
    ["x = 1 and y = 2", { x: 1, y: 2 }, true],
    ["x = 1 or y = 2", { x: 0, y: 2 }, true],
    ["not(complete)", { complete: false }, true],
    ["x between 1 and 3", { x: 3 }, true],
    ["x in [1..3)", { x: 3 }, false],
    ["x in (1, 4, 9)", { x: 4 }, true],
    ['status = "rejected"', { status: "rejected" }, true],
    ["application.power > 5", { application: { power: 6 } }, true],
    ["count(defects) = 0", { defects: [] }, true],
    ["some defect in defects satisfies defect > 2", { defects: [1, 3] }, true],
    ["every defect in defects satisfies defect > 2", { defects: [1, 3] }, false],
    ['date("2027-03-01") < date("2027-04-01")', { any: 1 }, true],
    ['duration("P2D") > duration("PT36H")', { any: 1 }, true],
    ["if urgent then true else false", { urgent: true }, true],
    ['contains(note, "meter")', { note: "new meter" }, true],
    ["10 ** 2 = 100", { any: 1 }, true],
    // Three-valued logic (10.3.2.13): what is missing is null; null and false is false, null or true is true.
    ["missing > 3", { any: 1 }, undefined],
    ["missing and false", { any: 1 }, false],
    ["missing or true", { any: 1 }, true],
    ["missing and true", { any: 1 }, undefined],
  ])("%s with %o", (condition, data, expected) => {
    expect(holds(condition, data)).toBe(expected);
  });
  test("without data, and for words, nothing is decided", () => {
    expect(holds("true", {})).toBeUndefined();
    expect(holds("the feeder can carry it", { x: 1 })).toBeUndefined();
    expect(holds("3 + 4", { x: 1 })).toBeUndefined();
  });
});

test("data is taken as it is typed", () => {
  expect(
    caseDataOf({
      power: "12.5",
      urgent: "yes",
      complete: "false",
      note: "old meter",
      list: "[1, 2]",
      begun: '{"a',
      none: " ",
    }),
  ).toEqual({ power: 12.5, urgent: true, complete: false, note: "old meter", list: [1, 2], begun: '{"a' });
});

describe("a condition takes no time without bound", () => {
  test.each<[string, { readonly [name: string]: unknown }]>([
    ["count(for i in 1..100000, j in 1..100000 return i) > 3", {}],
    ["count(for i in 1..n, j in 1..n return i) > 3", { n: 100_000 }],
    ["some x in 1..100000 satisfies some y in 1..100000 satisfies x = y + 200000", {}],
    ["count((for i in 1..5000 return i)[count(for j in 1..5000 return j) > item]) > 0", {}],
    ['matches("aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa!", "(a+)+$")', {}],
  ])("%s", (condition, data) => {
    // Of a processor, so that it does not matter what else the machine does.
    const start = process.cpuUsage();
    expect(holds(condition, { ...data, any: 1 })).toBeUndefined();
    expect(process.cpuUsage(start).user / 1_000).toBeLessThan(2_000);
  });
});
