import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import type { Model } from "../model";
import { expectOk } from "../testing/models";
import { randomProcess } from "../testing/randomProcess";
import { type MeasureId, measurable, measuresOf } from ".";

function processOf(types: { readonly [id: string]: string }, chains: readonly string[]): Model {
  const nodes = Object.entries(types).map(([id, type]) => `<${type} id="${id}" name="Check ${id}"/>`);
  const flows = chains.flatMap((chain) => {
    const ids = chain.split(" ");
    return ids
      .slice(1)
      .map((to, at) => `<sequenceFlow id="${ids[at]}-${to}" sourceRef="${ids[at]}" targetRef="${to}"/>`);
  });
  return expectOk(
    readBpmn(
      new TextEncoder().encode(
        `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" targetNamespace="x"><process id="p">${nodes.join("")}${flows.join("")}</process></definitions>`,
      ),
    ),
  );
}
const measured = (model: Model, id: MeasureId) =>
  measuresOf(model, measurable(model)[0] as string).find((one) => one.id === id)?.value;
const split = (type: string, join = type, ways = 3) => {
  const steps = Array.from({ length: ways }, (_, at) => `t${at}`);
  return processOf(
    { s: "startEvent", x: type, ...Object.fromEntries(steps.map((step) => [step, "task"])), y: join, e: "endEvent" },
    ["s x", "y e", ...steps.map((step) => `x ${step} y`)],
  );
};

/** J. Cardoso (2005), definition of CFC for XOR, OR and AND splits (from memory). */
describe("control-flow complexity", () => {
  test.each([
    ["exclusiveGateway", 3],
    ["inclusiveGateway", 7],
    ["parallelGateway", 1],
  ])("a %s with three ways adds %i", (type, expected) => {
    expect(measured(split(type), "complexity")).toBe(expected);
  });
});

test("nodes, starts, ends, degree, inclusive gateways are counted", () => {
  const model = split("inclusiveGateway");
  expect(["nodes", "starts", "ends", "degree", "inclusive"].map((id) => measured(model, id as MeasureId))).toEqual([
    7, 1, 1, 4, 2,
  ]);
});

test("what is made of blocks is structured, a split with another kind of join is not", () => {
  expect(measured(split("parallelGateway"), "structured")).toBe(1);
  expect(measured(split("parallelGateway", "exclusiveGateway"), "structured")).toBeLessThan(1);
  for (const seed of [1, 2, 3, 4])
    expect(measured(randomProcess({ seed, nodes: 30, lanes: 1, wild: false }), "structured")).toBeGreaterThan(0.9);
});

test("the share of steps named with verb and object", () => {
  const model = processOf({ s: "startEvent", a: "task", e: "endEvent" }, ["s a e"]);
  expect(measured(model, "verbObject")).toBe(1);
});
