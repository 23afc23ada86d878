import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { chain, end, file, node, processOf, ran, start, timer } from "./testing/models";
import { after, momentIn } from "./timers";

/** ISO 8601-1:2019, 5.5 and 5.6; the changes to and from summer time as the zones' own table has them. */
describe("moments of timers", () => {
  const at = (text: string) => Date.parse(text);
  test.each([
    ["2027-01-31T10:00:00Z", "P1M", "UTC", "2027-02-28T10:00:00Z"],
    ["2028-01-31T10:00:00Z", "P1M", "UTC", "2028-02-29T10:00:00Z"],
    ["2027-12-15T10:00:00Z", "P1Y2M3DT4H", "UTC", "2029-02-18T14:00:00Z"],
    ["2027-03-27T09:00:00Z", "P1D", "Europe/Lisbon", "2027-03-28T08:00:00Z"],
    ["2027-03-27T09:00:00Z", "PT24H", "Europe/Lisbon", "2027-03-28T09:00:00Z"],
    ["2027-10-30T08:00:00Z", "P1D", "Europe/Lisbon", "2027-10-31T09:00:00Z"],
    ["2027-01-01T00:00:00Z", "P2W", "UTC", "2027-01-15T00:00:00Z"],
    ["2027-01-01T00:00:00Z", "PT1.5H", "UTC", "2027-01-01T01:30:00Z"],
  ])("%s and %s, in %s, is %s", (from, duration, zone, expected) => {
    expect(new Date(after(at(from), duration, zone) ?? 0).toISOString()).toBe(new Date(at(expected)).toISOString());
  });

  test("days and months go by the calendar as the platform's own dates do, for any moment", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 2_000_000_000 }),
        fc.integer({ min: 0, max: 40 }),
        fc.integer({ min: 0, max: 60 }),
        (seconds, months, days) => {
          const from = new Date(seconds * 1000);
          const last = new Date(Date.UTC(from.getUTCFullYear(), from.getUTCMonth() + months + 1, 0)).getUTCDate();
          const expected = new Date(from);
          expected.setUTCDate(1);
          expected.setUTCMonth(from.getUTCMonth() + months);
          expected.setUTCDate(Math.min(from.getUTCDate(), last) + days);
          expect(after(from.getTime(), `P${months}M${days}D`, "UTC")).toBe(expected.getTime());
        },
      ),
    );
  });

  test("what is no duration or no moment is told", () => {
    expect(after(0, "two days", "UTC")).toBeUndefined();
    expect(momentIn("2027-13-01", "UTC")).toBeUndefined();
    expect(momentIn("tomorrow", "UTC")).toBeUndefined();
    const broken = file(
      processOf(
        start + node("intermediateCatchEvent", "t", timer("timeDuration", "soon")) + end + chain("s", "t", "e"),
      ),
    );
    expect(ran(broken, [{}]).incidents).toEqual([{ element: "t", reason: "its time cannot be read", times: 1 }]);
    expect(ran(broken, [{ soon: "PT5M" }]).completed).toBe(1);
  });
});
