import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn, writeBpmn } from "../bpmn";
import { copy } from "../commands";
import { counterpartsOf, nameOf, shapesOf } from "../model";
import { flowChart } from "../testing/flowChart";
import { expectOk, performAll, smallModel } from "../testing/models";
import { randomProcess } from "../testing/randomProcess";
import { matchElements, splitAndMerged, startToBe } from ".";
import { bestAssignment, type Candidate } from "./assignment";
import { labelSimilarity, wordsOfLabel } from "./labels";
import { successionOf } from "./succession";

describe("assigning", () => {
  test("small examples worked by hand have their least sums", () => {
    // The common three by three example of the Hungarian method (from memory): costs 2 3 3 / 3 2 3 / 3 3 2 have their least sum, 6, on
    // the diagonal; and 1 2 3 / 2 4 6 / 3 6 9 have theirs, 10, on the other one.
    const least = (costs: number[][]) => {
      const pairs = bestAssignment(
        costs.flatMap((line, row) => line.map((cost, column) => ({ row, column, weight: 100 - cost }))),
      );
      return [...pairs].reduce((sum, [row, column]) => sum + ((costs[row] as number[])[column] as number), 0);
    };
    expect(
      least([
        [2, 3, 3],
        [3, 2, 3],
        [3, 3, 2],
      ]),
    ).toBe(6);
    expect(
      least([
        [1, 2, 3],
        [2, 4, 6],
        [3, 6, 9],
      ]),
    ).toBe(10);
  });

  test("no other way to pair is worth more: all of them tried", () => {
    const weights = fc.uniqueArray(
      fc.record({ row: fc.nat(4), column: fc.nat(5), weight: fc.integer({ min: 1, max: 100 }) }),
      { selector: ({ row, column }) => `${row} ${column}`, maxLength: 18 },
    );
    fc.assert(
      fc.property(weights, (candidates) => {
        const pairs = bestAssignment(candidates);
        const weightOf = (row: number, column: number) =>
          candidates.find((one) => one.row === row && one.column === column)?.weight ?? Number.NaN;
        const sum = [...pairs].reduce((total, [row, column]) => total + weightOf(row, column), 0);
        expect(new Set(pairs.values()).size).toBe(pairs.size);
        expect(sum).toBe(bestByTrying(candidates));
      }),
      { numRuns: 300 },
    );
  });
});

function bestByTrying(
  candidates: readonly Candidate[],
  from = 0,
  rows = new Set<number>(),
  columns = new Set<number>(),
): number {
  const candidate = candidates[from];
  if (!candidate) return 0;
  const without = bestByTrying(candidates, from + 1, rows, columns);
  if (rows.has(candidate.row) || columns.has(candidate.column)) return without;
  const taken = bestByTrying(
    candidates,
    from + 1,
    new Set(rows).add(candidate.row),
    new Set(columns).add(candidate.column),
  );
  return Math.max(without, candidate.weight + taken);
}

describe("how alike names are", () => {
  // Worked by hand from the definition in Klinkmüller et al. 2013: each word with its best partner, averaged over both names.
  test.each([
    ["Check documents", "check Documents", 1],
    ["Check documents", "Documents check", 1],
    ["Check feeder capacity", "Check capacity", 4 / 5],
    ["Check documents", "Check papers", 1 / 2],
    // "checks" is one letter of six from "check": (5/6 + 1 + 5/6 + 1) / 4.
    ["Check documents", "Checks documents", 11 / 12],
    ["Book visit", "Approve design", 0],
  ])("%s, %s", (a, b, alike) => {
    expect(labelSimilarity(wordsOfLabel(a), wordsOfLabel(b))).toBeCloseTo(alike, 10);
  });
  test("it does not matter which comes first, and nothing is more alike than itself", () => {
    const name = fc.string({ maxLength: 24 });
    fc.assert(
      fc.property(name, name, (a, b) => {
        const [one, other] = [wordsOfLabel(a), wordsOfLabel(b)];
        expect(labelSimilarity(one, other)).toBeCloseTo(labelSimilarity(other, one), 10);
        if (one.length > 0) expect(labelSimilarity(one, one)).toBe(1);
      }),
    );
  });
});

describe("matching by name", () => {
  test("other ids, other words, unnamed gateways: found by what they are called and where they stand", () => {
    const from = flowChart([
      "(s > register-application > x1 > check-documents > x2 > approve-design > )e",
      "x1 > ask-household > x2",
    ]);
    const to = flowChart([
      "(begin > register-the-application > x7 > check-document > x8 > approve-design > )finish",
      "x7 > ask-the-household > x8",
    ]);
    const pairs = matchElements(from, to, "name");
    const named = [...pairs].map(([a, b]) => [nameOf(from, a) || a, nameOf(to, b) || b]);
    expect(named).toEqual(
      expect.arrayContaining([
        ["Register application", "Register the application"],
        ["Check documents", "Check document"],
        ["Approve design", "Approve design"],
        ["Ask household", "Ask the household"],
        ["x1", "x7"],
        ["x2", "x8"],
        ["start-s", "start-begin"],
        ["end-e", "end-finish"],
      ]),
    );
    // All flows follow from their ends.
    expect([...from.elements].filter(({ type, id }) => type === "sequenceFlow" && !pairs.has(id))).toEqual([]);
  });
  test("of two steps of one name each is paired with the one that has its neighbours", () => {
    const from = flowChart(["(s > a > look > b > look-2 > c > )e"]);
    const named = (ids: readonly string[]) =>
      performAll(from, ...ids.map((id) => ({ type: "rename", id, name: "Look at it" }) as const));
    const model = named(["look", "look-2"]);
    expect(matchElements(model, model, "name").get("look")).toBe("look");
    expect(matchElements(model, model, "name").get("look-2")).toBe("look-2");
  });
  test("a model is matched with itself, element by element", () => {
    for (let seed = 0; seed < 20; seed++) {
      const model = randomProcess({ seed, nodes: 40, lanes: 3 });
      for (const [a, b] of matchElements(model, model)) expect(b).toBe(a);
    }
  });
});

test("one that became several and several that became one are known by their links", () => {
  const from = smallModel();
  const to = performAll(
    startToBe(from),
    {
      type: "append",
      diagram: "page",
      from: "approve",
      id: "sign",
      flow: "s",
      kind: { type: "userTask" },
      name: "Sign",
    },
    { type: "setCounterparts", id: "sign", counterparts: ["approve"] },
    { type: "delete", ids: ["reject"] },
    { type: "setCounterparts", id: "check", counterparts: ["check", "reject"] },
  );
  const pairs = matchElements(from, to);
  expect(pairs.get("approve")).toBe("approve");
  expect(splitAndMerged(from, to, pairs)).toEqual({
    split: [{ id: "sign", of: ["approve"] }],
    merged: [{ id: "reject", of: ["check"] }],
  });
});

test("links survive other kinds, lanes, sub-processes, copies and files", () => {
  const to = startToBe(smallModel());
  const changed = performAll(
    to,
    { type: "replace", diagram: "page", id: "approve", kind: { type: "subProcess" } },
    { type: "moveToNeighbourLane", diagram: "page", ids: ["approve"], direction: "down" },
    { type: "wrap", diagram: "page", ids: ["reject"], id: "whole", page: "whole-page" },
  );
  const [shape] = shapesOf(changed, "check");
  const { x, y } = shape?.bounds ?? { x: 0, y: 0 };
  const copied = performAll(changed, {
    type: "paste",
    diagram: "page",
    fragment: copy(changed, "page", ["check"]),
    at: { x, y: y + 150 },
    mark: "twice",
  });
  const read = expectOk(readBpmn(writeBpmn(copied)));
  const twice = [...read.elements].filter((element) => counterpartsOf(element).includes("check"));
  expect(twice.map(({ type }) => type)).toEqual(["userTask", "userTask"]);
  const pairs = matchElements(smallModel(), read, "counterpart");
  expect(pairs.get("check")).toBe("check");
  expect(pairs.get("approve")).toBe("approve");
  expect(pairs.get("reject")).toBe("reject");
});

describe("which steps come before, beside or instead of which", () => {
  const { relation } = successionOf(
    flowChart(["(s > a > +1 > b > +2 > x1 > d > x2 > f > )e", "+1 > c > +2", "x1 > g > x2", "f > a"]),
  );
  test.each([
    ["a", "b", "before"],
    ["f", "a", "after"],
    ["b", "c", "parallel"],
    ["d", "g", "alternative"],
    ["c", "d", "before"],
  ])("%s, %s: %s", (a, b, said) => {
    expect(relation(a, b)).toBe(said);
  });
});
