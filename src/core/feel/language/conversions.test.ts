import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { builtInNames, builtIns, evaluateExpression, FeelFailure, fromJson, parseExpression, Scope, toJson } from ".";

const scope = new Scope(
  new Map(Object.entries({ v: fromJson(null) })),
  new Scope(builtIns({ now: "2027-03-31T14:30:00Z" })),
);
/** What a text comes to; "fails" where that is no value. */
const value = (text: string): unknown => {
  try {
    return toJson(evaluateExpression(parseExpression(text, [...builtInNames]), scope));
  } catch (error) {
    if (error instanceof FeelFailure) return "fails";
    throw error;
  }
};

/** By the table of conversion functions of DMN 1.5, 10.3.4.1 (from memory), and beyond it what is no date, no time, no number. */
describe("one kind of value made of another", () => {
  test.each<[text: string, value: unknown]>([
    ['date("2012-12-25")', "2012-12-25"],
    ['date(date and time("2012-12-25T11:00:00Z"))', "2012-12-25"],
    ['date(date("2012-12-25"))', "2012-12-25"],
    ["date(2012, 12, 25)", "2012-12-25"],
    ["date(2023, 2, 29)", null],
    ["date(2024, 13, 1)", null],
    ["date(2024, 1.5, 1)", null],
    ['date("2012-12-25T11:00:00")', null],
    ['date("25.12.2012")', null],
    ["date(7)", null],
    ['time("23:59:00Z")', "23:59:00Z"],
    ['time("11:00:00")', "11:00:00"],
    ['time(date and time("2012-12-24T23:59:00"))', "23:59:00"],
    ['time(time("10:15:00"))', "10:15:00"],
    ['time(date("2012-12-24"))', "00:00:00Z"],
    ["time(23, 59, 0)", "23:59:00"],
    ['time(23, 59, 0, duration("PT1H"))', "23:59:00+01:00"],
    ["time(24, 0, 0)", null],
    ["time(23, 60, 0)", null],
    ["time(23, 59, 60)", null],
    ['time("25:00:00")', null],
    ["time(null)", null],
    ['date and time("2012-12-24T23:59:00")', "2012-12-24T23:59:00"],
    ['date and time(date("2012-12-24"), time("23:59:00"))', "2012-12-24T23:59:00"],
    ['date and time(date and time("2012-12-24T01:00:00"), time("23:59:00"))', "2012-12-24T23:59:00"],
    ['date and time(date("2012-12-24"))', "2012-12-24T00:00:00"],
    ['date and time(date and time("2012-12-24T01:00:00"))', "2012-12-24T01:00:00"],
    ['date and time("2012-12-24", time("23:59:00"))', null],
    ['date and time("soon")', null],
    ['duration("P2DT20H14M")', "P2DT20H14M"],
    ['duration("P2Y2M")', "P2Y2M"],
    ['duration(duration("P2Y2M"))', "P2Y2M"],
    ['duration("2 days")', null],
    ["duration(7)", null],
    ['years and months duration(date("2011-12-22"), date("2011-12-22"))', "P0M"],
    ['years and months duration(date("2011-12-31"), date("2012-02-29"))', "P1M"],
    ['years and months duration(date and time("2011-12-22T10:00:00"), date("2013-08-24"))', "P1Y8M"],
    ['years and months duration(date("2011-12-22"), "2013-08-24")', null],
    ['number("1 000,0", " ", ",")', 1000],
    ['number("1,000.0", ",", ".")', 1000],
    ['number("1.000,5", ".", ",")', 1000.5],
    ['number("1000")', 1000],
    ["number(7)", 7],
    ['number("1,000", ",", ",")', null],
    ['number("1,000", "x", ".")', null],
    ['number("1,000", ",", "x")', null],
    ['number("seven")', null],
    ["number(true)", null],
    ["string(1.1)", "1.1"],
    ["string(null)", null],
    ["string(true)", "true"],
    ['string("as it is")', "as it is"],
    ['string(date("2012-12-25"))', "2012-12-25"],
    ['string(duration("PT90M"))', "PT1H30M"],
    ['string([1, "a", null])', '[1, "a", null]'],
    ['string(["say \\"so\\""])', '["say \\"so\\""]'],
    ["string({a: 1, b: [true]})", "{a: 1, b: [true]}"],
    ['string({"odd-key": 1})', '{"odd-key": 1}'],
    ["string([1..5))", "[1..5)"],
    ["string(number)", "function"],
    ['string(range("(..5]"))', "(null..5]"],
    ['2 in range("[1..5)")', true],
    ['5 in range("[1..5)")', false],
    ['date("2027-01-15") in range("[2027-01-01..2027-01-31]")', true],
    [`"k" in range("[\\"a\\"..\\"m\\"]")`, true],
    ['range("[5..1]")', null],
    ['range("[..]")', null],
    ['range("1..5")', null],
    ['range("[soon..5]")', null],
    ["not(true)", false],
    ["not(7)", null],
    ['is(date("2012-12-25"), date("2012-12-25"))', true],
    ['is(date("2012-12-25"), "2012-12-25")', false],
    ['day of year("2012-12-25")', null],
    ['month of year(date and time("2012-12-25T00:00:00"))', "December"],
  ])("%s is %j", (text, wanted) => {
    const got = value(text);
    expect(got === "fails" ? null : got).toEqual(wanted);
  });

  const day = fc
    .date({ min: new Date("1901-01-01T00:00:00Z"), max: new Date("2199-12-31T00:00:00Z"), noInvalidDate: true })
    .map((date) => date.toISOString().slice(0, 10));

  test("parts of a day are those of the platform's calendar", () => {
    const name = (text: string, options: Intl.DateTimeFormatOptions) =>
      new Intl.DateTimeFormat("en", { ...options, timeZone: "UTC" }).format(new Date(`${text}T00:00:00Z`));
    fc.assert(
      fc.property(day, (text) => {
        const first = Date.parse(`${text.slice(0, 4)}-01-01T00:00:00Z`);
        expect(value(`day of week(date("${text}"))`)).toBe(name(text, { weekday: "long" }));
        expect(value(`month of year(date("${text}"))`)).toBe(name(text, { month: "long" }));
        expect(value(`day of year(date("${text}"))`)).toBe((Date.parse(`${text}T00:00:00Z`) - first) / 86_400_000 + 1);
      }),
    );
  });

  test("the week of a day is that of its Thursday (ISO 8601)", () => {
    fc.assert(
      fc.property(day, (text) => {
        const at = Date.parse(`${text}T00:00:00Z`);
        const weekday = (new Date(at).getUTCDay() + 6) % 7;
        const thursday = new Date(at + (3 - weekday) * 86_400_000);
        const begun = Date.UTC(thursday.getUTCFullYear(), 0, 1);
        expect(value(`week of year(date("${text}"))`)).toBe(
          Math.floor((thursday.getTime() - begun) / (7 * 86_400_000)) + 1,
        );
      }),
    );
  });

  test("months between two days, the other way round, are the same with the other sign", () => {
    fc.assert(
      fc.property(day, day, (from, to) => {
        const between = (a: string, b: string) =>
          String(value(`string(years and months duration(date("${a}"), date("${b}")))`));
        const [there, back] = [between(from, to), between(to, from)];
        expect(there.replace(/^-/, "")).toBe(back.replace(/^-/, ""));
        if (there !== "P0M") expect(there.startsWith("-")).toBe(!back.startsWith("-"));
        expect(there.startsWith("-")).toBe(there !== "P0M" && from > to);
      }),
    );
  });
});
