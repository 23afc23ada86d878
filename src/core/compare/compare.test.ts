import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import type { Command } from "../commands";
import { replacementEdits } from "../merge";
import { applyEdits, counterpartsOf, toStored } from "../model";
import { commandScript, expectOk, performAll, runScript, smallModel } from "../testing/models";
import { compareModels, isCompared, matchElements, movedShapes, startToBe } from ".";

const diagram = "page";

describe("comparing", () => {
  test("a model differs in nothing from itself, from its copy, and from its file", () => {
    fc.assert(
      fc.property(commandScript(15), (script) => {
        const model = runScript(smallModel(), script);
        const asked = [...model.elements].filter(isCompared).length;
        for (const other of [model, startToBe(model), expectOk(readBpmn(writeBpmn(model)))]) {
          const { changes, unchanged } = compareModels(model, other);
          expect(changes).toEqual([]);
          expect(unchanged).toBe(asked);
        }
      }),
      { numRuns: 30 },
    );
  });

  test("a copy remembers its counterparts, and a file keeps them", () => {
    const copy = expectOk(readBpmn(writeBpmn(startToBe(smallModel()))));
    const check = copy.elements.get("check");
    expect(check && counterpartsOf(check)).toEqual(["check"]);
  });

  test.each<[what: string, commands: Command[], kind: string, field: string | undefined, words: string]>([
    [
      "another lane",
      [{ type: "moveToNeighbourLane", diagram, ids: ["approve"], direction: "down" }],
      "moved",
      "lane",
      "Approve design moves from Front desk to Network engineer.",
    ],
    [
      "another name",
      [{ type: "rename", id: "approve", name: "Approve plan" }],
      "changed",
      "name",
      "Approve plan was called “Approve design”.",
    ],
    [
      "another type",
      [{ type: "retype", id: "approve", to: "serviceTask" }],
      "changed",
      "type",
      "Approve design is a service task instead of a user task.",
    ],
    [
      "a system",
      [{ type: "useSystem", step: "approve", system: { entry: "map", name: "Network map" }, use: "reads" }],
      "changed",
      "systems",
      "Approve design uses Network map now.",
    ],
    [
      "a role",
      [{ type: "assignRole", step: "approve", role: { entry: "r", name: "Billing" }, part: "informed", id: "x" }],
      "changed",
      "roles",
      "Approve design has Billing informed instead of nothing.",
    ],
    [
      "guidance",
      [{ type: "describe", id: "approve", text: "Sign both copies." }],
      "changed",
      "documentation",
      "Approve design has other guidance.",
    ],
    [
      "a default",
      [{ type: "setField", id: "decide", field: "default", value: "f3" }],
      "changed",
      "default",
      "Complete? has the default sequence flow instead of nothing.",
    ],
    [
      "a repetition",
      [{ type: "setRepetition", activity: "approve", id: "r", repetition: "parallel" }],
      "changed",
      "markers",
      "Approve design is done for each at once instead of nothing.",
    ],
    [
      "a new step",
      [
        {
          type: "append",
          diagram,
          from: "approve",
          id: "plan",
          flow: "fx",
          kind: { type: "task" },
          name: "Plan visit",
        },
      ],
      "new",
      undefined,
      "Plan visit is new, a task done by Front desk.",
    ],
    ["a step gone", [{ type: "delete", ids: ["remind"] }], "gone", undefined, "Remind household is gone."],
    [
      "a flow led elsewhere",
      [{ type: "reconnect", diagram, connection: "f5", end: "target", to: "reject" }],
      "changed",
      "target",
      "The sequence flow from Approve design to Reject application leads to Reject application instead of Approved.",
    ],
    [
      "a condition",
      [{ type: "setCondition", flow: "f4", text: "papers missing" }],
      "changed",
      "condition",
      "The sequence flow from Complete? to Reject application has the condition papers missing instead of nothing.",
    ],
  ])("%s is said in plain words", (_, commands, kind, field, words) => {
    const before = smallModel();
    const { changes } = compareModels(before, performAll(startToBe(before), ...commands));
    const change = changes.find((candidate) => candidate.words === words);
    expect(change, changes.map((candidate) => candidate.words).join("\n")).toBeDefined();
    expect(change?.kind).toBe(kind);
    if (field) expect(change?.fields.map((candidate) => candidate.field)).toContain(field);
  });

  test("moving and resizing shapes is no change of the process", () => {
    const before = smallModel();
    const after = performAll(
      before,
      { type: "move", diagram, ids: ["approve"], by: { x: 16, y: 0 } },
      { type: "tidy", diagram },
    );
    expect(compareModels(before, after).changes).toEqual([]);
  });

  test("without counterparts and with other ids, elements are matched by name and flows by their ends", () => {
    const text = writeBpmn(smallModel());
    const renumbered = expectOk(readBpmn(text.replace(/\b(check|decide|approve|f2|f3)\b(?=["<])/g, "x-$1")));
    const pairs = matchElements(smallModel(), renumbered, "name");
    expect(pairs.get("check")).toBe("x-check");
    expect(pairs.get("f2")).toBe("x-f2");
  });
});

describe("replacement", () => {
  test("the edits from one state to another lead there", () => {
    fc.assert(
      fc.property(commandScript(12), commandScript(12), (first, second) => {
        const a = runScript(smallModel(), first);
        const b = runScript(smallModel(), second);
        const made = expectOk(applyEdits(a, replacementEdits(a, b)));
        const contents = (model: typeof a) => new Map(toStored(model).elements.map((element) => [element.id, element]));
        expect(contents(made)).toEqual(contents(b));
      }),
      { numRuns: 30 },
    );
  });

  test("a step in another pool has moved, lanes or none", () => {
    const twoPools = (inFirst: string, inSecond: string) =>
      expectOk(
        readBpmn(
          `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:demo"><collaboration id="c"><participant id="a" name="Cooperative" processRef="p"/><participant id="b" name="Installer" processRef="q"/></collaboration><process id="p">${inFirst}</process><process id="q">${inSecond}</process></definitions>`,
        ),
      );
    const [step, other] = ['<task id="test" name="Test the plant"/>', '<task id="sign" name="Sign"/>'];
    const { changes } = compareModels(twoPools(step + other, ""), twoPools(other, step));
    expect(changes.map(({ kind, words }) => [kind, words])).toEqual([
      ["moved", "Test the plant is now part of Installer instead of Cooperative."],
    ]);
  });

  test("shapes that lie elsewhere are told apart, and change nothing", () => {
    const from = smallModel();
    const to = performAll(startToBe(from), { type: "move", diagram, ids: ["check"], by: { x: 8, y: 8 } });
    const { changes, pairs } = compareModels(from, to);
    expect(changes).toEqual([]);
    expect(movedShapes(from, to, pairs)).toContain("check");
    expect(movedShapes(from, from, pairs)).toEqual([]);
  });
});
