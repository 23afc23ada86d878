import { describe, expect, test } from "vitest";
import { stageSigns } from "./register";
import type { Standing } from "./stage";

const empty: Standing = {
  brief: null,
  nodes: 0,
  open: { errors: 0, warnings: 0 },
  walks: 0,
  failingWalks: 0,
  assumed: "nothing",
  versions: 1,
  isCopy: false,
  handedOff: 0,
  live: { runs: 0, incidents: 0, logs: 0 },
};

describe("the signs of the stages", () => {
  test("an empty version has begun nothing", () => {
    expect(new Set(Object.values(stageSigns(empty)).map((sign) => sign.kind))).toEqual(new Set(["none"]));
  });

  test.each<[what: string, at: Partial<Standing>, signs: object]>([
    ["a text nothing stands for yet", { brief: { sentences: 4, accounted: 0 } }, { brief: { kind: "begun" } }],
    ["a text that is accounted for", { brief: { sentences: 4, accounted: 4 } }, { brief: { kind: "done" } }],
    ["a page without a sentence", { brief: { sentences: 0, accounted: 0 } }, { brief: { kind: "none" } }],
    ["a start alone", { nodes: 1 }, { steps: { kind: "begun" }, diagram: { kind: "begun" }, check: { kind: "done" } }],
    ["a whole process", { nodes: 3 }, { steps: { kind: "done" }, diagram: { kind: "done" }, check: { kind: "done" } }],
    [
      "one with an error",
      { nodes: 3, open: { errors: 1, warnings: 2 } },
      { steps: { kind: "done" }, diagram: { kind: "begun" }, check: { kind: "attention", count: 3 } },
    ],
    [
      "one that is not checked yet",
      { nodes: 3, open: undefined },
      { diagram: { kind: "done" }, check: { kind: "begun" } },
    ],
    ["walks that go as expected", { walks: 2 }, { walk: { kind: "done" } }],
    ["walks that do not", { walks: 2, failingWalks: 1 }, { walk: { kind: "attention", count: 1 } }],
    ["an as-is with a to-be", { versions: 2 }, { compare: { kind: "begun" } }],
    ["a to-be", { versions: 2, isCopy: true }, { compare: { kind: "done" } }],
    ["a to-be whose as-is is gone", { versions: 1, isCopy: true }, { compare: { kind: "none" } }],
    ["one that was handed off", { handedOff: 1 }, { "hand-off": { kind: "done" } }],
  ])("%s", (_, at, signs) => expect(stageSigns({ ...empty, ...at })).toMatchObject(signs));
});
