import { describe, expect, test } from "vitest";
import type { Command, Kind } from "../commands";
import { performAll, startModel } from "../testing/models";
import { connectionBetween } from ".";

const diagram = "page";
const pool = (id: string, y: number): Command[] => [
  { type: "place", diagram, id, kind: { type: "participant" }, at: { x: 600, y }, name: id },
  { type: "resize", diagram, id, bounds: { x: 0, y: y - 140, width: 2_700, height: 280 } },
];

/** What stands in tables 7.3 and 7.4, as kinds; a name of two parts tells what an event is about. */
const kinds: { readonly [name: string]: Kind } = {
  start: { type: "startEvent" },
  "start message": { type: "startEvent", trigger: "messageEventDefinition" },
  task: { type: "task" },
  "sub-process": { type: "subProcess" },
  call: { type: "callActivity" },
  exclusive: { type: "exclusiveGateway" },
  parallel: { type: "parallelGateway" },
  inclusive: { type: "inclusiveGateway" },
  complex: { type: "complexGateway" },
  "catch message": { type: "intermediateCatchEvent", trigger: "messageEventDefinition" },
  "catch timer": { type: "intermediateCatchEvent", trigger: "timerEventDefinition" },
  throw: { type: "intermediateThrowEvent" },
  "throw message": { type: "intermediateThrowEvent", trigger: "messageEventDefinition" },
  "throw signal": { type: "intermediateThrowEvent", trigger: "signalEventDefinition" },
  end: { type: "endEvent" },
  "end message": { type: "endEvent", trigger: "messageEventDefinition" },
  "end error": { type: "endEvent", trigger: "errorEventDefinition" },
};
const names = Object.keys(kinds);
const inPool = (side: string, name: string) => `${side}-${name.replace(" ", "-")}`;
const placed = (side: string, y: number) =>
  names.map(
    (name, at): Command => ({
      type: "place",
      diagram,
      id: inPool(side, name),
      kind: kinds[name] as Kind,
      at: { x: 120 + at * 140, y },
      name,
    }),
  );
/** Two pools, each with one of each; and a closed one. */
const model = performAll(
  startModel(),
  ...pool("ours", 200),
  ...placed("a", 200),
  ...pool("theirs", 700),
  ...placed("b", 700),
  {
    type: "place",
    diagram,
    id: "household",
    kind: { type: "participant", closed: true },
    at: { x: 600, y: -300 },
    name: "Household",
  },
);
const between = (from: string, to: string) => {
  const answer = connectionBetween(model, from, to);
  return answer.ok ? answer.value : answer.problems.map(({ code }) => code).join(" ");
};

// BPMN 2.0 (formal/2011-01-03), table 7.3 "Sequence Flow connection rules", from memory: a start is led to by nothing, an end leads to
// nothing, and everything else leads to everything else.
describe("table 7.3, sequence flows", () => {
  const isStart = (name: string) => name.startsWith("start");
  const isEnd = (name: string) => name.startsWith("end");
  const cells = names.flatMap((from) => names.map((to) => [from, to] as const)).filter(([from, to]) => from !== to);
  test("hold for each pair of kinds", () => {
    const seen = cells.map(([from, to]) => `${from} to ${to}: ${between(inPool("a", from), inPool("a", to))}`);
    const table = cells.map(([from, to]) => {
      const refused = [...(isStart(to) ? ["no-flow-into-start"] : []), ...(isEnd(from) ? ["no-flow-out-of-end"] : [])];
      return `${from} to ${to}: ${refused.join(" ") || "sequenceFlow"}`;
    });
    expect(seen).toEqual(table);
  });
  test.each([
    ["a task", "task", "sequenceFlow"],
    ["a gateway", "exclusive", "sequenceFlow"],
    ["an event", "throw", "to-itself"],
  ])("from %s to itself", (_, name, answer) => expect(between(inPool("a", name), inPool("a", name))).toBe(answer));
});

// The same, table 7.4 "Message Flow connection rules", from memory: pools, activities and throwing message events send; pools, activities
// and catching message events receive; gateways do neither.
describe("table 7.4, message flows", () => {
  const activities = ["task", "sub-process", "call"];
  const sends = [...activities, "throw message", "end message"];
  const receives = [...activities, "start message", "catch message"];
  test("hold for each pair of kinds of two pools", () => {
    for (const from of names)
      for (const to of names) {
        const refused = [
          ...(sends.includes(from) ? [] : ["message-flow-source"]),
          ...(receives.includes(to) ? [] : ["message-flow-target"]),
        ];
        expect(between(inPool("a", from), inPool("b", to)), `${from} to ${to}`).toBe(
          refused.join(" ") || "messageFlow",
        );
      }
  });
  test.each(names)("between a closed pool and %s", (name) => {
    expect(between("household", inPool("a", name))).toBe(
      receives.includes(name) ? "messageFlow" : "message-flow-target",
    );
    expect(between(inPool("a", name), "household")).toBe(sends.includes(name) ? "messageFlow" : "message-flow-source");
  });
  test("between pools themselves, and never within one", () => {
    expect(between("ours", "theirs")).toBe("messageFlow");
    expect(between("household", "ours")).toBe("messageFlow");
    expect(between("ours", inPool("a", "task"))).toContain("message-flow-between-pools");
    expect(between(inPool("a", "task"), "ours")).toContain("message-flow-between-pools");
  });
});

// BPMN 2.0, 10.4.1 "Data Modeling", from memory: activities read and write, what throws reads, what catches writes.
describe("data", () => {
  const withData = performAll(
    model,
    { type: "place", diagram, id: "form", kind: { type: "dataObjectReference" }, at: { x: 300, y: 320 }, name: "Form" },
    { type: "place", diagram, id: "note", kind: { type: "textAnnotation" }, at: { x: 500, y: 320 }, name: "A note" },
  );
  const answer = (from: string, to: string) => {
    const found = connectionBetween(withData, from, to);
    return found.ok ? found.value : (found.problems[0]?.code ?? "");
  };
  test.each([
    ["task", "dataInputAssociation", "dataOutputAssociation"],
    ["sub-process", "dataInputAssociation", "dataOutputAssociation"],
    ["call", "dataInputAssociation", "dataOutputAssociation"],
    ["throw message", "dataInputAssociation", "data-association-ends"],
    ["end message", "dataInputAssociation", "data-association-ends"],
    ["catch message", "data-association-ends", "dataOutputAssociation"],
    ["start message", "data-association-ends", "dataOutputAssociation"],
    ["exclusive", "data-association-ends", "data-association-ends"],
    ["parallel", "data-association-ends", "data-association-ends"],
  ])("and %s", (name, reads, writes) => {
    expect(answer("form", inPool("a", name))).toBe(reads);
    expect(answer(inPool("a", name), "form")).toBe(writes);
  });
  test("a note is tied to anything but a note", () => {
    for (const name of names) expect(answer("note", inPool("a", name)), name).toBe("association");
    expect(answer("form", "note")).toBe("association");
    expect(answer("note", "note")).toBe("to-itself");
  });
  test("an end that is gone is said to be", () => expect(answer("form", "nowhere")).toBe("unknown-element"));
});
