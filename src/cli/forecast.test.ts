import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, test } from "vitest";
import {
  bpmnWith,
  clerks,
  end,
  every,
  exponential,
  inARow,
  needs,
  of,
  resource,
  start,
  station,
  task,
  timeOf,
} from "@/core/forecast/testing/models";

const folder = mkdtempSync(join(tmpdir(), "lane-forecast-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const file = (name: string, text: string) => {
  writeFileSync(join(folder, name), text);
  return join(folder, name);
};
const lane = (...args: string[]) => {
  const done = spawnSync(process.execPath, ["scripts/lane.mjs", "forecast", ...args], { encoding: "utf8" });
  return { code: done.status, out: done.stdout, error: done.stderr };
};
const queue = file("queue.bpmn", station(exponential(60), exponential(30), 1));
const two = file("two.bpmn", station(exponential(60), exponential(30), 2));

describe("lane forecast", () => {
  test("prints the figures of the contract, and the same ones for the same seed", () => {
    const done = lane(queue, "--cases", "4000", "--seed", "3", "--replications", "4", "--json");
    expect(done.code).toBe(0);
    const figures = JSON.parse(done.out);
    expect(figures).toMatchObject({ cases: 4000, seed: 3, replications: 4 });
    for (const name of ["mean", "p50", "p90", "p95"]) expect(figures.cycleTime[name]).toBeGreaterThan(0);
    const [low, high] = figures.cycleTime.ci95;
    expect(low).toBeLessThan(figures.cycleTime.mean);
    expect(high).toBeGreaterThan(figures.cycleTime.mean);
    // M/M/1 with half the time busy: an hour in all, half of it waiting.
    expect(Math.abs(figures.cycleTime.mean / 3600 - 1)).toBeLessThan(0.1);
    expect(figures.waitingTime.mean + figures.processingTime.mean).toBeCloseTo(figures.cycleTime.mean, 6);
    expect(figures.cost).toMatchObject({ mean: 0, total: 0 });
    expect(figures.elements.find((one: { id: string }) => one.id === "a")).toMatchObject({ count: 4000 });
    expect(figures.resources).toMatchObject([{ id: "r", quantity: 1 }]);
    expect(figures.resources[0].utilization).toBeCloseTo(0.5, 1);
    expect(lane(queue, "--cases", "4000", "--seed", "3", "--replications", "4", "--json").out).toBe(done.out);
  });

  test("speaks to a person, with what was not said", () => {
    const bare = file("bare.bpmn", bpmnWith(inARow(start, task("a"), end), of("a", timeOf(exponential(30)))));
    const { out, code } = lane(bare, "--cases", "50");
    expect(code).toBe(0);
    expect(out).toContain("not said: P; taken: cases come one after the other");
    expect(out).toMatch(/A case takes [\d.]+ min/);
  });

  test("compares with another file, and turns an input", () => {
    const { out } = lane(
      queue,
      "--cases",
      "800",
      "--replications",
      "4",
      "--compare",
      two,
      "--vary",
      "r.quantity=1..3:1",
      "--json",
    );
    const figures = JSON.parse(out);
    expect(figures.compare.resources[0].quantity).toBe(2);
    expect(figures.difference[0]).toMatchObject({ figure: "cycleTime", isMoreThanChance: true });
    expect(figures.difference[0].difference).toBeLessThan(0);
    expect(figures.vary.map((one: { value: number }) => one.value)).toEqual([1, 2, 3]);
    const spoken = lane(
      queue,
      "--cases",
      "800",
      "--replications",
      "4",
      "--compare",
      two,
      "--vary",
      "s.interval=30 min..60 min:30 min",
    );
    expect(spoken.out).toContain("more than chance");
    expect(spoken.out).toMatch(/^1800: /m);
  });

  const second = file(
    "scenarios.bpmn",
    station(exponential(60), exponential(30), 1).replace(
      "</bpsim:Scenario>",
      `</bpsim:Scenario><bpsim:Scenario id="s2" name="Two of them" inherits="s1">${resource("r", 2)}</bpsim:Scenario>`,
    ),
  );
  test("takes the scenario that is named, by name or id", () => {
    for (const name of ["Two of them", "s2"])
      expect(JSON.parse(lane(second, "--scenario", name, "--cases", "100", "--json").out).resources[0].quantity).toBe(
        2,
      );
  });

  const unsound = file(
    "unsound.bpmn",
    bpmnWith(
      '<bpmn:startEvent id="s"/><bpmn:exclusiveGateway id="g"/><bpmn:task id="a"/><bpmn:task id="b"/><bpmn:parallelGateway id="j"/><bpmn:endEvent id="e"/><bpmn:sequenceFlow id="f1" sourceRef="s" targetRef="g"/><bpmn:sequenceFlow id="f2" sourceRef="g" targetRef="a"/><bpmn:sequenceFlow id="f3" sourceRef="g" targetRef="b"/><bpmn:sequenceFlow id="f4" sourceRef="a" targetRef="j"/><bpmn:sequenceFlow id="f5" sourceRef="b" targetRef="j"/><bpmn:sequenceFlow id="f6" sourceRef="j" targetRef="e"/>',
      of("s", every(exponential(60))),
    ),
  );
  const none = file(
    "none.bpmn",
    bpmnWith(inARow(start, task("a"), end), "").replace(/<bpmn:relationship[\s\S]*<\/bpmn:relationship>/, ""),
  );
  test.each([
    [[queue, "--scenario", "spring"], 'there is no scenario "spring"; there are "One"'],
    [[queue, "--cases", "many"], "write a whole number from 1 to 10000000"],
    [[queue, "--cases"], "--cases needs a value behind it"],
    [[queue, "--speed", "9"], "forecast knows no --speed"],
    [[queue, "--vary", "r.quantity=1..3"], "write INPUT=FROM..TO:STEP"],
    [[queue, "--vary", "nobody.quantity=1..3:1"], "there is no such input"],
    [[], "forecast needs one file"],
    [[unsound], 'the process "P" is not sound'],
    [[none], "there is no simulation data (BPSim) in this file"],
  ])("%j is refused in one line", (args, reason) => {
    const done = lane(...args);
    expect(done.code).toBe(2);
    expect(done.error).toMatch(/^lane: .+\n$/);
    expect(done.error).toContain(reason);
  });

  test("a selection that names nobody is served by one of that name", () => {
    const text = bpmnWith(
      inARow(start, task("a"), end),
      of("s", every(exponential(60))) + of("a", timeOf(exponential(30)) + needs("r")),
      "",
      clerks("r"),
    );
    const figures = JSON.parse(lane(file("unnumbered.bpmn", text), "--cases", "200", "--json").out);
    expect(figures.resources).toMatchObject([{ id: "r", quantity: 1 }]);
    expect(figures.gaps).toMatchObject([{ kind: "quantity", element: "r" }]);
  });
});
