import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  builtInNames,
  builtIns,
  compareValues,
  DateAndTime,
  Day,
  DaysAndTime,
  evaluateExpression,
  FeelFailure,
  FeelSyntaxError,
  type FeelValue,
  fromJson,
  Months,
  parseExpression,
  parseUnaryTests,
  readTemporal,
  Scope,
  TimeOfDay,
  textOf,
  toJson,
} from ".";

const scope = () => new Scope(builtIns());
const value = (text: string) => evaluateExpression(parseExpression(text, builtInNames), scope());

describe("whatever is written", () => {
  const piece = fc.constantFrom(
    ...'if then else for in return some every satisfies between and or not function null true ( ) [ ] { } .. , : < <= > >= = != + - * ** / . ? @ " \\ item x 1 0.5 date sum'.split(
      " ",
    ),
    " ",
    '"a"',
    "[1..2]",
    'date("2027-01-31")',
  );
  test("is read, or refused with a place in it; what is read has a value, or a reason", () => {
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 14 }), (pieces) => {
        const text = pieces.join(" ");
        for (const read of [parseExpression, parseUnaryTests])
          try {
            const parsed = read(text, builtInNames);
            if (read === parseExpression) evaluateExpression(parsed as ReturnType<typeof parseExpression>, scope());
          } catch (error) {
            expect(error instanceof FeelSyntaxError || error instanceof FeelFailure, String(error)).toBe(true);
            if (!(error instanceof FeelSyntaxError)) continue;
            expect(error.at).toBeGreaterThanOrEqual(0);
            expect(error.at).toBeLessThanOrEqual(text.length);
          }
      }),
      { numRuns: 3_000 },
    );
  });

  test("any text at all is refused or read", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary", maxLength: 60 }), (text) => {
        try {
          parseExpression(text);
        } catch (error) {
          expect(error).toBeInstanceOf(FeelSyntaxError);
        }
      }),
      { numRuns: 1_000 },
    );
  });

  test.each([
    Array.from({ length: 50_000 }, () => "1").join(" + "),
    `[1]${"[1]".repeat(50_000)}`,
    `a${".b".repeat(50_000)}`,
    `${"-".repeat(50_000)}1`,
  ])("too long or too deep is refused", (text) => {
    expect(() => value(text)).toThrow(FeelSyntaxError);
  });
  test("1,000 operations are no trouble", () => {
    expect(toJson(value(Array.from({ length: 1_000 }, () => "1").join(" + ")))).toBe(1_000);
  });

  test.each([
    "for i in 1..2000000, j in 1..2000000 return 1",
    "every i in 1..99999999 satisfies true",
    "(function(n) n)(1) + 10 ** 10000 ** 2",
    'for x in range("[1..999999999]") return x',
  ])("%s ends", (text) => {
    expect(() => value(text)).toThrow(FeelFailure);
  });
});

describe("data", () => {
  const json = fc
    .jsonValue({ maxDepth: 3, noUnicodeString: false })
    .filter((one) => !/e[+-]?\d{3}/.test(JSON.stringify(one)));
  test("comes out as it came in", () => {
    fc.assert(
      fc.property(json, (data) => {
        const there = toJson(fromJson(data));
        expect(JSON.stringify(there)).toBe(
          JSON.stringify(JSON.parse(JSON.stringify(data).replace(/-0(?![.\d])/g, "0"))),
        );
      }),
      { numRuns: 500 },
    );
  });

  test("a value written as text is read as the same value", () => {
    const plain = fc.oneof(
      fc.integer().map(String),
      fc
        .double({ noNaN: true, noDefaultInfinity: true, min: -1e15, max: 1e15 })
        .map((one) => String(one).replace(/^-(.*)$/, "-$1")),
      fc.string({ maxLength: 10 }).map((one) => JSON.stringify(one)),
      fc.constantFrom("true", "false", "null"),
    );
    fc.assert(
      fc.property(fc.array(plain, { minLength: 1, maxLength: 4 }), (items) => {
        const list = value(`[${items.join(", ")}]`);
        expect(toJson(value(textOf(list, true) ?? ""))).toEqual(toJson(list));
      }),
      { numRuns: 300 },
    );
  });
});

describe("dates and durations", () => {
  // Against the platform's own calendar.
  const moment = fc.date({
    min: new Date("0001-01-01T00:00:00Z"),
    max: new Date("9998-12-31T00:00:00Z"),
    noInvalidDate: true,
  });
  test("days are counted as the platform counts them", () => {
    fc.assert(
      fc.property(moment, fc.integer({ min: -100_000, max: 100_000 }), (date, days) => {
        const text = date.toISOString().slice(0, 10);
        const ours = Day.read(text) as Day;
        expect(ours.days()).toBe(Math.floor(Date.parse(`${text}T00:00:00Z`) / 86_400_000));
        expect(String(ours)).toBe(text);
        expect(ours.weekday()).toBe(new Date(`${text}T00:00:00Z`).getUTCDay() || 7);
        const moved = new Date(Date.parse(`${text}T00:00:00Z`) + days * 86_400_000);
        if (moved.getUTCFullYear() > 0 && moved.getUTCFullYear() < 10_000)
          expect(String(Day.fromDays(ours.days() + days))).toBe(moved.toISOString().slice(0, 10));
      }),
      { numRuns: 500 },
    );
  });

  test("a moment with an offset is the same as the one in UTC", () => {
    fc.assert(
      fc.property(moment, fc.integer({ min: -14 * 60, max: 14 * 60 }), (date, minutes) => {
        const whole = new Date(Math.floor(date.getTime() / 1000) * 1000);
        const utc = DateAndTime.read(whole.toISOString().replace(".000Z", "Z")) as DateAndTime;
        const local = new Date(whole.getTime() + minutes * 60_000).toISOString().replace(".000Z", "");
        const sign = minutes < 0 ? "-" : "+";
        const at = Math.abs(minutes);
        const offset = `${sign}${String(Math.floor(at / 60)).padStart(2, "0")}:${String(at % 60).padStart(2, "0")}`;
        const there = DateAndTime.read(`${local}${offset}`);
        if (there) expect(compareValues(utc, there)).toBe(0);
      }),
      { numRuns: 300 },
    );
  });

  test("a duration is written as it is read, and what is added is taken off again", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -10_000_000, max: 10_000_000 }),
        fc.integer({ min: -5_000, max: 5_000 }),
        (seconds, months) => {
          const [time, long] = [new DaysAndTime(seconds), new Months(months)];
          expect((readTemporal(String(time)) as DaysAndTime).seconds).toBe(seconds || 0);
          expect((readTemporal(String(long)) as Months).months).toBe(months || 0);
          const start = DateAndTime.read("2027-03-31T14:30:00Z") as DateAndTime;
          expect(String(start.plus(seconds).plus(-seconds))).toBe(String(start));
        },
      ),
      { numRuns: 300 },
    );
  });

  test.each<[string, boolean]>([
    ["2027-02-29", false],
    ["2028-02-29", true],
    ["2027-13-01", false],
    ["2027-1-1", false],
    ["10:00:00@Europe/Lisbon", true],
    ["10:00:00@nowhere", false],
    ["24:00:00", false],
    ["10:00:00+19:00", false],
    ["10:00:00.5Z", true],
    ["10:00", false],
    ["2027-01-01T10:00:00", true],
    ["2027-01-01T25:00:00", false],
    ["P1Y2M", true],
    ["P1Y2D", false],
    ["PT", false],
    ["P", false],
    ["-PT0.5S", true],
  ])("%s is one: %s", (text, isOne) => {
    expect(readTemporal(text) !== undefined).toBe(isOne);
    if (isOne) expect(String(readTemporal(text))).toBe(text);
  });

  test("a time of day goes around midnight", () => {
    const late = TimeOfDay.read("23:30:00") as FeelValue as TimeOfDay;
    expect(String(late.plus(3_600))).toBe("00:30:00");
    expect(String(late.plus(-86_400))).toBe("23:30:00");
  });
});
