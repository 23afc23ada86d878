import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import fc from "fast-check";
import ts from "typescript";
import { describe, expect, test } from "vitest";
import { checkModel, rules } from "../check";
import { changeGroups, compareModels } from "../compare";
import { called, connectionBetween, wordFor } from "../model";
import { randomProcess } from "../testing/randomProcess";
import { capital, inLanguage, listOf, partsOf, type Said, type Sentences, say, shortListOf, term, together } from ".";

const root = join(import.meta.dirname, "..");
const sources = readdirSync(root, { recursive: true, encoding: "utf8" })
  .filter((file) => /\.ts$/.test(file) && !/\.test\.ts$|^testing/.test(file))
  .map((file) => join(root, file));

/** The code of a sentence as it stands in the source. */
function codeOf(template: ts.TemplateLiteral): string {
  if (ts.isNoSubstitutionTemplateLiteral(template)) return template.text;
  return template.head.text + template.templateSpans.map((span, at) => `{${at}}${span.literal.text}`).join("");
}

/** Every sentence that core can say. */
const codes = new Set<string>();
for (const file of sources) {
  const visit = (node: ts.Node): void => {
    if (ts.isTaggedTemplateExpression(node) && node.tag.getText() === "say") codes.add(codeOf(node.template));
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest, true));
}

/** A made-up language that has every sentence: what it says is told from English by its brackets. */
const brackets: Sentences = new Map(
  [...codes].map((code) => [code, /[a-z]/i.test(code.replace(/\{\d+\}/g, "")) ? `⟦${code}⟧` : code]),
);

describe("what is said", () => {
  test("a code, its data and the English sentence", () => {
    expect(say`Row ${3}: ${"x"} is no kind.`).toEqual({
      code: "Row {0}: {1} is no kind.",
      data: [3, "x"],
      text: "Row 3: x is no kind.",
    });
    expect(say`No case gets stuck.`).toEqual({ code: "No case gets stuck.", text: "No case gets stuck." });
  });

  test("another language puts the data where it wants it, and what is said inside with it", () => {
    const other: Sentences = new Map([
      ["{0} comes before {1}.", "Nach {0} kommt {1}, nach {0}."],
      ["this {0}", "dieser {0}"],
      ["user task", "Schritt"],
    ]);
    const said = capital(say`${say`this ${term("user task")}`} comes before ${{ name: "B {0}" }}.`);
    expect(said.text).toBe("This user task comes before B {0}.");
    expect(inLanguage(said, other)).toBe("Nach dieser Schritt kommt B {0}, nach dieser Schritt.");
    // What the language lacks stays in English, and begins as it should.
    expect(inLanguage(said, new Map())).toBe(said.text);
    expect(inLanguage(capital(say`${term("user task")} first`), other)).toBe("Schritt first");
  });

  test("names are told apart in the sentence, and nobody's own text is taken for a place or a code", () => {
    expect(partsOf(say`${{ name: "{0}" }} is new: ${"No case gets stuck."}`, brackets)).toEqual([
      { name: "{0}" },
      " is new: ",
      "No case gets stuck.",
    ]);
  });

  test.each<[items: string[], all: string, short: string]>([
    [[], "", ""],
    [["A"], "A", "A"],
    [["A", "B"], "A and B", "A and B"],
    [["A", "B", "C"], "A, B and C", "A, B and C"],
    [["A", "B", "C", "D", "E"], "A, B, C, D and E", "A, B, C and 2 more"],
  ])("a list of %j", (items, all, short) => {
    expect([listOf(items).text, shortListOf(items).text]).toEqual([all, short]);
    expect(together(items.map((item) => say`${item}.`)).text).toBe(items.map((item) => `${item}.`).join(" "));
  });

  test("in English, a sentence made from its code and data is the sentence, whatever the data", () => {
    const datum = fc.oneof(fc.string(), fc.integer(), fc.record({ name: fc.string() }));
    fc.assert(
      fc.property(datum, datum, datum, fc.boolean(), (a, b, c, begins) => {
        const inner = say`${a} and ${b}`;
        const said = begins ? capital(say`${inner} of ${c}.`) : say`${inner} of ${c}.`;
        // Only text can be made capital: a name stays as it is written.
        const first = partsOf(said)[0];
        if (!begins || typeof first === "string") expect(inLanguage(said, new Map())).toBe(said.text);
      }),
    );
  });
});

describe("the sentences of core", () => {
  test("there are hundreds, and each can stand in a table", () => {
    expect(codes.size).toBeGreaterThan(350);
    for (const code of codes) {
      const places = [...code.matchAll(/\{(\d+)\}/g)].map(([, at]) => Number(at));
      expect(places).toEqual(places.map((_, at) => at));
    }
  });

  /** Everything a language has not put into words of its own: letters outside brackets that are nobody's name. */
  const untold = (said: Said): string[] => {
    const outside = [""];
    let depth = 0;
    for (const part of partsOf(said, brackets))
      for (const letter of typeof part === "string" ? part : "") {
        if (letter === "⟦") depth++;
        else if (letter === "⟧") depth--;
        else if (depth === 0) outside[0] += letter;
      }
    return outside.map((text) => text.replace(/“[^”]*”|"[^"]*"/g, "").trim()).filter((text) => /[a-z]{3}/i.test(text));
  };

  test("findings, refusals and comparisons are said in a language that has all of them, and nothing stays in English", () => {
    const english = new Set<string>();
    const hear = (said: Said) => {
      // Inside brackets a name or a number may stand; outside of them nothing that core says.
      for (const words of untold(said)) english.add(words);
    };
    for (let seed = 1; seed <= 30; seed++) {
      const model = randomProcess({ seed, nodes: 14, lanes: 2, wild: seed % 2 === 0 });
      for (const finding of checkModel(model, { profile: "hand-off" })) {
        hear(finding.said);
        for (const { label } of finding.repairs ?? []) hear(label);
      }
      const other = randomProcess({ seed: seed + 1, nodes: 14, lanes: 2, wild: false });
      for (const group of changeGroups(model, other, compareModels(model, other))) hear(group.said);
      const [first, ...rest] = model.elements;
      for (const element of rest) {
        hear(called(model, element));
        const refused = connectionBetween(model, first?.id ?? "", element.id);
        if (!refused.ok) for (const { said } of refused.problems) hear(said);
      }
      for (const rule of rules) hear(rule.wants);
    }
    expect([...english]).toEqual([]);
  });

  test("the word for a type is said too, and found in no sentence by chance", () => {
    expect(inLanguage(say`this ${term(wordFor("userTask"))}`, new Map([["user task", "X"]]))).toBe("this X");
  });
});
