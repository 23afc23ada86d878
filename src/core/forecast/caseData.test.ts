import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readDecisions } from "../decisions";
import { decision, dmn, inputData, needsInput, table } from "../decisions/testing/tables";
import { scenariosOf } from "../scenario";
import { expectOk } from "../testing/models";
import { worldWith } from "../tokens";
import { exactOf } from "./exact";
import { forecast } from "./forecast";
import { bpmnWith, end, flow, forecastOf, modelOf, number, of, start, task, timeOf } from "./testing/models";

const conditional = (id: string, from: string, to: string, condition: string) =>
  `<bpmn:sequenceFlow id="${id}" sourceRef="${from}" targetRef="${to}"><bpmn:conditionExpression>${condition}</bpmn:conditionExpression></bpmn:sequenceFlow>`;
const property = (name: string, value: string) => `<bpsim:Property name="${name}">${value}</bpsim:Property>`;
const drawn = (...properties: readonly string[]) =>
  of("p", `<bpsim:PropertyParameters>${properties.join("")}</bpsim:PropertyParameters>`);
const shares = (...points: readonly (readonly [share: number, value: string])[]) =>
  `<bpsim:UserDistribution discrete="true">${points
    .map(
      ([share, value]) =>
        `<bpsim:UserDistributionDataPoint probability="${share}"><bpsim:StringParameter value="${value}"/></bpsim:UserDistributionDataPoint>`,
    )
    .join("")}</bpsim:UserDistribution>`;

/** Two gateways one after the other that ask for the same data: a (10 min) or b, then c (10 min) or x. */
const twice = (isDefault = true) =>
  `${start}<bpmn:exclusiveGateway id="g"${isDefault ? ' default="fb"' : ""}/>${["a", "b", "c", "x"].map(task).join("")}<bpmn:exclusiveGateway id="j"/><bpmn:exclusiveGateway id="h" default="fd"/><bpmn:exclusiveGateway id="k"/>${end}${flow("f1", "s", "g")}${conditional("fa", "g", "a", 'roof = "pitched"')}${isDefault ? flow("fb", "g", "b") : conditional("fb", "g", "b", 'roof = "flat"')}${flow("f2", "a", "j")}${flow("f3", "b", "j")}${flow("f4", "j", "h")}${conditional("fc", "h", "c", 'roof = "pitched"')}${flow("fd", "h", "x")}${flow("f5", "c", "k")}${flow("f6", "x", "k")}${flow("f7", "k", "e")}`;
const times = of("a", timeOf(number(10))) + of("c", timeOf(number(10)));

describe("data that is drawn for cases", () => {
  const file = bpmnWith(twice(), times + drawn(property("roof", shares([0.3, "pitched"], [0.7, "flat"]))));
  const found = forecastOf(file, { cases: 4000, replications: 2 });
  const count = (id: string) => found.elements.find((one) => one.id === id)?.count ?? 0;

  test("decides as often as its shares say", () => {
    // 0.3 ± 4 standard deviations of a share of 8000 draws.
    expect(Math.abs(count("a") / 4000 - 0.3)).toBeLessThan(0.021);
    expect(count("a") + count("b")).toBe(4000);
  });

  test("decides the same way wherever it is asked for, which shares cannot", () => {
    expect(count("c")).toBe(count("a"));
    // Whole durations: 20 minutes with both steps, else none; no case has one of them.
    expect(new Set(found.durations)).toEqual(new Set([0, 1200]));
  });

  test("leaves no gap of shares behind, and the equations say what they do not know", () => {
    expect(found.gaps.filter(({ kind }) => kind === "share")).toEqual([]);
    const model = modelOf(file);
    const [scenario] = scenariosOf(model);
    if (!scenario) throw new Error("no scenario");
    expect(exactOf(worldWith(model, new Map(), true), scenario)?.doubts.join()).toContain("data that is drawn");
    const bare = forecastOf(bpmnWith(twice(), times), { cases: 10 });
    expect(bare.gaps.filter(({ kind }) => kind === "share").map(({ element }) => element)).toEqual(["g", "h"]);
  });

  test("what no condition holds for, and has no default, comes to no end there and is told", () => {
    const stuck = forecastOf(
      bpmnWith(twice(false), times + drawn(property("roof", shares([0.5, "pitched"], [0.5, "ground"])))),
      { cases: 400 },
    );
    expect(stuck.notEnded).toMatchObject([{ how: "stuck", at: "g" }]);
    expect(Math.abs((stuck.notEnded[0]?.cases ?? 0) / 400 - 0.5)).toBeLessThan(0.1);
  });

  test("data that a condition does not find leaves it to the shares", () => {
    const other = forecastOf(bpmnWith(twice(), times + drawn(property("colour", shares([1, "red"])))), { cases: 400 });
    expect(other.gaps.some(({ kind, element }) => kind === "share" && element === "g")).toBe(true);
  });

  const sizes = expectOk(
    readDecisions(
      new TextEncoder().encode(
        dmn(
          inputData("power", "number") +
            decision(
              "size",
              table(["power: number"], ["r"], ['< 10 -> "small"', '>= 10 -> "large"']),
              needsInput("power"),
            ),
        ),
      ),
    ),
  );
  const deciding = (least: number, most: number) => {
    const rule = `<bpmn:businessRuleTask id="r"><bpmn:extensionElements xmlns:lln="urn:lucid-lane:bpmn:1"><lln:decides file="file" decision="size" name="size" result="size"/></bpmn:extensionElements></bpmn:businessRuleTask>`;
    const process = `${start}${rule}<bpmn:exclusiveGateway id="g"/>${task("a")}${task("b")}<bpmn:exclusiveGateway id="j"/>${end}${flow("f0", "s", "r")}${flow("f1", "r", "g")}${conditional("fa", "g", "a", 'size = "small"')}${conditional("fb", "g", "b", 'size = "large"')}${flow("f2", "a", "j")}${flow("f3", "b", "j")}${flow("f4", "j", "e")}`;
    return bpmnWith(
      process,
      drawn(property("Plant.power", `<bpsim:UniformDistribution min="${least}" max="${most}"/>`)),
    );
  };

  test("a decision on the way decides by it, and the gateway behind it by what it came to", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 11, max: 20 }), (least, most) => {
        const model = modelOf(deciding(least, most));
        const [scenario] = scenariosOf(model);
        if (!scenario) throw new Error("no scenario");
        const world = worldWith(model, new Map(), true, new Map([["file", sizes]]));
        const { elements, notEnded } = forecast(world, scenario, { cases: 2000 });
        expect(notEnded).toEqual([]);
        const small = (elements.find(({ id }) => id === "a")?.count ?? 0) / 2000;
        const expected = (10 - least) / (most - least);
        expect(Math.abs(small - expected)).toBeLessThan(0.05);
      }),
      { numRuns: 8 },
    );
  });
});
