import { describe, expect, test } from "vitest";
import { demoDirectory } from "@/demo/directory";
import { assumeConnection } from "@/demo/scenarios";
import { drawSolarConnection } from "@/demo/solarConnection";
import { emptyModel } from "../model";
import { constant, type Distribution, draw, scenariosOf, shareBelow } from "../scenario";
import { worldWith } from "../tokens";
import { withDirectory } from "./defaults";
import { type Exact, exactOf } from "./exact";
import { forecast } from "./forecast";
import { Stream } from "./random";
import {
  bpmnWith,
  clerks,
  end,
  every,
  exponential,
  fixedCost,
  flow,
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

const exactly = (text: string): Exact => {
  const model = modelOf(text);
  const [scenario] = scenariosOf(model);
  const found = scenario && exactOf(worldWith(model, new Map(), true), scenario);
  if (!found) throw new Error("nothing was worked out");
  return found;
};
const times = of("a", timeOf(number(10)) + fixedCost(3)) + of("b", timeOf(number(30)));
const rework = `${start}<bpmn:exclusiveGateway id="m"/>${task("a")}<bpmn:exclusiveGateway id="g"/>${end}${flow("f1", "s", "m")}${flow("f2", "m", "a")}${flow("f3", "a", "g")}${flow("back", "g", "m")}${flow("on", "g", "e")}`;
const minutes = (value: number | undefined) => (value === undefined ? undefined : value / 60);

// Worked examples by the formulas of flow analysis: sum, weighted mean, rework T / (1 − r) (M. Dumas et al., "Fundamentals of Business
// Process Management", 7.1, from memory); numbers of our own, by hand.
describe("by hand", () => {
  test("a sequence, a choice, rework", () => {
    expect(
      minutes(exactly(bpmnWith(inARow(start, task("a"), task("b"), end), of("s", every(number(60))) + times)).duration),
    ).toBeCloseTo(40, 9);
    const choice = exactly(
      bpmnWith(
        split("exclusiveGateway"),
        of("s", every(number(60))) + times + of("fa", share(0.25)) + of("fb", share(0.75)),
      ),
    );
    expect(minutes(choice.duration)).toBeCloseTo(0.25 * 10 + 0.75 * 30, 9);
    expect(choice.cost).toBeCloseTo(0.75, 9);
    expect(choice.visits.get("a")).toBeCloseTo(0.25, 9);
    const again = exactly(bpmnWith(rework, of("s", every(number(60))) + times + of("back", share(0.2))));
    expect(again.visits.get("a")).toBeCloseTo(1.25, 9);
    expect(minutes(again.duration)).toBeCloseTo(12.5, 9);
  });

  test("side by side the work adds up, and the longest counts", () => {
    const both = exactly(bpmnWith(split("parallelGateway"), of("s", every(number(60))) + times));
    expect(minutes(both.work)).toBeCloseTo(40, 9);
    expect(minutes(both.duration)).toBeCloseTo(30, 9);
    expect(both.visits.get("j")).toBeCloseTo(1, 9);
  });

  // The last of n exponential times of mean m: m (1 + 1/2 + … + 1/n), variance m² (1 + 1/4 + … + 1/n²) (order statistics: A. Rényi, 1953,
  // from memory; also W. Feller, "An Introduction to Probability Theory and Its Applications" II, I.6).
  test("the last of exponential times side by side", () => {
    const two = exactly(
      bpmnWith(
        split("parallelGateway"),
        of("s", every(number(600))) + of("a", timeOf(exponential(20))) + of("b", timeOf(exponential(20))),
      ),
    );
    expect((minutes(two.duration) ?? 0) / 30).toBeCloseTo(1, 2);
    expect(Math.sqrt(two.variance ?? 0) / 60 / (20 * Math.sqrt(1.25))).toBeCloseTo(1, 2);
    const five = exactly(
      bpmnWith(
        inARow(
          start,
          '<bpmn:task id="a"><bpmn:multiInstanceLoopCharacteristics><bpmn:loopCardinality>5</bpmn:loopCardinality></bpmn:multiInstanceLoopCharacteristics></bpmn:task>',
          end,
        ),
        of("s", every(number(600))) + of("a", timeOf(exponential(20))),
      ),
    );
    expect((minutes(five.duration) ?? 0) / (20 * (1 + 1 / 2 + 1 / 3 + 1 / 4 + 1 / 5))).toBeCloseTo(1, 2);
  });

  // Rework r times as likely as not: N geometric, so Var = Var[X] / (1 − r) + E[X]² r / (1 − r)² (compound distributions: Feller I, XII).
  test("how spread a sequence, a choice and rework are", () => {
    const minutes2 = ({ variance }: Exact) => (variance ?? Number.NaN) / 3600;
    const row = of("s", every(number(600))) + of("a", timeOf(exponential(10))) + of("b", timeOf(exponential(30)));
    expect(minutes2(exactly(bpmnWith(inARow(start, task("a"), task("b"), end), row)))).toBeCloseTo(100 + 900, 6);
    const choice = exactly(bpmnWith(split("exclusiveGateway"), row + of("fa", share(0.25)) + of("fb", share(0.75))));
    // E[X²] of an exponential time is 2 m².
    expect(minutes2(choice)).toBeCloseTo(0.25 * 200 + 0.75 * 1800 - 25 ** 2, 6);
    const again = exactly(bpmnWith(rework, row + of("back", share(0.2))));
    expect(minutes2(again)).toBeCloseTo(100 / 0.8 + (100 * 0.2) / 0.64, 6);
  });

  test("an inclusive split by the chances that there is at least one", () => {
    const some = exactly(
      bpmnWith(
        split("inclusiveGateway"),
        of("s", every(number(60))) + times + of("fa", share(0.5)) + of("fb", share(0.5)),
      ),
    );
    expect(some.visits.get("a")).toBeCloseTo(2 / 3, 9);
    expect(some.visits.get("e")).toBeCloseTo(1, 9);
  });

  test("how busy: what comes times what it takes, by the hours there are", () => {
    expect(exactly(station(exponential(60), exponential(45), 1)).loads.get("r")).toBeCloseTo(0.75, 9);
    expect(exactly(station(exponential(20), exponential(45), 2)).loads.get("r")).toBeCloseTo(1.125, 9);
  });

  test("a deadline cuts what takes longer", () => {
    const text = (work: string) =>
      bpmnWith(
        `${start}${task("a")}<bpmn:boundaryEvent id="b" attachedToRef="a"><bpmn:timerEventDefinition><bpmn:timeDuration>PT30M</bpmn:timeDuration></bpmn:timerEventDefinition></bpmn:boundaryEvent>${end}<bpmn:endEvent id="late"/>${flow("f1", "s", "a")}${flow("f2", "a", "e")}${flow("f3", "b", "late")}`,
        of("s", every(number(60))) + of("a", timeOf(work) + needs("r")) + resource("r", 1, 60),
        "",
        clerks("r"),
      );
    // Of an exponential time of mean 30 min, e⁻¹ are over 30 min; up to there it takes 30 (1 − e⁻¹).
    const cut = exactly(text(exponential(30)));
    expect(cut.visits.get("late")).toBeCloseTo(Math.exp(-1), 6);
    expect(minutes(cut.work)).toBeCloseTo(30 * (1 - Math.exp(-1)), 4);
    expect(cut.cost).toBeCloseTo(30 * (1 - Math.exp(-1)), 4);
  });
});

describe("stations, paths and the critical path", () => {
  test("a station by the formulas: M/M/1, and with more people what the hours say", () => {
    // L. Kleinrock, "Queueing Systems" 1, 3.2: W = ρ m / (1 − ρ); 45 of 60 min: 0.75 × 45 / 0.25 = 135 min.
    const [only] = exactly(station(exponential(60), exponential(45), 1)).stations;
    expect(only?.load).toBeCloseTo(0.75, 9);
    expect((only?.wait ?? 0) / 60).toBeCloseTo(135, 6);
    expect(exactly(station(exponential(20), exponential(45), 2)).stations[0]?.wait).toBe(Number.POSITIVE_INFINITY);
  });

  test("paths: the likeliest first, their shares add up, rework makes them longer", () => {
    const again = exactly(bpmnWith(rework, of("s", every(number(60))) + times + of("back", share(0.2))));
    expect(again.paths.slice(0, 3).map((path) => path.share)).toEqual([
      expect.closeTo(0.8, 9),
      expect.closeTo(0.16, 9),
      expect.closeTo(0.032, 9),
    ]);
    expect(again.paths.map(({ mean }) => mean / 60).slice(0, 3)).toEqual([10, 20, 30]);
    expect(again.paths[1]?.choices).toEqual([
      { at: "g", way: "back" },
      { at: "g", way: "on" },
    ]);
  });

  test("the critical path goes along the longer of two ways side by side", () => {
    const both = exactly(bpmnWith(split("parallelGateway"), of("s", every(number(60))) + times));
    expect(both.critical).toEqual(["s", "g", "b", "j", "e"]);
  });
});

describe("the same as what is played, nobody being waited for", () => {
  const free = (text: string) => {
    const model = modelOf(text);
    const [scenario] = scenariosOf(model);
    if (!scenario) throw new Error("no scenario");
    const world = worldWith(model, new Map(), true);
    return {
      exact: exactOf(world, scenario),
      played: forecast(world, scenario, { cases: 20_000, replications: 4, seed: 9 }),
    };
  };
  test.each([
    [
      "a choice and a loop",
      bpmnWith(
        rework,
        of("s", every(exponential(60))) + of("a", timeOf(exponential(20)) + fixedCost(2)) + of("back", share(0.4)),
      ),
    ],
    [
      "ways side by side",
      bpmnWith(
        split("parallelGateway"),
        of("s", every(exponential(60))) + of("a", timeOf(exponential(20))) + of("b", timeOf(exponential(10))),
      ),
    ],
    [
      "some of several",
      bpmnWith(
        split("inclusiveGateway"),
        of("s", every(exponential(60))) +
          of("a", timeOf(exponential(20))) +
          of("b", timeOf(exponential(10))) +
          of("fa", share(0.3)) +
          of("fb", share(0.6)),
      ),
    ],
    [
      "a repeated step",
      bpmnWith(
        inARow(start, '<bpmn:task id="a"><bpmn:standardLoopCharacteristics/></bpmn:task>', end),
        of("s", every(exponential(60))) + of("a", timeOf(exponential(20)) + share(0.3)),
      ),
    ],
    [
      "rework beside a choice, within ways side by side",
      bpmnWith(
        `${start}<bpmn:parallelGateway id="p1"/><bpmn:exclusiveGateway id="m"/>${task("a")}<bpmn:exclusiveGateway id="g"/>${task("b")}<bpmn:exclusiveGateway id="c"/>${task("k")}${task("h")}<bpmn:exclusiveGateway id="cj"/><bpmn:parallelGateway id="p2"/>${end}${flow("f1", "s", "p1")}${flow("f2", "p1", "m")}${flow("f3", "m", "a")}${flow("f4", "a", "g")}${flow("back", "g", "m")}${flow("on", "g", "p2")}${flow("f5", "p1", "b")}${flow("f6", "b", "c")}${flow("fd", "c", "k")}${flow("fh", "c", "h")}${flow("f7", "k", "cj")}${flow("f8", "h", "cj")}${flow("f9", "cj", "p2")}${flow("f10", "p2", "e")}`,
        of("s", every(exponential(600))) +
          of("a", timeOf(exponential(20))) +
          of("b", timeOf(number(10))) +
          of("k", timeOf(exponential(40))) +
          of("h", timeOf(number(5))) +
          of("back", share(0.3)) +
          of("fd", share(0.5)) +
          of("fh", share(0.5)),
      ),
    ],
    [
      "a deadline at the edge of a step with two times, and ways that end apart",
      bpmnWith(
        `${start}${task("a")}<bpmn:boundaryEvent id="w" attachedToRef="a"><bpmn:timerEventDefinition><bpmn:timeDuration>PT30M</bpmn:timeDuration></bpmn:timerEventDefinition></bpmn:boundaryEvent>${task("b")}<bpmn:parallelGateway id="g"/>${task("k")}${task("h")}${end}<bpmn:endEvent id="e2"/><bpmn:endEvent id="e3"/>${flow("f1", "s", "a")}${flow("f2", "a", "g")}${flow("f3", "w", "b")}${flow("f4", "b", "e")}${flow("f5", "g", "k")}${flow("f6", "g", "h")}${flow("f7", "k", "e2")}${flow("f8", "h", "e3")}`,
        of("s", every(exponential(600))) +
          of("a", timeOf(exponential(20)) + timeOf(exponential(10), "WaitTime")) +
          of("b", timeOf(exponential(15))) +
          of("k", timeOf(exponential(15))) +
          of("h", timeOf(exponential(10))),
      ),
    ],
    [
      "the first of two events",
      bpmnWith(
        `${start}<bpmn:eventBasedGateway id="g"/><bpmn:intermediateCatchEvent id="w"><bpmn:timerEventDefinition><bpmn:timeDuration>PT1H</bpmn:timeDuration></bpmn:timerEventDefinition></bpmn:intermediateCatchEvent><bpmn:intermediateCatchEvent id="m"><bpmn:messageEventDefinition/></bpmn:intermediateCatchEvent>${task("a")}${end}<bpmn:endEvent id="e2"/>${flow("f1", "s", "g")}${flow("f2", "g", "w")}${flow("f3", "g", "m")}${flow("f4", "w", "a")}${flow("f5", "a", "e")}${flow("f6", "m", "e2")}`,
        of("s", every(exponential(600))) + of("m", every(exponential(50))) + of("a", timeOf(exponential(30))),
      ),
    ],
    [
      "a part inside, done three times one after the other",
      bpmnWith(
        inARow(
          start,
          `<bpmn:subProcess id="u"><bpmn:multiInstanceLoopCharacteristics isSequential="true"><bpmn:loopCardinality>3</bpmn:loopCardinality></bpmn:multiInstanceLoopCharacteristics><bpmn:startEvent id="us"/><bpmn:task id="i"/><bpmn:endEvent id="ue"/>${flow("u1", "us", "i")}${flow("u2", "i", "ue")}</bpmn:subProcess>`,
          end,
        ),
        of("s", every(exponential(600))) + of("i", timeOf(exponential(15))),
      ),
    ],
  ])("%s", (_, text) => {
    const { exact, played } = free(text);
    expect(exact).toBeDefined();
    expect(Math.abs((exact?.work ?? 0) / played.processingTime.mean - 1)).toBeLessThan(0.02);
    expect(Math.abs((exact?.cost ?? 0) - played.cost.mean)).toBeLessThan(0.02 * Math.max(1, played.cost.mean));
    const [low, high] = played.cycleTime.ci95;
    const half = (high - low) / 2;
    const duration = exact?.duration ?? Number.NaN;
    expect(Math.abs(duration - played.cycleTime.mean)).toBeLessThan(2 * half + 0.002 * duration);
    const deviation = Math.sqrt(exact?.variance ?? Number.NaN);
    expect(Math.abs(deviation - played.cycleTime.deviation)).toBeLessThan(0.04 * played.cycleTime.deviation + 1e-6);
  });

  test("the demo: visits, work, cost and how busy everybody is", () => {
    const { model } = assumeConnection(
      drawSolarConnection(emptyModel({ definitions: "d", process: "p", diagram: "page" }, "Rooftop"), "page", "x")
        .model,
      "page",
    );
    const [first] = scenariosOf(model);
    if (!first) throw new Error("no scenario");
    const { scenario } = withDirectory(first, model, new Map(demoDirectory.map((entry) => [entry.id, entry])));
    const world = worldWith(model, new Map(), true);
    const exact = exactOf(world, scenario);
    const played = forecast(world, scenario, { cases: 4_000, replications: 3 });
    expect(exact?.doubts).toEqual([]);
    expect(Math.abs((exact?.work ?? 0) / played.processingTime.mean - 1)).toBeLessThan(0.03);
    expect(Math.abs((exact?.cost ?? 0) / played.cost.mean - 1)).toBeLessThan(0.03);
    for (const { id, utilization } of played.resources)
      expect(Math.abs((exact?.loads.get(id) ?? 0) - utilization)).toBeLessThan(0.04);
    for (const { id, count } of played.elements)
      expect(Math.abs((exact?.visits.get(id) ?? 0) - count / 4_000)).toBeLessThan(0.05);
  });
});

test.each<[string, Distribution]>([
  ["constant", constant(5)],
  ["uniform", { kind: "uniform", min: 2, max: 9 }],
  ["triangular", { kind: "triangular", min: 1, mode: 3, max: 9 }],
  ["cut normal", { kind: "normal", mean: 4, deviation: 3, min: 0 }],
  ["log-normal", { kind: "logNormal", mean: 5, deviation: 4 }],
  ["exponential", { kind: "exponential", mean: 4 }],
  ["Erlang", { kind: "erlang", k: 3, mean: 6 }],
  ["gamma", { kind: "gamma", shape: 0.7, scale: 5 }],
  ["Weibull", { kind: "weibull", shape: 1.6, scale: 5 }],
  [
    "discrete",
    {
      kind: "discrete",
      points: [
        { share: 1, value: 2 },
        { share: 3, value: 6 },
      ],
    },
  ],
  [
    "continuous",
    {
      kind: "continuous",
      points: [
        { share: 0, value: 1 },
        { share: 1, value: 4 },
        { share: 1, value: 10 },
      ],
    },
  ],
])("of a %s law the share below a value is that of what is drawn", (_, one) => {
  const stream = new Stream(3, "share");
  const values = Array.from({ length: 20_000 }, (__, at) => draw(one, stream.at(at, 0)));
  for (const x of [0.5, 2, 3.5, 6, 12]) {
    const drawn = values.filter((value) => value <= x).length / values.length;
    expect(Math.abs(shareBelow(one, x) - drawn)).toBeLessThan(0.015);
  }
});
