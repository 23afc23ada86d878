import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import { commandSchema, perform } from "../commands";
import type { Model } from "../model";
import { expectOk, smallModel } from "../testing/models";
import { currencyOf, estimatesOf, holderIn } from ".";

/**
 * Against BPSim 2.0 (Workflow Management Coalition, WFMC-BPSWG-2016-1): `ElementParameters` name an element by `elementRef`, hold
 * `TimeParameters/ProcessingTime` and `CostParameters/FixedCost` with typed values; the standard lets the data stand in the extension
 * elements of a relationship or of the definitions. From memory of the standard.
 */
const bpsim = "http://www.bpsim.org/schemas/1.0";
const file = (
  data: string,
  place: "relationship" | "definitions" = "relationship",
) => `<?xml version="1.0" encoding="UTF-8"?>
<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:bpsim="${bpsim}" id="d" targetNamespace="urn:quillmere">
  ${place === "definitions" ? `<extensionElements>${data}</extensionElements>` : ""}
  <process id="p"><startEvent id="s"/><userTask id="check" name="Check"/><userTask id="bill" name="Bill"/><endEvent id="e"/>
    <sequenceFlow id="f1" sourceRef="s" targetRef="check"/><sequenceFlow id="f2" sourceRef="check" targetRef="bill"/><sequenceFlow id="f3" sourceRef="bill" targetRef="e"/></process>
  ${place === "relationship" ? `<relationship type="BPSimData"><extensionElements>${data}</extensionElements><source>d</source><target>d</target></relationship>` : ""}
</definitions>`;
const scenario = (inside: string, more = "") =>
  `<bpsim:BPSimData><bpsim:Scenario id="now" name="As it is">${more}${inside}</bpsim:Scenario></bpsim:BPSimData>`;
const time = (of: string, value: string) =>
  `<bpsim:ElementParameters elementRef="${of}"><bpsim:TimeParameters><bpsim:ProcessingTime>${value}</bpsim:ProcessingTime></bpsim:TimeParameters></bpsim:ElementParameters>`;
const cost = (of: string, value: string) =>
  `<bpsim:ElementParameters elementRef="${of}"><bpsim:CostParameters><bpsim:FixedCost>${value}</bpsim:FixedCost></bpsim:CostParameters></bpsim:ElementParameters>`;
const duration = (value: string) => `<bpsim:DurationParameter value="${value}"/>`;
const amount = (value: number) => `<bpsim:NumericParameter value="${value}"/>`;
const read = (text: string): Model => expectOk(readBpmn(text));

describe("estimates in files", () => {
  test.each(["relationship", "definitions"] as const)("are read where the standard lets them stand: %s", (place) => {
    const model = read(file(scenario(time("check", duration("PT20M")) + cost("bill", amount(3.5))), place));
    expect(estimatesOf(model)).toEqual(
      new Map([
        ["check", { time: "PT20M" }],
        ["bill", { cost: 3.5 }],
      ]),
    );
    expect(holderIn(model)).toBeDefined();
  });

  test("none, where a file has none; and the usual currency", () => {
    const model = read(file(""));
    expect(estimatesOf(model).size).toBe(0);
    expect(holderIn(model)).toBeUndefined();
    expect(currencyOf(model)).toBe("EUR");
  });

  test("the currency is the file's own, and stays when costs are changed", () => {
    const model = read(file(scenario(cost("bill", amount(3)), '<bpsim:ScenarioParameters baseCurrencyUnit="SEK"/>')));
    expect(currencyOf(model)).toBe("SEK");
    const changed = expectOk(perform(model, { type: "setEstimate", id: "bill", cost: 4 })).model;
    const again = read(writeBpmn(changed));
    expect(currencyOf(again)).toBe("SEK");
    expect(estimatesOf(again).get("bill")).toEqual({ cost: 4 });
  });

  test("what is no duration or amount of ours stays in the file as it stood", () => {
    const foreign = time("check", '<bpsim:TruncatedNormalParameter mean="20" standardDeviation="3" min="5" max="60"/>');
    const model = read(file(scenario(foreign + time("bill", duration("PT1H")))));
    expect(estimatesOf(model).get("check")).toBeUndefined();
    const written = writeBpmn(expectOk(perform(model, { type: "setEstimate", id: "bill", time: "PT2H" })).model);
    expect(written).toContain('TruncatedNormalParameter mean="20" standardDeviation="3" min="5" max="60"');
    expect(written).toContain("PT2H");
  });

  test("of several scenarios the others are kept", () => {
    const data = `<bpsim:BPSimData><bpsim:Scenario id="now" name="As it is">${time("check", duration("PT20M"))}</bpsim:Scenario><bpsim:Scenario id="busy" name="In spring" inherits="now">${time("check", duration("PT40M"))}</bpsim:Scenario></bpsim:BPSimData>`;
    const written = writeBpmn(read(file(data)));
    expect(written).toContain('id="busy"');
    expect(written).toContain("PT40M");
    expect(estimatesOf(read(written)).get("check")).toEqual({ time: "PT20M" });
  });

  test("written and read again they are the same, and written once more the same bytes", () => {
    const minutes = fc.integer({ min: 1, max: 6_000 });
    const money = fc.integer({ min: 0, max: 100_000 }).map((cents) => cents / 100);
    fc.assert(
      fc.property(fc.option(minutes), fc.option(money), fc.option(minutes), (first, spent, second) => {
        let model = smallModel();
        const set = (id: string, change: { time?: string; cost?: number }) => {
          model = expectOk(perform(model, { type: "setEstimate", id, ...change })).model;
        };
        if (first !== null) set("check", { time: `PT${first}M` });
        if (spent !== null) set("check", { cost: spent });
        if (second !== null) set("approve", { time: `PT${second}M` });
        const written = writeBpmn(model);
        const again = read(written);
        expect(new Map(estimatesOf(again))).toEqual(new Map(estimatesOf(model)));
        expect(writeBpmn(again)).toBe(written);
      }),
      { numRuns: 40 },
    );
  });
});

describe("estimates of steps", () => {
  test("each field is one record: taking one off leaves the other", () => {
    let model = expectOk(perform(smallModel(), { type: "setEstimate", id: "check", time: "PT20M", cost: 2 })).model;
    expect(model.figures.size).toBe(2);
    model = expectOk(perform(model, { type: "setEstimate", id: "check", time: null })).model;
    expect(estimatesOf(model).get("check")).toEqual({ cost: 2 });
    model = expectOk(perform(model, { type: "setEstimate", id: "check", cost: null })).model;
    expect(estimatesOf(model).size).toBe(0);
  });

  test("they go with their step, and come back with it", () => {
    const model = expectOk(perform(smallModel(), { type: "setEstimate", id: "check", cost: 2 })).model;
    const gone = expectOk(perform(model, { type: "delete", ids: ["check"] })).model;
    expect(estimatesOf(gone).size).toBe(0);
    expect(writeBpmn(gone)).not.toContain("elementRef");
  });

  test.each<[what: string, change: object]>([
    ["a time that is none", { time: "soon" }],
    ["a cost below nothing", { cost: -1 }],
    ["a cost that is no number", { cost: Number.NaN }],
  ])("%s is refused", (_, change) => {
    const command = commandSchema.safeParse({ type: "setEstimate", id: "check", ...change });
    const refused = !command.success || !perform(smallModel(), command.data).ok;
    expect(refused).toBe(true);
  });
});
