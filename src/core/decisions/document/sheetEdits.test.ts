import { describe, expect, test } from "vitest";
import type { TableSheet } from "./sheet";
import * as sheets from "./sheetEdits";

const rule = (inputs: string[], outputs: string[]) => ({ inputs, outputs, notes: [] });
const sheet: TableSheet = {
  hitPolicy: "UNIQUE",
  aggregator: undefined,
  inputs: [
    { expression: "rated power", type: "number", allowed: "", label: "" },
    { expression: "roof", type: "string", allowed: "", label: "Shape of the roof" },
  ],
  outputs: [{ name: "", label: "inspection", type: "string", allowed: "", usual: "" }],
  notes: [],
  rules: [rule([">= 30", "-"], ['"full"']), rule(["< 10", "-"], ['"none"']), rule(["[10..30)", '"flat"'], ['"visit"'])],
};
const inputsOf = ({ rules }: TableSheet) => rules.map(({ inputs }) => inputs.join(" "));
const known = ["rated power", "roof"];

describe("a sheet of rules", () => {
  test("what is typed is kept as FEEL, words or not; what is neither is kept as typed", () => {
    expect(sheets.keptCell(sheet, 0, "from 10 to under 30", known)).toBe("[10..30)");
    expect(sheets.keptCell(sheet, 1, "flat", known)).toBe('"flat"');
    expect(sheets.keptCell(sheet, 2, "full", known)).toBe('"full"');
    expect(sheets.keptCell(sheet, 0, " 10 to what ", known)).toBe("10 to what");
  });
  test("the line below the last is a new rule", () => {
    const grown = sheets.withCell(sheet, 3, 2, '"new"');
    expect(grown.rules[3]).toEqual(rule(["-", "-"], ['"new"']));
    expect(sheets.cellText(grown, 3, 2)).toBe('"new"');
  });
  test("rules are moved, copied, taken out and sorted by what a column says", () => {
    expect(inputsOf(sheets.withMoved(sheet, 1, -1))).toEqual(["< 10 -", ">= 30 -", '[10..30) "flat"']);
    expect(sheets.withMoved(sheet, 0, -1).rules).toEqual(sheet.rules);
    expect(inputsOf(sheets.withCopy(sheet, 0))).toEqual([">= 30 -", ">= 30 -", "< 10 -", '[10..30) "flat"']);
    expect(inputsOf(sheets.withoutRule(sheet, 0))).toEqual(["< 10 -", '[10..30) "flat"']);
    expect(inputsOf(sheets.sortedBy(sheet, 0))).toEqual(["< 10 -", '[10..30) "flat"', ">= 30 -"]);
    expect(inputsOf(sheets.sortedBy(sheet, 1))).toEqual(['[10..30) "flat"', ">= 30 -", "< 10 -"]);
  });
  test("columns come, go and move with their cells", () => {
    const wider = sheets.withColumn(sheets.withColumn(sheet, "input", "voltage"), "note", "why");
    expect(wider.rules[0]).toEqual({ inputs: [">= 30", "-", "-"], outputs: ['"full"'], notes: [""] });
    expect(sheets.headOf(wider, 2)).toBe("voltage");
    expect(inputsOf(sheets.withMovedColumn(sheet, 0, 1))[2]).toBe('"flat" [10..30)');
    expect(sheets.withMovedColumn(sheet, 2, -1)).toEqual(sheet);
    expect(inputsOf(sheets.withoutColumn(sheet, 1))).toEqual([">= 30", "< 10", "[10..30)"]);
    expect(sheets.withHead(sheet, 2, { usual: '"full"' }).outputs[0]?.usual).toBe('"full"');
  });
});

describe("lines of a spreadsheet", () => {
  test("find their columns by their headings, in any order", () => {
    const pasted = sheets.pastedInto(
      sheet,
      3,
      0,
      [
        ["Shape of the roof", "Rated-power", "Inspection"],
        ["steep", "10 to under 30", "full"],
      ],
      known,
    );
    expect(pasted.rules[3]).toEqual(rule(["[10..30)", '"steep"'], ['"full"']));
  });
  test("without headings go from the cell on, and what has no column is left out", () => {
    const pasted = sheets.pastedInto(
      sheet,
      2,
      1,
      [
        ["steep", "visit", "more"],
        ["any", "full"],
      ],
      known,
    );
    expect(pasted.rules.slice(2)).toEqual([rule(["[10..30)", '"steep"'], ['"visit"']), rule(["-", "-"], ['"full"'])]);
  });
  test("make the columns of an empty table", () => {
    const empty: TableSheet = {
      ...sheet,
      inputs: [],
      outputs: [{ name: "", label: "", type: "", allowed: "", usual: "" }],
      rules: [],
    };
    const pasted = sheets.pastedInto(
      empty,
      0,
      0,
      [
        ["rated power", "roof", "inspection"],
        ["under 10", "flat", "none"],
      ],
      known,
    );
    expect(pasted.inputs.map(({ expression }) => expression)).toEqual(["rated power", "roof"]);
    expect(pasted.outputs[0]?.label).toBe("inspection");
    expect(pasted.rules).toEqual([rule(["< 10", '"flat"'], ['"none"'])]);
  });
});
