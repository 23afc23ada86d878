import fc from "fast-check";
import { expect, test } from "vitest";
import { Plan, worldAssumed } from "./plan";
import { Pending } from "./running";
import { Simulation } from "./simulation";
import type { Sums } from "./sums";
import {
  bpmnWith,
  clerks,
  end,
  every,
  exponential,
  flow,
  forecastOf,
  inARow,
  modelOf,
  needs,
  number,
  of,
  readyOf,
  resource,
  start,
  task,
  timeOf,
} from "./testing/models";

const model = modelOf(
  bpmnWith(
    inARow(start, task("a"), task("b"), end),
    of("s", every(exponential(10))) +
      of("a", timeOf(exponential(9)) + needs("r")) +
      of("b", timeOf(exponential(16)) + needs("q")) +
      resource("r", 1, 30) +
      resource("q", 2, 60),
    "",
    clerks("r", "q"),
  ),
);
const { world, scenario } = readyOf(model);
const fresh = () => new Simulation(new Plan(worldAssumed(world, scenario), scenario, 77), { cases: 150, warmUp: 0 });
const byElement = (sums: Sums) => Array.from({ length: 20 }, (_, at) => sums.at(at));
const told = (simulation: Simulation) => {
  const { recorder, resources, end: over, underWay } = simulation.end();
  const { durations, costs, counts, waitedOf } = recorder;
  return {
    durations: durations.values,
    costs: costs.values,
    counts: byElement(counts),
    waitedOf: byElement(waitedOf),
    over,
    underWay,
    queues: resources.map(({ queue }) => queue),
  };
};

test("a run that is cut anywhere and gone on with gives what it gives in one", () => {
  const whole = fresh();
  while (whole.run(1_000_000));
  const wanted = told(whole);
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 400 }), { minLength: 1, maxLength: 12 }), (cuts) => {
      const parts = fresh();
      for (const cut of cuts) if (!parts.run(cut)) break;
      while (parts.run(1_000));
      expect(told(parts)).toEqual(wanted);
    }),
    { numRuns: 30 },
  );
});

test("two runs side by side leave each other alone", () => {
  const [one, other] = [fresh(), fresh()];
  for (let goesOn = true; goesOn; ) {
    const first = one.run(7);
    const second = other.run(13);
    goesOn = first || second;
  }
  expect(told(one)).toEqual(told(other));
});

const selected = (what: string) =>
  `<bpsim:ResourceParameters><bpsim:Selection><bpsim:ExpressionParameter value="${what}"/></bpsim:Selection></bpsim:ResourceParameters>`;
const [r, q] = ["bpsim:getResource('r',1)", "bpsim:getResource('q',1)"];
/** Steps on two ways at once, one given up later than the other, which so is while it waits; behind them a third. */
const givenUp = (after: number, takes: (minutes: number) => string, [ofA, ofC]: readonly [string, string]) => {
  const edge = (host: string, after: number) =>
    `<bpmn:boundaryEvent id="w${host}" attachedToRef="${host}"><bpmn:timerEventDefinition><bpmn:timeDuration>PT${after}M</bpmn:timeDuration></bpmn:timerEventDefinition></bpmn:boundaryEvent>`;
  const gateway = (id: string, kind: string) => `<bpmn:${kind}Gateway id="${id}"/>`;
  return bpmnWith(
    `${start}${gateway("g", "parallel")}${task("a")}${edge("a", 5 * after)}${task("b")}${edge("b", after)}${gateway("x", "exclusive")}${gateway("y", "exclusive")}${gateway("j", "parallel")}${task("c")}${end}${[
      ["s", "g"],
      ["g", "a"],
      ["g", "b"],
      ["a", "x"],
      ["wa", "x"],
      ["b", "y"],
      ["wb", "y"],
      ["x", "j"],
      ["y", "j"],
      ["j", "c"],
      ["c", "e"],
    ]
      .map(([from = "", to = ""], at) => flow(`f${at}`, from, to))
      .join("")}`,
    of("s", every(takes(12))) +
      of("a", timeOf(takes(10)) + selected(ofA)) +
      of("b", timeOf(takes(8)) + needs("r")) +
      of("c", timeOf(takes(4)) + selected(ofC)) +
      resource("r", 1, 30) +
      resource("q", 1, 60),
    "",
    clerks("r", "q"),
  );
};

test("what was pending and is used again is as new, whoever waited at several desks or gave up", () => {
  // Times that are all alike bring many things to one moment.
  const several = [`${r} and ${q}`, `bpsim:orResource(${r}, ${q})`] as const;
  const all = [exponential, number].flatMap((takes) =>
    [4, 8, 12, 40].flatMap((after) => [givenUp(after, takes, several), givenUp(after, takes, [r, q])]),
  );
  const usual = Object.getOwnPropertyDescriptor(Pending.prototype, "isIdle") as PropertyDescriptor;
  for (const text of all) {
    const run = () => forecastOf(text, { cases: 400, replications: 1, samples: 400 });
    const reused = run();
    Object.defineProperty(Pending.prototype, "isIdle", { ...usual, get: () => false });
    try {
      expect(reused).toEqual(run());
    } finally {
      Object.defineProperty(Pending.prototype, "isIdle", usual);
    }
    expect(reused.elements.find(({ id }) => id === "a")?.count).toBeGreaterThan(100);
    for (const { utilization } of reused.resources) expect(utilization).toBeLessThanOrEqual(1);
  }
});
