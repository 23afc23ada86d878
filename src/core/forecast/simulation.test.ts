import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { scenariosOf } from "../scenario";
import { compared } from "./compare";
import type { Forecast } from "./forecast";
import {
  bpmnWith,
  clerks,
  end,
  every,
  exponential,
  fixedCost,
  flow,
  forecastOf,
  inARow,
  modelOf,
  needs,
  number,
  of,
  resource,
  share,
  split,
  start,
  station,
  task,
  timeOf,
} from "./testing/models";

const takes = (id: string, minutes: number, more = "") => of(id, timeOf(number(minutes)) + more);
const once = of("s", every(number(1000)));
const minutesOf = (text: string, cases = 200): number => forecastOf(text, { cases, seed: 2 }).cycleTime.mean / 60;
const countOf = (result: Forecast, id: string) => result.elements.find((one) => one.id === id)?.count ?? 0;
const timer = (iso: string, kind = "timeDuration") =>
  `<bpmn:timerEventDefinition><bpmn:${kind}>${iso}</bpmn:${kind}></bpmn:timerEventDefinition>`;
const message = "<bpmn:messageEventDefinition/>";

describe("how long a case takes, nobody being waited for", () => {
  test.each<[string, string, string, number]>([
    ["steps in a row add up", inARow(start, task("a"), task("b"), end), takes("a", 10) + takes("b", 20), 30],
    [
      "all times of a step add up",
      inARow(start, task("a"), end),
      of(
        "a",
        timeOf(number(10)) +
          timeOf(number(3), "WaitTime") +
          timeOf(number(2), "SetUpTime") +
          timeOf(number(1), "TransferTime"),
      ),
      16,
    ],
    ["side by side, the longest counts", split("parallelGateway"), takes("a", 10) + takes("b", 25), 25],
    [
      "a choice by its shares, one of them certain",
      split("exclusiveGateway"),
      takes("a", 10) + takes("b", 25) + of("fa", share(0)) + of("fb", share(1)),
      25,
    ],
    [
      "of an inclusive split both, where both are certain",
      split("inclusiveGateway"),
      takes("a", 10) + takes("b", 25) + of("fa", share(1)) + of("fb", share(1)),
      25,
    ],
    [
      "a timer of the model waits",
      inARow(start, `<bpmn:intermediateCatchEvent id="w">${timer("PT2H")}</bpmn:intermediateCatchEvent>`, end),
      "",
      120,
    ],
    [
      "a message from outside is waited for as the scenario says",
      inARow(start, `<bpmn:intermediateCatchEvent id="w">${message}</bpmn:intermediateCatchEvent>`, end),
      of("w", every(number(90))),
      90,
    ],
    [
      "of an event-based gateway the first event counts",
      `${start}<bpmn:eventBasedGateway id="g"/><bpmn:intermediateCatchEvent id="w">${timer("PT1H")}</bpmn:intermediateCatchEvent><bpmn:intermediateCatchEvent id="m">${message}</bpmn:intermediateCatchEvent>${end}${flow("f1", "s", "g")}${flow("f2", "g", "w")}${flow("f3", "g", "m")}${flow("f4", "w", "e")}${flow("f5", "m", "e")}`,
      of("m", every(number(40))),
      40,
    ],
    [
      "instances one after the other",
      inARow(
        start,
        '<bpmn:task id="a"><bpmn:multiInstanceLoopCharacteristics isSequential="true"><bpmn:loopCardinality>3</bpmn:loopCardinality></bpmn:multiInstanceLoopCharacteristics></bpmn:task>',
        end,
      ),
      takes("a", 10),
      30,
    ],
    [
      "instances at once",
      inARow(
        start,
        '<bpmn:task id="a"><bpmn:multiInstanceLoopCharacteristics><bpmn:loopCardinality>3</bpmn:loopCardinality></bpmn:multiInstanceLoopCharacteristics></bpmn:task>',
        end,
      ),
      takes("a", 10),
      10,
    ],
    [
      "what is inside a sub-process",
      inARow(
        start,
        `<bpmn:subProcess id="sub">${inARow('<bpmn:startEvent id="is"/>', task("a"), '<bpmn:endEvent id="ie"/>').replaceAll('id="f', 'id="i')}</bpmn:subProcess>`,
        end,
      ),
      takes("a", 15),
      15,
    ],
    [
      "the steps of an ad-hoc sub-process, each once",
      inARow(
        start,
        `<bpmn:adHocSubProcess id="sub" ordering="Sequential">${task("a")}${task("b")}</bpmn:adHocSubProcess>`,
        end,
      ),
      takes("a", 15) + takes("b", 10),
      25,
    ],
    [
      "a terminate end takes the rest along",
      `${start}<bpmn:parallelGateway id="g"/>${task("a")}${task("b")}${end}<bpmn:endEvent id="t"><bpmn:terminateEventDefinition/></bpmn:endEvent>${flow("f1", "s", "g")}${flow("f2", "g", "a")}${flow("f3", "g", "b")}${flow("f4", "a", "t")}${flow("f5", "b", "e")}`,
      takes("a", 5) + takes("b", 60),
      5,
    ],
    [
      "an error inside is caught at the edge",
      `${start}<bpmn:subProcess id="sub">${inARow('<bpmn:startEvent id="is"/>', task("a"), '<bpmn:endEvent id="ie"><bpmn:errorEventDefinition/></bpmn:endEvent>').replaceAll('id="f', 'id="i')}</bpmn:subProcess><bpmn:boundaryEvent id="b" attachedToRef="sub"><bpmn:errorEventDefinition/></bpmn:boundaryEvent>${task("c")}${end}<bpmn:endEvent id="e2"/>${flow("f1", "s", "sub")}${flow("f2", "sub", "e")}${flow("f3", "b", "c")}${flow("f4", "c", "e2")}`,
      takes("a", 5) + takes("c", 8),
      13,
    ],
    [
      "a deadline ends the work",
      `${start}${task("a")}<bpmn:boundaryEvent id="b" attachedToRef="a">${timer("PT20M")}</bpmn:boundaryEvent>${task("c")}${end}<bpmn:endEvent id="e2"/>${flow("f1", "s", "a")}${flow("f2", "a", "e")}${flow("f3", "b", "c")}${flow("f4", "c", "e2")}`,
      takes("a", 60) + takes("c", 5),
      25,
    ],
    [
      "a reminder does not end it",
      `${start}${task("a")}<bpmn:boundaryEvent id="b" attachedToRef="a" cancelActivity="false">${timer("PT20M")}</bpmn:boundaryEvent>${task("c")}${end}<bpmn:endEvent id="e2"/>${flow("f1", "s", "a")}${flow("f2", "a", "e")}${flow("f3", "b", "c")}${flow("f4", "c", "e2")}`,
      takes("a", 60) + takes("c", 5),
      60,
    ],
    [
      "an event sub-process that interrupts",
      `${inARow(start, task("a"), end)}<bpmn:subProcess id="ev" triggeredByEvent="true">${inARow(`<bpmn:startEvent id="es">${timer("PT30M")}</bpmn:startEvent>`, task("c"), '<bpmn:endEvent id="ee"/>').replaceAll('id="f', 'id="i')}</bpmn:subProcess>`,
      takes("a", 60) + takes("c", 5),
      35,
    ],
  ])("%s", (_, process, parameters, minutes) => {
    expect(minutesOf(bpmnWith(process, once + parameters))).toBeCloseTo(minutes, 6);
  });

  test("an error inside takes along who still works there, and whoever did is free for what follows", () => {
    const inside = `<bpmn:startEvent id="is"/><bpmn:parallelGateway id="g"/>${task("a")}${task("b")}<bpmn:endEvent id="ie"/><bpmn:endEvent id="bad"><bpmn:errorEventDefinition/></bpmn:endEvent>${flow("i1", "is", "g")}${flow("i2", "g", "a")}${flow("i3", "g", "b")}${flow("i4", "a", "bad")}${flow("i5", "b", "ie")}`;
    const text = bpmnWith(
      `${start}<bpmn:subProcess id="sub">${inside}</bpmn:subProcess><bpmn:boundaryEvent id="caught" attachedToRef="sub"><bpmn:errorEventDefinition/></bpmn:boundaryEvent>${task("c")}${end}<bpmn:endEvent id="e2"/>${flow("f1", "s", "sub")}${flow("f2", "sub", "e")}${flow("f3", "caught", "c")}${flow("f4", "c", "e2")}`,
      once + takes("a", 5) + takes("b", 60, needs("r")) + takes("c", 8, needs("r")) + resource("r", 1),
      "",
      clerks("r"),
    );
    expect(minutesOf(text)).toBeCloseTo(13, 6);
  });

  test("pools of one model: a message sets the other off, and its answer is waited for", () => {
    const text = bpmnWith(
      inARow(start, '<bpmn:sendTask id="a"/>', '<bpmn:receiveTask id="w"/>', end),
      once + takes("a", 5) + takes("q", 30),
      "",
      `<bpmn:collaboration id="c"><bpmn:participant id="p1" processRef="p"/><bpmn:participant id="p2" processRef="other"/>
       <bpmn:messageFlow id="m1" sourceRef="a" targetRef="os"/><bpmn:messageFlow id="m2" sourceRef="back" targetRef="w"/></bpmn:collaboration>
       <bpmn:process id="other">${inARow(`<bpmn:startEvent id="os">${message}</bpmn:startEvent>`, task("q"), '<bpmn:sendTask id="back"/>', '<bpmn:endEvent id="oe"/>').replaceAll('id="f', 'id="o')}</bpmn:process>`,
    );
    expect(minutesOf(text)).toBeCloseTo(35, 6);
  });

  test("a loop by its chance: so many rounds on average as 1 / (1 − p)", () => {
    const text = bpmnWith(
      inARow(start, '<bpmn:task id="a"><bpmn:standardLoopCharacteristics/></bpmn:task>', end),
      once + of("a", timeOf(number(10)) + share(0.4)),
    );
    expect(minutesOf(text, 20_000)).toBeCloseTo(10 / 0.6, 0);
  });
});

describe("shares", () => {
  test("of an exclusive split", () => {
    const result = forecastOf(bpmnWith(split("exclusiveGateway"), once + of("fa", share(0.3)) + of("fb", share(0.7))), {
      cases: 20_000,
    });
    expect(countOf(result, "a") / 20_000).toBeCloseTo(0.3, 1);
    expect(countOf(result, "a") + countOf(result, "b")).toBe(20_000);
  });

  test("what is not said goes to the default, else evenly; the latter is told", () => {
    const usual = bpmnWith(
      split("exclusiveGateway").replace('id="g"', 'id="g" default="fb"'),
      once + of("fa", share(0.2)),
    );
    const result = forecastOf(usual, { cases: 10_000 });
    expect(countOf(result, "b") / 10_000).toBeCloseTo(0.8, 1);
    expect(result.gaps.map(({ kind }) => kind)).not.toContain("share");
    const even = forecastOf(bpmnWith(split("exclusiveGateway"), once), { cases: 10_000 });
    expect(countOf(even, "a") / 10_000).toBeCloseTo(0.5, 1);
    expect(even.gaps.find(({ kind }) => kind === "share")).toMatchObject({ element: "g" });
  });

  test("each way of an inclusive split by its own; of none it is drawn again", () => {
    const result = forecastOf(bpmnWith(split("inclusiveGateway"), once + of("fa", share(0.5)) + of("fb", share(0.5))), {
      cases: 20_000,
    });
    // Given that there is at least one: 0.5 / 0.75.
    expect(countOf(result, "a") / 20_000).toBeCloseTo(2 / 3, 1);
    expect(countOf(result, "e")).toBe(20_000);
  });

  test("an error at the edge of a step by its chance", () => {
    const text = bpmnWith(
      `${start}${task("a")}<bpmn:boundaryEvent id="b" attachedToRef="a"><bpmn:errorEventDefinition/></bpmn:boundaryEvent>${end}<bpmn:endEvent id="e2"/>${flow("f1", "s", "a")}${flow("f2", "a", "e")}${flow("f3", "b", "e2")}`,
      once + takes("a", 10) + of("b", share(0.25)),
    );
    const result = forecastOf(text, { cases: 20_000 });
    expect(countOf(result, "e2") / 20_000).toBeCloseTo(0.25, 1);
    expect(result.cycleTime.mean).toBeCloseTo(600, 6);
  });
});

test("an event-based gateway that is come to again draws its events anew", () => {
  // A reminder every hour until the answer comes, exponential of mean 60 min: a geometric number of rounds, 1 / (1 − e⁻¹) on average.
  const text = bpmnWith(
    `${start}<bpmn:exclusiveGateway id="again"/><bpmn:eventBasedGateway id="g"/><bpmn:intermediateCatchEvent id="w">${timer("PT1H")}</bpmn:intermediateCatchEvent><bpmn:intermediateCatchEvent id="m">${message}</bpmn:intermediateCatchEvent>${end}${flow("f0", "s", "again")}${flow("f1", "again", "g")}${flow("f2", "g", "w")}${flow("f3", "g", "m")}${flow("f4", "w", "again")}${flow("f5", "m", "e")}`,
    once + of("m", every(exponential(60))),
  );
  const result = forecastOf(text, { cases: 10_000 });
  expect(result.notEnded).toEqual([]);
  expect(countOf(result, "g") / 10_000).toBeCloseTo(1 / (1 - Math.exp(-1)), 1);
  expect(Math.abs(result.cycleTime.mean / 3600 - 1)).toBeLessThan(0.05);
});

describe("people", () => {
  const office = `<bpsim:Calendar id="office" name="Office"><![CDATA[BEGIN:VEVENT
DTSTART:20270104T080000
DTEND:20270104T160000
RRULE:FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR
END:VEVENT]]></bpsim:Calendar>`;
  const parameters = (at: string) =>
    `<bpsim:ScenarioParameters baseTimeUnit="min"><bpsim:Start><bpsim:DateTimeParameter value="${at}"/></bpsim:Start></bpsim:ScenarioParameters>`;
  const working = of(
    "r",
    `<bpsim:ResourceParameters><bpsim:Availability><bpsim:BooleanParameter value="true" validFor="office"/></bpsim:Availability><bpsim:Quantity>${number(1)}</bpsim:Quantity></bpsim:ResourceParameters>`,
  );
  const oneCase = of(
    "s",
    `<bpsim:ControlParameters><bpsim:TriggerCount>${number(1)}</bpsim:TriggerCount></bpsim:ControlParameters>`,
  );

  test.each([
    // A Monday; hours counted by hand.
    ["2027-01-04T10:00:00Z", 60, 60],
    ["2027-01-04T06:00:00Z", 60, 180],
    ["2027-01-04T15:00:00Z", 120, 18 * 60],
    // Friday at three, two hours of work: until Monday at nine.
    ["2027-01-08T15:00:00Z", 120, (72 - 6) * 60],
  ])("who begins work at %s that takes %d min is done %d min on", (at, work, wanted) => {
    const text = bpmnWith(
      inARow(start, task("a"), end),
      oneCase + of("a", timeOf(number(work)) + needs("r")) + working + office,
      parameters(at),
      clerks("r"),
    );
    const result = forecastOf(text, { cases: 1 });
    expect(result.cycleTime.mean / 60).toBeCloseTo(wanted, 6);
    expect(result.processingTime.mean / 60).toBeCloseTo(work, 6);
    expect(result.waitingTime.mean / 60).toBeCloseTo(wanted - work, 6);
  });

  test("a step that needs two of them waits for both", () => {
    const text = bpmnWith(
      inARow(start, task("a"), end),
      of("s", every(number(10))) + of("a", timeOf(number(20)) + needs("r", 2)) + resource("r", 3),
      "",
      clerks("r"),
    );
    const result = forecastOf(text, { cases: 20 });
    // Two of three work on one case, and the third is of no use: one case every 20 min, which come every 10.
    expect(result.cycleTime.mean / 60).toBeCloseTo(20 + (10 * 19) / 2, 6);
    expect(result.resources[0]?.quantity).toBe(3);
    expect(result.resources[0]?.utilization).toBeLessThanOrEqual(2 / 3 + 1e-9);
  });

  test("two roles at once, and a deadline that sets both free", () => {
    const both =
      "<bpsim:ResourceParameters><bpsim:Selection><bpsim:ExpressionParameter value=\"bpsim:getResource('r',1) and bpsim:getResource('q',1)\"/></bpsim:Selection></bpsim:ResourceParameters>";
    const text = bpmnWith(
      `${start}${task("a")}<bpmn:boundaryEvent id="b" attachedToRef="a">${timer("PT20M")}</bpmn:boundaryEvent>${end}<bpmn:endEvent id="e2"/>${flow("f1", "s", "a")}${flow("f2", "a", "e")}${flow("f3", "b", "e2")}`,
      of("s", every(number(20))) + of("a", timeOf(number(60)) + both) + resource("r", 1) + resource("q", 1),
      "",
      clerks("r", "q"),
    );
    const result = forecastOf(text, { cases: 50 });
    expect(countOf(result, "e2")).toBe(50);
    for (const { utilization } of result.resources) expect(utilization).toBeGreaterThan(0.9);
    expect(result.processingTime.mean / 60).toBeCloseTo(20, 6);
  });

  test("whoever is free of those that will do", () => {
    const either =
      "<bpsim:ResourceParameters><bpsim:Selection><bpsim:ExpressionParameter value=\"bpsim:orResource(bpsim:getResource('r',1), bpsim:getResource('q',1))\"/></bpsim:Selection></bpsim:ResourceParameters>";
    const text = bpmnWith(
      inARow(start, task("a"), end),
      of("s", every(number(10))) + of("a", timeOf(number(20)) + either) + resource("r", 1) + resource("q", 1),
      "",
      clerks("r", "q"),
    );
    const result = forecastOf(text, { cases: 100 });
    expect(result.cycleTime.mean / 60).toBeCloseTo(20, 6);
    for (const { utilization } of result.resources) expect(utilization).toBeGreaterThan(0.9);
  });

  test("a lane with a number does the steps in it; where a scenario has no number, nobody has to be free, and that is told", () => {
    const lanes =
      '<bpmn:laneSet id="ls"><bpmn:lane id="desk" name="Desk"><bpmn:flowNodeRef>a</bpmn:flowNodeRef></bpmn:lane></bpmn:laneSet>';
    const text = (more: string) =>
      bpmnWith(lanes + inARow(start, task("a"), end), of("s", every(number(10))) + takes("a", 20) + more);
    expect(forecastOf(text(resource("desk", 1)), { cases: 20 }).cycleTime.mean / 60).toBeCloseTo(20 + (10 * 19) / 2, 6);
    const free = forecastOf(text(""), { cases: 20 });
    expect(free.cycleTime.mean / 60).toBeCloseTo(20, 6);
    expect(free.gaps.find(({ kind }) => kind === "resource")).toMatchObject({ element: "desk", name: "Desk" });
  });
});

describe("money", () => {
  test("hours at their rate, and what each step costs", () => {
    const fixed = fixedCost(7);
    const text = bpmnWith(
      inARow(start, task("a"), end),
      once + of("a", timeOf(number(30)) + needs("r") + fixed) + resource("r", 1, 60) + of("e", fixed),
      "",
      clerks("r"),
    );
    const result = forecastOf(text, { cases: 10 });
    expect(result.cost.mean).toBeCloseTo(30 + 7 + 7, 9);
    expect(result.cost.total).toBeCloseTo(440, 9);
    expect(result.elements.find(({ id }) => id === "a")?.costTotal).toBeCloseTo(370, 9);
  });
});

test("what is paid each time somebody is taken counts as well", () => {
  const called = resource("r", 1).replace(
    "</bpsim:ElementParameters>",
    `<bpsim:CostParameters><bpsim:FixedCost>${number(15)}</bpsim:FixedCost></bpsim:CostParameters></bpsim:ElementParameters>`,
  );
  const text = bpmnWith(
    inARow(start, task("a"), task("b"), end),
    once + takes("a", 10, needs("r")) + takes("b", 10, needs("r")) + called,
    "",
    clerks("r"),
  );
  expect(forecastOf(text, { cases: 5 }).cost.mean).toBeCloseTo(30, 9);
});

test("what an hour of a step costs by itself counts as well", () => {
  const rate =
    '<bpsim:CostParameters><bpsim:UnitCost><bpsim:FloatingParameter value="120" timeUnit="hour"/></bpsim:UnitCost></bpsim:CostParameters>';
  expect(
    forecastOf(bpmnWith(inARow(start, task("a"), end), once + takes("a", 30, rate)), { cases: 5 }).cost.mean,
  ).toBeCloseTo(60, 9);
});

describe("extent", () => {
  test("a time: cases in are cases done and under way, and no resource is above its number", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 5, max: 90 }),
        fc.integer({ min: 1, max: 99 }),
        (count, work, seed) => {
          const text = station(exponential(30), exponential(work), count).replace(
            '<bpsim:ScenarioParameters baseTimeUnit="min" baseCurrencyUnit="EUR"/>',
            '<bpsim:ScenarioParameters baseTimeUnit="min"><bpsim:Duration><bpsim:DurationParameter value="P3D"/></bpsim:Duration></bpsim:ScenarioParameters>',
          );
          const result = forecastOf(text, { seed });
          expect(countOf(result, "s")).toBe(result.cases + result.underWay);
          expect(result.length).toBeLessThanOrEqual(3 * 86_400);
          for (const { busy } of result.curves.resources)
            expect(Math.max(0, ...busy.means)).toBeLessThanOrEqual(count + 1e-9);
          expect(result.resources[0]?.utilization ?? 0).toBeLessThanOrEqual(1 + 1e-9);
        },
      ),
      { numRuns: 30 },
    );
  });

  test("what begins before the warm-up is over is not counted", () => {
    const text = station(number(10), number(30), 1).replace(
      '<bpsim:ScenarioParameters baseTimeUnit="min" baseCurrencyUnit="EUR"/>',
      '<bpsim:ScenarioParameters baseTimeUnit="min"><bpsim:Warmup><bpsim:DurationParameter value="PT2H"/></bpsim:Warmup></bpsim:ScenarioParameters>',
    );
    const result = forecastOf(text, { cases: 5 });
    expect(result.cases).toBe(5);
    // The twelfth case comes at 120 min, when eleven before it take 330 min from minute 10 on.
    expect(result.cycleTime.min / 60).toBeCloseTo(340 + 30 - 120, 6);
  });

  test("cases come one after the other where nothing is said of how often; that is told", () => {
    const text = bpmnWith(
      inARow(start, task("a"), end),
      of("a", timeOf(number(10)) + needs("r")) + resource("r", 1),
      "",
      clerks("r"),
    );
    const result = forecastOf(text, { cases: 10 });
    expect(result.waitingTime.mean).toBe(0);
    expect(result.gaps.map(({ kind }) => kind)).toEqual(["arrivals"]);
  });

  test("a case that goes round for ever, or gets stuck, is a result in words", () => {
    const round = `${start}<bpmn:exclusiveGateway id="m"/>${task("a")}<bpmn:exclusiveGateway id="g"/>${end}${flow("f1", "s", "m")}${flow("f2", "m", "a")}${flow("f3", "a", "g")}${flow("back", "g", "m")}${flow("on", "g", "e")}`;
    const result = forecastOf(bpmnWith(round, once + of("back", share(1)) + of("on", share(0))), { cases: 3 });
    expect(result.notEnded).toMatchObject([{ how: "stopped", cases: 3 }]);
    const stuck = forecastOf(
      bpmnWith(split("exclusiveGateway").replace('exclusiveGateway id="j"', 'parallelGateway id="j"'), once),
      { cases: 3 },
    );
    expect(stuck.notEnded).toEqual([{ how: "stuck", at: "j", cases: 3 }]);
  });
});

describe("chance", () => {
  test("the same seed gives the same figures, another one others", () => {
    const text = station(exponential(60), exponential(40), 1);
    const run = (seed: number) => JSON.stringify(forecastOf(text, { cases: 500, replications: 3, seed, samples: 5 }));
    expect(run(4)).toBe(run(4));
    expect(run(4)).not.toBe(run(5));
  });

  test("two models meet the same cases: what one step less takes is known nearly without chance", () => {
    const before = forecastOf(station(exponential(60), exponential(40), 1), { cases: 1_000, replications: 5 });
    const after = forecastOf(station(exponential(60), exponential(36), 1), { cases: 1_000, replications: 5 });
    const apart = forecastOf(station(exponential(60), exponential(36), 1), { cases: 1_000, replications: 5, seed: 77 });
    const width = ([one]: ReturnType<typeof compared>) => (one ? one.ci95[1] - one.ci95[0] : 0);
    expect(width(compared(before, after))).toBeLessThan(width(compared(before, apart)) / 2);
    expect(compared(before, after)[0]).toMatchObject({ isMoreThanChance: true });
    expect(compared(before, before)[0]).toMatchObject({ difference: 0, isMoreThanChance: false });
  });
});

test("a scenario takes over what it does not say itself", () => {
  const base = station(exponential(60), exponential(30), 1);
  const text = base.replace(
    "</bpsim:Scenario>",
    `</bpsim:Scenario><bpsim:Scenario id="s2" name="Two of them" inherits="s1"><bpsim:ScenarioParameters baseTimeUnit="hour"/>${resource("r", 2)}</bpsim:Scenario>`,
  );
  const [one, two] = scenariosOf(modelOf(text));
  expect(two).toMatchObject({ id: "s2", name: "Two of them", inherits: "s1", currency: "EUR" });
  expect(two?.of.get("r")?.quantity).toEqual([{ value: 2 }]);
  expect(two?.of.get("a")).toEqual(one?.of.get("a"));
  expect(forecastOf(text, { cases: 2_000 }, 1).waitingTime.mean).toBeLessThan(
    forecastOf(text, { cases: 2_000 }).waitingTime.mean / 3,
  );
  const lost = scenariosOf(modelOf(text.replace('inherits="s1"', 'inherits="s9"')))[1];
  expect(lost?.problems.map(({ text }) => text)).toEqual(["It inherits from “s9”, which is not there."]);
});
