import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import { drawMissingPages, perform } from "../commands";
import { expectOk, performAll, smallModel } from "../testing/models";
import { checkModel, keyOf, rules, verdictOf } from ".";

const bpmn = 'xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL"';
/** Content of a process, unless it begins with a root element of its own. */
const modelOf = (content: string) => {
  const inner = content.includes("<process") ? content : `<process id="p">${content}</process>`;
  return drawMissingPages(expectOk(readBpmn(`<definitions ${bpmn} targetNamespace="urn:q">${inner}</definitions>`)));
};
const flow = (from: string, to: string, more = "") =>
  `<sequenceFlow id="${from}-${to}" sourceRef="${from}" targetRef="${to}"${more}/>`;
const start = '<startEvent id="s" name="Order came"/>';
const end = '<endEvent id="e" name="Done"/>';
const task = (id: string, name = `Check part ${id}`) => `<task id="${id}" name="${name}"/>`;
const timer = "<timerEventDefinition><timeDuration>P1D</timeDuration></timerEventDefinition>";

describe("each rule finds its case", () => {
  test.each<[rule: string, at: string, content: string]>([
    ["sequence-flow-rule", "e-a", `${start}${task("a")}${end}${flow("s", "a")}${flow("e", "a")}`],
    [
      "message-flow-rule",
      "m",
      '<collaboration id="c"><participant id="q" processRef="p"/><participant id="h"/><messageFlow id="m" sourceRef="h" targetRef="e"/></collaboration><process id="p"><endEvent id="e"/></process>',
    ],
    [
      "flow-without-end",
      "f",
      '<collaboration id="c"><participant id="q" processRef="p"/><messageFlow id="f" sourceRef="q"/></collaboration><process id="p"/>',
    ],
    ["dangling-reference", "f", `${task("a")}<sequenceFlow id="f" sourceRef="a" targetRef="nobody"/>`],
    ["duplicate-id", "~2", `${task("a")}${task("a")}`],
    ["unreadable-part", "g", '<exclusiveGateway id="g" gatewayDirection="Sideways"/>'],
    ["event-position", "s", '<startEvent id="s"><terminateEventDefinition/></startEvent>'],
    [
      "boundary-host",
      "b",
      `<exclusiveGateway id="g"/><boundaryEvent id="b" attachedToRef="g">${timer}</boundaryEvent>`,
    ],
    [
      "event-gateway-branches",
      "g",
      `${start}<eventBasedGateway id="g"/><intermediateCatchEvent id="i">${timer}</intermediateCatchEvent>${flow("s", "g")}${flow("g", "i")}`,
    ],
    ["default-flow", "g", `<exclusiveGateway id="g" default="a-e"/>${task("a")}${end}${flow("a", "e")}`],
    [
      "pool-without-messages",
      "h",
      '<collaboration id="c"><participant id="q" processRef="p"/><participant id="h" name="Household"/></collaboration><process id="p"><task id="t"/></process>',
    ],
    ["no-start", "p", task("a")],
    ["no-end", "p", `${start}${task("a")}${flow("s", "a")}`],
    ["no-way-in", "a", `${start}${task("a")}${end}${flow("s", "e")}${flow("a", "e")}`],
    ["no-way-out", "a", `${start}${task("a")}${flow("s", "a")}`],
    ["no-role", "a", task("a")],
    [
      "no-default",
      "g",
      `<exclusiveGateway id="g"/>${task("a")}${task("b")}${flow("g", "a", ' name="yes"')}${flow("g", "b", ' name="no"')}`,
    ],
    [
      "no-condition",
      "g-a",
      `<exclusiveGateway id="g" default="g-b"/>${task("a")}${task("b")}${flow("g", "a")}${flow("g", "b")}`,
    ],
    ["timer-without-time", "i", '<intermediateCatchEvent id="i"><timerEventDefinition/></intermediateCatchEvent>'],
    ["no-called-process", "k", '<callActivity id="k" name="Switch on"/>'],
    ["empty-sub-process", "u", '<subProcess id="u" name="Inspect on site"/>'],
    ["empty-lane", "l", '<laneSet id="ls"><lane id="l" name="Billing"/></laneSet>'],
    ["unnamed-step", "a", '<task id="a"/>'],
    ["unnamed-decision", "g", `<exclusiveGateway id="g"/>${task("a")}${task("b")}${flow("g", "a")}${flow("g", "b")}`],
    [
      "unnamed-answer",
      "g-b",
      `<exclusiveGateway id="g"/>${task("a")}${task("b")}${flow("g", "a", ' name="yes"')}${flow("g", "b")}`,
    ],
    [
      "decision-not-a-question",
      "g",
      `<exclusiveGateway id="g" name="Decide"/>${task("a")}${task("b")}${flow("g", "a")}${flow("g", "b")}`,
    ],
    ["unnamed-end", "e2", `${end}<endEvent id="e2"/>`],
    ["unnamed-start", "s", '<startEvent id="s"/>'],
    [
      "verb-and-object",
      "a",
      '<task id="a" name="Capacity check"/>'.replace("Capacity check", "Verification of capacity"),
    ],
    ["same-name-twice", "b", `${task("a", "Check feeder")}${task("b", "Check feeder")}`],
    ["needless-gateway", "g", `${start}<exclusiveGateway id="g"/>${end}${flow("s", "g")}${flow("g", "e")}`],
    [
      "split-and-join",
      "g",
      `${task("a")}${task("b")}<parallelGateway id="g"/>${task("c")}${task("d")}${flow("a", "g")}${flow("b", "g")}${flow("g", "c")}${flow("g", "d")}`,
    ],
    ["several-starts", "s", `${start}<startEvent id="s2" name="Night came"/>`],
    ["too-large", "p", Array.from({ length: 51 }, (_, at) => task(`t${at}`)).join("")],
    [
      "lack-of-synchronization",
      "y",
      `${start}<parallelGateway id="x"/>${task("a")}${task("b")}<exclusiveGateway id="y"/>${end}${flow("s", "x")}${flow("x", "a")}${flow("x", "b")}${flow("a", "y")}${flow("b", "y")}${flow("y", "e")}`,
    ],
    [
      "deadlock",
      "y",
      `${start}<exclusiveGateway id="x"/>${task("a")}${task("b")}<parallelGateway id="y"/>${end}${flow("s", "x")}${flow("x", "a")}${flow("x", "b")}${flow("a", "y")}${flow("b", "y")}${flow("y", "e")}`,
    ],
    ["livelock", "a", `${start}${task("a")}${task("b")}${flow("s", "a")}${flow("a", "b")}${flow("b", "a")}`],
    ["dead-element", "a", `${start}${end}${flow("s", "e")}${task("a")}`],
  ])("%s at %s", (rule, at, content) => {
    const found = checkModel(modelOf(content)).filter((finding) => finding.rule === rule);
    expect(found.flatMap((finding) => finding.elements)).toContain(at);
  });

  test("not-drawn: an element on no page", () => {
    const model = expectOk(
      readBpmn(
        `<definitions ${bpmn} xmlns:g="http://www.omg.org/spec/BPMN/20100524/DI" targetNamespace="urn:q"><process id="p"><task id="t" name="Check it"/></process><g:BPMNDiagram id="x"><g:BPMNPlane bpmnElement="p"/></g:BPMNDiagram></definitions>`,
      ),
    );
    expect(checkModel(model).filter((finding) => finding.rule === "not-drawn")).toMatchObject([{ elements: ["t"] }]);
  });

  test("shapes-overlap: one shape over another", () => {
    const model = modelOf(`${task("a")}${task("b")}`);
    const shape = [...model.shapes].find((candidate) => candidate.element === "a");
    const other = [...model.shapes].find((candidate) => candidate.element === "b");
    const covered = performAll(model, {
      type: "resize",
      diagram: shape?.diagram ?? "",
      id: "b",
      bounds: { ...(shape?.bounds as NonNullable<typeof shape>["bounds"]) },
    });
    expect(other).toBeDefined();
    expect(checkModel(covered).map((finding) => finding.rule)).toContain("shapes-overlap");
  });
});

describe("rules as a whole", () => {
  test("ids are unique, there are at least twenty, and each says what it wants", () => {
    expect(new Set(rules.map((rule) => rule.id)).size).toBe(rules.length);
    expect(rules.length).toBeGreaterThanOrEqual(20);
    for (const rule of rules) expect(rule.wants.text).toMatch(/^[A-Z].+\.$/);
  });

  test("a message says what, why and what to do, in sentences", () => {
    const findings = checkModel(
      modelOf(
        `${task("a")}<task id="b"/><exclusiveGateway id="g"/>${flow("g", "a")}${flow("g", "b")}${flow("a", "zz")}`,
      ),
    );
    for (const finding of findings) {
      expect(finding.message).toMatch(/^[A-Z“0-9].*\.$/s);
      expect(finding.message.split(/(?<=[.?])\s/).length).toBeGreaterThanOrEqual(2);
      expect(finding.message).not.toContain("undefined");
    }
  });

  test("a repair is accepted and removes its finding", () => {
    const content =
      `<startEvent id="s" name="Order came"/>${task("a")}<exclusiveGateway id="g" name="Decide"/><exclusiveGateway id="h"/>${task("b")}${task("c")}<sequenceFlow id="x" sourceRef="a" targetRef="zz"/>${flow("s", "h")}${flow("h", "a")}${flow("a", "g")}${flow("g", "b", ' name="yes"')}${flow("g", "c", ' name="no"')}<laneSet id="ls"><lane id="l" name="Billing"/></laneSet>`.replace(
        /(.*)(<laneSet.*)/,
        "$2$1",
      );
    const model = modelOf(content);
    const repairable = checkModel(model).flatMap((finding) =>
      (finding.repairs ?? []).map((repair) => ({ finding, repair })),
    );
    expect(repairable.length).toBeGreaterThanOrEqual(5);
    for (const { finding, repair } of repairable) {
      const mended = performAll(model, ...repair.commands);
      expect(checkModel(mended).map(keyOf), finding.rule).not.toContain(keyOf(finding));
    }
  });

  test("the model drawn for the tests has no error", () => {
    expect(checkModel(smallModel()).filter((finding) => finding.severity === "error")).toEqual([]);
  });

  test("an accepted error no longer stands in the way, and stays in the verdict with its reason", () => {
    const done = perform(smallModel(), { type: "delete", ids: ["f2"] });
    const findings = checkModel(expectOk(done).model);
    const [error] = findings.filter((finding) => finding.severity === "error");
    expect(error).toBeDefined();
    if (!error) return;
    const waiver = {
      finding: keyOf(error),
      about: error.about,
      reason: "Drawn by hand until May",
      member: "Mara",
      at: "2026-11-23T00:00:00Z",
    };
    expect(verdictOf(findings, []).openErrors).toContain(error);
    expect(verdictOf(findings, [waiver]).openErrors).not.toContain(error);
    expect(verdictOf(findings, [waiver]).waived).toEqual([{ finding: error, waiver }]);
  });
});
