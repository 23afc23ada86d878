import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import { checkModel } from "../check";
import { readTable } from "../table";
import { expectOk, performAll } from "../testing/models";
import { checklistCsv, checklistMarkdown, checklistOf, readyShare } from ".";

/** A process with one element of each kind that a machine needs something of. */
const file = (inside: string, roots = "") =>
  expectOk(
    readBpmn(`<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:rig="urn:rig" id="d" targetNamespace="t">
<process id="p" name="Connect">${inside}</process>${roots}</definitions>`),
  );
const needs = (inside: string, roots = "") =>
  checklistOf(file(inside, roots)).rows.flatMap((row) =>
    row.needs.map(
      (need) =>
        `${row.element}: ${need.name} ${need.isThere ? "there" : `missing from ${need.from}`}: ${need.says.text}`,
    ),
  );

describe("what a machine needs", () => {
  test.each<[string, string, string, string[]]>([
    [
      "a service task, unbound",
      '<serviceTask id="a"/>',
      "",
      ["a: operation missing from developer: the operation it calls"],
    ],
    [
      "a service task, bound",
      '<serviceTask id="a" operationRef="o"/>',
      '<interface id="i" name="Planner"><operation id="o" name="plan"/></interface>',
      ["a: operation there: plan of Planner"],
    ],
    ["a script", '<scriptTask id="a"/>', "", ["a: script missing from developer: the script it runs"]],
    [
      "a user task",
      '<userTask id="a"/>',
      "",
      ["a: role missing from analyst: who does it", "a: form missing from analyst: the form it is filled in with"],
    ],
    [
      "a user task in a lane, with a form of somebody's tool",
      '<laneSet id="ls"><lane id="l" name="Front desk"><flowNodeRef>a</flowNodeRef></lane></laneSet><userTask id="a" rig:formKey="x"/>',
      "",
      ["a: role there: Front desk", "a: form there: a form"],
    ],
    ["a manual task needs nothing of a machine", '<manualTask id="a"/><task id="b"/>', "", []],
    [
      "answers: the default needs none",
      `<exclusiveGateway id="g" default="f3"/><task id="x"/><task id="y"/><task id="z"/>
       <dataObject id="do"/><dataObjectReference id="r" name="power" dataObjectRef="do"/>
       <sequenceFlow id="f1" sourceRef="g" targetRef="x"><conditionExpression>power &gt; 10</conditionExpression></sequenceFlow>
       <sequenceFlow id="f2" name="Small" sourceRef="g" targetRef="y"/><sequenceFlow id="f3" sourceRef="g" targetRef="z"/>`,
      "",
      [
        "do: type missing from developer: of which fields it is made",
        "f1: condition there: power > 10",
        "f2: condition missing from analyst: its condition",
      ],
    ],
    [
      "timers",
      `<intermediateCatchEvent id="a"><timerEventDefinition><timeDuration>PT1H</timeDuration></timerEventDefinition></intermediateCatchEvent>
       <intermediateCatchEvent id="b"><timerEventDefinition><timeDuration>a while</timeDuration></timerEventDefinition></intermediateCatchEvent>
       <intermediateCatchEvent id="c"><timerEventDefinition/></intermediateCatchEvent>`,
      "",
      [
        "a: time there: PT1H",
        "b: time missing from analyst: a time in ISO 8601: “a while” is words",
        "c: time missing from analyst: when it goes off",
      ],
    ],
    [
      "a message that is waited for",
      '<intermediateCatchEvent id="a"><messageEventDefinition messageRef="m"/></intermediateCatchEvent>',
      '<message id="m" name="Consent" itemRef="i"/><itemDefinition id="i" structureRef="Consent"/>',
      [
        "a: trigger there: Consent",
        "a: payload there: Consent",
        "a: correlation missing from developer: by what its case is found",
      ],
    ],
    [
      "a message that begins the process needs no correlation",
      '<startEvent id="a"><messageEventDefinition/></startEvent>',
      "",
      ["a: trigger missing from analyst: which message", "a: payload missing from analyst: what the message carries"],
    ],
    [
      "a call",
      '<callActivity id="a"/><callActivity id="b" calledElement="q"/>',
      "",
      ["a: process missing from analyst: the process it calls", "b: process there: q"],
    ],
    [
      "each of several",
      '<task id="a"><multiInstanceLoopCharacteristics/></task><task id="b"><multiInstanceLoopCharacteristics><loopCardinality>3</loopCardinality></multiInstanceLoopCharacteristics></task>',
      "",
      ["a: instances missing from analyst: for how many, or for each of what", "b: instances there: 3 times"],
    ],
  ])("%s", (_, inside, roots, said) => {
    expect(needs(inside, roots)).toEqual(said);
  });
});

test("the check and the list never say different things", () => {
  const model = file('<serviceTask id="a"/><scriptTask id="s"/><callActivity id="c"/><userTask id="u"/>');
  const found = new Set(checkModel(model, { profile: "hand-off" }).flatMap(({ elements }) => elements));
  for (const { element, needs } of checklistOf(model).rows)
    if (needs.some(({ isThere }) => !isThere)) expect(found).toContain(element);
  const bound = performAll(model, {
    type: "bindOperation",
    id: "a",
    to: {
      source: "p.yaml",
      format: "",
      version: "",
      interface: "Planner",
      operation: { name: "plan", in: [], out: [], errors: [], address: "" },
    },
  });
  expect(checklistOf(bound).there).toBe(checklistOf(model).there + 1);
});

test("as CSV a line for each need, as Markdown what is missing first; no cell runs, no sign breaks the table", () => {
  const checklist = checklistOf(
    file('<serviceTask id="a" name="=1+1 | *loud*"/><callActivity id="b" calledElement="q"/>'),
  );
  const csv = readTable(checklistCsv(checklist));
  expect(JSON.stringify(csv)).toContain("=1+1 | *loud*");
  expect(checklistCsv(checklist)).toContain("'=1+1");
  const markdown = checklistMarkdown(checklist, "Connect");
  expect(markdown).toContain("1 of 2 things a machine needs are there (50 %)");
  expect(markdown).toContain("| =1+1 \\| \\*loud\\* | service task |  | Operation | the operation it calls |");
  expect(markdown.indexOf("Missing")).toBeLessThan(markdown.indexOf("## There"));
});

test("a hundred per cent only where nothing is missing", () => {
  expect(readyShare({ rows: [], there: 999, needed: 1000 })).toBe(99);
  expect(readyShare({ rows: [], there: 0, needed: 0 })).toBe(100);
});
