import fc from "fast-check";
import { expect, test } from "vitest";
import { Plan, worldAssumed } from "./plan";
import { Simulation } from "./simulation";
import {
  bpmnWith,
  clerks,
  end,
  every,
  exponential,
  inARow,
  modelOf,
  needs,
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
const told = (simulation: Simulation) => {
  const { recorder, resources, end: over, underWay } = simulation.end();
  const { durations, costs, counts, waitedOf } = recorder;
  return {
    durations: durations.values,
    costs: costs.values,
    counts,
    waitedOf,
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
