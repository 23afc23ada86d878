import fc from "fast-check";
import { describe, expect, test } from "vitest";
import type { Command } from "../commands";
import { overlaps } from "../layout";
import { brokenInvariants, isFlowNode, laneOf, type Model, shapesOf } from "../model";
import { commandScript, performAll, runScript, smallModel } from "../testing/models";
import { changeGroups, compareModels, startToBe, type TakenOver, takeOver, withNeeded } from ".";

const diagram = "page";

function request(from: Model, to: Model, into: "from" | "to") {
  const comparison = compareModels(from, to);
  return { from, to, pairs: comparison.pairs, groups: changeGroups(from, to, comparison), into };
}

function taken(answer: TakenOver): Extract<TakenOver, { ok: true }> {
  if (!answer.ok) throw new Error(answer.message.text);
  return answer;
}

/** What still differs, in words. */
const left = (from: Model, to: Model) => changeGroups(from, to, compareModels(from, to)).map(({ words }) => words);

describe("taking changes over", () => {
  test.each<[what: string, commands: Command[]]>([
    ["another lane", [{ type: "moveToNeighbourLane", diagram, ids: ["approve"], direction: "down" }]],
    [
      "a step put on a flow",
      [{ type: "insertOnFlow", diagram, onFlow: "f2", id: "weigh", flow: "f2b", kind: { type: "userTask" } }],
    ],
    ["a step taken out", [{ type: "delete", ids: ["check"] }]],
    [
      "another name and a system",
      [
        { type: "rename", id: "check", name: "Look at it" },
        { type: "useSystem", step: "check", system: { entry: "m", name: "Network map" }, use: "reads" },
      ],
    ],
    [
      "a timer event at a step",
      [
        {
          type: "attach",
          diagram,
          host: "approve",
          id: "late-2",
          kind: { type: "boundaryEvent", trigger: "timerEventDefinition" },
        },
      ],
    ],
    [
      "a new lane with a step",
      [
        { type: "addLane", diagram, id: "crew", beside: "engineer", name: "Field crew" },
        { type: "moveToLane", diagram, ids: ["approve"], lane: "crew" } as Command,
      ],
    ],
    [
      "data that is new, and a step that reads it",
      [
        { type: "defineData", process: "process", id: "plant", name: "plant", schema: '{"type":"number"}' },
        { type: "setDataUse", step: "check", data: "plant", use: "reads" },
      ],
    ],
    ["a form", [{ type: "setForm", id: "approve", form: { items: [{ path: ["plant"], label: "Plant" }] } }]],
    ["another type", [{ type: "retype", id: "approve", to: "serviceTask" }]],
  ])("%s: into the as-is, it is as the to-be has it; back into the to-be, it is as it was", (_, commands) => {
    const from = smallModel();
    const to = performAll(startToBe(from), ...commands);
    for (const into of ["from", "to"] as const) {
      const asked = request(from, to, into);
      const { model } = taken(
        takeOver(
          asked,
          asked.groups.map((group) => group.key),
        ),
      );
      expect(brokenInvariants(model)).toEqual([]);
      expect(into === "from" ? left(model, to) : left(from, model)).toEqual([]);
    }
  });

  test("a step without the step its flow comes from is refused, and the other is offered along", () => {
    const from = smallModel();
    const to = performAll(
      startToBe(from),
      {
        type: "append",
        diagram,
        from: "approve",
        id: "visit",
        flow: "v1",
        kind: { type: "userTask" },
        name: "Book visit",
      },
      {
        type: "append",
        diagram,
        from: "visit",
        id: "switch",
        flow: "v2",
        kind: { type: "userTask" },
        name: "Switch on",
      },
    );
    const asked = request(from, to, "from");
    const refused = takeOver(asked, ["switch"]);
    expect(refused).toMatchObject({ ok: false, needs: ["visit"] });
    expect(refused.ok ? "" : refused.message.text).toContain("“Book visit” is not there.");
    const along = withNeeded(asked, ["switch"]);
    expect([...along].sort()).toEqual(["switch", "visit"]);
    expect(left(taken(takeOver(asked, along)).model, to)).toEqual([]);
  });

  test("whatever was done, taking all of it over leaves no difference, and any part of it leaves a whole model", () => {
    fc.assert(
      fc.property(
        commandScript(10),
        fc.nat(),
        fc.constantFrom("from" as const, "to" as const),
        (script, pick, into) => {
          const from = smallModel();
          const to = runScript(startToBe(from), script);
          const asked = request(from, to, into);
          const keys = asked.groups.map((group) => group.key);
          if (keys.length === 0) return;
          const one = taken(takeOver(asked, withNeeded(asked, [keys[pick % keys.length] as string])));
          expect(brokenInvariants(one.model)).toEqual([]);
          const { model } = taken(takeOver(asked, keys));
          expect(brokenInvariants(model)).toEqual([]);
          expect(into === "from" ? left(model, to) : left(from, model)).toEqual([]);
        },
      ),
      { numRuns: 60 },
    );
  });

  test("what comes has a place of its own, in its lane", () => {
    const from = performAll(smallModel(), { type: "move", diagram, ids: ["approve"], by: { x: 3, y: 2 } });
    const to = performAll(startToBe(from), {
      type: "insertOnFlow",
      diagram,
      onFlow: "f2",
      id: "weigh",
      flow: "f2b",
      kind: { type: "userTask" },
    });
    const asked = request(from, to, "from");
    const { model } = taken(takeOver(asked, ["weigh"]));
    const nodes = [...model.elements].filter((element) => isFlowNode(element.type) && element.type !== "boundaryEvent");
    const boxes = nodes.map((node) => shapesOf(model, node.id)[0]?.bounds).filter((box) => box !== undefined);
    for (const [at, box] of boxes.entries())
      for (const other of boxes.slice(at + 1)) expect(overlaps(box, other)).toBe(false);
    const [own] = shapesOf(model, "weigh");
    const [lane] = shapesOf(model, laneOf(model, "weigh")?.id ?? "");
    expect((own?.bounds.y ?? 0) >= (lane?.bounds.y ?? 0)).toBe(true);
  });
});
