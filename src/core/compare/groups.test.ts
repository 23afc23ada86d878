import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { flowChart } from "../testing/flowChart";
import { commandScript, performAll, runScript, smallModel } from "../testing/models";
import { changeGroups, compareModels, startToBe } from ".";

const told = (from: Parameters<typeof compareModels>[0], to: Parameters<typeof compareModels>[1]) =>
  changeGroups(from, to, compareModels(from, to)).map(({ kind, words }) => `${kind}: ${words}`);

const straight = ["(s > register > check-papers > check-feeder > approve > )e"];
const lanes = { "Front desk": ["register", "check-papers", "check-feeder", "approve"], Engineer: [] as string[] };

describe("what a person calls one change", () => {
  test.each<[what: string, from: string[], to: string[], said: string[]]>([
    [
      "a step put between two",
      straight,
      ["(s > register > weigh > check-papers > check-feeder > approve > )e"],
      ["new: Weigh is new: a user task, after Register."],
    ],
    ["a step taken out", straight, ["(s > register > check-feeder > approve > )e"], ["gone: Check papers is gone."]],
    [
      "a step in the place of another",
      straight,
      ["(s > register > read-papers > check-feeder > approve > )e"],
      ["replaced: Read papers takes the place of Check papers."],
    ],
    [
      "two steps done at the same time that came one after the other",
      straight,
      ["(s > register > +1 > check-papers > +2 > approve > )e", "+1 > check-feeder > +2"],
      ["parallel: Check feeder is now done in parallel with Check papers, no longer after."],
    ],
    [
      "two steps one after the other that were done at the same time",
      ["(s > register > +1 > check-papers > +2 > approve > )e", "+1 > check-feeder > +2"],
      straight,
      ["sequential: Check feeder now comes after Check papers, no longer in parallel."],
    ],
    [
      "a new step beside one that is there",
      ["(s > register > check-papers > approve > )e"],
      ["(s > register > +1 > check-papers > +2 > approve > )e", "+1 > check-feeder > +2"],
      ["new: Check feeder is new: a user task, in parallel with Check papers, after Register."],
    ],
    [
      "two steps in the other order",
      straight,
      ["(s > register > check-feeder > check-papers > approve > )e"],
      ["reordered: Check papers now comes after Check feeder, no longer before."],
    ],
    [
      "either of two steps, where both were done",
      straight,
      ["(s > register > x1 > check-papers > x2 > approve > )e", "x1 > check-feeder > x2"],
      ["alternative: Check feeder is now done instead of Check papers, never both."],
    ],
    [
      "a way back",
      straight,
      [...straight, "approve > register"],
      ["rerouted: A way leads from Approve to Register now."],
    ],
  ])("%s", (_, from, to, said) => {
    expect(told(flowChart(from), flowChart(to))).toEqual(said);
  });

  test("another lane and another order make one change", () => {
    const to = flowChart(["(s > register > +1 > check-papers > +2 > approve > )e", "+1 > check-feeder > +2"], {
      "Front desk": ["register", "check-papers", "approve"],
      Engineer: ["check-feeder"],
    });
    expect(told(flowChart(straight, lanes), to)).toEqual([
      "moved: Check feeder is now done by Engineer in parallel with Check papers.",
    ]);
  });

  test("steps put into a sub-process are one change, and so are steps taken out of one", () => {
    const from = smallModel();
    const to = performAll(startToBe(from), {
      type: "wrap",
      diagram: "page",
      ids: ["approve"],
      id: "whole",
      page: "whole-page",
      name: "Approve",
    });
    expect(told(from, to)).toEqual(["new: Approve is new: a sub-process that takes in Approve design."]);
    expect(told(to, from)).toEqual(["gone: Approve is gone: Approve design stands in its place."]);
  });

  test("each difference is in exactly one change, and each change has a key of its own", () => {
    fc.assert(
      fc.property(commandScript(12), (script) => {
        const from = smallModel();
        const to = runScript(startToBe(from), script);
        const comparison = compareModels(from, to);
        const groups = changeGroups(from, to, comparison);
        const members = groups.flatMap((group) => group.changes);
        expect(members).toHaveLength(comparison.changes.length);
        expect(new Set(members)).toEqual(new Set(comparison.changes));
        expect(new Set(groups.map((group) => group.key)).size).toBe(groups.length);
        for (const group of groups) expect(group.words).toMatch(/^\S.*\.$/s);
      }),
      { numRuns: 60 },
    );
  });
});
