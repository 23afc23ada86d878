import { readBpmn } from "../../bpmn";
import type { Model } from "../../model";
import { type Scenario, scenariosOf } from "../../scenario";
import { expectOk } from "../../testing/models";
import { type World, worldWith } from "../../tokens";
import { type Asked, type Forecast, forecast } from "../forecast";

/** A file with a process and its simulation data, as another program would write it. */
export const bpmnWith = (
  process: string,
  parameters: string,
  scenario = "",
  more = "",
): string => `<?xml version="1.0" encoding="UTF-8"?>
<bpmn:definitions xmlns:bpmn="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:bpsim="http://www.bpsim.org/schemas/1.0" id="d" targetNamespace="urn:test">
  ${more}
  <bpmn:process id="p" name="P">${process}</bpmn:process>
  <bpmn:relationship type="BPSimData"><bpmn:extensionElements><bpsim:BPSimData>
    <bpsim:Scenario id="s1" name="One">${scenario || '<bpsim:ScenarioParameters baseTimeUnit="min" baseCurrencyUnit="EUR"/>'}${parameters}</bpsim:Scenario>
  </bpsim:BPSimData></bpmn:extensionElements><bpmn:source>d</bpmn:source><bpmn:target>d</bpmn:target></bpmn:relationship>
</bpmn:definitions>`;

export const modelOf = (text: string): Model => expectOk(readBpmn(new TextEncoder().encode(text)));

/** Parameters of an element: groups as they stand in a file. */
export const of = (element: string, inner: string) =>
  `<bpsim:ElementParameters elementRef="${element}">${inner}</bpsim:ElementParameters>`;
export const timeOf = (value: string, kind = "ProcessingTime") =>
  `<bpsim:TimeParameters><bpsim:${kind}>${value}</bpsim:${kind}></bpsim:TimeParameters>`;
export const every = (value: string) =>
  `<bpsim:ControlParameters><bpsim:InterTriggerTimer>${value}</bpsim:InterTriggerTimer></bpsim:ControlParameters>`;
export const share = (value: number) =>
  `<bpsim:ControlParameters><bpsim:Probability><bpsim:FloatingParameter value="${value}"/></bpsim:Probability></bpsim:ControlParameters>`;
export const number = (value: number) => `<bpsim:NumericParameter value="${value}"/>`;
export const exponential = (mean: number) => `<bpsim:NegativeExponentialDistribution mean="${mean}"/>`;
export const resource = (id: string, quantity: number, hourly?: number) =>
  of(
    id,
    `<bpsim:ResourceParameters><bpsim:Quantity>${number(quantity)}</bpsim:Quantity></bpsim:ResourceParameters>${
      hourly === undefined
        ? ""
        : `<bpsim:CostParameters><bpsim:UnitCost><bpsim:FloatingParameter value="${hourly}" timeUnit="hour"/></bpsim:UnitCost></bpsim:CostParameters>`
    }`,
  );
export const needs = (id: string, count = 1) =>
  `<bpsim:ResourceParameters><bpsim:Selection><bpsim:ExpressionParameter value="bpsim:getResource('${id}',${count})"/></bpsim:Selection></bpsim:ResourceParameters>`;

/** Nodes in a row with flows between them: "start s", "task a", "end e". */
export const inARow = (...nodes: readonly string[]): string => {
  const ids = nodes.map((node) => /id="([^"]+)"/.exec(node)?.[1] ?? "");
  const flows = ids
    .slice(1)
    .map((id, at) => `<bpmn:sequenceFlow id="f${at}" sourceRef="${ids[at]}" targetRef="${id}"/>`);
  return [...nodes, ...flows].join("");
};
export const start = '<bpmn:startEvent id="s"/>';
export const end = '<bpmn:endEvent id="e"/>';
export const task = (id: string) => `<bpmn:task id="${id}" name="${id}"/>`;
export const clerks = (...ids: readonly string[]) =>
  ids.map((id) => `<bpmn:resource id="${id}" name="${id}"/>`).join("");

export const flow = (id: string, from: string, to: string) =>
  `<bpmn:sequenceFlow id="${id}" sourceRef="${from}" targetRef="${to}"/>`;
export const fixedCost = (amount: number) =>
  `<bpsim:CostParameters><bpsim:FixedCost>${number(amount)}</bpsim:FixedCost></bpsim:CostParameters>`;
/** A step each on two ways between a split "g" and a join "j" of a kind. */
export const split = (kind: string) =>
  `${start}<bpmn:${kind} id="g"/>${task("a")}${task("b")}<bpmn:${kind} id="j"/>${end}${flow("f1", "s", "g")}${flow("fa", "g", "a")}${flow("fb", "g", "b")}${flow("f2", "a", "j")}${flow("f3", "b", "j")}${flow("f4", "j", "e")}`;

/** A station of equal resources with one queue. */
export const station = (interval: string, work: string, count: number) =>
  bpmnWith(
    inARow(start, task("a"), end),
    of("s", every(interval)) + of("a", timeOf(work) + needs("r")) + resource("r", count),
    "",
    clerks("r"),
  );

/** A model by itself, with one of its scenarios: what a forecast is made of. */
export function readyOf(model: Model, at = 0): { readonly world: World; readonly scenario: Scenario } {
  const scenario = scenariosOf(model)[at];
  if (!scenario) throw new Error("The file holds no scenario.");
  return { world: worldWith(model, new Map(), true), scenario };
}

export function forecastOf(text: string, asked: Asked = {}, at = 0): Forecast {
  const { world, scenario } = readyOf(modelOf(text), at);
  return forecast(world, scenario, asked);
}
