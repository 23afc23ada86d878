import { afterAll, beforeEach, describe, expect, test } from "vitest";
import type { RunFigures } from "@/contract/live";
import { chain, end, file, flow, node, processOf, start, task } from "@/core/live/testing/models";
import { leaveWorkspace, openWorkspace, run } from "../testing/workspace";
import { act, started } from "./testing/startedRun";

beforeEach(() => openWorkspace());
afterAll(leaveWorkspace);

const hour = 3_600_000;
const text = file(
  processOf(
    start +
      task("check") +
      node("exclusiveGateway", "g") +
      task("mend") +
      task("pass") +
      end +
      chain("s", "check", "g") +
      flow("g", "mend", "bad = true", "toMend") +
      flow("g", "pass", "bad = false", "toPass") +
      chain("mend", "e") +
      chain("pass", "e"),
  ),
);

const sequence = file(processOf(start + task("first") + task("second") + end + chain("s", "first", "second", "e")));

describe("figures of a run", () => {
  test("days, ages, durations, people, steps and ways are what was done by the run's clock", async () => {
    const { at, begin, work, monitor } = await started(text);
    const { now } = await monitor();
    const takeOn = async (label: string) => {
      const item = (await work()).find((one) => one.label === label);
      if (!item) throw new Error(`no work called ${label}`);
      const on = { ...at, number: item.number, wait: item.wait };
      await run("assignWork", { ...on, act: act(), to: "member-local" });
      return on;
    };
    const move = (hours: number) => run("setClock", { ...at, to: now + hours * hour });
    await begin();
    await move(2);
    const first = await takeOn("check");
    await move(3);
    await run("completeWork", { ...first, act: act(), values: { bad: true } });
    const second = await takeOn("mend");
    await move(24);
    await run("completeWork", { ...second, act: act(), values: {} });
    await begin();
    await move(26);
    const figures = await run<RunFigures>("runFigures", { ...at, days: 7 });
    expect(figures.days).toHaveLength(7);
    expect(figures.days.slice(-3).reduce((sum, { began }) => sum + began, 0)).toBe(2);
    expect(figures.days.at(-1)).toMatchObject({ open: 1 });
    expect(figures.ages).toEqual([2 * 3600]);
    expect(figures.ended).toMatchObject([{ number: 1, seconds: 24 * 3600 }]);
    expect(figures.people).toEqual([{ name: "Mara Aldous", done: 2, workingMean: (3600 + 21 * 3600) / 2 }]);
    expect(figures.measured).toBe(1);
    expect(figures.steps.find(({ element }) => element === "check")).toMatchObject({
      waitingMean: 2 * 3600,
      workingMean: 3600,
      working: { kind: "constant", value: 3600 },
    });
    expect(figures.steps.find(({ element }) => element === "mend")).toMatchObject({
      waitingMean: 0,
      workingMean: 21 * 3600,
    });
    expect(figures.ways).toEqual([{ flow: "toMend", gateway: "g", name: "g: mend", share: 1 }]);
  });

  test("a run in which nothing has happened yet has figures, all of them empty", async () => {
    const { at } = await started(text);
    const figures = await run<RunFigures>("runFigures", { ...at, days: 3 });
    expect(figures).toMatchObject({
      ages: [],
      ended: [],
      people: [],
      measured: 0,
      interval: null,
      steps: [],
      ways: [],
    });
    expect(figures.days.every(({ open, began, ended }) => open + began + ended === 0)).toBe(true);
  });

  // Little's law (Little 1961): the mean number under way is the rate of arrivals times the mean time under way, over whole cases.
  test("of a load run the mean number under way is the arrival rate times the mean time under way", async () => {
    const { at, monitor } = await started(sequence);
    await run("runStaff", { ...at, days: 200, most: 2_000 });
    const { now } = await monitor();
    const { days, ended, ages } = await run<RunFigures>("runFigures", { ...at, days: 201 });
    const total = days.reduce((sum, { began }) => sum + began, 0);
    expect(total).toBeGreaterThan(900);
    const span = days.length;
    const meanOpen = days.reduce((sum, { open }) => sum + open, 0) / span;
    const meanDays = ended.reduce((sum, { seconds }) => sum + seconds, 0) / ended.length / 86_400;
    const rate = total / span;
    // The last 500 stand for all; a day's end for the day.
    expect(Math.abs(meanOpen - rate * meanDays) / meanOpen).toBeLessThan(0.1);
    expect(days.at(-1)?.open).toBe(ages.length);
    expect(days.at(-1)?.day).toBeLessThanOrEqual(now);
  });
});
