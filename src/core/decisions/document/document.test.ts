import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { expectOk } from "../../testing/models";
import {
  type DecisionDocument,
  type DecisionEdit,
  decide,
  documentText,
  edited,
  emptyDocumentText,
  modelOf,
  openDocument,
  tableOf,
  testCasesOf,
  topDecisions,
  withTestCases,
} from "..";
import { randomInputs, randomRules } from "../testing/randomTables";
import { decision, dmn, inputData, literal, needsDecision, needsInput, needsKnowledge, table } from "../testing/tables";

const open = (text: string) => expectOk(openDocument(new TextEncoder().encode(text)));
const edit = (document: DecisionDocument, ...edits: DecisionEdit[]) =>
  edits.reduce((one, next) => expectOk(edited(one, next)), document);

/** A file as another program writes it: its own elements, prefixes, drawing, comments. */
const foreign = `<?xml version="1.0" encoding="UTF-8"?>
<!-- kept -->
<d:definitions xmlns:d="https://www.omg.org/spec/DMN/20191111/MODEL/" xmlns:x="urn:other" xmlns:di="https://www.omg.org/spec/DMN/20191111/DMNDI/" id="f" name="F" namespace="urn:quillmere" x:made="with &quot;care&quot;">
  <d:extensionElements><x:note when="2027">a &lt; b</x:note></d:extensionElements>
  <d:inputData id="power" name="rated power"><d:variable name="rated power" typeRef="number"/></d:inputData>
  <d:decision id="kind" name="kind" x:colour="none">
    <d:variable name="kind" typeRef="string"/>
    <d:informationRequirement id="r1"><d:requiredInput href="#power"/></d:informationRequirement>
    <d:decisionTable id="t" hitPolicy="UNIQUE" preferredOrientation="Rule-as-Row">
      <d:input id="i1" label="Power"><d:inputExpression id="e1" typeRef="number"><d:text>rated power</d:text></d:inputExpression></d:input>
      <d:output id="o1" typeRef="string"/>
      <d:annotation name="why"/>
      <d:rule id="one" x:seen="yes">
        <d:inputEntry id="c1"><d:text><![CDATA[< 10]]></d:text></d:inputEntry>
        <d:outputEntry id="c2"><d:text>"small"</d:text></d:outputEntry>
        <d:annotationEntry><d:text>by rule</d:text></d:annotationEntry>
      </d:rule>
      <d:rule id="two"><d:inputEntry id="c3"><d:text>&gt;= 10</d:text></d:inputEntry><d:outputEntry id="c4"><d:text>"large"</d:text></d:outputEntry><d:annotationEntry><d:text/></d:annotationEntry></d:rule>
    </d:decisionTable>
  </d:decision>
  <di:DMNDI><di:DMNDiagram><di:DMNShape dmnElementRef="power"/><di:DMNShape dmnElementRef="kind"/></di:DMNDiagram></di:DMNDI>
</d:definitions>
<!-- at the end -->
`;

describe("a file of decisions", () => {
  test("is written as it was read, letter by letter but for the kind of quoting", () => {
    expect(documentText(open(foreign))).toBe(foreign.replace("<![CDATA[< 10]]>", "&lt; 10"));
    const again = documentText(open(documentText(open(foreign))));
    expect(again).toBe(documentText(open(foreign)));
  });

  test("what is edited is written where it stands, and nothing else", () => {
    const before = open(foreign);
    const sheet = tableOf(before.root, "kind");
    if (!sheet) throw new Error("no table");
    const [first, second] = sheet.rules;
    if (!first || !second) throw new Error("no rules");
    const after = edit(before, {
      type: "table",
      id: "kind",
      sheet: {
        ...sheet,
        rules: [second, { ...first, inputs: ["< 5"] }, { inputs: ["[5..10)"], outputs: ['"middle"'], notes: ["new"] }],
      },
    });
    const text = documentText(after);
    for (const kept of [
      "<!-- kept -->",
      "<!-- at the end -->",
      'x:seen="yes"',
      'x:colour="none"',
      "a &lt; b",
      'id="c3"',
      'preferredOrientation="Rule-as-Row"',
      "di:DMNShape",
    ])
      expect(text).toContain(kept);
    expect(text.indexOf('id="two"')).toBeLessThan(text.indexOf('id="one"'));
    expect(text).toContain('<d:inputEntry id="c1"><d:text>&lt; 5</d:text></d:inputEntry>');
    const model = modelOf(open(text));
    const [top] = topDecisions(model);
    if (!top) throw new Error("no decision");
    expect([3, 7, 12].map((power) => decide(model, top, { "rated power": power }).result)).toEqual([
      "small",
      "middle",
      "large",
    ]);
  });

  test("a table that is written as it stands is the same file", () => {
    fc.assert(
      fc.property(
        randomRules(),
        fc.constantFrom("", 'hitPolicy="FIRST"', 'hitPolicy="COLLECT" aggregation="SUM"'),
        (rules, attributes) => {
          const document = open(
            dmn(
              decision(
                "t",
                table(
                  randomInputs,
                  ["r | 3", 's: string = "u","v"'],
                  rules.map((one) => `${one}; "u"`),
                  attributes,
                ),
              ),
            ),
          );
          const sheet = tableOf(document.root, "t");
          expect(sheet && edit(document, { type: "table", id: "t", sheet })).toBe(document);
        },
      ),
      { numRuns: 60 },
    );
  });

  test("columns go with their cells", () => {
    const document = open(
      dmn(decision("t", table(["a: number", "b: number"], ["r", "s"], ["1; 2 -> 3; 4", "5; 6 -> 7; 8"]))),
    );
    const sheet = tableOf(document.root, "t");
    if (!sheet) throw new Error("no table");
    const swap = <Of>([one, other]: readonly Of[]) => [other, one] as Of[];
    const after = edit(document, {
      type: "table",
      id: "t",
      sheet: {
        ...sheet,
        inputs: [...swap(sheet.inputs), { label: "", expression: "c", type: "string", allowed: '"x"' }],
        rules: sheet.rules.map((rule) => ({ ...rule, inputs: [...swap(rule.inputs), "-"] })),
      },
    });
    expect(tableOf(after.root, "t")).toMatchObject({
      inputs: [{ expression: "b" }, { expression: "a" }, { expression: "c", type: "string", allowed: '"x"' }],
      rules: [
        { inputs: ["2", "1", "-"], outputs: ["3", "4"] },
        { inputs: ["6", "5", "-"], outputs: ["7", "8"] },
      ],
    });
    // What a heading names and nobody knows is an input of the file from now on, and the decision requires it.
    const model = modelOf(after);
    expect([...model.inputs.values()].map(({ name, type }) => [name, type])).toContainEqual(["c", "string"]);
    expect(model.decisions.get("t")?.inputs).toEqual(["input.1"]);
  });
});

const chain = dmn(
  inputData("rated power", "number") +
    `<businessKnowledgeModel id="k" name="surcharge"><variable name="surcharge"/><encapsulatedLogic><formalParameter name="kind"/>${literal('if kind = "large" then 50 else 0')}</encapsulatedLogic></businessKnowledgeModel>` +
    decision(
      "kind",
      table(["rated power: number"], ["r"], ['< 10 -> "small"', '>= 10 -> "large"']),
      needsInput("rated power"),
      "plant kind",
    ) +
    decision(
      "fee",
      literal("surcharge(plant kind) + rated power"),
      needsDecision("kind") + needsInput("rated power") + needsKnowledge("k"),
    ),
);
const feeOf = (document: DecisionDocument, data: object) => {
  const model = modelOf(open(documentText(document)));
  const fee = model.decisions.get("fee");
  return fee && decide(model, fee, { ...data }).result;
};

describe("an edit", () => {
  test("renames in all that uses the name, and decides the same", () => {
    const document = open(chain);
    expect(feeOf(document, { "rated power": 12 })).toBe(62);
    const renamed = edit(
      document,
      { type: "rename", id: "in-rated-power", name: "power of the plant" },
      { type: "rename", id: "kind", name: "size" },
      { type: "rename", id: "k", name: "extra fee" },
    );
    expect(feeOf(renamed, { "power of the plant": 12 })).toBe(62);
    expect(documentText(renamed)).not.toMatch(/rated power"|plant kind|surcharge/);
  });
  test("makes and takes back what a decision requires, by the names its words use", () => {
    const document = open(chain);
    const shorter = edit(document, { type: "expression", id: "fee", text: "rated power * 2" });
    expect(modelOf(shorter).decisions.get("fee")).toMatchObject({
      decisions: [],
      inputs: ["in-rated-power"],
      knowledge: [],
    });
    const again = edit(shorter, { type: "expression", id: "fee", text: "surcharge(plant kind)" });
    expect(modelOf(again).decisions.get("fee")).toMatchObject({ decisions: ["kind"], inputs: [], knowledge: ["k"] });
    // While a word is not finished, what it required before is not forgotten by what cannot be read.
    const broken = edit(again, { type: "expression", id: "fee", text: "surcharge(plant kind" });
    expect(modelOf(broken).decisions.get("fee")?.logic).toMatchObject({ kind: "expression" });
  });
  test("refuses what would break others, and says what to do", () => {
    const document = open(chain);
    const refused = (one: DecisionEdit) => {
      const result = edited(document, one);
      return result.ok ? "" : result.problems.map(({ message }) => message).join();
    };
    expect(refused({ type: "remove", id: "kind" })).toMatch(/needed by “fee”/);
    expect(refused({ type: "rename", id: "kind", name: "fee" })).toMatch(/there already/);
    expect(refused({ type: "rename", id: "kind", name: "2nd" })).toMatch(/begins with a letter/);
    expect(refused({ type: "remove", id: "nothing" })).toMatch(/no longer there/);
    expect(edited(document, { type: "remove", id: "fee" }).ok).toBe(true);
  });
  test("begins a file from nothing", () => {
    const document = edit(
      open(emptyDocumentText("inspections", "Inspections")),
      { type: "add", what: "table", id: "which", name: "which inspection" },
      { type: "add", what: "expression", id: "days", name: "days until then" },
      { type: "add", what: "knowledge", id: "long", name: "long way" },
      { type: "parameters", id: "long", names: ["distance"] },
      { type: "expression", id: "long", text: "distance > 40" },
      { type: "expression", id: "days", text: "if long way(50) then 10 else 5" },
      { type: "question", id: "days", text: "How soon can somebody be there?" },
      { type: "retype", id: "days", to: "number" },
    );
    const model = modelOf(open(documentText(document)));
    const days = model.decisions.get("days");
    expect(days && decide(model, days, {}).result).toBe(10);
    expect(documentText(document)).toContain("How soon");
  });
  test("takes what is drawn of an item away with it", () => {
    const document = edit(open(foreign), { type: "remove", id: "kind" });
    expect(documentText(document)).toContain('dmnElementRef="power"');
    expect(documentText(document)).not.toContain('dmnElementRef="kind"');
  });
});

test("test cases stay with their decision, beside what others keep there", () => {
  const document = open(
    foreign.replace('x:colour="none">', 'x:colour="none"><d:extensionElements><x:mark/></d:extensionElements>'),
  );
  const cases = [
    { name: 'a "small" one', given: { "rated power": 3 }, expected: "small" },
    { name: "nothing", given: { "rated power": null }, expected: null },
  ];
  const kept = withTestCases(document, "kind", cases);
  const again = open(documentText(kept));
  expect(testCasesOf(again, "kind")).toEqual(cases);
  expect(documentText(again)).toContain("<x:mark/>");
  expect(documentText(withTestCases(again, "kind", []))).toBe(documentText(document));
  expect(testCasesOf(document, "gone")).toEqual([]);
});
