import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../../bpmn";
import { dataOfProcess, fieldUsesOf, type Model } from "../../model";
import { expectOk, performAll, smallModel } from "../../testing/models";
import { perform } from "..";

const schema = JSON.stringify({
  type: "object",
  properties: { power: { type: "number" }, roof: { type: "string" } },
  required: ["power"],
});
const withData = () =>
  performAll(
    smallModel(),
    { type: "defineData", process: "process", id: "plant", name: "plant", schema },
    { type: "defineData", process: "process", id: "urgent", name: "urgent", schema: '{"type":"boolean"}' },
  );
const dataIn = (model: Model) => dataOfProcess(model, "process").map(({ name, schema: text }) => [name, text]);
const refusal = (model: Model, command: Parameters<typeof perform>[1]) => {
  const result = perform(model, command);
  return result.ok ? "" : result.problems.map(({ message }) => message).join();
};

describe("data of a process", () => {
  test("stands in the standard's places, and comes back from a file", () => {
    const model = withData();
    expect(dataIn(model)).toEqual([
      ["plant", schema],
      ["urgent", '{"type":"boolean"}'],
    ]);
    const text = writeBpmn(model);
    expect(text).toMatch(/<property id="plant" name="plant" itemSubjectRef="plant.item"/);
    expect(dataIn(expectOk(readBpmn(text)))).toEqual(dataIn(model));
  });
  test("goes with all that was said of it", () => {
    const used = performAll(withData(), { type: "setDataUse", step: "check", data: "urgent", use: "changes" });
    const gone = performAll(used, { type: "dropData", id: "urgent" }, { type: "dropData", id: "plant" });
    expect([...gone.elements].length).toBe([...smallModel().elements].length);
  });
  test("is renamed in conditions and mappings, whole or a part of it", () => {
    const flow = [...smallModel().elements].find((one) => one.type === "sequenceFlow")?.id as string;
    const model = performAll(
      withData(),
      { type: "setCondition", flow, text: 'plant.power > 5 and plant.roof = "power" and urgent', isExecutable: true },
      { type: "retype", id: "check", to: "serviceTask" },
      { type: "mapField", id: "check", direction: "in", field: "kw", is: "plant.power" },
      { type: "renameData", id: "plant", path: ["power"], to: "rated power" },
      { type: "renameData", id: "plant", path: [], to: "the plant" },
      { type: "renameData", id: "urgent", path: [], to: "in a hurry" },
    );
    expect(model.elements.get(flow)?.conditionExpression).toMatchObject({
      text: 'the plant.rated power > 5 and the plant.roof = "power" and in a hurry',
    });
    expect(JSON.stringify(model.elements.get("check")?.extension)).toContain("the plant.rated power");
    const [[, text]] = dataIn(model) as [[string, string]];
    expect(JSON.parse(text)).toEqual({
      type: "object",
      properties: { "rated power": { type: "number" }, roof: { type: "string" } },
      required: ["rated power"],
    });
  });
  test("refuses what could not be told apart", () => {
    const model = withData();
    expect(
      refusal(model, { type: "defineData", process: "process", id: "other", name: "plant", schema: "{}" }),
    ).toMatch(/there already/);
    expect(refusal(model, { type: "renameData", id: "plant", path: [], to: "urgent" })).toMatch(/there already/);
    expect(refusal(model, { type: "renameData", id: "plant", path: ["power"], to: "roof" })).toMatch(/there already/);
    expect(refusal(model, { type: "defineData", process: "process", id: "check", name: "x", schema: "{}" })).toMatch(
      /no data/,
    );
    expect(refusal(model, { type: "dropData", id: "check" })).toMatch(/drawn/);
    expect(refusal(model, { type: "setDataUse", step: "check", data: "nothing", use: "reads" })).toMatch(/no data/);
    // BPMN 2.0, 10.4.1, from memory: an event that catches has outputs alone, one that throws inputs alone.
    expect(refusal(model, { type: "setDataUse", step: "start", data: "plant", use: "reads" })).toMatch(/reads no data/);
    expect(refusal(model, { type: "setDataUse", step: "start", data: "plant", use: "creates" })).toBe("");
    expect(refusal(model, { type: "setDataUse", step: "done", data: "plant", use: "changes" })).toMatch(
      /writes no data/,
    );
    expect(refusal(model, { type: "setDataUse", step: "done", data: "plant", use: "reads" })).toBe("");
    expect(
      refusal(model, {
        type: "decideBy",
        id: "check",
        to: { file: "f", decision: "d", name: "n", answers: null, needs: [] },
      }),
    ).toMatch(/business rule/);
  });
  test("a decision that found its data by name is told the new one", () => {
    const model = performAll(
      withData(),
      { type: "retype", id: "check", to: "businessRuleTask" },
      {
        type: "decideBy",
        id: "check",
        to: { file: "f", decision: "d", name: "size", answers: null, needs: ["power", "urgent"] },
      },
      { type: "renameData", id: "plant", path: ["power"], to: "rated power" },
      { type: "renameData", id: "urgent", path: [], to: "in a hurry" },
    );
    const step = model.elements.get("check");
    expect(step && fieldUsesOf(step)).toEqual([
      { direction: "in", field: "power", is: "plant.rated power" },
      { direction: "in", field: "urgent", is: "in a hurry" },
    ]);
  });
  test("a decision's answers are taken over where a step decides by it, and only there", () => {
    const model = performAll(
      withData(),
      { type: "retype", id: "check", to: "businessRuleTask" },
      { type: "decideBy", id: "check", to: { file: "f", decision: "d", name: "size", answers: ["a"], needs: [] } },
      {
        type: "renewDecisions",
        file: "f",
        decisions: [{ decision: "d", name: "kind", answers: ["a", "b"], needs: [] }],
      },
      { type: "renewDecisions", file: "other", decisions: [{ decision: "d", name: "no", answers: null, needs: [] }] },
    );
    const said = JSON.stringify(model.elements.get("check")?.extension);
    expect(said).toContain('"kind"');
    expect(said).toContain('"b"');
  });
});
