import Ajv2020 from "ajv/dist/2020";
import addFormats from "ajv-formats";
import { describe, expect, test } from "vitest";
import { formOf } from "../model";
import { performAll, smallModel } from "../testing/models";
import {
  type DataField,
  exampleData,
  fieldWords,
  formFromData,
  formProblems,
  isShown,
  newField,
  packedForm,
  readField,
  recordSchema,
  schemaOf,
  shownItems,
  withValueIn,
} from ".";

const plant: DataField = {
  ...newField("plant", "record"),
  fields: [
    { ...newField("rated power", "number"), isRequired: true, least: 1, most: 100 },
    { ...newField("roof", "choice"), choices: ["flat", "pitched"], description: "Where the modules stand" },
  ],
};
const model = performAll(
  smallModel(),
  { type: "retype", id: "check", to: "userTask" },
  { type: "defineData", process: "process", id: "plant", name: "plant", schema: JSON.stringify(schemaOf(plant)) },
  {
    type: "defineData",
    process: "process",
    id: "note",
    name: "note",
    schema: JSON.stringify(schemaOf(newField("note"))),
  },
  { type: "setDataUse", step: "check", data: "plant", use: "creates" },
  { type: "setDataUse", step: "check", data: "note", use: "reads" },
);

describe("a form made from the data", () => {
  test("fills in what the step writes and shows what it reads; records give their parts", () => {
    expect(formFromData(model, "check").items).toEqual([
      { path: ["plant", "rated power"], group: "Plant" },
      { path: ["plant", "roof"], group: "Plant", help: "Where the modules stand" },
      { path: ["note"], isReadOnly: true },
    ]);
    // Where nobody said what a step does with the data, it is all of it.
    expect(formFromData(model, "approve").items).toHaveLength(3);
  });
  test("stands at its step, only where a person fills something in, and follows a name that is changed", () => {
    const form = formFromData(model, "check");
    const items = form.items.map((item) => ({ ...item, shownWhen: "plant.rated power > 3" }));
    const kept = performAll(
      model,
      { type: "setForm", id: "check", form: { items } },
      { type: "renameData", id: "plant", path: ["rated power"], to: "power" },
      { type: "renameData", id: "plant", path: [], to: "system" },
    );
    const step = kept.elements.get("check");
    expect(step && formOf(step)?.items[0]).toMatchObject({ path: ["system", "power"], shownWhen: "system.power > 3" });
    const gone = performAll(kept, { type: "setForm", id: "check", form: null }).elements.get("check");
    expect(gone && formOf(gone)).toBeUndefined();
  });
});

describe("a form as it is filled in", () => {
  const items = shownItems(model, "check", {
    items: [
      { path: ["plant", "rated power"], check: "plant.rated power < 50", checkWords: "Ask the engineer first." },
      { path: ["plant", "roof"], shownWhen: "plant.rated power > 10" },
      { path: ["gone"] },
    ],
  });
  const problems = (data: object) => [...formProblems(items, { ...data })].map(([at, said]) => [at, said.text]);

  test("asks for what is required, and only for what is shown", () => {
    expect(problems({})).toEqual([[0, "This has to be filled in."]]);
    expect(isShown({ path: ["x"], shownWhen: "plant.rated power > 10" }, { plant: { "rated power": 8 } })).toBe(false);
    expect(isShown({ path: ["x"], shownWhen: "plant.rated power > 10" }, { plant: { "rated power": 12 } })).toBe(true);
    expect(problems({ plant: { "rated power": 8, roof: "round" } })).toEqual([]);
    expect(problems({ plant: { "rated power": 12, roof: "round" } })).toEqual([
      [1, "One of flat, pitched is asked for here."],
    ]);
  });
  test("holds values against limits and conditions, in words", () => {
    expect(problems({ plant: { "rated power": 0 } })).toEqual([[0, "At least 1 is asked for here."]]);
    expect(problems({ plant: { "rated power": 60, roof: "flat" } })).toEqual([[0, "Ask the engineer first."]]);
  });
  test("of example values is right", () => {
    expect(formProblems(items, exampleData(items)).size).toBe(0);
  });
});

test.each<[Partial<DataField>, string, unknown]>([
  [{ kind: "number" }, "3,5", 3.5],
  [{ kind: "amount", currency: "EUR" }, "12", 12],
  [{ kind: "yesNo" }, "Yes", true],
  [{ kind: "date" }, "2027-03-31", "2027-03-31"],
  [{ kind: "dateTime" }, "2027-03-31T14:30", "2027-03-31T14:30"],
  [{ kind: "duration" }, "P2D", "P2D"],
  [{ kind: "text", isList: true }, "a; b", ["a", "b"]],
  [{ kind: "number", isList: true }, "1; 2", [1, 2]],
  [{ kind: "record" }, '{"a": 1}', { a: 1 }],
  [{ kind: "record", isList: true }, '[{"a": 1}]', [{ a: 1 }]],
  [{ kind: "text" }, "  ", undefined],
])("%o typed as %s", (field, typed, value) => {
  const one = { ...newField("x"), ...field };
  expect(readField(one, typed)).toEqual({ value });
  expect(readField(one, fieldWords(one, value))).toEqual({ value });
});
test.each<[Partial<DataField>, string, RegExp]>([
  [{ kind: "number" }, "much", /^A number/],
  [{ kind: "number", most: 5 }, "6", /^At most 5/],
  [{ kind: "text", least: 3 }, "ab", /^At least 3 letters/],
  [{ kind: "text", most: 1 }, "ab", /^At most 1 letters/],
  [{ kind: "yesNo" }, "perhaps", /^Yes or no/],
  [{ kind: "date" }, "31.3.2027", /^A date/],
  [{ kind: "number", isList: true }, "1; x", /^A number/],
  [{ kind: "record" }, "[1]", /^A record/],
  [{ kind: "record", isList: true }, "{}", /^A list/],
])("%o typed as %s is not", (field, typed, reason) => {
  const read = readField({ ...newField("x"), ...field }, typed);
  expect("problem" in read && read.problem.text).toMatch(reason);
});

test("a form leaves as JSON Schema that a validator takes, and its order", () => {
  const form = formFromData(model, "check");
  const { schema, order } = packedForm(model, "check", form);
  expect(order).toEqual(form.items);
  const holds = addFormats(new Ajv2020({ strict: false })).compile(schema as object);
  expect(holds({ plant: { "rated power": 5, roof: "flat" }, note: "x" })).toBe(true);
  expect(holds({ plant: { roof: "flat" } })).toBe(false);
  expect(schema).toMatchObject(recordSchema([]) && { type: "object" });
});

test("a value is put in at its path, and nothing beside it is touched", () => {
  expect(withValueIn({ a: 1, plant: { roof: "flat" } }, ["plant", "rated power"], 5)).toEqual({
    a: 1,
    plant: { roof: "flat", "rated power": 5 },
  });
  expect(withValueIn({}, ["__proto__", "x"], 1)).not.toHaveProperty("x");
  expect(({} as { x?: number }).x).toBeUndefined();
});
