import { describe, expect, test } from "vitest";
import type { Command } from "../commands";
import { brokenInvariants } from "../model";
import { performAll, smallModel } from "../testing/models";
import { changeGroups, compareModels, takeOver } from ".";

const schema = (properties: object, required: readonly string[] = []) =>
  JSON.stringify({ type: "object", properties, required });
const power = { type: "number", minimum: 0, maximum: 100 };
const before = performAll(
  smallModel(),
  { type: "defineData", process: "process", id: "plant", name: "plant", schema: schema({ power }) },
  { type: "setDataUse", step: "check", data: "plant", use: "creates" },
  { type: "setForm", id: "check", form: { items: [{ path: ["plant", "power"] }] } },
);
const decideBy = (name: string, answers: string[] | null): Command => ({
  type: "decideBy",
  id: "approve",
  to: { file: "f", decision: name, name, answers, needs: [] },
});

const words = (...commands: Command[]) => {
  const after = performAll(before, ...commands);
  return changeGroups(before, after, compareModels(before, after)).map((group) => group.words);
};

describe("what differs in data, forms and decisions", () => {
  test.each<[what: string, commands: Command[], words: string[]]>([
    [
      "a piece of data",
      [{ type: "defineData", process: "process", id: "x", name: "meter", schema: schema({}) }],
      ["The data meter is new."],
    ],
    [
      "a part, a limit and what has to be said",
      [
        {
          type: "defineData",
          process: "process",
          id: "plant",
          name: "plant",
          schema: schema({ power: { ...power, maximum: 30 }, roof: { enum: ["flat", "ground"] } }, ["power"]),
        },
      ],
      [
        "Plant now holds power: number; 0 to 30; required, roof: choice; flat, ground, no longer holds power: number; 0 to 100.",
      ],
    ],
    [
      "another use",
      [{ type: "setDataUse", step: "approve", data: "plant", use: "reads" }],
      ["Approve design handles plant (needed) instead of nothing."],
    ],
    [
      "no use any more",
      [{ type: "setDataUse", step: "check", data: "plant", use: "none" }],
      ["Check application handles nothing instead of plant (given)."],
    ],
    [
      "a form",
      [{ type: "setForm", id: "approve", form: { items: [{ path: ["plant", "power"], isReadOnly: true }] } }],
      ["Approve design has a form now: 1 to fill in."],
    ],
    ["no form any more", [{ type: "setForm", id: "check", form: null }], ["Check application has no form any more."]],
    [
      "an item of a form",
      [
        {
          type: "setForm",
          id: "check",
          form: { items: [{ path: ["plant", "power"], shownWhen: "urgent", label: "Rated power" }] },
        },
      ],
      ["Check application asks for Rated power (plant.power) (shown when urgent), no longer asks for plant.power."],
    ],
    [
      "a decision",
      [{ type: "retype", id: "approve", to: "businessRuleTask" }, decideBy("size", ["small", "large"])],
      [
        "Approve design is a business rule task instead of a user task; decides by size (small, large) instead of nothing.",
      ],
    ],
  ])("%s", (_, commands, expected) => {
    expect(words(...commands)).toEqual(expected);
  });

  test("another order of a form is told as that", () => {
    const two = (paths: readonly string[]): Command => ({
      type: "setForm",
      id: "check",
      form: { items: paths.map((path) => ({ path: [path] })) },
    });
    const first = performAll(before, two(["a", "b"]));
    const second = performAll(first, two(["b", "a"]));
    expect(changeGroups(first, second, compareModels(first, second)).map((group) => group.words)).toEqual([
      "Check application asks in another order.",
    ]);
  });

  test("what data holds is taken over with its definition", () => {
    const after = performAll(before, {
      type: "defineData",
      process: "process",
      id: "plant",
      name: "plant",
      schema: schema({ power, roof: { type: "string" } }),
    });
    const comparison = compareModels(before, after);
    const groups = changeGroups(before, after, comparison);
    const taken = takeOver({ from: before, to: after, pairs: comparison.pairs, groups, into: "from" }, [
      groups[0]?.key ?? "",
    ]);
    if (!taken.ok) throw new Error(taken.message.text);
    expect(brokenInvariants(taken.model)).toEqual([]);
    expect(compareModels(taken.model, after).changes).toEqual([]);
  });
});
