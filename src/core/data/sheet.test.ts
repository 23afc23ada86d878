import { describe, expect, test } from "vitest";
import {
  type DataField,
  limitWords,
  newField,
  rowsOf,
  withFieldAt,
  withKind,
  withLimits,
  withPart,
  withPartIndented,
  withPartMoved,
} from ".";

const record = (name: string, ...fields: DataField[]): DataField => ({ ...newField(name, "record"), fields });
const plant = record("plant", newField("maker"), record("roof", newField("kind")), newField("power", "number"));
const outline = (field: DataField) => rowsOf(field).map(({ path, depth }) => `${" ".repeat(depth)}${path.at(-1)}`);

describe("the sheet of data", () => {
  test("lists a piece of data with its parts below it", () => {
    expect(outline(plant)).toEqual(["plant", " maker", " roof", "  kind", " power"]);
  });
  test("takes new parts, moves them, and puts them in and out of records", () => {
    expect(outline(withPart(plant, ["roof"], "pitch"))).toEqual([
      "plant",
      " maker",
      " roof",
      "  kind",
      "  pitch",
      " power",
    ]);
    expect(outline(withPart(plant, ["maker"], "name"))).toEqual([
      "plant",
      " maker",
      "  name",
      " roof",
      "  kind",
      " power",
    ]);
    expect(outline(withPartMoved(plant, ["power"], -1))).toEqual(["plant", " maker", " power", " roof", "  kind"]);
    expect(withPartMoved(plant, ["maker"], -1)).toEqual(plant);
    const into = withPartIndented(plant, ["power"], "in");
    expect(outline(into)).toEqual(["plant", " maker", " roof", "  kind", "  power"]);
    expect(withPartIndented(into, ["roof", "power"], "out")).toEqual(plant);
    expect(withPartIndented(plant, ["maker"], "in")).toEqual(plant);
    expect(withPartIndented(plant, ["maker"], "out")).toEqual(plant);
    expect(outline(withFieldAt(plant, ["roof", "kind"], () => undefined))).toEqual([
      "plant",
      " maker",
      " roof",
      " power",
    ]);
  });
  test("a kind that is changed leaves what only the old one had", () => {
    const amount = withKind({ ...newField("fee", "number"), least: 1, description: "what it costs" }, "amount");
    expect(amount).toMatchObject({ kind: "amount", currency: "EUR", least: 1, description: "what it costs" });
    expect(withKind(amount, "text")).toEqual({ ...newField("fee"), description: "what it costs" });
  });
});

test.each<[DataField["kind"], string, string]>([
  ["number", "0 to 100", "0 to 100"],
  ["number", "up to 5", "up to 5"],
  ["number", "3", "from 3"],
  ["number", "-2 to 2", "-2 to 2"],
  ["amount", "nok, 0 to 10", "NOK, 0 to 10"],
  ["amount", "EUR", "EUR"],
  ["text", "2 to 40", "2 to 40"],
  ["choice", "flat, pitched; flat", "flat, pitched"],
  ["number", "", ""],
])("limits of a %s written as %s", (kind, typed, said) => {
  const field = withLimits(newField("x", kind), typed);
  expect(limitWords(field)).toBe(said);
  // What is shown means the same when it is typed again.
  expect(withLimits(field, limitWords(field))).toEqual(field);
});
