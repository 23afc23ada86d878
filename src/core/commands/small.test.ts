import { expect, test } from "vitest";
import { documentsOf, rolesOf } from "../directory";
import { childrenOf, type Model, systemsOf, wordsOf } from "../model";
import { expectOk, performAll, smallModel } from "../testing/models";
import { type Command, perform, undoOf } from ".";

const diagram = "page";
const base = performAll(
  smallModel(),
  { type: "useSystem", step: "check", system: { entry: "register", name: "Case register" }, use: "writes" },
  {
    type: "assignRole",
    step: "check",
    role: { entry: "clerk", name: "Billing clerk" },
    part: "consulted",
    id: "asked",
  },
  {
    type: "giveDocument",
    diagram,
    step: "check",
    document: { entry: "plan", name: "Site plan" },
    direction: "in",
    id: "plan-used",
  },
  { type: "linkWords", id: "check", marks: ["t1", "t2", "t1"] },
);
const order = (model: Model) => ["desk", "engineer"].sort((a, b) => y(model, a) - y(model, b));
const y = (model: Model, id: string) => [...model.shapes].find((shape) => shape.element === id)?.bounds.y ?? 0;
const data = documentsOf(base, "check")[0]?.element as string;

test.each<[command: Command, seen: (model: Model) => unknown, before: unknown, after: unknown]>([
  [
    { type: "moveLabel", diagram, id: "start", bounds: { x: 7, y: 8, width: 90, height: 20 } },
    (model) => [...model.shapes].find((shape) => shape.element === "start")?.label?.bounds?.x,
    undefined,
    7,
  ],
  [
    { type: "unassignRole", assignment: "asked" },
    (model) => rolesOf(model, "check").filter((role) => role.part === "consulted").length,
    1,
    0,
  ],
  [
    { type: "dropSystem", step: "check", entry: "register" },
    (model) => systemsOf(model.elements.get("check") as never).length,
    1,
    0,
  ],
  [
    { type: "linkWords", id: "decide", marks: ["t3"] },
    (model) => wordsOf(model.elements.get("decide") as never),
    [],
    ["t3"],
  ],
  [
    { type: "unlinkWords", id: "check", marks: ["t2", "t9"] },
    (model) => wordsOf(model.elements.get("check") as never),
    ["t1", "t2"],
    ["t1"],
  ],
  [
    { type: "setDataState", id: data, state: " checked " },
    (model) => childrenOf(model, data, "dataState").map((one) => one.name),
    [],
    ["checked"],
  ],
  [
    { type: "setMultiplicity", id: "household", isMultiple: true },
    (model) => [...model.elements].filter((one) => one.type === "participantMultiplicity").length,
    0,
    1,
  ],
  [{ type: "moveLane", diagram, lane: "engineer", to: "desk" }, order, ["desk", "engineer"], ["engineer", "desk"]],
])("%o does what it says, and is taken back whole", (command, seen, before, after) => {
  expect(seen(base)).toEqual(before);
  const done = expectOk(perform(base, command));
  expect(seen(done.model)).toEqual(after);
  const back = expectOk(perform(done.model, undoOf({ edits: done.edits, label: done.label }) as Command));
  expect(seen(back.model)).toEqual(before);
});

test("addPage gives the inside of a sub-process a page of its own, once", () => {
  const model = performAll(base, {
    type: "append",
    diagram,
    from: "check",
    id: "inner",
    flow: "inner-flow",
    kind: { type: "subProcess" },
    name: "Weigh it",
  });
  const before = [...model.diagrams].length;
  const page: Command = { type: "addPage", id: "inner-page", element: "inner" };
  const once = performAll(model, page);
  const pages = [...once.diagrams].filter((one) => one.element === "inner").length;
  expect(pages).toBe(1);
  expect([...performAll(once, { ...page, id: "again" }).diagrams].length).toBe([...once.diagrams].length);
  expect([...once.diagrams].length).toBeGreaterThanOrEqual(before);
});

test("what has no state is refused one, in words", () => {
  const done = perform(base, { type: "setDataState", id: "check", state: "checked" });
  expect(!done.ok && done.problems[0]?.message).toMatch(/is no data, and has no state/);
});
