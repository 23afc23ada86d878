import { describe, expect, test } from "vitest";
import { readTimer, timerWords } from ".";

/** A Wednesday. */
const today = "2026-11-25";

describe("timers as people say them", () => {
  test.each([
    ["3 days", "timeDuration", "P3D", "3 days"],
    ["after 2 h", "timeDuration", "PT2H", "2 h"],
    ["10 working days", "timeDuration", "P14D", "14 days"],
    ["3 working days", "timeDuration", "P3D", "3 days"],
    ["5 business days", "timeDuration", "P7D", "7 days"],
    ["every night at 2:00", "timeCycle", "R/2026-11-26T02:00:00/P1D", "every day at 2:00"],
    ["nightly at 2:00", "timeCycle", "R/2026-11-26T02:00:00/P1D", "every day at 2:00"],
    ["every Monday at 8:00", "timeCycle", "R/2026-11-30T08:00:00/P7D", "every Monday at 8:00"],
    ["every Wednesday", "timeCycle", "R/2026-12-02T00:00:00/P7D", "every Wednesday"],
    ["weekly", "timeCycle", "R/2026-11-26T00:00:00/P7D", "every Thursday"],
    ["every 2 hours", "timeCycle", "R/PT2H", "every 2 h"],
    ["every hour", "timeCycle", "R/PT1H", "every h"],
    ["3 times every 10 min", "timeCycle", "R3/PT10M", "3 times, every 10 min"],
    ["every month at noon", "timeCycle", "R/2026-11-26T12:00:00/P1M", "every month at 12:00"],
    ["on 1 March 2027 at 9:00", "timeDate", "2027-03-01T09:00:00", "1 March 2027 at 9:00"],
    ["24 Dec 2026", "timeDate", "2026-12-24T00:00:00", "24 December 2026"],
    ["every day at 5 pm", "timeCycle", "R/2026-11-26T17:00:00/P1D", "every day at 17:00"],
    // The forms of ISO 8601 themselves.
    ["P14D", "timeDuration", "P14D", "14 days"],
    ["2026-12-01T09:00:00", "timeDate", "2026-12-01T09:00:00", "1 December 2026 at 9:00"],
    ["2026-12-01", "timeDate", "2026-12-01T00:00:00", "1 December 2026"],
    ["R5/PT1H", "timeCycle", "R5/PT1H", "5 times, every h"],
  ] as const)("%s", (text, field, iso, words) => {
    expect(readTimer(text, today)).toMatchObject({ field, iso });
    expect(timerWords(field, iso)).toBe(words);
  });
  test.each(["", "soon", "31 February 2027", "every so often", "on 1 March 2027 at 25:00", "when it rains", "7"])(
    "“%s” is no time",
    (text) => {
      expect(readTimer(text, today)).toBeUndefined();
    },
  );
  test("words read again give the same time", () => {
    for (const [field, iso] of [
      ["timeDuration", "P14D"],
      ["timeDuration", "PT1H30M"],
      ["timeCycle", "R/2026-11-26T02:00:00/P1D"],
      ["timeCycle", "R/2026-11-30T08:00:00/P7D"],
      ["timeCycle", "R/PT2H"],
      ["timeDate", "2027-03-01T09:00:00"],
    ] as const)
      expect(readTimer(timerWords(field, iso), today)).toMatchObject({ field, iso });
  });
});
