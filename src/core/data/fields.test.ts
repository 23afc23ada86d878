import Ajv2020 from "ajv/dist/2020";
import addFormats from "ajv-formats";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { expectOk } from "../testing/models";
import { type DataField, fieldKinds, fieldOf, fieldsFromExample, recordSchema, schemaOf } from ".";

const name = fc.string({ minLength: 1, maxLength: 8 }).filter((one) => one.trim() === one && one !== "__proto__");
const fieldWith = (inner: fc.Arbitrary<readonly DataField[]>): fc.Arbitrary<DataField> =>
  fc
    .record({
      name,
      kind: fc.constantFrom(...fieldKinds),
      isList: fc.boolean(),
      isRequired: fc.boolean(),
      description: fc.string({ maxLength: 10 }),
      currency: fc.constantFrom("EUR", "NOK", ""),
      choices: fc.uniqueArray(name, { minLength: 1, maxLength: 4 }),
      least: fc.option(fc.integer({ min: 0, max: 5 }), { nil: undefined }),
      fields: inner,
    })
    .map(({ currency, choices, least, fields, ...head }): DataField => {
      const hasLimits = ["text", "number", "amount"].includes(head.kind);
      // Keys that are numbers come first in an object, whatever their place was.
      const apart = [...new Map(fields.map((one) => [one.name, one])).values()].filter(
        (one) => !/^\d+$/.test(one.name),
      );
      return {
        ...head,
        ...(head.kind === "amount" && { currency }),
        ...(head.kind === "choice" && { choices }),
        ...(hasLimits && least !== undefined && { least }),
        ...(head.kind === "record" && { fields: apart }),
      };
    });
const flat = fieldWith(fc.constant([]));
const field = fieldWith(fc.array(fieldWith(fc.array(flat, { maxLength: 3 })), { maxLength: 3 }));

const ajv = addFormats(new Ajv2020({ strict: false }));

describe("fields are kept as JSON Schema 2020-12", () => {
  test("and read back as they were", () => {
    fc.assert(
      fc.property(field, (one) => {
        expect(fieldOf(one.name, JSON.parse(JSON.stringify(schemaOf(one))), one.isRequired)).toEqual(one);
      }),
      { numRuns: 400 },
    );
  });
  test("which a validator takes", () => {
    fc.assert(
      fc.property(fc.array(field, { maxLength: 4 }), (fields) => {
        expect(
          ajv.validateSchema({ $schema: "https://json-schema.org/draft/2020-12/schema", ...recordSchema(fields) }),
        ).toBe(true);
      }),
      { numRuns: 200 },
    );
  });
  test("what a schema says besides stays", () => {
    const schema = {
      type: "object",
      title: "Plant",
      properties: { id: { type: "string", pattern: "^P" }, count: { type: "integer", minimum: 1 } },
      required: ["id"],
    };
    expect(schemaOf(fieldOf("plant", schema))).toEqual(schema);
  });
});

describe("fields from an example", () => {
  test("of JSON: kinds, lists, records, what is not always there, words that come again", () => {
    const rows = ["flat", "pitched", "flat", "pitched", "flat", "flat"].map((roof, at) => ({
      "rated power": 5 + at,
      roof,
      "reported on": "2027-03-01",
      certified: at > 2,
      modules: [{ maker: "Sunfold", count: 8 }],
      ...(at > 0 && { note: `Note ${at}` }),
    }));
    const fields = expectOk(fieldsFromExample(JSON.stringify(rows)));
    expect(fields.map(({ name: called, kind, isList, isRequired }) => [called, kind, isList, isRequired])).toEqual([
      ["rated power", "number", false, true],
      ["roof", "choice", false, true],
      ["reported on", "date", false, true],
      ["certified", "yesNo", false, true],
      ["modules", "record", true, true],
      ["note", "text", false, false],
    ]);
    expect(fields[1]?.choices).toEqual(["flat", "pitched"]);
    expect(fields[4]?.fields?.map(({ name: called, kind }) => [called, kind])).toEqual([
      ["maker", "text"],
      ["count", "number"],
    ]);
    // What the schema says holds for the example it was made from.
    const holds = ajv.compile(recordSchema(fields));
    for (const row of rows) expect(holds(row)).toBe(true);
  });
  test("of lines of a spreadsheet", () => {
    const fields = expectOk(
      fieldsFromExample("Meter\tRead on\tValue\tIn use\n0012\t2027-01-01\t12,5\tyes\n0013\t2027-01-02\t13\tno"),
    );
    expect(fields.map(({ name: called, kind }) => [called, kind])).toEqual([
      ["Meter", "text"],
      ["Read on", "date"],
      ["Value", "number"],
      ["In use", "yesNo"],
    ]);
  });
  test.each([
    ["", /nothing in the example/],
    ["{", /cannot be read/],
    ["[1, 2]", /named values/],
    ["only a heading", /at least one line/],
  ])("what is none says why: %s", (text, reason) => {
    const result = fieldsFromExample(text);
    expect(result.ok ? "" : result.problems[0]?.message).toMatch(reason);
  });
});
