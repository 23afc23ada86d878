import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import { type Scene, sceneOf, sceneToSvg } from "../drawing";
import type { Id, Model } from "../model";
import { scenariosOf } from "../scenario";
import { smallModel } from "../testing/models";
import {
  amountTests,
  conditionHolds,
  type Facts,
  factsOf,
  fieldKinds,
  fieldsOf,
  isLensFeel,
  type Lens,
  type LensCondition,
  lensBadge,
  lensFields,
  lensPens,
  lensSchema,
  lensSigns,
  markedBy,
  penColours,
  withLenses,
  withLensLegend,
  wordTests,
} from "./index";

const lens = (...conditions: LensCondition[]): Lens => ({
  name: "A lens",
  which: "all",
  feel: "",
  pen: "brick",
  line: "dashed",
  sign: "clock",
  conditions,
});

const facts: Facts = {
  kinds: ["step", "byHand"],
  words: {
    name: ["Check feeder capacity"],
    role: ["Network engineer"],
    system: ["Network map", "Case register"],
    lane: [],
    site: [],
  },
  amounts: { waits: 7200, takes: 900, findings: 0, comments: 2 },
  own: { region: "North", devices: "12 pieces" },
};

describe("a condition", () => {
  test.each<[LensCondition, boolean]>([
    [{ field: "kind", test: "is", value: "byHand" }, true],
    [{ field: "kind", test: "is", value: "event" }, false],
    [{ field: "kind", test: "isNot", value: "event" }, true],
    [{ field: "name", test: "contains", value: "FEEDER" }, true],
    [{ field: "role", test: "is", value: "network engineer " }, true],
    // Of several each counts; not this one means none of them is.
    [{ field: "system", test: "is", value: "Case register" }, true],
    [{ field: "system", test: "isNot", value: "Case register" }, false],
    [{ field: "system", test: "isThere" }, true],
    [{ field: "site", test: "isMissing" }, true],
    // The limit itself is neither over nor under.
    [{ field: "waits", test: "more", value: 7200 }, false],
    [{ field: "waits", test: "more", value: 7199 }, true],
    [{ field: "waits", test: "less", value: 7200 }, false],
    // What is not known is neither more nor less, and is told as missing.
    [{ field: "costs", test: "more", value: 0 }, false],
    [{ field: "costs", test: "less", value: 1 }, false],
    [{ field: "costs", test: "isMissing" }, true],
    [{ field: "findings", test: "isMissing" }, false],
    [{ field: "findings", test: "is", value: 0 }, true],
    [{ field: "comments", test: "more", value: 1 }, true],
    [{ field: "own", name: "region", test: "is", value: "north" }, true],
    [{ field: "own", name: "devices", test: "more", value: 10 }, true],
    [{ field: "own", name: "nothing", test: "isMissing" }, true],
  ])("%j: %s", (condition, holds) => {
    expect(conditionHolds(condition, facts)).toBe(holds);
  });

  test("of each field says either that it is there or that it is missing, never both", () => {
    for (const field of lensFields) {
      const there = { field, test: "isThere", name: "region" } as const;
      const answers = [conditionHolds(there, facts), conditionHolds({ ...there, test: "isMissing" }, facts)];
      expect(answers.filter(Boolean), field).toHaveLength(1);
    }
  });

  test("more than a limit and not more than it are never the same (property)", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 10 ** 6 }), fc.integer({ min: 0, max: 10 ** 6 }), (amount, limit) => {
        const at = { ...facts, amounts: { waits: amount } };
        const more = conditionHolds({ field: "waits", test: "more", value: limit }, at);
        const less = conditionHolds({ field: "waits", test: "less", value: limit }, at);
        expect([more, less, amount === limit].filter(Boolean)).toHaveLength(1);
      }),
    );
  });
});

describe("a lens", () => {
  const all = new Map<Id, Facts>([
    ["a", facts],
    ["b", { ...facts, amounts: { waits: 60 }, kinds: ["step", "bySystem"] }],
    ["f", { ...facts, kinds: ["flow"], amounts: { findings: 1 } }],
  ]);
  const waitsLong: LensCondition = { field: "waits", test: "more", value: 3600 };
  const bySystem: LensCondition = { field: "kind", test: "is", value: "bySystem" };

  test("asks for all of its conditions, or for one of them", () => {
    expect(markedBy(lens(waitsLong), all)).toEqual(["a"]);
    expect(markedBy(lens(waitsLong, bySystem), all)).toEqual([]);
    expect(markedBy({ ...lens(waitsLong, bySystem), which: "any" }, all)).toEqual(["a", "b"]);
  });
  test("without a condition marks nothing", () => {
    expect(markedBy(lens(), all)).toEqual([]);
  });
  test("marks flows only where it speaks of them", () => {
    expect(markedBy(lens({ field: "kind", test: "isNot", value: "step" }), all)).toEqual([]);
    expect(markedBy(lens({ field: "kind", test: "is", value: "flow" }), all)).toEqual(["f"]);
    expect(markedBy(lens({ field: "findings", test: "more", value: 0 }), all)).toEqual(["f"]);
  });
  test("takes FEEL on the same fields, besides or alone", () => {
    const asked = (feel: string, ...conditions: LensCondition[]) => markedBy({ ...lens(...conditions), feel }, all);
    expect(asked('waits > 3600 and list contains(system, "Network map")')).toEqual(["a"]);
    expect(asked("waits < 3600", waitsLong)).toEqual([]);
    expect(asked('own.region = "North"')).toEqual(["a", "b"]);
    // What is no FEEL, or is not decided, marks nothing.
    expect(asked("waits >")).toEqual([]);
    expect(asked("costs > 10")).toEqual([]);
  });
  test.each<[string, boolean]>([
    ["waits > 7200", true],
    ['list contains(kind, "step")', true],
    ['own.region = "North"', true],
    ["waits >", false],
    ["waiting > 7200", false],
    ["it waits for long", false],
  ])("FEEL: %s", (feel, isOne) => expect(isLensFeel(feel)).toBe(isOne));
  test("says which fields it needs", () => {
    expect([...fieldsOf({ ...lens(waitsLong), feel: "busy > 0.8" })].sort()).toEqual(["busy", "waits"]);
  });
  test.each<[string, object]>([
    ["no name", { name: " " }],
    ["an unknown pen", { pen: "gold" }],
    ["an attribute without its name", { conditions: [{ field: "own", test: "isThere" }] }],
    ["nothing to compare with", { conditions: [{ field: "waits", test: "more" }] }],
  ])("with %s is refused", (_, wrong) => {
    expect(lensSchema.safeParse(lens(waitsLong)).success).toBe(true);
    expect(lensSchema.safeParse({ ...lens(waitsLong), ...wrong }).success).toBe(false);
  });
  test("every field has a way to be asked for", () => {
    for (const field of lensFields) {
      const tests = ["words", "choice"].includes(fieldKinds[field]) ? wordTests : amountTests;
      expect(tests.length).toBeGreaterThan(1);
    }
  });
});

describe("facts", () => {
  test("come from the model and its scenario; a forecast is better than what is said", () => {
    const model = withScenario();
    const [scenario] = scenariosOf(model);
    const said = factsOf(model, { scenario }).get("check") as Facts;
    expect(said.kinds).toContain("step");
    expect(said.amounts.takes).toBe(1200);
    expect(said.amounts.waits).toBe(7200);
    const forecast = {
      elements: [{ id: "check", by: ["r"], count: 4, waitingMean: 60, processingMean: 30, costTotal: 20 }],
      resources: [{ id: "r", utilization: 0.9 }],
    };
    const seen = factsOf(model, { scenario, forecast, findings: new Map([["check", 2]]) }).get("check") as Facts;
    expect(seen.amounts).toMatchObject({ takes: 30, waits: 60, costs: 5, busy: 0.9, findings: 2 });
    // What was not looked for is not known; what was, and is not there, is none.
    expect(seen.amounts.comments).toBeUndefined();
    expect(factsOf(model, { findings: new Map() }).get("check")?.amounts.findings).toBe(0);
  });
});

function withScenario(): Model {
  const xml = `<?xml version="1.0"?><definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:bpsim="http://www.bpsim.org/schemas/1.0" id="d" targetNamespace="t">
<process id="p"><task id="check" name="Check"/></process>
<relationship type="BPSimData"><extensionElements><bpsim:BPSimData><bpsim:Scenario id="s" name="S"><bpsim:ElementParameters elementRef="check"><bpsim:TimeParameters><bpsim:WaitTime><bpsim:DurationParameter value="PT2H"/></bpsim:WaitTime><bpsim:ProcessingTime><bpsim:DurationParameter value="PT20M"/></bpsim:ProcessingTime></bpsim:TimeParameters></bpsim:ElementParameters></bpsim:Scenario></bpsim:BPSimData></extensionElements><source>d</source><target>d</target></relationship></definitions>`;
  const read = readBpmn(xml);
  if (!read.ok) throw new Error(JSON.stringify(read));
  return read.value;
}

/** Relative luminance and contrast, as WCAG 2.2 defines them. */
function contrast(a: string, b: string): number {
  const luminance = (hex: string) => {
    const [r = 0, g = 0, blue = 0] = [1, 3, 5].map((at) => {
      const part = Number.parseInt(hex.slice(at, at + 2), 16) / 255;
      return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * r + 0.7152 * g + 0.0722 * blue;
  };
  const [light, dark] = [luminance(a), luminance(b)].sort((one, other) => other - one) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

describe("what it looks like", () => {
  const model = smallModel();
  const [page] = [...model.diagrams];
  const scene: Scene = sceneOf(model, page as never, {});
  const [step] = scene.figures.filter(({ type }) => type.endsWith("ask")).map(({ id }) => id) as [Id];

  test("each pen is read on white, and on the soft paper (4.5 : 1)", () => {
    for (const pen of lensPens)
      for (const paper of ["#FFFFFF", "#F7F4EC"])
        expect(contrast(penColours[pen], paper), pen).toBeGreaterThanOrEqual(4.5);
  });

  test("every sign is a picture within its badge", () => {
    const drawn = lensSigns.map((sign) => lensBadge({ pen: "plum", sign }, { x: 100, y: 50 })[1]);
    expect(new Set(drawn.map((one) => JSON.stringify(one))).size).toBe(lensSigns.length);
    for (const one of drawn) {
      if (one?.kind !== "path") throw new Error("no path");
      expect(one.d).toMatch(/^[MLQZ0-9. -]+$/);
      const numbers = one.d.match(/-?\d+(\.\d+)?/g)?.map(Number) ?? [];
      for (const [at, value] of numbers.entries()) expect(Math.abs(value - (at % 2 === 0 ? 100 : 50))).toBeLessThan(6);
    }
  });

  test("several at one element lie around each other, each with its badge; nothing of the page is lost", () => {
    const seen = withLenses(scene, [
      { lens: lens(), marked: [step, "not there"] },
      { lens: { ...lens(), name: "Another", pen: "teal", line: "double", sign: "coin" }, marked: [step] },
    ]);
    expect(seen.figures.slice(0, scene.figures.length)).toEqual(scene.figures);
    const [added, ...more] = seen.figures.slice(scene.figures.length);
    expect(more).toEqual([]);
    expect(added?.title.text).toMatch(/: A lens, Another$/);
    const svg = sceneToSvg(seen);
    expect(svg).toContain(penColours.brick);
    expect(svg).toContain(penColours.teal);
    expect(svg).toContain('stroke-dasharray="7 4"');
    expect(seen.bounds.width).toBeGreaterThanOrEqual(scene.bounds.width);
    expect(withLenses(scene, [])).toBe(scene);
    const explained = withLensLegend(seen, [{ lens: lens(), marked: [step] }]);
    expect(explained.figures.at(-1)?.primitives.at(-1)).toMatchObject({ kind: "text", text: "A lens" });
    expect(explained.bounds.y + explained.bounds.height).toBeGreaterThan(seen.bounds.y + seen.bounds.height);
  });
});
