import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { caseDataOf, type DataType, holds, readValue, typesAsked } from ".";

/** Kinds of literals and what they can be compared with: DMN 1.3, table 42 and 10.3.2.3 (from memory). */
describe("a condition tells what kind of value it asks for", () => {
  test.each<[string, readonly string[], { readonly [name: string]: DataType }]>([
    ["rated power <= 10", ["rated power"], { "rated power": "number" }],
    ["10 < amount", [], { amount: "number" }],
    ["amount between 1 and 30", [], { amount: "number" }],
    ["power in [1..30]", [], { power: "number" }],
    ["m < 3 * n + 2", [], { m: "number", n: "number" }],
    ['level = "high" and urgent', [], { level: "text", urgent: "yesNo" }],
    ['level in ("a", "b")', [], { level: "text" }],
    ['date("2027-03-01") < due', [], { due: "date" }],
    ['at >= date and time("2027-03-01T08:00:00")', [], { at: "dateAndTime" }],
    ['duration("P2D") > waited', [], { waited: "duration" }],
    ["not(urgent) or complete", [], { urgent: "yesNo", complete: "yesNo" }],
    ["urgent = true", [], { urgent: "yesNo" }],
    ["if urgent then power > 3 else false", [], { urgent: "yesNo", power: "number" }],
    ["complete", [], { complete: "yesNo" }],
    // Nothing is told of these: they are compared with what is not known either.
    ["A.power > limit", [], {}],
    ["string length(note) > 3", [], {}],
    ["count(defects) = 0", [], {}],
    ['first + "x" = second', [], {}],
  ])("%s", (condition, reach, types) => {
    expect(Object.fromEntries(typesAsked(condition, reach))).toEqual(types);
  });
});

describe("a value is read as what is asked for", () => {
  test.each<[DataType | undefined, string, unknown]>([
    ["number", " 12.5 ", 12.5],
    ["text", "12", "12"],
    ["text", "yes", "yes"],
    ["text", '"in quotes"', "in quotes"],
    ["yesNo", "Yes", true],
    ["yesNo", "FALSE", false],
    ["date", "2027-03-31", "2027-03-31"],
    ["dateAndTime", "2027-03-31T14:30:00Z", "2027-03-31T14:30:00Z"],
    ["time", "08:05", "08:05"],
    ["duration", "P1DT12H", "P1DT12H"],
    [undefined, "no", false],
    [undefined, "old meter", "old meter"],
  ])("%s: %s", (type, typed, value) => {
    expect(readValue(typed, type)).toEqual({ value });
  });
  test.each<[DataType, string, RegExp]>([
    ["number", "twelve", /^A number/],
    ["number", "1e999", /^A number/],
    ["yesNo", "perhaps", /^Yes or no/],
    ["date", "31.3.2027", /^A date/],
    ["date", "2027-13-01", /^A date/],
    ["dateAndTime", "2027-03-31 25:00", /^A date and a time/],
    ["time", "24:00", /^A time/],
    ["duration", "P", /^A length/],
    ["duration", "PT", /^A length/],
    ["duration", "two days", /^A length/],
  ])("%s: %s is not", (type, typed, reason) => {
    const read = readValue(typed, type);
    expect("reason" in read && read.reason.text).toMatch(reason);
    expect(caseDataOf({ it: typed }, new Map([["it", type]]))).toEqual({});
  });
  test("numbers are read back as they are written", () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), (number) => {
        expect(caseDataOf({ it: String(number) }, new Map([["it", "number"]])).it).toBeCloseTo(number, 10);
      }),
    );
  });
});

/** Order of dates, times and lengths: ISO 8601; DMN 1.3, 10.3.2.3.4 to 10.3.2.3.6. */
describe("points in time decide conditions", () => {
  test.each<[string, { readonly [name: string]: string }, boolean | undefined]>([
    ['due < date("2027-04-01")', { due: "2027-03-31" }, true],
    ['due < date("2027-04-01")', { due: "2027-04-01" }, false],
    ['due < date("2027-04-01")', { due: "soon" }, undefined],
    ['waited > duration("P2D")', { waited: "PT49H" }, true],
    ['waited > duration("P2D")', { waited: "PT47H" }, false],
    ['at >= time("08:00:00")', { at: "07:59:59" }, false],
  ])("%s with %o", (condition, typed, expected) => {
    expect(holds(condition, caseDataOf(typed, typesAsked(condition)))).toBe(expected);
  });
});
