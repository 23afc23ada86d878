import { describe, expect, test } from "vitest";
import { emptyModel } from "../model";
import { performAll } from "../testing/models";
import { type LandscapeProcess, landscapeLinks, outwardFactsOf } from ".";

const facts = (id: string, more: Partial<LandscapeProcess> = {}): LandscapeProcess => ({
  id,
  name: id,
  processIds: [`process-${id}`],
  calls: [],
  sends: [],
  receives: [],
  sendsTo: [],
  receivesFrom: [],
  ...more,
});

describe("processes are tied by", () => {
  test.each<[string, LandscapeProcess[], string[]]>([
    ["calls", [facts("a", { calls: [{ id: "process-b" }] }), facts("b")], ["a calls b"]],
    [
      "a message one sends and the other waits for",
      [facts("a", { sends: ["Plant on"] }), facts("b", { receives: ["plant on"] })],
      ["a messages b: Plant on"],
    ],
    [
      "a closed pool with the other's name",
      [facts("a", { sendsTo: ["B"], receivesFrom: ["b"] }), facts("b")],
      ["a messages b", "b messages a"],
    ],
    [
      "calls, of several with one id the one that was made first",
      [
        facts("a", { calls: [{ id: "same" }] }),
        facts("b", { processIds: ["same"] }),
        facts("c", { processIds: ["same"] }),
      ],
      ["a calls b"],
    ],
    [
      "calls, the record that the call names",
      [
        facts("a", { calls: [{ id: "same", process: "c" }] }),
        facts("b", { processIds: ["same"] }),
        facts("c", { processIds: ["same"] }),
      ],
      ["a calls c"],
    ],
    ["nothing where what is called is not here", [facts("a", { calls: [{ id: "process-x" }] })], []],
    ["nothing to themselves", [facts("a", { calls: [{ id: "process-a" }], sends: ["m"], receives: ["m"] })], []],
  ])("%s", (_, processes, links) => {
    expect(
      landscapeLinks(processes).map(
        ({ from, to, kind, names }) => `${from} ${kind} ${to}${names.length > 0 ? `: ${names.join()}` : ""}`,
      ),
    ).toEqual(links);
  });
});

test("what a model says of others is read from calls and message events", () => {
  const model = performAll(
    emptyModel({ definitions: "d", process: "p", diagram: "page" }, "P"),
    {
      type: "place",
      diagram: "page",
      id: "start",
      kind: { type: "startEvent", trigger: "messageEventDefinition" },
      at: { x: 100, y: 100 },
    },
    { type: "nameReference", id: "start", name: "Order" },
    { type: "append", diagram: "page", from: "start", id: "call", flow: "f1", kind: { type: "callActivity" } },
    { type: "setField", id: "call", field: "calledElement", value: "process-other" },
    {
      type: "append",
      diagram: "page",
      from: "call",
      id: "end",
      flow: "f2",
      kind: { type: "endEvent", trigger: "messageEventDefinition" },
    },
    { type: "nameReference", id: "end", name: "Plant connected" },
  );
  expect(outwardFactsOf(model)).toEqual({
    processIds: ["p"],
    calls: [{ id: "process-other" }],
    sends: ["Plant connected"],
    receives: ["Order"],
    sendsTo: [],
    receivesFrom: [],
  });
});
