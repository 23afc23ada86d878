import { expect, test } from "vitest";
import { readTable } from "../table";
import { expectOk, performAll, smallModel } from "../testing/models";
import {
  type ChangeGroup,
  changeGroups,
  changesAsCsv,
  changesAsMarkdown,
  compareModels,
  effectOf,
  marksOf,
  type Reason,
  startToBe,
} from ".";

const from = smallModel();
const to = performAll(
  startToBe(from),
  { type: "rename", id: "check", name: "=1+1 *bold* [link](x)" },
  { type: "useSystem", step: "approve", system: { entry: "map", name: "Network map" }, use: "reads" },
  { type: "retype", id: "approve", to: "serviceTask" },
);
const groups = changeGroups(from, to, compareModels(from, to));
const reason: Reason = { pains: ["rework", "error"], note: "A | B", effect: "half the letters", state: "agreed" };
const reasonOf = (group: ChangeGroup) => (group.key === "approve" ? reason : undefined);
const report = { from: "As-is", to: "To-be", groups, reasonOf };

test("as a table: a row for each change, one more for each field; nothing in it runs as a formula", () => {
  const written = changesAsCsv(report);
  expect(written).not.toMatch(/(^|,)"?=1\+1/m);
  const rows = expectOk(readTable(written)) as unknown as string[][];
  const cells = JSON.stringify(rows);
  expect(cells).toContain("rework, error");
  expect(cells).toContain("half the letters");
  expect(cells).toContain("Network map");
});

test("as a document: names in bold, nothing in them is read as markup", () => {
  const written = changesAsMarkdown(report);
  expect(written).toContain("# As-is against To-be");
  expect(written).toContain("**=1+1 \\*bold\\* \\[link\\](x)** was called “Check application”.");
  expect(written).toContain("answers rework, error; expected: half the letters; A \\| B; agreed");
  expect(changesAsMarkdown({ ...report, groups: [] })).toContain("Nothing differs.");
});

test("what it comes to is counted by hand", () => {
  const effects = new Map(effectOf(from, to).map((effect) => [effect.id, effect]));
  // Check and approve are user tasks, reject is sent, remind has no type: three by hand and one by a system before.
  expect(effects.get("byHand")).toMatchObject({ from: 3, to: 2, difference: -1, less: "better" });
  expect(effects.get("byHand")?.share).toBeCloseTo(-1 / 3);
  expect(effects.get("bySystem")).toMatchObject({ from: 1, to: 2 });
  expect(effects.get("systems")).toMatchObject({ from: 0, to: 1, share: undefined });
  expect(effects.get("decisions")).toMatchObject({ difference: 0 });
  expect(effects.has("errors")).toBe(false);
});

test("labels on the drawings say what happened", () => {
  const marks = marksOf(groups);
  expect(marks.to.get("approve")).toMatchObject({ kind: "changed", tag: { text: "with Network map" } });
  expect(marks.to.get("check")).toMatchObject({ tag: { text: "was Check application" } });
  expect(marks.from.get("check")).toMatchObject({ tag: { text: "changed" } });
});
