import { describe, expect, test } from "vitest";
import { readBpmn } from "../../bpmn";
import type { Model } from "../../model";
import { expectOk } from "../../testing/models";
import { checkModel, processVerdicts } from "..";
import { collaborationsOf } from ".";

const types: { readonly [short: string]: string } = {
  xor: "exclusiveGateway",
  and: "parallelGateway",
  race: "eventBasedGateway",
  send: "sendTask",
  wait: "receiveTask",
  task: "task",
};
const message = (id: string, type: string) => `<${type} id="${id}"><messageEventDefinition/></${type}>`;

/**
 * Pools from lines such as "s > a:send > b:wait > e"; messages as "a > b". Names of starts begin with s, of ends with e; "m:" before a
 * name makes an event of a message: a start, a catching or an ending one.
 */
function poolsOf(pools: { readonly [pool: string]: string }, messages: string, more = ""): Model {
  const processes = Object.entries(pools).map(([pool, flows]) => {
    const nodes = new Map<string, string>();
    const sequence = flows
      .split(";")
      .flatMap((line) => {
        const names = line.split(">").map((part) => {
          const [name = "", type] = part.trim().split(":");
          const kind = /^s\d*/.test(name) ? "startEvent" : /^e\d*/.test(name) ? "endEvent" : "task";
          if (type === "msg") {
            nodes.set(name, message(name, kind === "task" ? "intermediateCatchEvent" : kind));
          } else if (type === "time")
            nodes.set(name, `<intermediateCatchEvent id="${name}"><timerEventDefinition/></intermediateCatchEvent>`);
          else if (type || !nodes.has(name)) nodes.set(name, `<${types[type ?? ""] ?? kind} id="${name}"/>`);
          return name;
        });
        return names.slice(1).map((to, at) => [names[at], to] as const);
      })
      .map(([from, to], at) => `<sequenceFlow id="${pool}${at}" sourceRef="${from}" targetRef="${to}"/>`);
    return `<process id="p${pool}">${[...nodes.values()].join("")}${sequence.join("")}${pool === "A" ? more : ""}</process>`;
  });
  const participants = Object.keys(pools).map(
    (pool) => `<participant id="pool${pool}" name="${pool}" processRef="p${pool}"/>`,
  );
  const flows = messages
    .split(";")
    .filter((line) => line.trim() !== "")
    .map((line, at) => {
      const [from, to] = line.split(">").map((end) => end.trim());
      return `<messageFlow id="m${at}" sourceRef="${from}" targetRef="${to}"/>`;
    });
  const xml = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="x"><collaboration id="c">${participants.join("")}<participant id="closed" name="Somebody else"/>${flows.join("")}</collaboration>${processes.join("")}</definitions>`;
  return expectOk(readBpmn(new TextEncoder().encode(xml)));
}

const told = (model: Model) =>
  checkModel(model)
    .filter(({ rule }) => rule === "collaboration-deadlock" || rule === "message-never-arrives")
    .map(({ rule, elements }) => `${rule} ${elements.join(" ")}`);

/** The classics of processes that exchange messages: van der Aalst, ACSD 1998, and the conversation patterns of the trade (from memory). */
describe("pools that exchange messages", () => {
  test.each<[what: string, pools: { readonly [pool: string]: string }, messages: string, told: readonly string[]]>([
    [
      "a question and its answer",
      { A: "s > ask:send > got:wait > e", B: "s1:msg > work > tell:send > e1" },
      "ask > s1; tell > got",
      [],
    ],
    [
      "both wait before they send",
      { A: "s > in:wait > out:send > e", B: "s1 > in1:wait > out1:send > e1" },
      "out > in1; out1 > in",
      ["collaboration-deadlock in in1"],
    ],
    [
      "three wait in a round",
      { A: "s > in:wait > out:send > e", B: "s1 > in1:wait > out1:send > e1", C: "s2 > in2:wait > out2:send > e2" },
      "out > in1; out1 > in2; out2 > in",
      ["collaboration-deadlock in in1 in2"],
    ],
    [
      "nobody begins",
      { A: "s:msg > out:send > e", B: "s1:msg > out1:send > e1" },
      "out > s1; out1 > s",
      ["collaboration-deadlock s s1"],
    ],
    [
      "an answer that is given on one way only",
      { A: "s > ask:send > got:wait > e", B: "s1:msg > x:xor > tell:send > e1; x > file > e2" },
      "ask > s1; tell > got",
      ["message-never-arrives got"],
    ],
    [
      "an answer that is given on one way only, and a deadline for it",
      {
        A: "s > ask:send > r:race > got:msg > e; r > late:time > e3",
        B: "s1:msg > x:xor > tell:send > e1; x > file > e2",
      },
      "ask > s1; tell > got",
      [],
    ],
    [
      "either answer is heard",
      {
        A: "s > ask:send > r:race > yes:msg > e; r > no:msg > e3",
        B: "s1:msg > x:xor > grant:send > e1; x > refuse:send > e2",
      },
      "ask > s1; grant > yes; refuse > no",
      [],
    ],
    [
      "which answer is waited for is chosen by oneself",
      {
        A: "s > ask:send > x0:xor > yes:wait > e; x0 > no:wait > e3",
        B: "s1:msg > x:xor > grant:send > e1; x > refuse:send > e2",
      },
      "ask > s1; grant > yes; refuse > no",
      ["message-never-arrives no", "message-never-arrives yes"],
    ],
    [
      "answers in another order wait in the letter box",
      { A: "s > ask:send > one:wait > two:wait > e", B: "s1:msg > tell2:send > tell1:send > e1" },
      "ask > s1; tell1 > one; tell2 > two",
      [],
    ],
    [
      "a message of a closed pool may always come",
      { A: "s > ask:send > got:wait > e", B: "s1:msg > hear:wait > e1" },
      "ask > s1; closed > hear; closed > got",
      [],
    ],
    [
      "what is asked again and again is answered each time",
      { A: "s > j:xor > ask:send > got:wait > x:xor > e; x > j", B: "s1 > k:xor > hear:wait > tell:send > k" },
      "ask > hear; tell > got",
      ["message-never-arrives hear"],
    ],
    [
      "a pool that only listens and is never told",
      { A: "s > a > e", B: "s1 > hear:wait > e1" },
      "a > s9; say > hear",
      [],
    ],
    [
      "told in parallel",
      { A: "s > p:and > t1:send > q:and > e; p > t2:send > q", B: "s1:msg > two:wait > e1" },
      "t1 > s1; t2 > two",
      [],
    ],
    [
      "who is told before has to wait for who comes after",
      { A: "s > x:xor > t1:send > e; x > e3", B: "s1 > hear:wait > tell:send > e1", C: "s2 > last:wait > e2" },
      "t1 > hear; tell > last",
      ["message-never-arrives hear"],
    ],
  ])("%s", (_, pools, messages, expected) => {
    const model = poolsOf(pools, messages);
    expect(told(model).sort()).toEqual([...expected].sort());
    // What goes wrong between pools says nothing of each by itself.
    expect(processVerdicts(model).map(({ sound }) => sound)).toEqual(
      Object.keys(pools).map((pool) => !pools[pool]?.includes("> k")),
    );
    expect(collaborationsOf(model).every(({ complete }) => complete)).toBe(true);
  });

  test("the run that leads there is told, the shortest first, and nothing where all goes well", () => {
    const model = poolsOf(
      { A: "s > ask:send > got:wait > e", B: "s1:msg > x:xor > tell:send > e1; x > file > e2" },
      "ask > s1; tell > got",
    );
    const [finding] = checkModel(model).filter(({ rule }) => rule === "message-never-arrives");
    expect(finding?.severity).toBe("error");
    expect(finding?.witness).toEqual(["s", "ask", "s1", "x", "file", "e2"]);
    expect(finding?.message).toMatch(/waits for a message that “B” does not send on this run/);
  });

  test("a boundary event with a deadline lets the wait end", () => {
    const late =
      '<boundaryEvent id="late" attachedToRef="got"><timerEventDefinition/></boundaryEvent><endEvent id="e9"/><sequenceFlow id="f9" sourceRef="late" targetRef="e9"/>';
    const pools = { A: "s > ask:send > got:wait > e", B: "s1:msg > x:xor > tell:send > e1; x > file > e2" };
    expect(told(poolsOf(pools, "ask > s1; tell > got", late))).toEqual([]);
  });

  test("messages inside a sub-process count as those around it", () => {
    const inside =
      '<subProcess id="talk"><startEvent id="i"/><sendTask id="ask"/><receiveTask id="got"/><endEvent id="o"/><sequenceFlow id="i1" sourceRef="i" targetRef="ask"/><sequenceFlow id="i2" sourceRef="ask" targetRef="got"/><sequenceFlow id="i3" sourceRef="got" targetRef="o"/></subProcess><sequenceFlow id="i4" sourceRef="a" targetRef="talk"/>';
    expect(told(poolsOf({ A: "s > a", B: "s1:msg > tell:send > e1" }, "ask > s1; tell > got", inside))).toEqual([]);
    expect(
      told(poolsOf({ A: "s > a", B: "s1:msg > x:xor > tell:send > e1; x > e2" }, "ask > s1; tell > got", inside)),
    ).toEqual(["message-never-arrives got"]);
  });

  test.each([
    [
      "a message that begins a process already under way",
      { A: "s > j:xor > ask:send > x:xor > e; x > j", B: "s1:msg > think:wait > e1" },
      "ask > s1; closed > think",
      "begun again",
    ],
    [
      "messages sent again and again before one is read",
      { A: "s > j:xor > ask:send > x:xor > e; x > j", B: "s1 > hear:wait > e1" },
      "ask > hear",
      "piled up",
    ],
  ])("what is left out is said: %s", (_, pools, messages, expected) => {
    const model = poolsOf(pools, messages);
    const [found] = collaborationsOf(model);
    expect(found?.complete).toBe(false);
    expect(found?.leftOut).toEqual([expected]);
    const [finding] = checkModel(model).filter(({ rule }) => rule === "collaboration-unknown");
    expect(finding).toMatchObject({ severity: "advice", elements: ["pA", "pB"] });
    expect(finding?.message).toMatch(/“A” and “B” .* in part\. Left out: that /);
  });
});
