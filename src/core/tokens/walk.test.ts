import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import type { Model } from "../model";
import { expectOk } from "../testing/models";
import { type WalkChoices, walk } from ".";

const flow = (from: string, to: string, more = "") =>
  `<sequenceFlow id="${from}-${to}" sourceRef="${from}" targetRef="${to}">${more}</sequenceFlow>`;
const modelOf = (content: string): Model =>
  expectOk(
    readBpmn(
      new TextEncoder().encode(
        `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="definitions" targetNamespace="x"><process id="process">${content}</process></definitions>`,
      ),
    ),
  );
const tasks = (...ids: string[]) => ids.map((id) => `<task id="${id}"/>`).join("");
const chain = (...ids: string[]) =>
  ids
    .slice(1)
    .map((to, at) => flow(ids[at] as string, to))
    .join("");
/** The elements entered, in order, and how it ended. */
const played = (content: string, choices: WalkChoices = {}) => {
  const { log, outcome } = walk(modelOf(content), "process", choices);
  return `${log.flatMap(({ element, event }) => (event === "entered" ? [element] : [])).join(" ")}: ${outcome}`;
};
const choose = (...entries: [string, string[][]][]) => ({ choose: new Map(entries) });

/** BPMN 2.0, chapter 13 "BPMN Execution Semantics" (from memory), a clause a case. */
describe("a case goes as the standard says", () => {
  const split = (type: string, join = type) =>
    `<startEvent id="s"/><${type} id="x"/>${tasks("a", "b")}<${join} id="y"/><endEvent id="e"/>${chain("s", "x", "a", "y", "e")}${chain("x", "b", "y")}`;
  test.each<[string, string, WalkChoices, string]>([
    [
      "one step after the other",
      `<startEvent id="s"/>${tasks("a", "b")}<endEvent id="e"/>${chain("s", "a", "b", "e")}`,
      {},
      "s a b e: completed",
    ],
    [
      "an exclusive gateway takes the first way, where nothing is said",
      split("exclusiveGateway"),
      {},
      "s x a y e: completed",
    ],
    [
      "an exclusive gateway takes its default",
      split("exclusiveGateway").replace('id="x"', 'id="x" default="x-b"'),
      {},
      "s x b y e: completed",
    ],
    [
      "an exclusive gateway takes the way that is named",
      split("exclusiveGateway"),
      choose(["x", [["x-b"]]]),
      "s x b y e: completed",
    ],
    ["a parallel gateway takes all ways, and waits for all", split("parallelGateway"), {}, "s x a b y e: completed"],
    [
      "an inclusive gateway takes the ways that are named, and waits for those",
      split("inclusiveGateway"),
      choose(["x", [["x-a", "x-b"]]]),
      "s x a b y e: completed",
    ],
    ["an inclusive gateway may take one", split("inclusiveGateway"), choose(["x", [["x-b"]]]), "s x b y e: completed"],
    [
      "after a parallel split an exclusive join lets each token through",
      split("parallelGateway", "exclusiveGateway"),
      {},
      "s x a b y y e e: completed",
    ],
    [
      "after an exclusive split a parallel join waits for ever",
      split("exclusiveGateway", "parallelGateway"),
      {},
      "s x a: stuck",
    ],
    [
      "a step with two ways out takes both",
      `<startEvent id="s"/>${tasks("a", "b", "c")}${chain("s", "a", "b")}${chain("a", "c")}`,
      {},
      "s a b c: completed",
    ],
    [
      "a step's default is taken where no condition holds",
      `<startEvent id="s"/><task id="a" default="a-c"/>${tasks("b", "c")}${chain("s", "a")}${flow("a", "b", "<conditionExpression>big</conditionExpression>")}${flow("a", "c")}`,
      {},
      "s a c: completed",
    ],
    [
      "a condition that holds leaves the default out",
      `<startEvent id="s"/><task id="a" default="a-c"/>${tasks("b", "c")}${chain("s", "a")}${flow("a", "b", "<conditionExpression>big</conditionExpression>")}${flow("a", "c")}`,
      choose(["a", [["a-b"]]]),
      "s a b: completed",
    ],
    [
      "a loop is left when its visits are told to",
      `<startEvent id="s"/><exclusiveGateway id="j"/>${tasks("a")}<exclusiveGateway id="x"/><endEvent id="e"/>${chain("s", "j", "a", "x", "e")}${chain("x", "j")}`,
      choose(["x", [["x-j"], ["x-j"], ["x-e"]]]),
      "s j a x j a x j a x e: completed",
    ],
    [
      "a terminate end takes what else is under way",
      `<startEvent id="s"/><parallelGateway id="x"/>${tasks("a", "b", "c")}<endEvent id="z"><terminateEventDefinition/></endEvent>${chain("s", "x", "z")}${chain("x", "a", "b", "c")}`,
      {},
      "s x a z: completed",
    ],
    [
      "an interrupting event takes the way from the edge",
      `<startEvent id="s"/>${tasks("a", "b", "c")}<boundaryEvent id="t" attachedToRef="a"><timerEventDefinition/></boundaryEvent>${chain("s", "a", "b")}${chain("t", "c")}`,
      { fire: ["t"] },
      "s a t c: completed",
    ],
    [
      "one that does not interrupt goes beside",
      `<startEvent id="s"/>${tasks("a", "b", "c")}<boundaryEvent id="t" attachedToRef="a" cancelActivity="false"><timerEventDefinition/></boundaryEvent>${chain("s", "a", "b")}${chain("t", "c")}`,
      { fire: ["t"] },
      "s a t c b: completed",
    ],
    [
      "a sub-process is entered and left when all inside has ended",
      `<startEvent id="s"/><subProcess id="sub"><startEvent id="i"/>${tasks("p")}<endEvent id="o"/>${chain("i", "p", "o")}</subProcess>${tasks("b")}${chain("s", "sub", "b")}`,
      {},
      "s sub i p o b: completed",
    ],
    [
      "an error inside is caught at the edge",
      `<startEvent id="s"/><subProcess id="sub"><startEvent id="i"/><endEvent id="o"><errorEventDefinition/></endEvent>${chain("i", "o")}</subProcess>${tasks("b", "c")}<boundaryEvent id="t" attachedToRef="sub"><errorEventDefinition/></boundaryEvent>${chain("s", "sub", "b")}${chain("t", "c")}`,
      {},
      "s sub i o t c: completed",
    ],
    [
      "an error nobody catches ends what is around it",
      `<startEvent id="s"/><subProcess id="sub"><startEvent id="i"/><endEvent id="o"><errorEventDefinition/></endEvent>${chain("i", "o")}</subProcess>${tasks("b")}${chain("s", "sub", "b")}`,
      {},
      "s sub i o: completed",
    ],
    [
      "a link is caught where it is named",
      `<startEvent id="s"/><intermediateThrowEvent id="l"><linkEventDefinition name="A"/></intermediateThrowEvent><intermediateCatchEvent id="k"><linkEventDefinition name="A"/></intermediateCatchEvent>${chain("s", "l")}${chain("k", "e")}<endEvent id="e"/>`,
      {},
      "s l k e: completed",
    ],
    [
      "a race for events is a choice",
      `<startEvent id="s"/><eventBasedGateway id="r"/><intermediateCatchEvent id="m"><messageEventDefinition/></intermediateCatchEvent><intermediateCatchEvent id="t"><timerEventDefinition/></intermediateCatchEvent>${chain("s", "r", "m")}${chain("r", "t")}`,
      choose(["r", [["r-t"]]]),
      "s r t: completed",
    ],
    [
      "the start event that is named begins",
      `<startEvent id="s"/><startEvent id="s2"/>${tasks("a", "b")}${chain("s", "a")}${chain("s2", "b")}`,
      { start: "s2" },
      "s2 b: completed",
    ],
    [
      "an event sub-process that interrupts takes over",
      `<startEvent id="s"/>${tasks("a", "b")}${chain("s", "a", "b")}<subProcess id="sub" triggeredByEvent="true"><startEvent id="i"><messageEventDefinition/></startEvent>${tasks("p")}${chain("i", "p")}</subProcess>`,
      { fire: ["i"] },
      "sub i p: completed",
    ],
  ])("%s", (_, content, choices, expected) => {
    expect(played(content, choices)).toBe(expected);
  });
});

test("a loop that is never left is stopped by the bound", () => {
  const content = `<startEvent id="s"/><exclusiveGateway id="j"/>${tasks("a")}${chain("s", "j", "a", "j")}`;
  expect(walk(modelOf(content), "process", { bound: 50 })).toMatchObject({ outcome: "stopped" });
});

test("what is left says where it is stuck; each element says how often it was entered", () => {
  const content = `<startEvent id="s"/><exclusiveGateway id="x"/>${tasks("a", "b")}<parallelGateway id="y"/>${chain("s", "x", "a", "y")}${chain("x", "b", "y")}`;
  const walked = walk(modelOf(content), "process");
  expect(walked.left).toEqual(["y"]);
  expect(walked.entered).toEqual(["s", "x", "a"].map((element) => ({ element, times: 1 })));
});
