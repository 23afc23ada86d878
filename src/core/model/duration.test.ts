import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { durationWords, isoSeconds, readDuration, spanWords } from ".";

const minute = 60;
const hour = 60 * minute;
const day = 24 * hour;

describe("durations of ISO 8601", () => {
  // Examples of XML Schema Part 2, 3.2.6 "duration", which takes its form from ISO 8601; years and months by the days said there.
  test.each([
    ["P1Y2M3DT10H30M", 365 * day + 60 * day + 3 * day + 10 * hour + 30 * minute],
    ["P1347Y", 1347 * 365 * day],
    ["P1347M", 1347 * 30 * day],
    ["P1Y2MT2H", 365 * day + 60 * day + 2 * hour],
    ["P0Y1347M", 1347 * 30 * day],
    ["P0Y1347M0D", 1347 * 30 * day],
    ["PT1.5S", 1.5],
    ["P2W", 14 * day],
    ["PT36H", 36 * hour],
    [" PT20M ", 20 * minute],
  ])("%s", (iso, seconds) => {
    expect(isoSeconds(iso)).toBe(seconds);
    expect(readDuration(iso)).toBe(iso.trim());
  });

  test.each(["P", "PT", "P1Y2MT", "P-1347M", "1Y", "P1S", "PT1D", "PT30M1H", "P1D2W", "P1.D", "PT1H ", "x PT1H", ""])(
    "“%s” is none, in the letters of the standard",
    (iso) => {
      expect(isoSeconds(iso.trim() === iso ? iso : `${iso}x`)).toBeUndefined();
    },
  );
});

describe("durations as people write them", () => {
  test.each([
    ["30 min", "PT30M"],
    ["90", "PT90M"],
    ["1.5 h", "PT1.5H"],
    ["1,5 h", "PT1.5H"],
    ["1 h 30 min", "PT1H30M"],
    ["1h30m", "PT1H30M"],
    ["1 h, 30 min", "PT1H30M"],
    ["1,5 h, 30 min", "PT1.5H30M"],
    ["1 hour and 5 minutes", "PT1H5M"],
    ["2 days", "P2D"],
    ["2 Tage und 3 Stunden", "P2DT3H"],
    ["1 Woche", "P1W"],
    ["45 Sekunden", "PT45S"],
    ["half a day", undefined],
    ["0.5 days", "PT12H"],
    ["1.5 weeks", "PT252H"],
    ["5 min.", "PT5M"],
    // Whatever the order they are said in, the standard wants the larger ones first.
    ["30 min 1 h", "PT1H30M"],
    ["3 hours 2 days", "P2DT3H"],
    ["2 days 3 days", "P5D"],
    ["1.5 days 4 h", "PT40H"],
    ["0.0000001", "PT0.0000001M"],
    ["0 min", "PT0M"],
    ["pt1h", "PT1H"],
    ["3 - 4 days", undefined],
    ["-3 days", undefined],
    ["1.5.2 h", undefined],
    ["1 h 2", undefined],
    ["20 min each", undefined],
    ["and", undefined],
    ["soon", undefined],
    ["", undefined],
    ["9999999999999999 h", undefined],
  ])("“%s”", (text, iso) => {
    expect(readDuration(text)).toBe(iso);
  });

  const amount = fc.oneof(
    fc.integer({ min: 0, max: 100_000 }).map(String),
    fc.double({ min: 0, max: 5_000, noNaN: true }).map((value) => value.toFixed(3)),
  );
  const unit = fc.constantFrom(
    ...([
      ["weeks", 7 * day],
      ["d", day],
      ["Tage", day],
      ["h", hour],
      ["Stunden", hour],
      ["min", minute],
      ["Minuten", minute],
      ["s", 1],
      ["seconds", 1],
    ] as const),
  );
  const part = fc.tuple(amount, unit, fc.constantFrom(" ", ""));
  const written = fc.tuple(
    fc.array(part, { minLength: 1, maxLength: 6 }),
    fc.constantFrom(" ", ", ", " and ", " und ", "  "),
  );

  test("whatever is said comes to the sum of its parts, in the form of the standard", () => {
    fc.assert(
      fc.property(written, ([parts, between]) => {
        const text = parts.map(([count, [name], space]) => `${count}${space}${name}`).join(between);
        const seconds = parts.reduce((sum, [count, [, each]]) => sum + Number(count) * each, 0);
        expect(isoSeconds(readDuration(text) ?? "")).toBeCloseTo(seconds, 3);
      }),
      { numRuns: 300 },
    );
  });

  test("said in words and read again it is as long", () => {
    fc.assert(
      fc.property(written, ([parts]) => {
        const iso = readDuration(parts.map(([count, [name]]) => `${count} ${name}`).join(" ")) ?? "";
        expect(readDuration(durationWords(iso))).toBe(iso);
      }),
      { numRuns: 300 },
    );
  });

  test("whatever is typed is a duration or none; nothing throws, and nothing else comes back", () => {
    const typed = fc.oneof(
      fc.string({ maxLength: 40 }),
      fc.array(fc.constantFrom("1", "2.5", "P", "T", "h", "min", "days", ",", ".", " ", "-", "e9", "and", "∞"), {
        maxLength: 8,
      }),
    );
    fc.assert(
      fc.property(typed, (input) => {
        const iso = readDuration(typeof input === "string" ? input : input.join(""));
        if (iso !== undefined) expect(isoSeconds(iso)).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 1_000 },
    );
  });
});

describe("in words", () => {
  test.each([
    ["PT1H30M", "1 h 30 min"],
    ["P1D", "1 day"],
    ["P1W2DT1S", "1 week 2 days 1 s"],
    // Years and months have no length of their own, and what is no duration is not guessed at.
    ["P1Y", "P1Y"],
    ["next week", "next week"],
  ])("%s", (iso, words) => {
    expect(durationWords(iso)).toBe(words);
  });

  test.each([
    [0, "0 min"],
    [90, "1.5 min"],
    [89 * minute, "89 min"],
    [90 * minute, "1.5 h"],
    [35 * hour, "35 h"],
    [36 * hour, "1.5 days"],
    [100 * day, "100 days"],
    [-2 * hour, "-2 h"],
  ])("a span of %d seconds", (seconds, words) => {
    expect(spanWords(seconds)).toBe(words);
  });
});
