import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import type { Model } from "../model";
import { constant, scenariosOf } from "../scenario";
import { expectOk, performAll } from "../testing/models";
import { follow } from "./follow";
import { forecast } from "./forecast";
import {
  bpmnWith,
  clerks,
  end,
  every,
  exponential,
  flow,
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

/** Two steps of two people, an hour between cases unless said otherwise. */
const twoSteps = (interval = number(600), work = number(10)) =>
  modelOf(
    bpmnWith(
      inARow(start, task("a"), task("b"), task("k"), end),
      of("s", every(interval)) +
        of("a", timeOf(work) + needs("desk")) +
        of("b", timeOf(work) + needs("depot")) +
        of("k", timeOf(work) + needs("depot")) +
        resource("desk", 20) +
        resource("depot", 20),
      "",
      clerks("desk", "depot"),
    ),
  );
const at = (element: string, site: string) =>
  ({ type: "setAssumption", scenario: "s1", element, parameter: "site", value: site }) as const;
const link = (minutes: number, capacity?: number) =>
  ({
    type: "setSites",
    scenario: "s1",
    words: {
      from: "Office",
      to: "Harbour",
      delay: constant(minutes * 60),
      ...(capacity !== undefined && { capacity }),
    },
  }) as const;
const played = (model: Model, cases = 200) => {
  const { world, scenario } = readyOf(model);
  return forecast(world, scenario, { cases, seed: 3 });
};
const minutes = (model: Model) => played(model).cycleTime.mean / 60;

describe("sites", () => {
  test("a hand-over to another site takes its time, one within a site none; the way back is as the way there", () => {
    const model = performAll(twoSteps(), at("desk", "Office"), at("depot", "Harbour"), link(45));
    expect(minutes(model)).toBeCloseTo(30 + 45, 6);
    expect(minutes(performAll(model, at("depot", "Office")))).toBeCloseTo(30, 6);
    expect(minutes(performAll(model, at("desk", "Harbour"), at("depot", "Office")))).toBeCloseTo(30 + 45, 6);
  });

  test("where nothing is said of what lies between, that is told", () => {
    const model = performAll(twoSteps(), at("desk", "Office"), at("depot", "Harbour"));
    expect(minutes(model)).toBeCloseTo(30, 6);
    expect(played(model).gaps).toContainEqual(expect.objectContaining({ kind: "link", name: "Office → Harbour" }));
  });

  // The way as a station with one place and no waiting room of its own: M/M/1, W = ρ m / (1 − ρ) (Kleinrock 1, 3.2).
  test("a way with room for one at a time is a queue of its own, and shows as one", () => {
    const model = performAll(twoSteps(exponential(60), number(0)), at("desk", "Office"), at("depot", "Harbour"), {
      ...link(0, 1),
      words: { from: "Office", to: "Harbour", delay: { kind: "exponential", mean: 40 * 60 }, capacity: 1 },
    });
    const result = played(model, 30_000);
    const way = result.resources.find(({ name }) => name === "Office → Harbour");
    const load = 40 / 60;
    expect(Math.abs((way?.utilization ?? 0) / load - 1)).toBeLessThan(0.03);
    expect(Math.abs((way?.waitingMean ?? 0) / 60 / ((load * 40) / (1 - load)) - 1)).toBeLessThan(0.1);
    expect(result.cost.total).toBe(0);
  });

  test("the site that counts is that of the step one comes from, also where ways go on side by side", () => {
    const model = modelOf(
      bpmnWith(
        `${start}<bpmn:parallelGateway id="g"/>${task("a")}${task("b")}${task("c")}${task("k")}<bpmn:parallelGateway id="j"/>${end}${flow("f1", "s", "g")}${flow("f2", "g", "a")}${flow("f3", "g", "b")}${flow("f4", "a", "c")}${flow("f5", "b", "k")}${flow("f6", "c", "j")}${flow("f7", "k", "j")}${flow("f8", "j", "e")}`,
        of("s", every(number(600))) +
          of("a", timeOf(number(10)) + needs("desk")) +
          of("b", timeOf(number(12)) + needs("depot")) +
          of("c", timeOf(number(10)) + needs("desk")) +
          of("k", timeOf(number(12)) + needs("depot")) +
          resource("desk", 20) +
          resource("depot", 20),
        "",
        clerks("desk", "depot"),
      ),
    );
    // Each way stays at its site, though the other one's step is the last that was done.
    expect(minutes(performAll(model, at("desk", "Office"), at("depot", "Harbour"), link(45)))).toBeCloseTo(24, 6);
  });

  test("a system elsewhere is called at each step that uses it", () => {
    const model = performAll(
      twoSteps(),
      at("desk", "Office"),
      at("depot", "Office"),
      { type: "useSystem", step: "b", system: { entry: "archive", name: "Archive" }, use: "reads" },
      { type: "setSites", scenario: "s1", words: { system: "archive", site: "Harbour" } },
      link(5),
    );
    expect(minutes(model)).toBeCloseTo(35, 6);
  });

  // A system that one case can use at a time is a station with one place: M/M/1, W = ρ m / (1 − ρ) (Kleinrock 1, 3.2).
  test("a system with room for one at a time is waited for, also by a step that runs by itself, beside who does others", () => {
    const step = { entry: "archive", name: "Archive" };
    const text = bpmnWith(
      `${start}<bpmn:serviceTask id="x" name="x"/>${end}${flow("f1", "s", "x")}${flow("f2", "x", "e")}`,
      of("s", every(exponential(60))) + of("x", timeOf(exponential(40))),
    );
    const used = performAll(modelOf(text), { type: "useSystem", step: "x", system: step, use: "reads" });
    expect(played(used).resources).toEqual([]);
    const one = performAll(used, { type: "setSites", scenario: "s1", words: { system: "archive", capacity: 1 } });
    const result = played(one, 30_000);
    const load = 40 / 60;
    expect(result.resources.map(({ name }) => name)).toEqual(["Archive"]);
    expect(Math.abs((result.resources[0]?.utilization ?? 0) / load - 1)).toBeLessThan(0.03);
    expect(Math.abs((result.resources[0]?.waitingMean ?? 0) / 60 / ((load * 40) / (1 - load)) - 1)).toBeLessThan(0.1);
    // Two of twenty people at a desk have to wait for the one place.
    const both = performAll(
      twoSteps(number(5)),
      { type: "useSystem", step: "a", system: step, use: "reads" },
      { type: "setSites", scenario: "s1", words: { system: "archive", capacity: 1 } },
    );
    const [wide, narrow] = [twoSteps(number(5)), both].map((model) => played(model, 50).cycleTime.mean / 60);
    expect(wide).toBeCloseTo(30, 6);
    expect(narrow).toBeGreaterThan(60);
  });

  test("a message from a pool elsewhere is on its way as long", () => {
    const text = bpmnWith(
      `${start}${task("a")}<bpmn:receiveTask id="r"/>${end}${flow("f1", "s", "a")}${flow("f2", "a", "r")}${flow("f3", "r", "e")}`,
      of("s", every(number(600))) + of("a", timeOf(number(10))) + of("x", timeOf(number(30))),
      "",
      `<bpmn:collaboration id="col"><bpmn:participant id="p1" name="One" processRef="p"/><bpmn:participant id="p2" name="Two" processRef="q"/><bpmn:messageFlow id="m1" sourceRef="a" targetRef="s2"/><bpmn:messageFlow id="m2" sourceRef="x" targetRef="r"/></bpmn:collaboration><bpmn:process id="q"><bpmn:startEvent id="s2"><bpmn:messageEventDefinition/></bpmn:startEvent><bpmn:sendTask id="x"/><bpmn:endEvent id="e9"/>${flow("g1", "s2", "x")}${flow("g2", "x", "e9")}</bpmn:process>`,
    );
    expect(minutes(modelOf(text))).toBeCloseTo(40, 6);
    const apart = performAll(modelOf(text), at("p1", "Office"), at("p2", "Harbour"), link(45));
    // There, where it begins the other process, and back.
    expect(minutes(apart)).toBeCloseTo(40 + 45 + 45, 6);
    const drawn = performAll(modelOf(text), at("p1", "Office"), at("p2", "Harbour"), {
      ...link(0),
      words: { from: "Office", to: "Harbour", delay: { kind: "exponential", mean: 45 * 60 } },
    });
    expect(Math.abs(played(drawn, 4_000).cycleTime.mean / 60 / 130 - 1)).toBeLessThan(0.04);
  });

  test("one that ends a step at its edge, or is the first of several events, is on its way as long", () => {
    const pools = (caught: string) =>
      `<bpmn:collaboration id="col"><bpmn:participant id="p1" name="One" processRef="p"/><bpmn:participant id="p2" name="Two" processRef="q"/><bpmn:messageFlow id="m1" sourceRef="a" targetRef="s2"/><bpmn:messageFlow id="m2" sourceRef="x" targetRef="${caught}"/></bpmn:collaboration><bpmn:process id="q"><bpmn:startEvent id="s2"><bpmn:messageEventDefinition/></bpmn:startEvent><bpmn:sendTask id="x"/><bpmn:endEvent id="e9"/>${flow("g1", "s2", "x")}${flow("g2", "x", "e9")}</bpmn:process>`;
    const figures =
      of("s", every(number(600))) +
      of("a", timeOf(number(10))) +
      of("b", timeOf(number(500))) +
      of("x", timeOf(number(30)));
    const message = "<bpmn:messageEventDefinition/>";
    const late = "<bpmn:timerEventDefinition><bpmn:timeDuration>PT3H</bpmn:timeDuration></bpmn:timerEventDefinition>";
    const atEdge = `${start}${task("a")}${task("b")}<bpmn:boundaryEvent id="w" attachedToRef="b">${message}</bpmn:boundaryEvent>${end}<bpmn:endEvent id="e2"/>${flow("f1", "s", "a")}${flow("f2", "a", "b")}${flow("f3", "b", "e")}${flow("f4", "w", "e2")}`;
    const first = `${start}${task("a")}<bpmn:eventBasedGateway id="g"/><bpmn:intermediateCatchEvent id="c">${message}</bpmn:intermediateCatchEvent><bpmn:intermediateCatchEvent id="t">${late}</bpmn:intermediateCatchEvent>${end}<bpmn:endEvent id="e2"/>${flow("f1", "s", "a")}${flow("f2", "a", "g")}${flow("f3", "g", "c")}${flow("f4", "g", "t")}${flow("f5", "c", "e")}${flow("f6", "t", "e2")}`;
    for (const [inside, caught] of [
      [atEdge, "w"],
      [first, "c"],
    ] as const) {
      const model = modelOf(bpmnWith(inside, figures, "", pools(caught)));
      expect(minutes(model)).toBeCloseTo(40, 6);
      const apart = performAll(model, at("p1", "Office"), at("p2", "Harbour"), link(45));
      expect(minutes(apart)).toBeCloseTo(10 + 45 + 30 + 45, 6);
    }
    // Longer on its way than the timer waits.
    const slow = performAll(
      modelOf(bpmnWith(first, figures, "", pools("c"))),
      at("p1", "Office"),
      at("p2", "Harbour"),
      link(100),
    );
    expect(minutes(slow)).toBeCloseTo(10 + 180, 6);
  });

  test("what is waited for again in a case is on its way for another time, by a chance of its own", () => {
    const model = performAll(
      modelOf(
        bpmnWith(
          `${start}${task("a")}<bpmn:exclusiveGateway id="j"/><bpmn:receiveTask id="r"/><bpmn:exclusiveGateway id="g"/>${end}${flow("f1", "s", "a")}${flow("f2", "a", "j")}${flow("f3", "j", "r")}${flow("f4", "r", "g")}${flow("fb", "g", "j")}${flow("fe", "g", "e")}`,
          of("s", every(number(6000))) +
            of("a", timeOf(number(10))) +
            of("x", timeOf(number(30))) +
            of("y", timeOf(number(900))),
          "",
          `<bpmn:collaboration id="col"><bpmn:participant id="p1" name="One" processRef="p"/><bpmn:participant id="p2" name="Two" processRef="q"/><bpmn:messageFlow id="m1" sourceRef="a" targetRef="s2"/><bpmn:messageFlow id="m2" sourceRef="x" targetRef="r"/><bpmn:messageFlow id="m3" sourceRef="y" targetRef="r"/></bpmn:collaboration><bpmn:process id="q"><bpmn:startEvent id="s2"><bpmn:messageEventDefinition/></bpmn:startEvent><bpmn:sendTask id="x"/><bpmn:sendTask id="y"/><bpmn:endEvent id="e9"/>${flow("g1", "s2", "x")}${flow("g2", "x", "y")}${flow("g3", "y", "e9")}</bpmn:process>`,
        ),
      ),
      at("p1", "Office"),
      at("p2", "Harbour"),
      {
        type: "setSites",
        scenario: "s1",
        words: { from: "Harbour", to: "Office", delay: { kind: "exponential", mean: 600 } },
      },
      { type: "setSites", scenario: "s1", words: { from: "Office", to: "Harbour", delay: constant(0) } },
    );
    const { world, scenario } = readyOf(model);
    const way = (flows: string) => ({ does: "pass", flows: [flows] }) as const;
    const case0 = follow(world, scenario, 0, new Map([["g", [way("fb"), way("fe")]]]));
    const began = case0?.began ?? 0;
    const came = case0?.moments.flatMap(({ at: when, what }) =>
      what.kind === "act" && what.act.node === "r" && what.act.does !== "begin" ? [when - began] : [],
    ) as number[];
    expect(came).toHaveLength(2);
    // Sent after 40 and after 940 minutes.
    const [first, second] = [came[0] ?? 0, came[1] ?? 0].map((when, n) => when - (n === 0 ? 40 : 940) * 60);
    expect(first).toBeGreaterThan(0);
    expect(second).toBeGreaterThan(0);
    expect(Math.abs((first ?? 0) - (second ?? 0))).toBeGreaterThan(1);
  });

  test("a step that is broken off on the way gives its room back", () => {
    const late = "<bpmn:timerEventDefinition><bpmn:timeDuration>PT10M</bpmn:timeDuration></bpmn:timerEventDefinition>";
    const model = performAll(
      modelOf(
        bpmnWith(
          `${start}${task("a")}${task("b")}<bpmn:boundaryEvent id="w" attachedToRef="b">${late}</bpmn:boundaryEvent>${end}<bpmn:endEvent id="e2"/>${flow("f1", "s", "a")}${flow("f2", "a", "b")}${flow("f3", "b", "e")}${flow("f4", "w", "e2")}`,
          of("s", every(number(15))) +
            of("a", timeOf(number(1)) + needs("desk")) +
            of("b", timeOf(number(1)) + needs("depot")) +
            resource("desk", 5) +
            resource("depot", 5),
          "",
          clerks("desk", "depot"),
        ),
      ),
      at("desk", "Office"),
      at("depot", "Harbour"),
      link(60, 1),
    );
    const result = played(model, 100);
    expect(result.cycleTime.mean / 60).toBeCloseTo(11, 6);
    expect(result.resources.find(({ name }) => name === "Office → Harbour")?.waitingMean).toBeCloseTo(0, 6);
  });

  test("sites and the zone stay with the file", () => {
    const model = performAll(
      twoSteps(),
      at("desk", "Office & yard"),
      at("depot", "Harbour"),
      { type: "setSites", scenario: "s1", words: { system: "archive", site: "Harbour", capacity: 3 } },
      link(45, 2),
      { type: "setScenario", id: "s1", words: { zone: "Europe/Lisbon" } },
    );
    const [before] = scenariosOf(model);
    const [after] = scenariosOf(expectOk(readBpmn(writeBpmn(model))));
    expect(after?.sites).toEqual(before?.sites);
    expect(after?.sites.roomOf).toEqual(new Map([["archive", 3]]));
    expect(after?.sites.links).toEqual([
      { from: "Office", to: "Harbour", delay: [{ value: constant(45 * 60) }], capacity: 2 },
    ]);
    expect(after?.of.get("desk")?.site).toBe("Office & yard");
    expect(after?.zone).toBe("Europe/Lisbon");
    const without = performAll(
      model,
      { type: "setScenario", id: "s1", words: { zone: null } },
      { type: "setAssumption", scenario: "s1", element: "desk", parameter: "site", value: null },
      { type: "setSites", scenario: "s1", words: { from: "Office", to: "Harbour", delay: null, capacity: null } },
      { type: "setSites", scenario: "s1", words: { system: "archive", site: null, capacity: null } },
    );
    const [bare] = scenariosOf(without);
    expect(bare?.sites).toEqual({ ofSystems: new Map(), roomOf: new Map(), links: [] });
    expect([bare?.zone, bare?.of.get("desk")?.site]).toEqual(["UTC", undefined]);
  });
});
