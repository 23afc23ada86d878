import { describe, expect, test } from "vitest";
import { entryOf } from "../model";
import { readInput, scenariosOf, withInput } from "../scenario";
import { performAll } from "../testing/models";
import { worldWith } from "../tokens";
import { howAssumed } from "./completeness";
import { withDirectory } from "./defaults";
import { forecast } from "./forecast";
import { whatMatters } from "./matters";
import { staffingFor } from "./staffing";
import {
  batchInterval95,
  interval95,
  proposedWarmUp,
  quantileOf,
  replicationsFor,
  studentQuantile,
} from "./statistics";
import { storyOf } from "./story";
import {
  bpmnWith,
  clerks,
  end,
  every,
  exponential,
  forecastOf,
  inARow,
  modelOf,
  needs,
  number,
  of,
  resource,
  start,
  station,
  task,
  timeOf,
} from "./testing/models";

describe("one input turned", () => {
  const model = modelOf(station(exponential(60), exponential(30), 1));
  const [scenario] = scenariosOf(model);
  if (!scenario) throw new Error("no scenario");
  const mean = (changed: typeof scenario) =>
    forecast(worldWith(model, new Map(), true), changed, { cases: 3_000 }).cycleTime.mean / 60;

  test.each([
    ["r.quantity", { element: "r", what: "quantity" }],
    ["s.interval", { element: "s", what: "interval" }],
    ["a.time", { element: "a", what: "processing" }],
    ["nobody.time", undefined],
    ["a.colour", undefined],
  ])("%s", (words, input) => {
    expect(readInput(model, scenario, words)).toEqual(input);
  });

  test("more people, fewer cases and shorter work each make it quicker", () => {
    const now = mean(scenario);
    expect(mean(withInput(scenario, { element: "r", what: "quantity" }, 2))).toBeLessThan(now);
    expect(mean(withInput(scenario, { element: "s", what: "interval" }, 7200))).toBeLessThan(now);
    const halved = withInput(scenario, { element: "a", what: "processing" }, 900);
    expect(halved.of.get("a")?.times.processing).toEqual([{ value: { kind: "exponential", mean: 900 } }]);
    expect(mean(halved)).toBeLessThan(now / 2);
  });
});

test("what matters most stands first: of a full station the work, of an empty one nothing but the work", () => {
  const model = modelOf(
    bpmnWith(
      inARow(start, task("a"), task("b"), end),
      of("s", every(exponential(60))) +
        of("a", timeOf(exponential(50)) + needs("r")) +
        of("b", timeOf(exponential(5)) + needs("q")) +
        resource("r", 1) +
        resource("q", 1),
      "",
      clerks("r", "q"),
    ),
  );
  const [scenario] = scenariosOf(model);
  if (!scenario) throw new Error("no scenario");
  const shares: number[] = [];
  const effects = whatMatters(
    scenario,
    [
      { element: "b", what: "processing" },
      { element: "a", what: "processing" },
      { element: "s", what: "interval" },
      { element: "q", what: "quantity" },
      { element: "nobody", what: "quantity" },
    ],
    ({ cycleTime }) => cycleTime.mean,
    (one) => forecast(worldWith(model, new Map(), true), one, { cases: 4_000 }),
    (share) => shares.push(share),
  );
  expect(effects).toHaveLength(4);
  expect(new Set(effects.slice(0, 2).map(({ input }) => input.element))).toEqual(new Set(["a", "s"]));
  const [work] = effects.filter(({ input }) => input.element === "a");
  expect(work?.atHigh).toBeGreaterThan(work?.atLow ?? 0);
  // Nobody waits for the second: one more of them changes hardly anything.
  expect(effects.at(-1)?.range).toBeLessThan((effects[0]?.range ?? 0) / 20);
  expect(shares[0]).toBe(0);
});

describe("how many people", () => {
  const model = modelOf(
    bpmnWith(
      inARow(start, task("a"), task("b"), end),
      of("s", every(exponential(20))) +
        of("a", timeOf(exponential(30)) + needs("r")) +
        of("b", timeOf(exponential(10)) + needs("q")) +
        resource("r", 1, 60) +
        resource("q", 4, 20),
      "",
      clerks("r", "q"),
    ),
  );
  const [scenario] = scenariosOf(model);
  if (!scenario) throw new Error("no scenario");
  const run = (one: typeof scenario) =>
    forecast(worldWith(model, new Map(), true), one, { cases: 1_500, replications: 2 });
  const people = [
    { id: "r", quantity: 1, rate: 60 },
    { id: "q", quantity: 4, rate: 20 },
  ];
  const counts = (quantities: ReadonlyMap<string, number>) => [...quantities.values()];

  test("people are added where there are too few and taken away where there are too many", async () => {
    const target = { within: 150 * 60, share: 0.9 };
    const { kept, isWhole } = await staffingFor(scenario, people, target, run);
    const [best] = kept;
    expect(isWhole).toBe(true);
    if (!best) throw new Error("nothing keeps it");
    expect(best.inTime).toBeGreaterThanOrEqual(0.9);
    const [r = 0, q = 0] = counts(best.quantities);
    expect(r).toBeGreaterThanOrEqual(2);
    expect(q).toBeLessThan(4);
    // By brute force nothing cheaper keeps it.
    for (let one = 1; one <= 4; one++)
      for (let other = 1; other <= 4; other++) {
        if (one * 60 + other * 20 >= best.hourly) continue;
        const tried = withInput(
          withInput(scenario, { element: "r", what: "quantity" }, one),
          { element: "q", what: "quantity" },
          other,
        );
        const found = run(tried);
        expect(
          found.durations.filter((seconds) => seconds <= target.within).length / found.durations.length,
        ).toBeLessThan(0.9);
      }
  });

  test("what nobody can keep is told with what came nearest, and a search can be ended", async () => {
    const { kept, nearest } = await staffingFor(scenario, people, { within: 60, share: 0.9 }, run, () => undefined, 8);
    expect(kept).toEqual([]);
    expect(nearest?.keeps).toBe(false);
    await expect(
      staffingFor(scenario, people, { within: 60, share: 0.9 }, run, (tried) => {
        if (tried > 1) throw new Error("enough");
      }),
    ).rejects.toThrow("enough");
  });
});

describe("the story", () => {
  test("names who is waited for and where", () => {
    const result = forecastOf(station(exponential(60), exponential(50), 1), { cases: 2_000 });
    const story = storyOf(result);
    expect(story.bottleneck).toMatchObject({ resource: { id: "r" }, element: { id: "a" } });
    expect(story.waitingShare).toBeCloseTo(result.waitingTime.mean / result.cycleTime.mean, 6);
    expect(story.overrun).toEqual([]);
    expect(storyOf(forecastOf(station(exponential(60), exponential(80), 1), { cases: 2_000 })).overrun).toEqual(["r"]);
  });

  test("tells events apart from people", () => {
    const text = bpmnWith(
      inARow(start, '<bpmn:receiveTask id="w" name="Wait"/>', task("a"), end),
      of("s", every(number(600))) +
        of("w", timeOf(number(300), "WaitTime")) +
        of("a", timeOf(number(10)) + needs("r")) +
        resource("r", 1),
      "",
      clerks("r"),
    );
    const story = storyOf(forecastOf(text, { cases: 100 }));
    expect(story.event?.id).toBe("w");
    expect(story.bottleneck).toBeUndefined();
    expect(story.forPeople).toBe(0);
  });
});

test("how much is said: nothing, something, enough", () => {
  const whole = station(exponential(60), exponential(30), 1);
  expect(howAssumed(modelOf(whole))).toBe("enough");
  expect(howAssumed(modelOf(whole.replace(/<bpmn:relationship[\s\S]*<\/bpmn:relationship>/, "")))).toBe("nothing");
  expect(howAssumed(modelOf(bpmnWith(inARow(start, task("a"), end), of("a", timeOf(number(5))))))).toBe("something");
});

test("what a directory says of roles is taken where a scenario says nothing", () => {
  const lane = { entry: "role-desk", name: "Front desk" };
  const bare = modelOf(
    bpmnWith(inARow(start, task("a"), end), of("s", every(number(30))) + of("a", timeOf(number(20)))),
  );
  const model = performAll(bare, { type: "assignRole", step: "a", role: lane, part: "responsible", id: "who" });
  const [scenario] = scenariosOf(model);
  const resourceId =
    [...model.elements].find((element) => element.type === "resource" && entryOf(element) === "role-desk")?.id ?? "";
  if (!scenario) throw new Error("no scenario");
  const role = { id: "role-desk", headcount: 1.5, costPerHour: 60, hoursPerWeek: 40 };
  const { scenario: whole, taken } = withDirectory(scenario, model, new Map([[role.id, role]]));
  // One and a half people are two who work three quarters of the week.
  expect(taken).toEqual([{ element: resourceId, entry: "role-desk", quantity: 2, costPerHour: 60, hoursPerWeek: 30 }]);
  const result = forecast(worldWith(model, new Map(), true), whole, { cases: 50 });
  expect(result.resources).toMatchObject([{ id: resourceId, quantity: 2 }]);
  expect(result.cost.mean).toBeCloseTo(20, 6);
  const availableAfter = (available: readonly { readonly value: boolean; readonly during?: string }[]) => {
    const of = new Map(scenario.of).set(resourceId, { times: {}, available });
    return withDirectory({ ...scenario, of }, model, new Map([[role.id, role]])).scenario.of.get(resourceId)?.available;
  };
  // Whoever says only days off takes the directory's hours; who says hours, or that nobody is there, does not.
  const off = { value: false, during: "holidays" };
  expect(availableAfter([off])).toEqual([off, { value: true, during: expect.stringContaining("30") }]);
  expect(availableAfter([off, { value: true, during: "night" }])).toHaveLength(2);
  expect(availableAfter([{ value: false }])).toEqual([{ value: false }]);
  const own = performAll(model, {
    type: "setAssumption",
    scenario: scenario.id,
    element: resourceId,
    parameter: "quantity",
    value: { kind: "constant", value: 5 },
  });
  expect(
    withDirectory(scenariosOf(own)[0] ?? scenario, own, new Map([[role.id, role]])).scenario.of.get(resourceId)
      ?.quantity,
  ).toEqual([{ value: 5 }]);
});

describe("statistics", () => {
  // Student's t for 95 of 100, two-sided: standard tables.
  test.each([
    [1, 12.7062],
    [4, 2.7764],
    [9, 2.2622],
    [29, 2.0452],
    [1000, 1.9623],
  ])("with %d degrees of freedom Student's t is %d", (freedom, wanted) => {
    expect(studentQuantile(0.975, freedom)).toBeCloseTo(wanted, 3);
  });

  test("intervals, quantiles and replications by hand", () => {
    // Mean 3, deviation √2.5, t = 2.7764: ± 1.963.
    expect(interval95([1, 2, 3, 4, 5]).map((value) => value.toFixed(3))).toEqual(["1.037", "4.963"]);
    expect(interval95([7])).toEqual([7, 7]);
    expect(quantileOf([1, 2, 3, 4], 0.5)).toBe(2.5);
    expect(quantileOf([], 0.9)).toBe(0);
    expect(batchInterval95(Array.from({ length: 400 }, (_, at) => at % 20))[0]).toBeCloseTo(9.5, 9);
    const count = replicationsFor([10, 12, 14], 1);
    expect(studentQuantile(0.975, count - 1) * Math.sqrt(4 / count)).toBeLessThanOrEqual(1);
    expect(studentQuantile(0.975, count - 2) * Math.sqrt(4 / (count - 1))).toBeGreaterThan(1);
  });

  test("a run that begins far off is cut where it has settled (MSER-5)", () => {
    const values = Array.from({ length: 1_000 }, (_, at) => (at < 100 ? 50 - at / 2 : at % 2));
    expect(proposedWarmUp(values)).toBeGreaterThanOrEqual(95);
    expect(proposedWarmUp(values)).toBeLessThanOrEqual(120);
    expect(proposedWarmUp(Array.from({ length: 200 }, () => 1))).toBeLessThanOrEqual(100);
  });
});
