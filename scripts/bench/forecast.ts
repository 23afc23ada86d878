import { exactOf, type Forecast, follow, forecast, withDirectory } from "@/core/forecast";
import { Heap } from "@/core/forecast/heap";
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
  resource,
  start,
  station,
  task,
  timeOf,
} from "@/core/forecast/testing/models";
import { emptyModel, type Model } from "@/core/model";
import { type Scenario, scenariosOf } from "@/core/scenario";
import { worldWith } from "@/core/tokens";
import { demoDirectory } from "@/demo/directory";
import { assumeConnection } from "@/demo/scenarios";
import { drawSolarConnection } from "@/demo/solarConnection";
import type { BenchRow } from "./measure";

/** The demo's as-is with its normal year, and who works as the directory says. */
function demo(): { model: Model; scenario: Scenario } {
  const empty = emptyModel({ definitions: "d", process: "p", diagram: "page" }, "Rooftop solar connection");
  const { model } = assumeConnection(drawSolarConnection(empty, "page", "switch-on-and-verify").model, "page");
  const roles = demoDirectory.map(({ id, headcount, costPerHour, hoursPerWeek }) => ({
    id,
    headcount,
    costPerHour,
    hoursPerWeek,
  }));
  const [first] = scenariosOf(model);
  if (!first) throw new Error("The demo has no scenario.");
  return { model, scenario: withDirectory(first, model, new Map(roles.map((role) => [role.id, role]))).scenario };
}

/** The best of three runs. */
function timed(
  model: Model,
  scenario: Scenario,
  cases: number,
): { readonly seconds: number; readonly result: Forecast } {
  const world = worldWith(model, new Map(), true);
  let best: { seconds: number; result: Forecast } | undefined;
  for (let run = 0; run < 3; run++) {
    const begun = performance.now();
    const result = forecast(world, scenario, { cases, replications: 1 });
    const seconds = (performance.now() - begun) / 1000;
    if (!best || seconds < best.seconds) best = { seconds, result };
  }
  return best as { seconds: number; result: Forecast };
}

/** Milliseconds of the slowest of some times. */
function slowest(times: number, what: () => void): number {
  let most = 0;
  for (let time = 0; time < times; time++) {
    const begun = performance.now();
    what();
    most = Math.max(most, performance.now() - begun);
  }
  return most;
}

/** As many events as a run has, put into the same heap and taken out, with as much under way. */
function bareLoop(events: number): number {
  const heap = new Heap<number>();
  for (let at = 0; at < 50; at++) heap.push(at, at);
  const begun = performance.now();
  for (let at = 0, time = 0; at < events; at++) {
    heap.pop();
    time += 0.5;
    heap.push(time + ((at * 7919) % 97), at);
  }
  return (performance.now() - begun) / 1000;
}

/** Seconds a token step takes where so many steps follow each other, each done by a role of its own. */
function perStep(steps: number): number {
  const names = Array.from({ length: steps }, (_, at) => `t${at}`);
  const row = modelOf(
    bpmnWith(
      inARow(start, ...names.map((name) => task(name)), end),
      of("s", every(exponential(60))) +
        names.map((name) => of(name, timeOf(exponential(40)) + needs(`r${name}`)) + resource(`r${name}`, 1)).join(""),
      "",
      clerks(...names.map((name) => `r${name}`)),
    ),
  );
  const scenario = scenariosOf(row)[0] as Scenario;
  const cases = 100_000 / steps;
  timed(row, scenario, cases / 10);
  const { seconds, result } = timed(row, scenario, cases);
  return seconds / result.steps;
}

/** How quick a forecast is, and how its time grows. */
export function forecastRows(): BenchRow[] {
  const queue = modelOf(station(exponential(60), exponential(40), 1));
  const ofQueue = scenariosOf(queue)[0] as Scenario;
  const { model, scenario } = demo();
  timed(queue, ofQueue, 20_000);
  timed(model, scenario, 2_000);
  const some = timed(queue, ofQueue, 50_000);
  const many = timed(queue, ofQueue, 500_000);
  const demoRun = timed(model, scenario, 10_000);
  const knob = timed(model, scenario, 2_000);
  const steps = demoRun.result.steps;
  const rate = steps / demoRun.seconds;
  const bare = bareLoop(steps);
  const growth = many.seconds / some.seconds;
  const [few, wide] = [perStep(10), perStep(200)];
  const world = worldWith(model, new Map(), true);
  const exact = slowest(10, () => exactOf(world, scenario));
  const followed = slowest(5, () => follow(world, scenario, 99));
  return [
    {
      what: "forecast, token steps a second (the demo's as-is, one thread)",
      measured: `${Math.round(rate).toLocaleString("en")}`,
      goal: "≥ 1,000,000",
      met: rate >= 1_000_000,
    },
    {
      what: "forecast against a bare loop over the same heap with as many events",
      measured: `${(demoRun.seconds / bare).toFixed(1)} ×`,
      goal: "≤ 5 ×",
      met: demoRun.seconds <= 5 * bare,
    },
    {
      what: "forecast, 10,000 cases of the demo's as-is",
      measured: `${demoRun.seconds.toFixed(2)} s, ${steps.toLocaleString("en")} steps`,
      goal: "≤ 1 s",
      met: demoRun.seconds <= 1,
    },
    {
      what: "forecast, figures of 2,000 cases after a knob was turned",
      measured: `${(knob.seconds * 1000).toFixed(0)} ms`,
      goal: "≤ 1 s",
      met: knob.seconds <= 1,
    },
    {
      what: "forecast, worked out without playing after a knob was turned (the slowest of ten)",
      measured: `${exact.toFixed(0)} ms`,
      goal: "≤ 300 ms",
      met: exact <= 300,
    },
    {
      what: "forecast, the hundredth case followed anew after a choice by hand (the slowest of five)",
      measured: `${followed.toFixed(0)} ms`,
      goal: "≤ 300 ms",
      met: followed <= 300,
    },
    {
      what: "forecast, ten times the cases (one station, 50,000 and 500,000)",
      measured: `${growth.toFixed(1)} × the time; ${many.seconds.toFixed(1)} s`,
      goal: "linear: ≤ 13 ×",
      met: growth <= 13,
    },
    {
      what: "forecast, a step with twenty times the elements and roles (200 steps in a row, each of its own role, and 10)",
      measured: `${(wide * 1e6).toFixed(2)} µs and ${(few * 1e6).toFixed(2)} µs a token step`,
      goal: "≤ 3 ×",
      met: wide <= 3 * few,
    },
  ];
}
