import { expect, test } from "vitest";
import { storyOf } from "./story";
import {
  bpmnWith,
  clerks,
  end,
  every,
  exponential,
  forecastOf,
  inARow,
  needs,
  number,
  of,
  start,
  task,
  timeOf,
} from "./testing/models";

const office = `<bpsim:Calendar id="office" name="office">BEGIN:VCALENDAR
BEGIN:VEVENT
DTSTART:20260105T080000
DTEND:20260105T160000
RRULE:FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR
END:VEVENT
END:VCALENDAR</bpsim:Calendar>`;
const quantity = '<bpsim:NumericParameter value="1" validFor="office"/>';
const clerkBy = (quantity: string) =>
  of("r", `<bpsim:ResourceParameters><bpsim:Quantity>${quantity}</bpsim:Quantity></bpsim:ResourceParameters>`);

/** A case so many days apart, with 40 minutes of work for somebody who is there 8 hours on 5 of 7 days. */
const rarely = (days: number, people = quantity) =>
  bpmnWith(
    inARow(start, task("a"), end),
    office + of("s", every(exponential(days * 1440))) + of("a", timeOf(number(40)) + needs("r")) + clerkBy(people),
    "",
    clerks("r"),
  );

// Of a week's 168 hours 128 are closed. Who comes at any moment waits as long as what is left of a closed stretch: four nights of 16 hours
// and a weekend of 64, so (4 × 16² + 64²) / (2 × 168) hours on average; and the last 40 minutes of a day go over into the next.
const waiting = (4 * 16 ** 2 + 64 ** 2) / (2 * 168);

test.each([
  ["every ten days", 10],
  ["once a month", 30],
  ["once a year", 365],
])("cases that come %s find people at work as those of today do, however long a thousand of them take", (_, days) => {
  const result = forecastOf(rarely(days), { cases: 1000, seed: 5 });
  const { cases, cycleTime, openFor, problems, resources } = result;
  expect({ cases, open: openFor.length, problems }).toEqual({ cases: 1000, open: 0, problems: [] });
  expect(resources[0]?.queueMean).toBeLessThan(0.1);
  const [low, high] = cycleTime.ci95;
  const overNight = (40 / 60) * (16 * 4 + 64) * (1 / 168);
  expect(low / 3600).toBeLessThan(waiting + 40 / 60 + overNight);
  expect(high / 3600).toBeGreaterThan(waiting + 40 / 60);
  // It is not for want of people that they wait.
  const { most, closed } = storyOf(result);
  expect({ most, for: closed?.resource.id, before: closed?.element?.id }).toEqual({
    most: "closed",
    for: "r",
    before: "a",
  });
  expect((closed?.each ?? 0) / 3600 / waiting).toBeCloseTo(1, 0);
});

test("who stands in a queue over night waits for busy people, not for hours", () => {
  // In 8 hours on 5 of 7 days there is time for 9 of 10 parts of what comes: mostly the queue is what is waited for.
  const busy = rarely(7 / 54);
  const { most, bottleneck, closed } = storyOf(forecastOf(busy, { cases: 5000, seed: 5 }));
  expect({ most, for: bottleneck?.resource.id }).toEqual({ most: "bottleneck", for: "r" });
  const { waitingMean = 0, waitingBusyMean = 0 } = bottleneck?.resource ?? {};
  // More than half of it are nights and weekends, yet hardly any of it would go with more hours alone.
  expect(waitingBusyMean).toBeLessThan(waitingMean / 2);
  expect(closed?.each ?? 0).toBeLessThan(waitingMean / 4);
});

test("that nobody is there at other hours may be said or left out", () => {
  const nobody = '<bpsim:NumericParameter value="0"/>';
  expect(forecastOf(rarely(1, quantity + nobody), { cases: 500 })).toEqual(forecastOf(rarely(1), { cases: 500 }));
});

test("where more is asked for than is known of when people work, it is said", () => {
  const { cases, problems, length } = forecastOf(rarely(365), { cases: 3000, seed: 5 });
  expect(cases).toBeGreaterThan(1800);
  expect(cases).toBeLessThan(2200);
  expect(length / 86_400 / 365.2425).toBeCloseTo(2000, 1);
  expect(problems.map(({ text }) => text)).toEqual([expect.stringContaining("2,000 years")]);
});

test("where nobody's hours are said, there is no end to what can be asked for", () => {
  const text = bpmnWith(
    inARow(start, task("a"), end),
    of("s", every(number(365 * 1440))) + of("a", timeOf(number(40))),
  );
  const { cases, problems } = forecastOf(text, { cases: 3000 });
  expect({ cases, problems }).toEqual({ cases: 3000, problems: [] });
});
