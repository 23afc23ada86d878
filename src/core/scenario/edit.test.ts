import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import {
  bpmnWith,
  end,
  every,
  exponential,
  inARow,
  modelOf,
  number,
  of,
  start,
  task,
  timeOf,
} from "../forecast/testing/models";
import { brokenInvariants, type Model } from "../model";
import { expectOk, performAll } from "../testing/models";
import type { Distribution } from "./distributions";
import type { ParameterName } from "./parameters";
import { scenariosOf } from "./readScenarios";
import { isoOf } from "./writeValues";

const foreign = '<bpsim:VendorExtension name="x"><y:z xmlns:y="urn:y" a="1">kept</y:z></bpsim:VendorExtension>';
const file = bpmnWith(
  inARow(start, task("a"), end),
  of("s", every(exponential(60))) +
    of(
      "a",
      `${timeOf(number(30))}<bpsim:PropertyParameters><bpsim:Property name="size" type="long">${number(3)}</bpsim:Property></bpsim:PropertyParameters>`,
    ) +
    foreign,
);
const again = (model: Model): Model => expectOk(readBpmn(new TextEncoder().encode(writeBpmn(model))));
const say = (element: string, parameter: ParameterName, value: Distribution | string | null, scenario = "s1") =>
  ({ type: "setAssumption", scenario, element, parameter, value }) as const;
const firstOf = (model: Model, element: string) => scenariosOf(model)[0]?.of.get(element);

describe("what is said of an element", () => {
  test.each<[ParameterName, Distribution, (model: Model) => unknown, unknown]>([
    [
      "processing",
      { kind: "constant", value: 1200 },
      (model) => firstOf(model, "a")?.times.processing,
      [{ value: { kind: "constant", value: 1200 } }],
    ],
    [
      "wait",
      { kind: "uniform", min: 600, max: 1800 },
      (model) => firstOf(model, "a")?.times.wait,
      [{ value: { kind: "uniform", min: 600, max: 1800 } }],
    ],
    [
      "fixedCost",
      { kind: "constant", value: 12.5 },
      (model) => firstOf(model, "a")?.fixedCost,
      [{ value: { kind: "constant", value: 12.5 } }],
    ],
    ["priority", { kind: "constant", value: 2 }, (model) => firstOf(model, "a")?.priority, 2],
    ["count", { kind: "constant", value: 40 }, (model) => firstOf(model, "a")?.count, 40],
    ["quantity", { kind: "constant", value: 3 }, (model) => firstOf(model, "a")?.quantity, [{ value: 3 }]],
    ["unitCost", { kind: "constant", value: 72 }, (model) => firstOf(model, "a")?.unitCost, 0.02],
    ["probability", { kind: "constant", value: 0.3 }, (model) => firstOf(model, "a")?.probability, 0.3],
  ])("%s is read as it was said, also from the file", (parameter, value, read, wanted) => {
    const model = performAll(modelOf(file), say("a", parameter, value));
    expect(brokenInvariants(model)).toEqual([]);
    for (const one of [model, again(model)]) expect(read(one)).toEqual(wanted);
    // Taken off, nothing of it is left; what stood beside it is.
    const without = performAll(model, say("a", parameter, null));
    expect(read(without)).toBeUndefined();
    const text = writeBpmn(without);
    expect(text).toContain("kept");
    expect(text).toContain('name="size"');
  });

  test("every kind of distribution goes into the file and comes out as it was", () => {
    const time = fc.integer({ min: 1, max: 5_000 }).map((minutes) => minutes * 60);
    const shape = fc.integer({ min: 1, max: 40 }).map((tenths) => tenths / 10);
    const any: fc.Arbitrary<Distribution> = fc.oneof(
      time.map((value) => ({ kind: "constant" as const, value })),
      fc.tuple(time, time).map(([a, b]) => ({ kind: "uniform" as const, min: Math.min(a, b), max: Math.max(a, b) })),
      time.map((mean) => ({ kind: "exponential" as const, mean })),
      fc.tuple(time, time).map(([mean, deviation]) => ({ kind: "normal" as const, mean, deviation, min: 0 })),
      fc
        .tuple(time, time)
        .map(([mean, deviation]) => ({ kind: "normal" as const, mean, deviation, min: 60, max: 60_000_000 })),
      fc.tuple(time, time).map(([mean, deviation]) => ({ kind: "logNormal" as const, mean, deviation })),
      fc.tuple(fc.integer({ min: 1, max: 9 }), time).map(([k, mean]) => ({ kind: "erlang" as const, k, mean })),
      fc.tuple(shape, time).map(([one, scale]) => ({ kind: "gamma" as const, shape: one, scale })),
      fc.tuple(shape, time).map(([one, scale]) => ({ kind: "weibull" as const, shape: one, scale })),
      fc.tuple(shape, shape, time).map(([alpha, beta, max]) => ({ kind: "beta" as const, alpha, beta, min: 0, max })),
      fc
        .array(fc.record({ share: fc.constantFrom(0.1, 0.5, 1), value: time }), { minLength: 1, maxLength: 4 })
        .map((points) => ({ kind: "discrete" as const, points })),
      fc
        .array(fc.record({ share: fc.constantFrom(0.1, 0.5, 1), value: time }), { minLength: 1, maxLength: 4 })
        .map((points) => ({ kind: "continuous" as const, points })),
    );
    const begin = modelOf(file);
    fc.assert(
      fc.property(any, (value) => {
        const read = firstOf(again(performAll(begin, say("a", "processing", value))), "a")?.times.processing?.[0]
          ?.value;
        expect(read?.kind).toBe(value.kind);
        expect(rounded(read)).toEqual(rounded(value));
      }),
      { numRuns: 60 },
    );
  });

  test("a step's estimate and its working time in the first scenario are one thing", () => {
    const model = performAll(modelOf(file), { type: "setEstimate", id: "a", time: "45 min" });
    expect(firstOf(model, "a")?.times.processing).toEqual([{ value: { kind: "constant", value: 2700 } }]);
    const changed = performAll(model, say("a", "processing", { kind: "constant", value: 600 }));
    expect([...changed.figures].find(({ element }) => element === "a")?.value).toBe("PT10M");
    // A curve is no single number, so the estimate is gone.
    const curve = performAll(changed, say("a", "processing", { kind: "exponential", mean: 600 }));
    expect([...curve.figures]).toEqual([]);
  });
});

const rounded = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value, (_, one) => (typeof one === "number" ? Number(one.toPrecision(9)) : one)));

describe("scenarios", () => {
  test("are added, named, run otherwise, and taken away", () => {
    const model = performAll(
      modelOf(file),
      { type: "addScenario", id: "rush", name: "Rush", inherits: "s1" },
      say("s", "interval", { kind: "exponential", mean: 900 }, "rush"),
      {
        type: "setScenario",
        id: "rush",
        words: {
          name: "Spring rush",
          replications: 8,
          seed: 3,
          duration: 7 * 86_400,
          warmUp: 3600,
          start: "2027-03-01T08:00:00",
          currency: "CHF",
        },
      },
    );
    const rush = scenariosOf(again(model))[1];
    expect(rush).toMatchObject({
      id: "rush",
      name: "Spring rush",
      inherits: "s1",
      replications: 8,
      seed: 3,
      duration: 604_800,
      warmUp: 3600,
      currency: "CHF",
    });
    expect(rush?.start).toBe(Date.UTC(2027, 2, 1, 8));
    expect([...(rush?.own.keys() ?? [])]).toEqual(["s"]);
    expect(rush?.of.get("a")?.times.processing).toEqual([{ value: { kind: "constant", value: 1800 } }]);
    const reset = performAll(model, { type: "setScenario", id: "rush", words: { replications: null, duration: null } });
    expect(scenariosOf(reset)[1]?.replications).toBeUndefined();
    expect(scenariosOf(performAll(reset, { type: "dropScenario", id: "rush" })).map(({ id }) => id)).toEqual(["s1"]);
  });

  test("hours are a calendar of the scenario", () => {
    const text = "BEGIN:VEVENT\nDTSTART:20270104T080000\nDTEND:20270104T160000\nRRULE:FREQ=WEEKLY;BYDAY=MO\nEND:VEVENT";
    const model = performAll(
      modelOf(file),
      { type: "setCalendar", scenario: "s1", id: "monday", name: "Mondays", text },
      say("a", "availability", "monday"),
    );
    const [one] = scenariosOf(again(model));
    expect(one?.calendars.get("monday")?.name).toBe("Mondays");
    expect(one?.of.get("a")?.available).toEqual([{ value: true, during: "monday" }]);
    const gone = performAll(model, { type: "setCalendar", scenario: "s1", id: "monday", name: "Mondays", text: null });
    expect(scenariosOf(gone)[0]?.problems.map(({ text }) => text)).toEqual(["a: calendar “monday” is not there."]);
  });

  test("a model without any gets its first with the first word", () => {
    const bare = modelOf(file.replace(/<bpmn:relationship[\s\S]*<\/bpmn:relationship>/, ""));
    expect(scenariosOf(bare)).toEqual([]);
    const model = performAll(bare, say("s", "interval", { kind: "constant", value: 600 }, "estimates"));
    expect(scenariosOf(again(model))[0]?.of.get("s")?.interval).toEqual([{ value: { kind: "constant", value: 600 } }]);
  });
});

test.each([
  [0, "PT0S"],
  [90, "PT1M30S"],
  [5400, "PT1H30M"],
  [86_400, "P1D"],
  [90_061.5, "P1DT1H1M1.5S"],
])("%d seconds are %s", (seconds, iso) => {
  expect(isoOf(seconds)).toBe(iso);
});
