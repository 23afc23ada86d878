import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import { modelOf, openDocument } from "../decisions";
import { decision, dmn, inputData, literal, needsDecision, needsInput, table } from "../decisions/testing/tables";
import { expectOk } from "../testing/models";
import { CaseDataSoFar, dataAsked, walk, worldWith } from ".";

const inspections = modelOf(
  expectOk(
    openDocument(
      new TextEncoder().encode(
        dmn(
          inputData("rated power", "number") +
            inputData("roof", "string") +
            decision(
              "risk",
              table(["roof: string"], ["r"], ['"flat" -> "low"', 'not("flat") -> "high"']),
              needsInput("roof"),
            ) +
            decision(
              "which",
              table(
                ["rated power: number", "risk: string"],
                ["r"],
                ['< 10; "low" -> "none"', '< 10; "high" -> "visit"', '>= 10; - -> "full"'],
              ),
              needsInput("rated power") + needsDecision("risk"),
            ) +
            decision("fee", literal('if inspection = "full" then 120 else 40'), needsInput("inspection")) +
            inputData("inspection"),
        ),
      ),
    ),
  ),
);

const lln = 'xmlns:lln="urn:lucid-lane:bpmn:1"';
const flow = (id: string, from: string, to: string, condition = "") =>
  `<sequenceFlow id="${id}" sourceRef="${from}" targetRef="${to}">${condition && `<conditionExpression>${condition}</conditionExpression>`}</sequenceFlow>`;
const decides = (id: string, of: string, result: string, more = "") =>
  `<businessRuleTask id="${id}"><extensionElements ${lln}><lln:decides file="inspections" decision="${of}" name="${of}" result="${result}"/>${more}</extensionElements></businessRuleTask>`;
const model = expectOk(
  readBpmn(
    `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" targetNamespace="urn:q"><process id="p"><startEvent id="s"/>${decides("rule", "which", "inspection", '<lln:maps direction="in" field="roof" is="plant.shape of the roof"/>')}${decides("price", "fee", "fee")}<exclusiveGateway id="g"/><task id="visit"/><task id="skip"/><endEvent id="e"/>${flow("f1", "s", "rule")}${flow("f2", "rule", "price")}${flow("f3", "price", "g")}${flow("f4", "g", "visit", 'inspection != "none" and fee &gt; 50')}${flow("f5", "g", "skip", "fee &lt;= 50")}${flow("f6", "visit", "e")}${flow("f7", "skip", "e")}</process></definitions>`,
  ),
);
const world = worldWith(model, new Map(), false, new Map([["inspections", inspections]]));

describe("a walk decides by its decisions", () => {
  test.each([
    [12, "flat", "visit"],
    [8, "flat", "skip"],
    [8, "steep", "skip"],
  ])("%d kW on a %s roof: %s", (power, roof, expected) => {
    const walked = walk(world, "p", { data: { plant: { "rated power": power, "shape of the roof": roof } } });
    expect(walked.entered.map(({ element }) => element)).toContain(expected);
  });
  test("what comes out is data from then on, and told with the rules that matched", () => {
    const data = { "rated power": 8, plant: { "shape of the roof": "steep" } };
    const walked = walk(world, "p", { data });
    const soFar = new CaseDataSoFar(world, data);
    expect(soFar.after(walked.log)).toEqual({ ...data, inspection: "visit", fee: 40 });
    expect(soFar.taken.map(({ element, decided }) => [element, decided.result, decided.rules])).toEqual([
      ["rule", "visit", [2]],
      ["price", 40, []],
    ]);
  });
  test("what cannot be decided is told, and is nothing", () => {
    const soFar = new CaseDataSoFar(world, { "rated power": "much" });
    const walked = walk(world, "p", { data: soFar.given });
    expect(soFar.after(walked.log).inspection).toBeNull();
    expect(soFar.taken[0]?.decided.problems.join()).toMatch(/is no number/);
  });
  test("without the file nothing is decided by it", () => {
    const bare = worldWith(model, new Map());
    expect(walk(bare, "p", { data: { "rated power": 12 } }).outcome).toBe("completed");
    expect(new CaseDataSoFar(bare, { x: 1 }).after(walk(bare, "p").log)).toEqual({ x: 1 });
  });
});

test("a world asks for what its decisions need, and not for what they come to", () => {
  // The roof is said at the step itself; the inspection is what the first decision comes to.
  expect([...dataAsked(world)]).toEqual([["rated power", "number"]]);
});
