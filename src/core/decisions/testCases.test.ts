import { describe, expect, test } from "vitest";
import { expectOk } from "../testing/models";
import { type Decision, lookAt, readDecisions, runTestCases, suggestedTestCases } from ".";
import { decision, dmn, inputData, needsDecision, table } from "./testing/tables";

function read(inside: string, id = "t") {
  const model = expectOk(readDecisions(new TextEncoder().encode(dmn(inside))));
  return { model, one: model.decisions.get(id) as Decision };
}
const inspection = (rules: readonly string[], attributes = "") =>
  read(
    inputData("power", "number") +
      inputData("roof") +
      decision("t", table(["power: number", 'roof: string = "flat","steep"'], ["r"], rules, attributes)),
  );

const rules = ['< 10; - -> "none"', '[10..30); "flat" -> "visit"', '[10..30); "steep" -> "full"', '>= 30; - -> "full"'];

describe("test cases of a decision", () => {
  test("pass while it decides so, and say what comes out when it does not", () => {
    const cases = [
      { name: "small", given: { power: 5, roof: "flat" }, expected: "none" },
      { name: "on the edge", given: { power: 10, roof: "flat" }, expected: "visit" },
    ];
    const now = inspection(rules);
    expect(runTestCases(now.model, now.one, cases).map((one) => one.isPassed)).toEqual([true, true]);
    const changed = inspection(['<= 10; - -> "none"', ...rules.slice(1).map((one) => one.replaceAll("[10", "(10"))]);
    expect(runTestCases(changed.model, changed.one, cases)).toMatchObject([
      { isPassed: true },
      { isPassed: false, got: { result: "none", rules: [1] } },
    ]);
    const broken = inspection(['- ; - -> "a"', '- ; - -> "b"']);
    expect(runTestCases(broken.model, broken.one, cases)[0]).toMatchObject({
      isPassed: false,
      got: { problems: [expect.stringContaining("both match")] },
    });
  });
  test("structures are compared by what they hold", () => {
    const { model, one } = read(decision("t", table(["x: number"], ["a", "b"], ["- -> 1; [1, 2]"])));
    const passed = (expected: unknown) =>
      runTestCases(model, one, [{ name: "", given: { x: 1 }, expected }])[0]?.isPassed;
    expect([{ b: [1, 2], a: 1 }, { a: 1, b: [2, 1] }, { a: 1 }, 1, null].map(passed)).toEqual([
      true,
      false,
      false,
      false,
      false,
    ]);
  });
  test("are suggested so that each rule is met, and each boundary from both sides", () => {
    const { model, one } = inspection(rules);
    const suggested = suggestedTestCases(model, one);
    const met = new Set(runTestCases(model, one, suggested).flatMap(({ got }) => got.rules));
    expect([...met].sort()).toEqual([1, 2, 3, 4]);
    const powers = suggested.map(({ given }) => given.power as number);
    for (const [low, high] of [
      [Number.NEGATIVE_INFINITY, 10],
      [10, 10],
      [10, 30],
      [30, 30],
      [30, Number.POSITIVE_INFINITY],
    ] as const)
      expect(powers.some((power) => (low === high ? power === low : power > low && power < high))).toBe(true);
    expect(new Set(suggested.map(({ given }) => given.roof))).toEqual(new Set(["flat", "steep"]));
    expect(runTestCases(model, one, suggested).every((outcome) => outcome.isPassed)).toBe(true);
    expect(suggested.length).toBeLessThanOrEqual(6);
  });
  test("are not suggested for what is worked out before", () => {
    const { model, one } = read(
      decision("k", table(["x: number"], ["r"], ["- -> 1"])) +
        decision("t", table(["k: number"], ["r"], ["- -> 1"]), needsDecision("k")),
    );
    expect(suggestedTestCases(model, one)).toEqual([]);
  });
});

test("what if: each cell says whether it takes the value", () => {
  const { model, one } = inspection(rules);
  expect(lookAt(model, one, { power: 12, roof: "steep" })).toEqual({
    inputs: [
      { name: "power", value: 12 },
      { name: "roof", value: "steep" },
    ],
    rules: [
      [false, true],
      [true, false],
      [true, true],
      [false, true],
    ],
    problem: undefined,
  });
  expect(lookAt(model, one, { power: 12, roof: "round" }).problem).toMatch(/not among the allowed values/);
  expect(lookAt(model, one, { roof: "flat" }).problem).toMatch(/“?"?power"?”? is missing/);
});
