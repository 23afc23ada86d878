import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { expectOk } from "../testing/models";
import { type Decision, type DecisionTable, decide, proveTable, readDecisions, type TableProof } from ".";
import { gridPoints, randomInputs, randomRules } from "./testing/randomTables";
import { decision, dmn, table } from "./testing/tables";

const modelOf = (...said: Parameters<typeof table>) =>
  expectOk(readDecisions(new TextEncoder().encode(dmn(decision("t", table(...said))))));
function prove(...said: Parameters<typeof table>): TableProof {
  const model = modelOf(...said);
  const one = model.decisions.get("t") as Decision;
  return proveTable(model, one, one.logic as DecisionTable);
}

describe("a table is proven", () => {
  test("a gap is told in words, with data at which it can be seen", () => {
    const proof = prove(
      ["age: number", 'risk: string = "low","high"'],
      ["r"],
      ['< 18; - -> "a"', '>= 65; - -> "b"', '[18..65); "low" -> "c"'],
    );
    expect(proof).toMatchObject({ complete: false, overlaps: [], hidden: [], problems: [] });
    expect(proof.gaps).toEqual([{ when: "age from 18 to under 65, risk high", example: { age: 18, risk: "high" } }]);
  });

  test.each<[string, Parameters<typeof table>, Partial<TableProof>]>([
    ["all is taken", [["a: number"], ["r"], ["< 1 -> 1", ">= 1 -> 2"]], { complete: true, gaps: [] }],
    [
      "a point is left",
      [["a: number"], ["r"], ["< 1 -> 1", "> 1 -> 2"]],
      { gaps: [{ when: "a 1", example: { a: 1 } }] },
    ],
    [
      "numbers have no smallest step",
      [["a: number"], ["r"], ["<= 1 -> 1", ">= 2 -> 2"]],
      { gaps: [{ when: "a over 1 to under 2", example: { a: 1.5 } }] },
    ],
    [
      "dates are whole days",
      [["d: date"], ["r"], ['<= date("2027-01-31") -> 1', '>= date("2027-02-01") -> 2']],
      { complete: true },
    ],
    [
      "a day is left",
      [["d: date"], ["r"], ['<= date("2027-01-30") -> 1', '>= @"2027-02-01" -> 2']],
      { gaps: [{ when: "d over 2027-01-30 to under 2027-02-01", example: { d: "2027-01-31" } }] },
    ],
    [
      "another text",
      [["k: string"], ["r"], ['"a" -> 1', '"b" -> 2']],
      { gaps: [{ when: "k any other", example: { k: "another" } }] },
    ],
    ["yes or no", [["b: boolean"], ["r"], ["true -> 1"]], { gaps: [{ when: "b false", example: { b: false } }] }],
    ["a default closes no gap", [["b: boolean"], ["r | 0"], ["true -> 1"]], { complete: false }],
    ["no rule at all", [["a: number"], ["r"], []], { gaps: [{ when: "always", example: { a: 0 } }] }],
    ["not", [["k: string"], ["r"], ['not("a") -> 1', '"a" -> 2']], { complete: true, overlaps: [] }],
    [
      "rules that meet, with other outputs",
      [["a: number"], ["r"], ["<= 5 -> 1", ">= 5 -> 2"]],
      { overlaps: [{ rules: [1, 2], conflict: true, example: { a: 5 } }] },
    ],
    [
      "rules that meet, with the same output",
      [["a: number"], ["r"], ["<= 5 -> 1 + 1", ">= 5 -> 2"]],
      { overlaps: [{ rules: [1, 2], conflict: false, example: { a: 5 } }] },
    ],
    [
      "a rule that is hidden by two before it",
      [["a: number"], ["r"], ["<= 5 -> 1", "> 3 -> 2", "[4..9] -> 3"], 'hitPolicy="FIRST"'],
      { hidden: [3], complete: true },
    ],
    [
      "under another policy none is",
      [["a: number"], ["r"], ["- -> 1", "> 3 -> 2"], 'hitPolicy="RULE ORDER"'],
      { hidden: [] },
    ],
    ["a condition of its own", [["a: number"], ["r"], ["? * 2 > 4 -> 1"]], { complete: null, gaps: [] }],
    ["what hangs on other data", [["a: number"], ["r"], ["> limit -> 1"]], { complete: null }],
  ])("%s", (_, said, expected) => {
    expect(prove(...said)).toMatchObject(expected);
  });

  test("why a table cannot be told is said", () => {
    expect(prove(["a: number"], ["r"], ["> limit -> 1"]).problems).toEqual([
      '"> limit" of "a" hangs on more than its own value, and cannot be analysed.',
    ]);
  });

  // Against brute force: every point of the grid of all boundaries and all middles between them, decided one by one.
  test("gaps, overlaps and hidden rules are those that trying everything finds", () => {
    fc.assert(
      fc.property(randomRules(), fc.constantFrom("FIRST", "COLLECT"), (rules, policy) => {
        const said: Parameters<typeof table> = [randomInputs, ["r"], rules, `hitPolicy="${policy}"`];
        const proof = prove(...said);
        // All rules that take a point, whatever the policy: a table that collects tells.
        const collecting = modelOf(said[0], said[1], said[2], 'hitPolicy="COLLECT"');
        const one = collecting.decisions.get("t") as Decision;
        const taking = (data: { readonly [name: string]: unknown }) => decide(collecting, one, data).rules;
        const pairs = new Set<string>();
        const reached = new Set<number>();
        let isLeft = false;
        for (const point of gridPoints) {
          const matched = taking(point);
          isLeft ||= matched.length === 0;
          if (matched[0] !== undefined) reached.add(matched[0]);
          for (const [at, first] of matched.entries())
            for (const second of matched.slice(at + 1)) pairs.add(`${first},${second}`);
        }
        expect(proof.complete).toBe(!isLeft);
        expect(new Set(proof.overlaps.map(({ rules: pair }) => pair.join(",")))).toEqual(pairs);
        for (const { example } of proof.gaps) expect(taking(example)).toEqual([]);
        for (const { rules: pair, example } of proof.overlaps)
          expect(taking(example)).toEqual(expect.arrayContaining([...pair]));
        if (policy === "FIRST")
          expect(proof.hidden).toEqual(rules.flatMap((_, at) => (reached.has(at + 1) ? [] : [at + 1])));
      }),
      { numRuns: 120 },
    );
  });
});
