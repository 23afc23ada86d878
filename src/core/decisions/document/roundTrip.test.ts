import fc from "fast-check";
import { expect, test } from "vitest";
import { expectOk } from "../../testing/models";
import {
  type DecisionDocument,
  decide,
  documentText,
  edited,
  modelOf,
  openDocument,
  sheets,
  tableOf,
  withTestCases,
} from "..";
import { gridPoints, randomInputs, randomRules } from "../testing/randomTables";
import { decision, dmn, table } from "../testing/tables";

const open = (text: string) => expectOk(openDocument(new TextEncoder().encode(text)));

/** A file with a random table, and what another program keeps in it: attributes, elements, comments, a drawing. */
const foreignFile = (rules: readonly string[]) =>
  dmn(
    `<extensionElements><o:tool xmlns:o="urn:other" version="7"><o:deep>&lt;kept&gt;</o:deep></o:tool></extensionElements><!-- a note -->${decision(
      "t",
      table(randomInputs, ["r"], rules, 'hitPolicy="FIRST" preferredOrientation="Rule-as-Row"').replaceAll(
        "<rule>",
        '<rule xmlns:o="urn:other" o:seen="yes">',
      ),
    )}<di:DMNDI xmlns:di="urn:drawing"><di:Shape of="t"/></di:DMNDI>`,
  );
const traces = [
  "<o:deep>&lt;kept&gt;</o:deep>",
  "<!-- a note -->",
  'preferredOrientation="Rule-as-Row"',
  '<di:Shape of="t"/>',
];

type Change = (document: DecisionDocument) => DecisionDocument;
const onSheet =
  (change: (sheet: ReturnType<typeof sheetOf>) => ReturnType<typeof sheetOf>): Change =>
  (document) =>
    expectOk(edited(document, { type: "table", id: "t", sheet: change(sheetOf(document)) }));
const sheetOf = (document: DecisionDocument) => {
  const sheet = tableOf(document.root, "t");
  if (!sheet) throw new Error("The table is gone.");
  return sheet;
};
const at = fc.nat(20);
const change: fc.Arbitrary<Change> = fc.oneof(
  at.map((one) => onSheet((sheet) => sheets.withCopy(sheet, one % Math.max(1, sheet.rules.length)))),
  at.map((one) => onSheet((sheet) => sheets.withMoved(sheet, one % Math.max(1, sheet.rules.length), 1))),
  fc.constant(onSheet((sheet) => sheets.withRule(sheet, sheet.rules.length))),
  fc
    .tuple(at, fc.constantFrom("< 3", "-", "[1..2]"))
    .map(([one, text]) => onSheet((sheet) => sheets.withCell(sheet, one % (sheet.rules.length + 1), one % 2, text))),
  fc.constant(onSheet((sheet) => sheets.sortedBy(sheet, 0))),
  at.map(
    (one): Change =>
      (document) =>
        expectOk(edited(document, { type: "question", id: "t", text: `Question ${one}?` })),
  ),
  at.map(
    (one): Change =>
      (document) =>
        withTestCases(document, "t", [{ name: `${one}`, given: { a: one }, expected: one }]),
  ),
);

test("whatever is edited, nothing of others is lost, and what is written is read as the same", () => {
  fc.assert(
    fc.property(randomRules(5), fc.array(change, { maxLength: 8 }), (rules, changes) => {
      const document = changes.reduce((one, by) => by(one), open(foreignFile(rules)));
      const text = documentText(document);
      for (const trace of traces) expect(text).toContain(trace);
      const again = open(text);
      expect(documentText(again)).toBe(text);
      const [here, there] = [modelOf(document), modelOf(again)];
      const [one, other] = [here.decisions.get("t"), there.decisions.get("t")];
      if (!one || !other) throw new Error("The decision is gone.");
      for (const point of gridPoints.filter((_, place) => place % 17 === 0))
        expect(decide(there, other, point)).toEqual(decide(here, one, point));
    }),
    { numRuns: 80 },
  );
});

test("rules that are moved and sorted keep what another program says of them", () => {
  const document = open(foreignFile(["< 1; -; - -> 1", "-; -; - -> 2"]));
  const sorted = onSheet((sheet) => sheets.sortedBy(sheets.withMoved(sheet, 0, 1), 0))(document);
  expect([...documentText(sorted).matchAll(/o:seen="yes"/g)]).toHaveLength(2);
  expect(sheetOf(sorted).rules.map(({ outputs }) => outputs[0])).toEqual(["1", "2"]);
});

test("a file of megabytes is opened, and one beyond the limit is told", () => {
  const rows = Array.from({ length: 8_000 }, (_, row) => `${row}; -; "x" -> ${row % 3}`);
  const text = dmn(decision("t", table(randomInputs, ["r"], rows)));
  expect(text.length).toBeGreaterThan(1_000_000);
  expect(sheetOf(open(text)).rules).toHaveLength(8_000);
  const tooLong = new Uint8Array(17 * 1024 * 1024);
  const refused = openDocument(tooLong);
  expect(refused.ok ? "" : refused.problems[0]?.message).toMatch(/up to 16 MB/);
});
