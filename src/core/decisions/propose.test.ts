import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { expectOk } from "../testing/models";
import { type Decision, type DecisionTable, decide, joinedRules, missingRules, proveTable, readDecisions } from ".";
import { gridPoints, randomInputs, randomRules } from "./testing/randomTables";
import { decision, dmn, table } from "./testing/tables";

type Said = Parameters<typeof table>;
function read(...said: Said) {
  const model = expectOk(readDecisions(new TextEncoder().encode(dmn(decision("t", table(...said))))));
  const one = model.decisions.get("t") as Decision;
  return { model, one, table: one.logic as DecisionTable };
}
const missing = (...said: Said) => {
  const { model, table: logic } = read(...said);
  return missingRules(model, logic);
};

describe("the rules that close what a table leaves open", () => {
  test.each<[string, Said, readonly (readonly string[])[]]>([
    [
      "one corner",
      [
        ["age: number", 'risk: string = "low","high"'],
        ["r"],
        ['< 18; - -> "a"', '>= 65; - -> "b"', '[18..65); "low" -> "c"'],
      ],
      [["[18..65)", '"high"']],
    ],
    ["a point", [["a: number"], ["r"], ["< 1 -> 1", "> 1 -> 2"]], [["1"]]],
    ["any other text", [["k: string"], ["r"], ['"a" -> 1', '"b" -> 2']], [['not("a", "b")']]],
    ["no", [["b: boolean"], ["r"], ["true -> 1"]], [["false"]]],
    ["two ends in one cell", [["a: number"], ["r"], ["[1..2] -> 1"]], [["< 1, > 2"]]],
    [
      "days",
      [["d: date"], ["r"], ['< date("2027-01-01") -> 1', '> @"2027-01-31" -> 2']],
      [['[@"2027-01-01"..@"2027-01-31"]']],
    ],
    ["everything", [["a: number"], ["r"], []], [["-"]]],
  ])("%s", (_, said, expected) => {
    expect(missing(...said)).toEqual({ rules: expected, isFewest: true });
  });
  test("none where nothing is open, or the table cannot be looked at", () => {
    expect(missing(["b: boolean"], ["r"], ["- -> 1"])).toBeUndefined();
    expect(missing(["a: number"], ["r"], ["> limit -> 1"])).toBeUndefined();
  });

  test("take just what was open: the table is complete then, and no rule meets a new one", () => {
    fc.assert(
      fc.property(randomRules(), (rules) => {
        const found = missing(randomInputs, ["r"], rules);
        const added = (found?.rules ?? []).map((cells) => `${cells.join("; ")} -> 9`);
        const { model, one, table: logic } = read(randomInputs, ["r"], [...rules, ...added], 'hitPolicy="COLLECT"');
        const proof = proveTable(model, one, logic);
        expect(proof.complete).toBe(true);
        expect(proof.overlaps.filter(({ rules: pair }) => pair[1] > rules.length)).toEqual([]);
      }),
      { numRuns: 150 },
    );
  });

  // Against brute force: the least number of boxes that a small region can be cut into, found by trying every way to group its cells.
  test("are as few as there can be, where that is said", () => {
    const cell = fc.constantFrom("-", "true", "false");
    const kind = fc.constantFrom("-", '"x"', '"y"');
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, kind, cell), { maxLength: 4 }), (rules) => {
        const said: Said = [
          ["a: boolean", 'k: string = "x","y","z"', "b: boolean"],
          ["r"],
          rules.map((one) => `${one.join("; ")} -> 1`),
        ];
        const open = [true, false].flatMap((a) =>
          ["x", "y", "z"].flatMap((k) =>
            [true, false].flatMap((b) => {
              const isTaken = rules.some(
                ([ra, rk, rb]) =>
                  (ra === "-" || ra === `${a}`) && (rk === "-" || rk === `"${k}"`) && (rb === "-" || rb === `${b}`),
              );
              return isTaken ? [] : [[`${a}`, k, `${b}`]];
            }),
          ),
        );
        const found = missing(...said);
        expect(found?.rules.length ?? 0).toBe(fewestGroups(open));
        expect(found?.isFewest ?? true).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
});

/** The least number of groups of cells each of which is a box, by trying all groups that hold the first cell. */
function fewestGroups(cells: readonly (readonly string[])[]): number {
  const known = new Map<string, number>();
  const least = (left: readonly (readonly string[])[]): number => {
    if (left.length === 0) return 0;
    const key = left.map((one) => one.join()).join(";");
    const before = known.get(key);
    if (before !== undefined) return before;
    const [first, ...rest] = left as [readonly string[], ...(readonly string[])[]];
    let best = left.length;
    for (let choice = 0; choice < 1 << rest.length; choice++) {
      const group = [first, ...rest.filter((_, at) => choice & (1 << at))];
      const sizes = first.map((_, column) => new Set(group.map((one) => one[column])).size);
      if (sizes.reduce((product, size) => product * size, 1) !== group.length) continue;
      best = Math.min(best, 1 + least(rest.filter((_, at) => !(choice & (1 << at)))));
    }
    known.set(key, best);
    return best;
  };
  return least(cells);
}

describe("rules that can be joined", () => {
  test("two ranges that touch are one, with the numbers of what they stand for", () => {
    const { model, table: logic } = read(["a: number"], ["r"], ["< 5 -> 1", "[5..9] -> 1", "> 9 -> 2"]);
    expect(joinedRules(model, logic)?.rules).toEqual([
      { of: [1, 2], inputs: ["<= 9"] },
      { of: [3], inputs: undefined },
    ]);
  });
  test("under FIRST only such as follow each other", () => {
    const apart = read(["a: number"], ["r"], ["1 -> 1", "- -> 2", "3 -> 1"], 'hitPolicy="FIRST"');
    expect(joinedRules(apart.model, apart.table)).toBeUndefined();
    const beside = read(["a: number"], ["r"], ["1 -> 1", "3 -> 1", "- -> 2"], 'hitPolicy="FIRST"');
    expect(joinedRules(beside.model, beside.table)?.rules[0]).toEqual({ of: [1, 2], inputs: ["1, 3"] });
  });
  test("not where each rule that matches counts, nor where two rules meet that must not", () => {
    for (const [policy, rules] of [
      ["COLLECT", ["< 5 -> 1", ">= 5 -> 1"]],
      ["RULE ORDER", ["< 5 -> 1", ">= 5 -> 1"]],
      ["UNIQUE", ["<= 5 -> 1", ">= 5 -> 1"]],
    ] as const) {
      const { model, table: logic } = read(["a: number"], ["r"], rules, `hitPolicy="${policy}"`);
      expect(joinedRules(model, logic)).toBeUndefined();
    }
  });

  test("decide the same as before, at every point of the grid", () => {
    fc.assert(
      fc.property(randomRules(8), fc.constantFrom("UNIQUE", "ANY", "FIRST"), (rules, policy) => {
        const before = read(randomInputs, ["r"], rules, `hitPolicy="${policy}"`);
        const joined = joinedRules(before.model, before.table);
        if (!joined) return;
        expect(joined.rules.length).toBeLessThan(rules.length);
        const lines = joined.rules.map(({ of, inputs }) => {
          const [left, right] = (rules[(of[0] as number) - 1] as string).split("->");
          return `${inputs?.join("; ") ?? left}->${right}`;
        });
        const after = read(randomInputs, ["r"], lines, `hitPolicy="${policy}"`);
        for (const point of gridPoints) {
          const [was, is] = [decide(before.model, before.one, point), decide(after.model, after.one, point)];
          expect(is.result).toEqual(was.result);
          expect(is.problems.length).toBe(was.problems.length);
        }
      }),
      { numRuns: 120 },
    );
  });
});
