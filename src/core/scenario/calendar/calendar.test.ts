import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { always, bothOf, eitherOf, type Hours, hoursOf, knownHours } from "./hours";
import { readCalendar } from "./iCalendar";
import { momentOf } from "./zone";

const office = `BEGIN:VCALENDAR
BEGIN:VEVENT
DTSTART;TZID=Europe/Berlin:20260302T080000
DTEND;TZID=Europe/Berlin:20260302T160000
RRULE:FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR
END:VEVENT
END:VCALENDAR`;
const hour = 3600;
const at = (year: number, month: number, day: number, of = 0, zone = "Europe/Berlin") =>
  momentOf({ year, month, day, hour: of, minute: 0, second: 0 }, zone);
const hoursFrom = (text: string, start: number, zone = "UTC"): Hours => {
  const { events, problems } = readCalendar(text, zone);
  expect(problems).toEqual([]);
  return hoursOf(events, start);
};

describe("working hours", () => {
  // Monday, 2 March 2026, midnight in Berlin. Hours were counted by hand.
  const start = at(2026, 3, 2);
  const hours = hoursFrom(office, start);

  test("a week has 40 of them, at their times of day", () => {
    expect(hours.between(0, 7 * 24 * hour)).toBe(40 * hour);
    expect(hours.isOpen(7 * hour)).toBe(false);
    expect(hours.nextOpen(0)).toBe(8 * hour);
    expect(hours.isOpen(8 * hour)).toBe(true);
    expect(hours.nextClose(9 * hour)).toBe(16 * hour);
    expect(hours.isOpen(16 * hour)).toBe(false);
    // Friday at 16 to Monday at 8.
    expect(hours.nextOpen(4 * 24 * hour + 16 * hour)).toBe(7 * 24 * hour + 8 * hour);
  });

  test("work stops and goes on", () => {
    expect(hours.afterWork(15 * hour, 2 * hour)).toBe(24 * hour + 9 * hour);
    expect(hours.afterWork(0, 8 * hour)).toBe(16 * hour);
    // 12 hours from Friday at noon: 4 on Friday, 8 on Monday.
    expect(hours.afterWork(4 * 24 * hour + 12 * hour, 12 * hour)).toBe(7 * 24 * hour + 16 * hour);
  });

  test("over the change to summer time a working day stays one, and the night is an hour shorter", () => {
    // On Sunday, 29 March 2026, clocks in Berlin go from 2 to 3 (the European rule, Directive 2000/84/EC).
    const friday = (at(2026, 3, 27, 16) - start) / 1000;
    const monday = (at(2026, 3, 30, 8) - start) / 1000;
    expect(monday - friday).toBe(63 * hour);
    expect(hours.nextOpen(friday)).toBe(monday);
    expect(hours.between(friday, monday + 8 * hour)).toBe(8 * hour);
  });

  // 400 years of the Gregorian calendar are 146,097 days, which are whole weeks (ISO 8601).
  test.each([400, 1200])("%i years on they fall as they do now, to the day and the hour", (years) => {
    const on = (years / 400) * 146_097 * 24 * hour;
    for (let moment = 0; moment < 366 * 24 * hour; moment += 7 * hour) {
      expect(hours.nextOpen(on + moment)).toBe(on + hours.nextOpen(moment));
      expect(hours.afterWork(on + moment, 11 * hour)).toBe(on + hours.afterWork(moment, 11 * hour));
    }
    const perYear = hours.between(0, 146_097 * 24 * hour) / 400;
    expect(hours.between(0, on)).toBeCloseTo(perYear * years, 0);
  });

  test("behind all that is known nothing opens, nor at the end of time", () => {
    expect(hours.nextOpen(knownHours - 10 * 24 * hour)).toBeLessThan(knownHours);
    for (const moment of [knownHours, 2 * knownHours, Number.POSITIVE_INFINITY]) {
      expect(hours.nextOpen(moment)).toBe(Number.POSITIVE_INFINITY);
      expect(hours.isOpen(moment)).toBe(false);
    }
  });

  test("what has ended does not open again, however late it is asked for", () => {
    const ended = hoursFrom(office.replace("FREQ=WEEKLY", "FREQ=WEEKLY;COUNT=3"), start);
    expect(ended.between(0, 1000 * 366 * 24 * hour)).toBe(24 * hour);
    const never = bothOf(ended, hours);
    for (const moment of [3 * 24 * hour, 50 * 366 * 24 * hour, 900 * 366 * 24 * hour])
      for (const one of [ended, never]) {
        expect(one.nextOpen(moment)).toBe(Number.POSITIVE_INFINITY);
        expect(one.afterWork(moment, hour)).toBe(Number.POSITIVE_INFINITY);
      }
    expect(ended.afterWork(0, 25 * hour)).toBe(Number.POSITIVE_INFINITY);
  });

  test("March 2026 has 22 working days, February 2028 (a leap year) 21", () => {
    expect(hours.between(0, (at(2026, 4, 1) - start) / 1000)).toBe(22 * 8 * hour);
    expect(hours.between((at(2028, 2, 1) - start) / 1000, (at(2028, 3, 1) - start) / 1000)).toBe(21 * 8 * hour);
  });
});

describe("rules", () => {
  const firsts = (rule: string, count: number, start = "20260131T090000Z") => {
    const [, y, m, d] = /^(\d{4})(\d\d)(\d\d)/.exec(start) as unknown as [string, string, string, string];
    const begin = at(Number(y), Number(m), Number(d), 0, "UTC");
    const hours = hoursFrom(`BEGIN:VEVENT\nDTSTART:${start}\nDURATION:PT1H\nRRULE:${rule}\nEND:VEVENT`, begin);
    const found: string[] = [];
    for (
      let now = hours.nextOpen(0);
      found.length < count && Number.isFinite(now);
      now = hours.nextOpen(hours.nextClose(now))
    )
      found.push(new Date(begin + now * 1000).toISOString().slice(0, 10));
    return found;
  };

  // The last of these are examples of RFC 5545, 3.8.5.3, with other years; dates were looked up in a calendar.
  test.each([
    ["FREQ=MONTHLY", ["2026-01-31", "2026-03-31", "2026-05-31"], undefined],
    ["FREQ=MONTHLY;BYMONTHDAY=-1", ["2026-01-31", "2026-02-28", "2026-03-31"], undefined],
    ["FREQ=YEARLY", ["2024-02-29", "2028-02-29", "2032-02-29"], "20240229T090000Z"],
    ["FREQ=DAILY;INTERVAL=10;COUNT=3", ["2026-01-31", "2026-02-10", "2026-02-20"], undefined],
    ["FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,SU", ["2026-02-01", "2026-02-10", "2026-02-15"], undefined],
    ["FREQ=MONTHLY;BYDAY=1FR", ["2026-02-06", "2026-03-06", "2026-04-03"], undefined],
    ["FREQ=MONTHLY;BYDAY=-2MO", ["2026-02-16", "2026-03-23", "2026-04-20"], undefined],
    ["FREQ=DAILY;UNTIL=20260202T235959Z", ["2026-01-31", "2026-02-01", "2026-02-02"], undefined],
    ["FREQ=YEARLY;BYMONTH=1,3;BYMONTHDAY=2", ["2026-03-02", "2027-01-02", "2027-03-02"], undefined],
  ])("%s", (rule, days, start) => {
    expect(firsts(rule, 3, start)).toEqual(days);
  });

  test("a day that is excepted is closed", () => {
    const start = at(2026, 3, 2, 0, "UTC");
    const text = office.replace("END:VEVENT", "EXDATE;TZID=Europe/Berlin:20260304T080000,20260305T080000\nEND:VEVENT");
    expect(hoursFrom(text, start).between(0, 7 * 24 * hour)).toBe(24 * hour);
  });

  test.each([
    ["nothing", "it holds no event"],
    ["BEGIN:VEVENT\nDTSTART:soon\nEND:VEVENT", "“soon” is no time"],
    [
      "BEGIN:VEVENT\nDTSTART;TZID=Nowhere/Land:20260302T080000\nDURATION:PT1H\nEND:VEVENT",
      "“Nowhere/Land” is no known time zone; UTC is taken",
    ],
    [
      "BEGIN:VEVENT\nDTSTART:20260302T080000\nDURATION:PT1H\nRRULE:FREQ=SECONDLY\nEND:VEVENT",
      "a rule that comes “SECONDLY” is not read",
    ],
  ])("%s is told", (text, problem) => {
    expect(readCalendar(text, "UTC").problems.map((one) => one.text)).toContain(problem);
  });
});

describe("hours, taken together", () => {
  const start = at(2026, 3, 2, 0, "UTC");
  const daily = (from: number, lasts: number) =>
    hoursFrom(
      `BEGIN:VEVENT\nDTSTART:202603${"02"}T${String(from).padStart(2, "0")}0000\nDURATION:PT${lasts}H\nRRULE:FREQ=DAILY\nEND:VEVENT`,
      start,
    );
  const hourOf = fc.integer({ min: 0, max: 23 });
  const span = fc.tuple(hourOf, fc.integer({ min: 1, max: 20 }));

  test("are open where both, or either, are", () => {
    fc.assert(
      fc.property(span, span, fc.array(fc.integer({ min: 0, max: 400 }), { maxLength: 30 }), (a, b, moments) => {
        const [one, other] = [daily(...a), daily(...b)];
        const [both, either] = [bothOf(one, other), eitherOf([one, other])];
        for (const moment of moments.map((half) => half * 1800)) {
          expect(both.isOpen(moment)).toBe(one.isOpen(moment) && other.isOpen(moment));
          expect(either.isOpen(moment)).toBe(one.isOpen(moment) || other.isOpen(moment));
        }
      }),
      { numRuns: 12 },
    );
  });

  test("what is done after some work took that much open time", () => {
    fc.assert(
      fc.property(span, fc.integer({ min: 0, max: 500_000 }), fc.integer({ min: 1, max: 900_000 }), (a, from, work) => {
        const hours = daily(...a);
        const end = hours.afterWork(from, work);
        expect(hours.between(from, end)).toBeCloseTo(work, 6);
        expect(hours.between(from, end - 1)).toBeLessThan(work);
      }),
      { numRuns: 100 },
    );
  });

  test("are the same whatever was asked before: later, earlier, a year ahead or back at the beginning", () => {
    const moment = fc.oneof(
      fc.integer({ min: 0, max: 20 * 24 }),
      fc.integer({ min: 0, max: 400 * 24 }),
      fc.constant(0),
    );
    fc.assert(
      fc.property(span, fc.array(moment, { minLength: 1, maxLength: 12 }), (a, moments) => {
        const asked = daily(...a);
        for (const at of moments.map((of) => of * hour)) {
          const fresh = daily(...a);
          expect(asked.isOpen(at)).toBe(fresh.isOpen(at));
          expect(asked.nextOpen(at)).toBe(fresh.nextOpen(at));
          expect(asked.nextClose(at)).toBe(fresh.nextClose(at));
          expect(asked.between(0, at)).toBe(fresh.between(0, at));
          expect(asked.until(at) - asked.until(0)).toBe(asked.between(0, at));
        }
      }),
      { numRuns: 20 },
    );
  });

  test("what is always open takes as long as it takes", () => {
    expect(bothOf(always, always)).toBe(always);
    expect(always.afterWork(5, 7)).toBe(12);
    expect(bothOf(always, daily(8, 8)).nextOpen(0)).toBe(8 * hour);
  });
});
