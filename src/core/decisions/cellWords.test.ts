import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { builtInNames } from "../feel/language";
import { typedTests, typedValue, wordsOfTests } from ".";

const known = [...builtInNames, "limit", "rated power"];
const typed = (words: string, type = "") => {
  const read = typedTests(words, type, known);
  return "text" in read ? read.text : read.problem.text;
};

describe("a cell in plain words is read as tests", () => {
  test.each<[string, string, string]>([
    ["from 18 to under 65", "number", "[18..65)"],
    ["from 18 to 65", "number", "[18..65]"],
    ["18 to 65", "number", "[18..65]"],
    ["over 18 to 65", "number", "(18..65]"],
    ["over 3 to under 4", "number", "(3..4)"],
    ["between 1 and 5", "number", "[1..5]"],
    ["under 10", "number", "< 10"],
    ["less than 10", "number", "< 10"],
    ["up to 10", "number", "<= 10"],
    ["at most 2.5", "number", "<= 2.5"],
    ["more than -3", "number", "> -3"],
    ["at least 5", "number", ">= 5"],
    ["under 10 or over 20", "number", "< 10, > 20"],
    ["over limit", "number", "> limit"],
    ["under rated power", "number", "< rated power"],
    ["high", "string", '"high"'],
    ["high or low", "string", '"high", "low"'],
    ["high, low", "string", '"high", "low"'],
    ["not high", "string", 'not("high")'],
    ["not high or low", "string", 'not("high", "low")'],
    ["roof, flat", "", '"roof", "flat"'],
    ["12", "string", '"12"'],
    ["yes", "boolean", "true"],
    ["no", "", "false"],
    ["yes", "string", '"yes"'],
    ["before 2027-03-01", "date", '< @"2027-03-01"'],
    ["2027-03-01 to 2027-03-31", "date", '[@"2027-03-01"..@"2027-03-31"]'],
    ["over 2 days", "", '> @"P2D"'],
    ["up to 3 weeks", "", '<= @"P21D"'],
    ["any", "number", "-"],
    ["", "number", "-"],
    // FEEL stays as it is.
    ["[18..65)", "number", "[18..65)"],
    ["> limit + 1", "number", "> limit + 1"],
    ['not("a", "b")', "string", 'not("a", "b")'],
    ['"high","low"', "string", '"high","low"'],
    ["? > 3 and ? < 5", "number", "? > 3 and ? < 5"],
  ])("%s (%s)", (words, type, expected) => {
    expect(typed(words, type)).toBe(expected);
  });
  test.each([
    ["[18..", "number"],
    ["under high", "number"],
    ["high", "number"],
    ["> unheard", "number"],
    ["fun(3)", "number"],
  ])("what is neither says so: %s", (words, type) => {
    expect(typed(words, type)).toMatch(/is not understood/);
  });
});

test.each<[string, string]>([
  ["[18..65)", "from 18 to under 65"],
  ["(1..2]", "over 1 to 2"],
  ["< 10, > 20", "under 10 or over 20"],
  ['not("high","low")', "not high or low"],
  ["true", "yes"],
  ['@"2027-03-01"', "2027-03-01"],
  ["-", "any"],
  ["> limit", "> limit"],
  ["? * 2 > 4", "? * 2 > 4"],
  ['"2 or 3"', '"2 or 3"'],
])("tests in words: %s", (tests, words) => {
  expect(wordsOfTests(tests)).toBe(words);
});

test("what is shown in words is read as the same tests again", () => {
  const number = fc.integer({ min: -9, max: 99 }).map(String);
  const text = fc.oneof(
    fc.constantFrom(
      "high",
      "low",
      "flat roof",
      "a or b",
      "not so",
      "5",
      "",
      "over",
      "x, y",
      "from 1",
      "up",
      "2027-01-01",
      "yes",
    ),
    fc.string({ maxLength: 6 }),
  );
  const numbers = fc.oneof(
    number,
    fc.tuple(fc.constantFrom("<", "<=", ">", ">="), number).map((pair) => pair.join(" ")),
    fc
      .tuple(fc.constantFrom("[", "("), number, number, fc.constantFrom("]", ")"))
      .map(([a, b, c, d]) => `${a}${b}..${c}${d}`),
  );
  const list = (cell: fc.Arbitrary<string>) =>
    fc
      .tuple(fc.array(cell, { minLength: 1, maxLength: 3 }), fc.boolean())
      .map(([all, isNot]) => (isNot ? `not(${all.join(", ")})` : all.join(", ")));
  for (const [cells, type] of [
    [list(numbers), "number"],
    [list(text.map((one) => JSON.stringify(one))), "string"],
  ] as const)
    fc.assert(
      fc.property(cells, (tests) => {
        const words = wordsOfTests(tests);
        const again = typedTests(words, type, known);
        expect("text" in again && wordsOfTests(again.text)).toBe(words);
      }),
      { numRuns: 300 },
    );
});

test.each<[string, string, string]>([
  ["full inspection", "string", '"full inspection"'],
  ["full inspection", "", '"full inspection"'],
  ["12.5", "number", "12.5"],
  ["yes", "boolean", "true"],
  ["limit * 2", "number", "limit * 2"],
  ["3 days", "days and time duration", '@"P3D"'],
  ["", "string", ""],
])("an output typed as %s (%s)", (words, type, expected) => {
  expect(typedValue(words, type, known)).toEqual({ text: expected });
});
