import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { performed } from "../../commands";
import { elementsOfType } from "../../model";
import { scenariosOf } from "../../scenario";
import { performAll, smallModel } from "../../testing/models";
import { hoursIn, logOf, type MeasuredLog, scenarioFrom } from "..";

/** Monday, 1 March 2027. */
const monday = Date.UTC(2027, 2, 1);
const minute = 60_000;
const log = (moments: readonly number[], role = "Front desk") =>
  logOf([{ case: "1", events: moments.map((at) => ({ activity: "a", at, lifecycle: "complete", role, who: "" })) }]);

describe("working hours that a log shows", () => {
  /** Every quarter of an hour from eight to half past four, on five days of two weeks. */
  const office = Array.from({ length: 14 }, (_, date) => date)
    .filter((date) => date % 7 < 5)
    .flatMap((date) =>
      Array.from({ length: 34 }, (_, at) => monday + date * 1_440 * minute + (480 + at * 15) * minute),
    );

  test("days and hours, to half an hour", () => {
    expect(hoursIn(log(office))).toEqual([
      {
        role: "Front desk",
        days: ["MO", "TU", "WE", "TH", "FR"],
        from: "08:00",
        to: "16:30",
        share: 1,
        observations: 340,
      },
    ]);
  });

  test("what is seldom done at night or on a Sunday is no working hour", () => {
    const [hours] = hoursIn(log([...office, monday + 3 * 60 * minute, monday + 6 * 1_440 * minute + 600 * minute]));
    expect(hours).toMatchObject({ days: ["MO", "TU", "WE", "TH", "FR"], from: "08:00", to: "16:30" });
    expect(hours?.share).toBeCloseTo(340 / 342, 6);
  });

  test("around the clock, of few observations, or without a role there are none", () => {
    const always = Array.from({ length: 500 }, (_, at) => monday + at * 37 * minute);
    expect(hoursIn(log(always))).toEqual([]);
    expect(hoursIn(log(office.slice(0, 49)))).toEqual([]);
    expect(hoursIn(log(office, ""))).toEqual([]);
    expect(hoursIn(log(office.map(() => Number.NaN)))).toEqual([]);
  });

  test("whatever hours somebody keeps, they are found again within half an hour", () => {
    const hours = fc.record({
      from: fc.integer({ min: 0, max: 20 }),
      long: fc.integer({ min: 3, max: 10 }),
      days: fc.uniqueArray(fc.integer({ min: 0, max: 6 }), { minLength: 1 }),
    });
    fc.assert(
      fc.property(hours, ({ from, long, days }) => {
        fc.pre(from + long <= 23);
        const moments = days.flatMap((date) =>
          Array.from(
            { length: 200 },
            (_, at) => monday + date * 1_440 * minute + (from * 60 + (at / 200) * long * 60) * minute,
          ),
        );
        const [found] = hoursIn(log(moments));
        const clock = (time = "") => Number(time.slice(0, 2)) + Number(time.slice(3)) / 60;
        expect(Math.abs(clock(found?.from) - from)).toBeLessThanOrEqual(0.5);
        expect(Math.abs(clock(found?.to) - (from + long))).toBeLessThanOrEqual(0.5);
        expect(found?.days).toHaveLength(days.length);
      }),
    );
  });

  test("become the calendar of the role in the scenario, with how many people there were", () => {
    const model = performAll(smallModel(), { type: "tieLane", lane: "desk", role: { entry: "e", name: "Front desk" } });
    const measured: MeasuredLog = {
      cases: 1,
      first: monday,
      intervals: [],
      durations: [],
      steps: [],
      ways: [],
      people: [{ role: "front  DESK", count: 3 }],
      hours: hoursIn(log(office, "front desk")),
    };
    const filled = performed(model, scenarioFrom(model, [], measured, { id: "log", name: "Log" }));
    const [scenario] = filled ? scenariosOf(filled).filter(({ id }) => id === "log") : [];
    const [resource] = elementsOfType(model, "resource");
    const said = scenario?.of.get(resource?.id ?? "");
    expect(said?.quantity?.[0]?.value).toBe(3);
    const during = said?.available?.[0]?.during ?? "";
    const calendar = scenario?.calendars.get(during);
    expect(calendar?.name).toBe("front desk");
  });
});
