import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { approximateWait, exponentialWait, generalWait, priorityWaits, waitingChance } from "./queueing";
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
  resource,
  share,
  start,
  station,
  task,
  timeOf,
} from "./testing/models";

/** Minutes of a mean, and of half its interval, from many cases in replications. */
function minutes(text: string, asked: { cases?: number; replications?: number; seed?: number } = {}) {
  const result = forecastOf(text, { cases: 8_000, replications: 12, seed: 5, ...asked });
  const half = (result.cycleTime.ci95[1] - result.cycleTime.ci95[0]) / 2;
  return { result, cycle: result.cycleTime.mean / 60, half: half / 60, waiting: result.waitingTime.mean / 60 };
}
/** An interval of 95 of 100 is left out once in twenty; twice its width about once in ten thousand. */
const near = (value: number, wanted: number, half: number) =>
  expect(Math.abs(value - wanted)).toBeLessThan(2 * half + 1e-9);

describe("formulas", () => {
  test.each([
    // D. Gross, C. M. Harris, "Fundamentals of Queueing Theory", M/M/1 with half the time busy: the wait is the work.
    [{ meanInterval: 60, meanWork: 30, count: 1 }, 0.5, 30],
    // Erlang's C for 2 servers and 1.5 offered is 9/14; from the formula, by hand.
    [{ meanInterval: 20, meanWork: 30, count: 2 }, 9 / 14, (9 / 14) * 60],
    [{ meanInterval: 10, meanWork: 30, count: 2 }, 1, Number.POSITIVE_INFINITY],
  ])("%o", (one, chance, wait) => {
    expect(waitingChance(one)).toBeCloseTo(chance, 12);
    expect(exponentialWait(one)).toBeCloseTo(wait, 9);
  });

  test("the general formulas come to the exponential one where all is exponential", () => {
    expect(generalWait(60, 30, 900)).toBeCloseTo(exponentialWait({ meanInterval: 60, meanWork: 30, count: 1 }), 12);
    expect(approximateWait({ meanInterval: 20, meanWork: 30, count: 2 }, 1, 1)).toBeCloseTo((9 / 14) * 60, 9);
    expect(priorityWaits([{ meanInterval: 60, meanWork: 30, squareOfWork: 1800 }])[0]).toBeCloseTo(30, 12);
  });

  test("more people never more waiting", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), fc.double({ min: 0.05, max: 0.98, noNaN: true }), (count, load) => {
        const one = { meanInterval: 1 / (load * count), meanWork: 1, count };
        expect(exponentialWait({ ...one, count: count + 1 })).toBeLessThanOrEqual(exponentialWait(one));
      }),
    );
  });
});

describe("what is simulated comes to the formula", () => {
  test("M/M/1", () => {
    const { cycle, half, result } = minutes(station(exponential(60), exponential(30), 1));
    near(cycle, 60, half);
    expect(result.resources[0]?.utilization).toBeCloseTo(0.5, 1);
  });

  test("M/M/3 (Erlang C)", () => {
    const wanted = exponentialWait({ meanInterval: 12, meanWork: 30, count: 3 });
    const { cycle, half } = minutes(station(exponential(12), exponential(30), 3), { cases: 20_000 });
    near(cycle, 30 + wanted, half);
  });

  test("M/D/1 and M/G/1 (Pollaczek and Khinchine)", () => {
    const fixed = minutes(station(exponential(60), number(45), 1));
    near(fixed.cycle, 45 + generalWait(60, 45, 0), fixed.half);
    const spread = minutes(station(exponential(60), '<bpsim:UniformDistribution min="0" max="80"/>', 1));
    near(spread.cycle, 40 + generalWait(60, 40, 80 ** 2 / 12), spread.half);
    const erlang = minutes(station(exponential(60), '<bpsim:ErlangDistribution k="4" mean="40"/>', 1));
    near(erlang.cycle, 40 + generalWait(60, 40, 400), erlang.half);
  });

  test("G/G/2 lies below Kingman's bound, and near the approximation", () => {
    const text = station(
      '<bpsim:UniformDistribution min="10" max="30"/>',
      '<bpsim:ErlangDistribution k="2" mean="34"/>',
      2,
    );
    const { result } = minutes(text);
    const wait = result.waitingTime.mean / 60;
    const approximate = approximateWait({ meanInterval: 20, meanWork: 34, count: 2 }, 400 / 12 / 400, 0.5);
    // J. F. C. Kingman, "The single server queue in heavy traffic" (1961), for one server twice as fast: an upper bound of about this form.
    expect(wait).toBeGreaterThan(0.5 * approximate);
    expect(wait).toBeLessThan(1.5 * approximate);
  });

  test("a timer of no time at the edge of a step ends it before any work is done", () => {
    const text = bpmnWith(
      inARow(start, task("a"), end) +
        '<bpmn:boundaryEvent id="b" attachedToRef="a" cancelActivity="true"><bpmn:timerEventDefinition><bpmn:timeDuration>PT0S</bpmn:timeDuration></bpmn:timerEventDefinition></bpmn:boundaryEvent><bpmn:endEvent id="gone"/><bpmn:sequenceFlow id="fb" sourceRef="b" targetRef="gone"/>',
      of("s", every(exponential(30))) + of("a", timeOf(exponential(30)) + needs("r")) + resource("r", 1),
      "",
      clerks("r"),
    );
    const result = forecastOf(text, { cases: 2_000, seed: 3 });
    expect(result.elements.find(({ id }) => id === "gone")?.count).toBe(2_000);
    expect(result.resources[0]?.utilization).toBe(0);
  });

  // M/M/1 where nobody stays longer than D, waiting and being served: what is still to be done is the content of a finite dam, exponential
  // below D (N. U. Prabhu, "Queues and Inventories" (1965), from memory), of which the share that is broken off follows:
  // (μ − λ) e^(−(μ − λ) D) / (μ − λ e^(−(μ − λ) D)), the same form as the loss of M/M/1/K with time in place of places.
  test.each([
    [40, 30, 60],
    [60, 30, 45],
    [25, 30, 120],
  ])(
    "M/M/1 with a bound on the stay, by a timer at the edge: every %d, work of %d, at most %d minutes",
    (interval, work, most) => {
      const text = bpmnWith(
        inARow(start, task("a"), end) +
          `<bpmn:boundaryEvent id="b" attachedToRef="a" cancelActivity="true"><bpmn:timerEventDefinition><bpmn:timeDuration>PT${most}M</bpmn:timeDuration></bpmn:timerEventDefinition></bpmn:boundaryEvent><bpmn:endEvent id="gone"/><bpmn:sequenceFlow id="fb" sourceRef="b" targetRef="gone"/>`,
        of("s", every(exponential(interval))) + of("a", timeOf(exponential(work)) + needs("r")) + resource("r", 1),
        "",
        clerks("r"),
      );
      const cases = 40_000;
      const result = forecastOf(text, { cases, seed: 11 });
      const [arriving, serving] = [1 / interval, 1 / work];
      const fade = Math.exp(-(serving - arriving) * most);
      const wanted = ((serving - arriving) * fade) / (serving - arriving * fade);
      const lost = (result.elements.find(({ id }) => id === "gone")?.count ?? 0) / cases;
      expect(Math.abs(lost - wanted)).toBeLessThan(0.015);
    },
  );

  test("two stations in a row (J. R. Jackson): each waits as if it were alone", () => {
    const text = bpmnWith(
      inARow(start, task("a"), task("b"), end),
      of("s", every(exponential(60))) +
        of("a", timeOf(exponential(30)) + needs("r")) +
        of("b", timeOf(exponential(40)) + needs("q")) +
        resource("r", 1) +
        resource("q", 1),
      "",
      clerks("r", "q"),
    );
    const { result, cycle, half } = minutes(text, { cases: 12_000 });
    near(cycle, 60 + 120, half);
    const waits = (id: string) => (result.elements.find((one) => one.id === id)?.waitingMean ?? 0) / 60;
    expect(waits("a")).toBeGreaterThan(27);
    expect(waits("a")).toBeLessThan(33);
    expect(waits("b")).toBeGreaterThan(70);
    expect(waits("b")).toBeLessThan(90);
  });

  test("an open network with work done again (Jackson): visits 1 / (1 − p), each station by its own load", () => {
    const again = 0.25;
    const text = bpmnWith(
      `${start}<bpmn:exclusiveGateway id="m"/>${task("a")}<bpmn:exclusiveGateway id="g"/>${end}
       <bpmn:sequenceFlow id="f1" sourceRef="s" targetRef="m"/><bpmn:sequenceFlow id="f2" sourceRef="m" targetRef="a"/>
       <bpmn:sequenceFlow id="f3" sourceRef="a" targetRef="g"/><bpmn:sequenceFlow id="back" sourceRef="g" targetRef="m"/>
       <bpmn:sequenceFlow id="on" sourceRef="g" targetRef="e"/>`,
      of("s", every(exponential(60))) +
        of("a", timeOf(exponential(30)) + needs("r")) +
        resource("r", 1) +
        of("back", share(again)),
      "",
      clerks("r"),
    );
    const { result, cycle, half } = minutes(text);
    const visits = 1 / (1 - again);
    expect((result.elements.find(({ id }) => id === "a")?.count ?? 0) / 8_000).toBeCloseTo(visits, 1);
    // A station with this load holds ρ / (1 − ρ) cases; by Little's law a case is there that times the interval.
    const load = (30 * visits) / 60;
    near(cycle, (60 * load) / (1 - load), half);
  });

  test("priorities (A. Cobham)", () => {
    const text = bpmnWith(
      `${start}<bpmn:startEvent id="s2"/>${task("a")}${task("b")}${end}
       <bpmn:sequenceFlow id="f1" sourceRef="s" targetRef="a"/><bpmn:sequenceFlow id="f2" sourceRef="s2" targetRef="b"/>
       <bpmn:sequenceFlow id="f3" sourceRef="a" targetRef="e"/><bpmn:sequenceFlow id="f4" sourceRef="b" targetRef="e"/>`,
      of("s", every(exponential(90))) +
        of("s2", every(exponential(60))) +
        of(
          "a",
          `${timeOf(exponential(30))}${needs("r")}<bpsim:PriorityParameters><bpsim:Priority>${number(2)}</bpsim:Priority></bpsim:PriorityParameters>`,
        ) +
        of("b", timeOf(exponential(20)) + needs("r")) +
        resource("r", 1),
      "",
      clerks("r"),
    );
    const { result } = minutes(text, { cases: 20_000 });
    const [urgent = 0, other = 0] = priorityWaits([
      { meanInterval: 90, meanWork: 30, squareOfWork: 2 * 900 },
      { meanInterval: 60, meanWork: 20, squareOfWork: 2 * 400 },
    ]);
    const waits = (id: string) => (result.elements.find((one) => one.id === id)?.waitingMean ?? 0) / 60;
    expect(Math.abs(waits("a") / urgent - 1)).toBeLessThan(0.05);
    expect(Math.abs(waits("b") / other - 1)).toBeLessThan(0.08);
  });
});

test("Little's law holds on every run: who waits on average is how often one comes times how long one waits", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 4 }),
      fc.integer({ min: 10, max: 80 }),
      fc.integer({ min: 1, max: 1_000 }),
      (count, work, seed) => {
        const { resources, length } = forecastOf(station(exponential(30), exponential(work), count), {
          cases: 400,
          seed,
        });
        const [one] = resources;
        if (!one) throw new Error("no resource");
        // What came after the last counted case waits as well, and is counted by nobody else: a run is longer than its cases.
        const counted = (one.requests * one.waitingMean) / length;
        if (work < 25 * count)
          expect(Math.abs(one.queueMean - counted)).toBeLessThanOrEqual(0.15 * Math.max(1, one.queueMean));
      },
    ),
    { numRuns: 25 },
  );
});

test("of a hundred intervals about 95 hold the true mean", () => {
  let held = 0;
  for (let seed = 1; seed <= 100; seed++) {
    const { cycleTime } = forecastOf(station(exponential(60), exponential(20), 1), {
      cases: 400,
      replications: 8,
      seed,
    });
    if (cycleTime.ci95[0] <= 1800 && cycleTime.ci95[1] >= 1800) held++;
  }
  // The mean is 20 / (1 − 1/3) = 30 min. Runs begin empty, which costs a little; binomial, 95 ± 3 × 2.2.
  expect(held).toBeGreaterThanOrEqual(87);
});
