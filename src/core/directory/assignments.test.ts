import { describe, expect, test } from "vitest";
import type { Command } from "../commands";
import { performAll, smallModel } from "../testing/models";
import { documentsOf, entryUses, rolesOf } from ".";

const assign = (step: string, entry: string, name: string, part: "responsible" | "consulted", id: string): Command => ({
  type: "assignRole",
  step,
  role: { entry, name },
  part,
  id,
});
const tie = (lane: string, entry: string, name: string): Command => ({
  type: "tieLane",
  lane,
  role: { entry, name },
});
const said = (commands: Command[], step: string) =>
  rolesOf(performAll(smallModel(), ...commands), step).map(({ name, part, from }) => `${name} ${part} (${from})`);

// BPMN 2.0, 10.2.1 "Resource Assignment"; that a lane's role does what stands in the lane is common practice.
describe("who does a step", () => {
  test.each<[what: string, commands: Command[], step: string, roles: string[]]>([
    ["the lane it stands in, by its name", [], "check", ["Front desk responsible (lane)"]],
    [
      "the role the lane is tied to",
      [tie("desk", "front", "Front office")],
      "check",
      ["Front office responsible (lane)"],
    ],
    [
      "its own role before the lane's",
      [assign("check", "clerk", "Billing clerk", "responsible", "a")],
      "check",
      ["Billing clerk responsible (step)"],
    ],
    [
      "the lane's role still, where its own is only asked",
      [assign("check", "clerk", "Billing clerk", "consulted", "a")],
      "check",
      ["Front desk responsible (lane)", "Billing clerk consulted (step)"],
    ],
    [
      "another one, once it stands in another lane",
      [{ type: "moveToLane", diagram: "page", ids: ["approve"], lane: "engineer" }],
      "approve",
      ["Network engineer responsible (lane)"],
    ],
    ["nobody, for what is no activity", [], "decide", []],
    [
      "the role given later, where two are responsible one after the other",
      [
        assign("check", "clerk", "Billing clerk", "responsible", "a"),
        { type: "unassignRole", assignment: "a" },
        assign("check", "head", "Head of connections", "responsible", "b"),
      ],
      "check",
      ["Head of connections responsible (step)"],
    ],
  ])("is %s", (_, commands, step, roles) => expect(said(commands, step)).toEqual(roles));

  test("what is no role of a step cannot be taken off one", () => {
    expect(() => said([{ type: "unassignRole", assignment: "check" }], "check")).toThrow(/is no role of a step/);
  });
});

describe("documents of a step", () => {
  const give = (step: string, entry: string, direction: "in" | "out", id: string): Command => ({
    type: "giveDocument",
    diagram: "page",
    step,
    document: { entry, name: entry },
    direction,
    id,
  });
  const papers = (commands: Command[], step: string) =>
    documentsOf(performAll(smallModel(), ...commands), step)
      .map(({ name, direction }) => `${name} ${direction}`)
      .sort();
  test.each<[what: string, commands: Command[], papers: string[]]>([
    ["none", [], []],
    ["one that it reads", [give("check", "plan", "in", "a")], ["plan in"]],
    [
      "one in and one out",
      [give("check", "plan", "in", "a"), give("check", "permit", "out", "b")],
      ["permit out", "plan in"],
    ],
    [
      "one both in and out",
      [give("check", "plan", "in", "a"), give("check", "plan", "out", "b")],
      ["plan in", "plan out"],
    ],
    ["not those of another step", [give("approve", "plan", "in", "a")], []],
    [
      "none any more, where the line was deleted",
      [give("check", "plan", "in", "a"), { type: "delete", ids: ["a"] }],
      [],
    ],
  ])("%s", (_, commands, wanted) => expect(papers(commands, "check")).toEqual(wanted));
  test("a page that is gone takes none", () => {
    const given = { ...give("check", "plan", "in", "a"), diagram: "gone" } as Command;
    expect(() => papers([given], "check")).toThrow(/page this change is about is no longer there/);
  });
});

test("uses of entries are told by who uses them, and how", () => {
  const model = performAll(
    smallModel(),
    assign("check", "clerk", "Billing clerk", "responsible", "a"),
    assign("approve", "clerk", "Billing clerk", "consulted", "b"),
    { type: "useSystem", step: "check", system: { entry: "map", name: "Network map" }, use: "reads" },
    { type: "useSystem", step: "approve", system: { entry: "map", name: "Network map" }, use: "writes" },
    tie("desk", "front", "Front office"),
    {
      type: "giveDocument",
      diagram: "page",
      step: "check",
      document: { entry: "plan", name: "Site plan" },
      direction: "in",
      id: "c",
    },
  );
  const uses = entryUses(model).map(({ entry, element, how }) => `${entry}: ${element} ${how}`);
  expect(uses.sort()).toEqual([
    "clerk: approve consulted",
    "clerk: check responsible",
    "front: desk lane",
    "map: approve writes",
    "map: check reads",
    "plan: check needed",
  ]);
  const check = model.elements.get("check");
  expect(entryUses(model, check ? [check] : []).map(({ entry }) => entry)).toEqual(["map"]);
});
