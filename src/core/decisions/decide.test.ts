import { describe, expect, test } from "vitest";
import { expectOk } from "../testing/models";
import { type Decision, decide, readDecisions, topDecisions } from ".";
import { decision, dmn, inputData, literal, needsDecision, needsInput, needsKnowledge, table } from "./testing/tables";

const read = (text: string) => expectOk(readDecisions(new TextEncoder().encode(text)));
const on = (text: string, data: { readonly [name: string]: unknown }, id?: string) => {
  const model = read(text);
  const chosen = id === undefined ? topDecisions(model)[0] : model.decisions.get(id);
  return decide(model, chosen as Decision, data, { now: "2027-03-31T10:00:00Z" });
};
const result = (text: string, data: { readonly [name: string]: unknown } = {}) => on(text, data).result;

describe("hit policies (DMN 1.5, 8.2.8; from memory)", () => {
  const rules = ['< 10 -> "low"', '[5..20] -> "mid"', '>= 20 -> "high"'];
  const of = (policy: string, outputs = "r", lines: readonly string[] = rules) =>
    dmn(decision("t", table(["power: number"], [outputs], lines, policy)));
  test.each<[string, string, number, unknown, number[]]>([
    ["Unique", of('hitPolicy="UNIQUE"'), 4, "low", [1]],
    ["First", of('hitPolicy="FIRST"'), 7, "low", [1]],
    ["Any, the same", of('hitPolicy="ANY"', "r", ['< 10 -> "a"', '< 20 -> "a"']), 5, "a", [1, 2]],
    ["Priority", of('hitPolicy="PRIORITY"', 'r = "high","mid","low"'), 7, "mid", [1, 2]],
    ["Rule order", of('hitPolicy="RULE ORDER"'), 7, ["low", "mid"], [1, 2]],
    ["Output order", of('hitPolicy="OUTPUT ORDER"', 'r = "mid","low","high"'), 7, ["mid", "low"], [1, 2]],
    ["Collect", of('hitPolicy="COLLECT"'), 20, ["mid", "high"], [2, 3]],
    ["Collect, nothing", of('hitPolicy="COLLECT"', "r", ['> 5 -> "a"']), 1, null, []],
    ["Sum", of('hitPolicy="COLLECT" aggregation="SUM"', "r", ["> 0 -> 0.1", "> 1 -> 0.2"]), 2, 0.3, [1, 2]],
    ["Min", of('hitPolicy="COLLECT" aggregation="MIN"', "r", ["> 0 -> 3", "> 1 -> 2"]), 2, 2, [1, 2]],
    ["Max", of('hitPolicy="COLLECT" aggregation="MAX"', "r", ["> 0 -> 3", "> 1 -> 2"]), 2, 3, [1, 2]],
    ["Count", of('hitPolicy="COLLECT" aggregation="COUNT"', "r", ["> 0 -> 3", "> 1 -> 2"]), 2, 2, [1, 2]],
    ["no rule", of('hitPolicy="UNIQUE"', "r", ['> 5 -> "a"']), 1, null, []],
    ["no rule, a default", of('hitPolicy="UNIQUE"', 'r | "none"', ['> 5 -> "a"']), 1, "none", []],
    ["no policy is Unique", of(""), 25, "high", [3]],
  ])("%s", (_, file, power, expected, matched) => {
    expect(on(file, { power })).toMatchObject({ result: expected, rules: matched, problems: [] });
  });

  test.each<[string, string, number, RegExp, number[]]>([
    ["two rules under Unique", of(""), 7, /rules 1 and 2 .* both match/, [1, 2]],
    ["other outputs under Any", of('hitPolicy="ANY"'), 7, /different outputs/, [1, 2]],
    [
      "an output outside its allowed values",
      of("", 'r = "mid","high"', ['> 0 -> "low"']),
      7,
      /not among its allowed values/,
      [1],
    ],
    ["an output that fails", of("", "r", ["> 0 -> power / 0"]), 7, /power \/ 0/, []],
    ["a cell that cannot be read", of("", "r", ["> > 0 -> 1"]), 7, /cannot be read/, []],
    ["a sum of what is no number", of('hitPolicy="COLLECT" aggregation="SUM"'), 7, /no number/, []],
  ])("%s: null, and why", (_, file, power, why, matched) => {
    const found = on(file, { power });
    expect(found).toMatchObject({ result: null, rules: matched });
    expect(found.problems.join()).toMatch(why);
  });

  test("several outputs are an object by their names, also of several rules", () => {
    const several = (policy: string) =>
      dmn(decision("t", table(["a: number"], ["fee", "note"], ['> 0 -> 10; "x"', '> 5 -> 20; "y"'], policy)));
    expect(result(several(""), { a: 1 })).toEqual({ fee: 10, note: "x" });
    expect(result(several('hitPolicy="RULE ORDER"'), { a: 6 })).toEqual([
      { fee: 10, note: "x" },
      { fee: 20, note: "y" },
    ]);
    expect(
      result(dmn(decision("t", table(["a"], ["fee | 1", 'note | "usual"'], ['> 5 -> 20; "y"']))), { a: 1 }),
    ).toEqual({ fee: 1, note: "usual" });
  });
});

describe("data", () => {
  const typed = (type: string, cell: string, more = "") =>
    dmn(
      `${more}${inputData("x", type)}${decision("t", table(["x"], ["r"], [`${cell} -> "yes"`, '- -> "no"'], 'hitPolicy="FIRST"'), needsInput("x"))}`,
    );
  test.each<[string, string, unknown, unknown]>([
    ["date", '< date("2027-02-01")', "2027-01-31", "yes"],
    ["dateTime", '> date and time("2027-01-01T00:00:00Z")', "2027-01-01T01:00:00+00:30", "yes"],
    ["time", '>= time("08:00:00")', "07:59:59", "no"],
    ["dayTimeDuration", '> duration("PT36H")', "P2D", "yes"],
    ["yearMonthDuration", '< duration("P1Y")', "P11M", "yes"],
    ["string", '"2027-01-31"', "2027-01-31", "yes"],
    ["number", "0.3", 0.3, "yes"],
    ["boolean", "true", true, "yes"],
    ["number", "null", null, "yes"],
    ["number", "> 1", null, "no"],
  ])("a %s against %s: %j is %s", (type, cell, x, expected) => {
    expect(on(typed(type, cell), { x })).toMatchObject({ result: expected, problems: [] });
  });

  test.each<[string, string, unknown, RegExp]>([
    ["a text for a number", typed("number", "> 1"), "12", /"12", which is no number/],
    ["a date there is not", typed("date", "-"), "2027-02-30", /is no date/],
    [
      "a value its type does not allow",
      typed(
        "level",
        "-",
        '<itemDefinition name="level"><typeRef>string</typeRef><allowedValues><text>"low","high"</text></allowedValues></itemDefinition>',
      ),
      "mid",
      /allowed values/,
    ],
    [
      "a list with one that is not allowed",
      typed(
        "levels",
        "-",
        '<itemDefinition name="levels" isCollection="true"><typeRef>number</typeRef></itemDefinition>',
      ),
      [1, "2"],
      /no number/,
    ],
  ])("%s: null, and why", (_, file, x, why) => {
    const found = on(file, { x });
    expect(found.result).toBeNull();
    expect(found.problems.join()).toMatch(why);
  });

  test("what is absent is missing where it is needed, and only there", () => {
    const file = dmn(
      decision("t", table(["a", "b"], ["r"], ['> 1; - -> "a alone"', "<= 1; > 5 -> b * 2"], 'hitPolicy="FIRST"')),
    );
    expect(on(file, { a: 2 }).problems.join()).toMatch(/"b" is missing/);
    expect(result(file, { a: 1, b: 6 })).toBe(12);
    expect(result(dmn(decision("t", literal('if a > 1 then "x" else b'))), { a: 2 })).toBe("x");
    // Null is there.
    expect(on(file, { a: 2, b: null })).toMatchObject({ result: "a alone", problems: [] });
  });

  test("a value outside the allowed ones of a table's input is told", () => {
    const file = dmn(decision("t", table(['risk: string = "low","high"'], ["r"], ['"low" -> 1', '"high" -> 2'])));
    expect(on(file, { risk: "mid" }).problems.join()).toMatch(
      /"mid", which is not among the allowed values "low","high"/,
    );
    expect(result(file, { risk: "high" })).toBe(2);
  });
});

describe("what a decision requires", () => {
  const file = dmn(
    `${inputData("rated power", "number")}${inputData("age", "number")}
<businessKnowledgeModel id="bkm" name="fee for"><variable name="fee for"/><encapsulatedLogic><formalParameter name="p" typeRef="number"/>${literal("p * 0.1")}</encapsulatedLogic></businessKnowledgeModel>
${decision("size", table(["rated power"], ["r"], ['<= 10 -> "small"', '> 10 -> "large"']), needsInput("rated power"), "Plant size")}
${decision("fee", literal('if Plant size = "small" then fee for(rated power) else fee for(p: rated power) + 5'), needsDecision("size") + needsInput("rated power") + needsKnowledge("bkm"), "Fee")}`,
  );
  test("is decided first, knowledge is called by position and by name, names have blanks", () => {
    expect(result(file, { "rated power": 3 })).toBe(0.3);
    expect(result(file, { "rated power": 20 })).toBe(7);
    expect(on(file, { "rated power": 3 }, "size")).toMatchObject({ decision: "size", result: "small", rules: [1] });
    expect(topDecisions(read(file)).map(({ id }) => id)).toEqual(["fee"]);
  });

  test("what breaks below is told above, and a ring is no hang", () => {
    expect(on(file, { "rated power": "much" })).toMatchObject({
      result: null,
      problems: [expect.stringContaining("rated power")],
    });
    const ring = dmn(decision("a", literal("b"), needsDecision("b")) + decision("b", literal("a"), needsDecision("a")));
    expect(on(ring, {}, "a").problems.join()).toMatch(/requires itself/);
    expect(topDecisions(read(ring))).toEqual([]);
  });

  test("knowledge that calls other knowledge, and itself; one that never ends is told", () => {
    const knowing = (id: string, body: string, needs: string) =>
      `<businessKnowledgeModel id="${id}" name="${id}">${needs}<encapsulatedLogic><formalParameter name="n"/>${literal(body)}</encapsulatedLogic></businessKnowledgeModel>`;
    const file = (body: string) =>
      dmn(
        `${knowing("twice", "2 * n", "")}${knowing("fact", body, needsKnowledge("twice") + needsKnowledge("fact"))}${decision("d", literal("fact(5)"), needsKnowledge("fact"))}`,
      );
    expect(result(file("if n <= 1 then twice(1) else n * fact(n - 1)"))).toBe(240);
    expect(on(file("fact(n + 1)"), {})).toMatchObject({
      result: null,
      problems: [expect.stringMatching(/too (?:deep|many)/)],
    });
  });

  test("data that is called like a function does not hide it; blanks in names are one", () => {
    const file = dmn(
      `${inputData("date", "date")}${inputData("rated\n  power", "number")}${decision("d", literal('date > date("2027-01-01") and rated  power > 1'), needsInput("date"))}`,
    );
    expect(result(file, { date: "2027-03-01", "rated power": 2 })).toBe(true);
  });

  test("contexts, invocations and functions with tables", () => {
    const boxed = dmn(
      `<businessKnowledgeModel id="k" name="rate"><encapsulatedLogic><formalParameter name="kind"/>${table(["kind"], ["r"], ['"a" -> 2', '"b" -> 3'])}</encapsulatedLogic></businessKnowledgeModel>
${decision("c", `<context><contextEntry><variable name="n"/><invocation>${literal("rate")}<binding><parameter name="kind"/>${literal("k")}</binding></invocation></contextEntry><contextEntry>${literal("n * 10")}</contextEntry></context>`, needsKnowledge("k"))}`,
      "20230324",
    );
    expect(result(boxed, { k: "b" })).toBe(30);
    expect(
      result(
        dmn(
          decision(
            "l",
            `<context><contextEntry><variable name="a"/>${literal("1")}</contextEntry><contextEntry><variable name="b"/>${literal("a + 1")}</contextEntry></context>`,
          ),
        ),
      ),
    ).toEqual({ a: 1, b: 2 });
    expect(on(dmn(decision("x", "<unknown/>")), {}).problems.join()).toMatch(/no table or expression/);
  });

  // DMN 1.5, 7.3.3 and 10.2.2 "Boxed Expressions" (from memory).
  test("relations, choices, filters and iterations", () => {
    const rows = `<relation><column name="n"/><column name="k"/><row>${literal("1")}${literal('"a"')}</row><row>${literal("2")}${literal('"b"')}</row></relation>`;
    const numbers = literal("[1, 2, 3]");
    for (const [logic, expected] of [
      [
        rows,
        [
          { n: 1, k: "a" },
          { n: 2, k: "b" },
        ],
      ],
      [
        `<conditional><if>${literal("1 < 2")}</if><then>${literal("3")}</then><else>${literal("4")}</else></conditional>`,
        3,
      ],
      [
        `<conditional><if>${literal("null")}</if><then>${literal("3")}</then><else>${literal("4")}</else></conditional>`,
        4,
      ],
      [`<filter><in>${rows}</in><match>${literal("n > 1")}</match></filter>`, [{ n: 2, k: "b" }]],
      [`<filter><in>${numbers}</in><match>${literal("item >= 2")}</match></filter>`, [2, 3]],
      [`<filter><in>${numbers}</in><match>${literal("-1")}</match></filter>`, 3],
      [`<for iteratorVariable="i"><in>${numbers}</in><return>${literal("i * i")}</return></for>`, [1, 4, 9]],
      [
        `<some iteratorVariable="one part"><in>${numbers}</in><satisfies>${literal("one part > 2")}</satisfies></some>`,
        true,
      ],
      [`<every iteratorVariable="i"><in>${numbers}</in><satisfies>${literal("i > 2")}</satisfies></every>`, false],
    ] as const)
      expect(result(dmn(decision("x", logic)))).toEqual(expected);
  });
});

test.each<[string, string, string]>([
  ["another namespace", dmn("").replace("20191111", "20151101"), "no-decisions"],
  ["another root", "<decision/>", "no-decisions"],
  ["no XML", "{}", "not-well-formed"],
  ["entities", `<!DOCTYPE x [<!ENTITY a "b">]>${dmn("").replace('<?xml version="1.0"?>', "")}`, "doctype"],
])("%s is no file of decisions", (_, text, code) => {
  const found = readDecisions(new TextEncoder().encode(text));
  expect(found.ok ? "" : found.problems[0]?.code).toBe(code);
});
