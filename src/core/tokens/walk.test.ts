import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import type { Model } from "../model";
import { expectOk } from "../testing/models";
import { scopeNetOf, type WalkChoices, walk } from ".";
import { afterMove, initialStates, isOver, keyOfState, type Move, movesOf } from "./scopeState";

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
/** Two conditions of which the data below lets none hold. */
const barred = `<startEvent id="s"/><exclusiveGateway id="x"/>${tasks("a", "b")}${chain("s", "x")}${flow("x", "a", "<conditionExpression>rated power &gt; 10</conditionExpression>")}${flow("x", "b", "<conditionExpression>rated power &lt; 5</conditionExpression>")}`;
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
      { fire: [{ element: "t" }] },
      "s a t c: completed",
    ],
    [
      "one that does not interrupt goes beside",
      `<startEvent id="s"/>${tasks("a", "b", "c")}<boundaryEvent id="t" attachedToRef="a" cancelActivity="false"><timerEventDefinition/></boundaryEvent>${chain("s", "a", "b")}${chain("t", "c")}`,
      { fire: [{ element: "t" }] },
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
      { fire: [{ element: "i" }] },
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

const inside = (content: string, id = "sub", type = "subProcess", more = "") =>
  `<${type} id="${id}"${more}>${content}</${type}>`;
const event = (tag: string, id: string, trigger: string, more = "", ref = "") =>
  `<${tag} id="${id}"${more}><${trigger}EventDefinition${ref}/></${tag}>`;
const undoable = (id: string) =>
  `<task id="${id}"/>${event("boundaryEvent", `${id}c`, "compensate", ` attachedToRef="${id}"`)}<task id="${id}u" isForCompensation="true"/><association id="${id}l" sourceRef="${id}c" targetRef="${id}u" associationDirection="One"/>`;
const multi = (id: string, loop: string) => `<task id="${id}">${loop}</task>`;

/** The same chapter, the clauses for events that go far and activities done several times. */
describe("what is thrown is caught, what is repeated is counted", () => {
  test.each<[string, string, WalkChoices, string]>([
    [
      "a complex gateway waits for as many as it says, and takes the rest for nothing",
      `<startEvent id="s"/><parallelGateway id="x"/>${tasks("a", "b", "c", "d")}<complexGateway id="y"><activationCondition>activationCount &gt;= 2</activationCondition></complexGateway>${chain("s", "x", "a", "y", "d")}${chain("x", "b", "y")}${chain("x", "c", "y")}`,
      {},
      "s x a b c y d: completed",
    ],
    [
      "a loop is done as often as it is told",
      `<startEvent id="s"/>${multi("a", "<standardLoopCharacteristics/>")}${tasks("b")}${chain("s", "a", "b")}`,
      { times: new Map([["a", [3]]]) },
      "s a a a b: completed",
    ],
    [
      "several instances are as many as the model says",
      `<startEvent id="s"/>${multi("a", "<multiInstanceLoopCharacteristics><loopCardinality>2</loopCardinality></multiInstanceLoopCharacteristics>")}${tasks("b")}${chain("s", "a", "b")}`,
      {},
      "s a a b: completed",
    ],
    [
      "instances of a sub-process run beside each other",
      `<startEvent id="s"/>${inside(`<multiInstanceLoopCharacteristics/><startEvent id="i"/>${tasks("p")}${chain("i", "p")}`)}${tasks("b")}${chain("s", "sub", "b")}`,
      { times: new Map([["sub", [2]]]) },
      "s sub i i p p b: completed",
    ],
    [
      "or one after the other",
      `<startEvent id="s"/>${inside(`<multiInstanceLoopCharacteristics isSequential="true"/><startEvent id="i"/>${tasks("p")}${chain("i", "p")}`)}${tasks("b")}${chain("s", "sub", "b")}`,
      { times: new Map([["sub", [2]]]) },
      "s sub i p sub i p b: completed",
    ],
    [
      "an error is caught by an event sub-process before it leaves its scope",
      `<startEvent id="s"/>${tasks("b")}${chain("s", "sub", "b")}${inside(`<startEvent id="i"/>${event("endEvent", "o", "error")}${chain("i", "o")}<subProcess id="h" triggeredByEvent="true">${event("startEvent", "hs", "error")}${tasks("p")}${chain("hs", "p")}</subProcess>`)}`,
      {},
      "s sub i o h hs p b: completed",
    ],
    [
      "an escalation is heard outside while the inside goes on",
      `<startEvent id="s"/>${tasks("b", "c")}${chain("s", "sub", "b")}${chain("t", "c")}${inside(`<startEvent id="i"/>${event("intermediateThrowEvent", "o", "escalation")}${tasks("p")}${chain("i", "o", "p")}`)}${event("boundaryEvent", "t", "escalation", ' attachedToRef="sub" cancelActivity="false"')}`,
      {},
      "s sub i o t c p b: completed",
    ],
    [
      "a signal is heard by who waits for it",
      `<startEvent id="s"/><parallelGateway id="x"/>${tasks("a")}${event("intermediateThrowEvent", "o", "signal", "", ' signalRef="g"')}${event("boundaryEvent", "t", "signal", ' attachedToRef="a"', ' signalRef="g"')}${tasks("c")}${chain("s", "x", "a")}${chain("x", "o")}${chain("t", "c")}`,
      {},
      "s x a o t c: completed",
    ],
    [
      "compensation undoes what has finished, the last first",
      `<startEvent id="s"/>${undoable("a")}${undoable("b")}${event("endEvent", "o", "compensate")}${chain("s", "a", "b", "o")}`,
      {},
      "s a b o bu au: completed",
    ],
    [
      "or only what it names",
      `<startEvent id="s"/>${undoable("a")}${undoable("b")}${event("endEvent", "o", "compensate", "", ' activityRef="a"')}${chain("s", "a", "b", "o")}`,
      {},
      "s a b o au: completed",
    ],
    [
      "a transaction that is cancelled undoes what it did and is left at its edge",
      `<startEvent id="s"/>${tasks("n", "c")}${chain("s", "sub", "n")}${chain("t", "c")}${inside(`<startEvent id="i"/>${undoable("a")}${event("endEvent", "o", "cancel")}${chain("i", "a", "o")}`, "sub", "transaction")}${event("boundaryEvent", "t", "cancel", ' attachedToRef="sub"')}`,
      {},
      "s sub i a o au t c: completed",
    ],
    [
      "an ad-hoc sub-process has its steps done in any order, and then ends",
      `<startEvent id="s"/>${inside(tasks("p", "q"), "sub", "adHocSubProcess")}${tasks("b")}${chain("s", "sub", "b")}`,
      {},
      "s sub p q b: completed",
    ],
    [
      "a condition is decided by the case's data",
      `<startEvent id="s"/><exclusiveGateway id="x" default="x-b"/>${tasks("a", "b")}${chain("s", "x", "b")}${flow("x", "a", "<conditionExpression>rated power &gt; 10</conditionExpression>")}`,
      { data: { "rated power": 12 } },
      "s x a: completed",
    ],
    [
      "and goes the default way where no condition holds",
      `<startEvent id="s"/><exclusiveGateway id="x" default="x-b"/>${tasks("a", "b")}${chain("s", "x")}${flow("x", "a", "<conditionExpression>rated power &gt; 10</conditionExpression>")}${chain("x", "b")}`,
      { data: { "rated power": 8 } },
      "s x b: completed",
    ],
    [
      "where no condition holds and there is no default, the case is stuck",
      barred,
      { data: { "rated power": 8 } },
      "s: stuck",
    ],
    ["what the data leaves open is no reason to be stuck", barred, { data: { other: 8 } }, "s x a: completed"],
    [
      "a way that is named is gone all the same",
      barred,
      { data: { "rated power": 8 }, ...choose(["x", [["x-b"]]]) },
      "s x b: completed",
    ],
    [
      "what goes on beside it goes on",
      `<startEvent id="s"/><parallelGateway id="p"/>${tasks("c", "d")}${chain("s", "p", "c", "d")}${chain("p", "x")}${barred.replace(/<startEvent[^>]*>|<sequenceFlow id="s-x"[^>]*>(?:<\/sequenceFlow>)?/g, "")}`,
      { data: { "rated power": 8 } },
      "s p c d: stuck",
    ],
  ])("%s", (_, content, choices, expected) => {
    const { log, outcome } = walk(modelOf(content), "process", choices);
    expect(`${log.flatMap(({ element, event }) => (event === "left" ? [] : [element])).join(" ")}: ${outcome}`).toBe(
      expected,
    );
  });
});

describe("pools that are played together", () => {
  const two = (second: string) =>
    expectOk(
      readBpmn(
        new TextEncoder().encode(
          `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="definitions" targetNamespace="x"><collaboration id="c"><participant id="p1" processRef="process"/><participant id="p2" processRef="other"/><messageFlow id="m1" sourceRef="ask" targetRef="got"/><messageFlow id="m2" sourceRef="reply" targetRef="answer"/></collaboration><process id="process"><startEvent id="s"/><sendTask id="ask"/>${event("intermediateCatchEvent", "answer", "message")}<endEvent id="e"/>${chain("s", "ask", "answer", "e")}</process><process id="other">${event("startEvent", "got", "message")}${second}</process></definitions>`,
        ),
      ),
    );
  const answers = `<sendTask id="reply"/><endEvent id="f"/>${chain("got", "reply", "f")}`;
  const elements = (model: Model, together: boolean) => {
    const { log, outcome } = walk({ model, together }, "process");
    return `${log.flatMap(({ element, event: what }) => (what === "entered" ? [element] : [])).join(" ")}: ${outcome}`;
  };
  test("a message starts the other process, and its answer is waited for", () => {
    expect(elements(two(answers), true)).toBe("s ask got reply answer f e: completed");
  });
  test("an answer that is never sent is waited for in vain", () => {
    const silent = `${tasks("reply")}<endEvent id="f"/>${chain("got", "f")}`;
    expect(elements(two(silent), true)).toBe("s ask got f: stuck");
  });
  test("by itself, a process gets what it expects from outside", () => {
    expect(elements(two(answers), false)).toBe("s ask answer e: completed");
  });
});

test("a called process is entered, and its elements say whose they are", () => {
  const outer = modelOf(`<startEvent id="s"/><callActivity id="call" calledElement="inner"/>${chain("s", "call")}`);
  const inner = modelOf(`<startEvent id="i"/>${tasks("p")}${chain("i", "p")}`);
  const { log, outcome } = walk({ model: outer, calls: () => ({ model: inner, process: "process" }) }, "process");
  expect(log.map(({ element, event: what }) => `${element} ${what}`)).toEqual([
    "s entered",
    "call entered",
    "i entered",
    "p entered",
    "call left",
  ]);
  expect(outcome).toBe("completed");
});

test("a case told again by what was chosen goes the same way", () => {
  const content = `<startEvent id="s"/><exclusiveGateway id="j"/>${tasks("a")}<exclusiveGateway id="x"/>${multi("b", "<standardLoopCharacteristics/>")}<endEvent id="e"/><boundaryEvent id="t" attachedToRef="b"><timerEventDefinition/></boundaryEvent>${chain("s", "j", "a", "x", "b", "e")}${chain("x", "j")}${chain("t", "j")}`;
  const model = modelOf(content);
  const first = walk(model, "process", {
    ...choose(["x", [["x-j"], ["x-b"]]]),
    times: new Map([["b", [2]]]),
    fire: [{ element: "t", after: { element: "a", times: 2 } }],
  });
  const again = walk(model, "process", first.told);
  expect(first.entered.find(({ element }) => element === "a")?.times).toBe(3);
  expect(again).toEqual(first);
});

test.each([255, 256, 300, 70_000])("a flow holds %d tokens as it holds one", (count) => {
  const net = scopeNetOf(
    modelOf(`<startEvent id="s"/><task id="t"/><endEvent id="e"/>${chain("s", "t", "e")}`),
    "process",
  );
  const [begin] = initialStates(net);
  const full = (begin as Uint32Array).slice();
  const flow = net.flows.findIndex(({ id }) => id === "s-t");
  full[flow] = count;
  expect(isOver(net, full)).toBe(false);
  expect(movesOf(net, full)).not.toEqual([]);
  expect(keyOfState(full)).not.toBe(keyOfState(begin as Uint32Array));
  const move = movesOf(net, full).find(({ take }) => take.includes(flow));
  expect(afterMove(net, full, move as Move)[flow]).toBe(count - 1);
});

test("three hundred tokens that come to one flow all go on", () => {
  const many = Array.from({ length: 300 }, (_, at) => `t${at}`);
  const content = `<startEvent id="s"/><parallelGateway id="p"/>${tasks(...many)}<exclusiveGateway id="x"/>${tasks("last")}<endEvent id="e"/>${chain("s", "p")}${many.map((id) => chain("p", id, "x")).join("")}${chain("x", "last", "e")}`;
  const { entered, outcome } = walk(modelOf(content), "process");
  expect(outcome).toBe("completed");
  expect(entered.find(({ element }) => element === "last")?.times).toBe(300);
});
