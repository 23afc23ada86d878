import { describe, expect, test } from "vitest";
import { bpmnWith, clerks, end, forecastOf, inARow, needs, number, of, start, task, timeOf } from "./testing/models";

const calendar = (id: string, first: string, length: string, rule: string) =>
  `<bpsim:Calendar id="${id}" name="${id}"><![CDATA[BEGIN:VEVENT
DTSTART:${first}
DURATION:${length}
${rule}
END:VEVENT]]></bpsim:Calendar>`;
const calendars = [
  calendar("office", "20270104T080000", "PT8H", "RRULE:FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR"),
  calendar("night", "20270104T220000", "PT8H", "RRULE:FREQ=DAILY"),
  // The first Monday and Tuesday of the year.
  calendar("holidays", "20270104T000000", "P2D", "RRULE:FREQ=YEARLY"),
  calendar("once", "20200101T080000", "PT8H", ""),
].join("");

const said = (value: string, during?: string) =>
  `<bpsim:BooleanParameter value="${value}"${during ? ` validFor="${during}"` : ""}/>`;
const numberFor = (value: number, during?: string) =>
  `<bpsim:NumericParameter value="${value}"${during ? ` validFor="${during}"` : ""}/>`;

const file = (available: string, quantity: string) =>
  bpmnWith(
    inARow(start, task("a"), end),
    of(
      "s",
      `<bpsim:ControlParameters><bpsim:TriggerCount>${number(1)}</bpsim:TriggerCount></bpsim:ControlParameters>`,
    ) +
      of("a", timeOf(number(60)) + needs("r")) +
      of(
        "r",
        `<bpsim:ResourceParameters>${available ? `<bpsim:Availability>${available}</bpsim:Availability>` : ""}<bpsim:Quantity>${quantity}</bpsim:Quantity></bpsim:ResourceParameters>`,
      ) +
      calendars,
    '<bpsim:ScenarioParameters baseTimeUnit="min"><bpsim:Start><bpsim:DateTimeParameter value="2027-01-04T06:00:00Z"/></bpsim:Start></bpsim:ScenarioParameters>',
    clerks("r"),
  );

// One case on Monday, 4 January 2027, at six in the morning, and an hour of work: hours counted by hand.
describe("when somebody is there", () => {
  test.each([
    ["always, where nothing is said", "", numberFor(1), 1],
    ["while a calendar is on", said("true", "office"), numberFor(1), 3],
    ["but not on holidays", said("true", "office") + said("false", "holidays"), numberFor(1), 2 * 24 + 3],
    ["whatever the order", said("false", "holidays") + said("true", "office"), numberFor(1), 2 * 24 + 3],
    ["at all other hours, where only holidays are said", said("false", "holidays"), numberFor(1), 2 * 24 - 6 + 1],
    ["usually, but not on holidays", said("true") + said("false", "holidays"), numberFor(1), 2 * 24 - 6 + 1],
    ["usually not, but in the office's hours", said("false") + said("true", "office"), numberFor(1), 3],
    ["in hours of their own, and not on holidays", said("false", "holidays"), numberFor(1, "office"), 2 * 24 + 3],
    ["at night, until it is a holiday no more", said("false", "holidays"), numberFor(1, "night"), 2 * 24 - 6 + 1],
    [
      "at night and by day, but not on holidays",
      said("false", "holidays"),
      numberFor(1, "night") + numberFor(1, "office"),
      2 * 24 - 6 + 1,
    ],
    [
      "also where a calendar of holidays is not there",
      said("true", "office") + said("false", "feasts"),
      numberFor(1),
      3,
    ],
  ])("%s", (_, available, quantity, hours) => {
    expect(forecastOf(file(available, quantity), { cases: 1 }).cycleTime.mean / 3600).toBeCloseTo(hours, 6);
  });

  test.each([
    ["nobody is ever there", said("false"), numberFor(1)],
    ["there is nobody", "", numberFor(0)],
    ["hours never come again", said("true", "once"), numberFor(1)],
  ])("where %s, nobody comes to an end, and it is told", (_, available, quantity) => {
    const { cases, notEnded, underWay, problems } = forecastOf(file(available, quantity), { cases: 1 });
    expect({ cases, notEnded: notEnded.length, underWay }).toEqual({ cases: 0, notEnded: 0, underWay: 1 });
    expect(problems.at(-1)?.text).toBe("Nobody who is needed for “a” was ever free for it: no case got past it.");
  });

  test("where fewer are there than are needed, it is told; where they come late, it is not", () => {
    const told = (need: number) =>
      forecastOf(file("", numberFor(2, "office")).replace("'r',1", `'r',${need}`), { cases: 1 }).problems.length;
    expect([told(2), told(3)]).toEqual([0, 1]);
  });
});
