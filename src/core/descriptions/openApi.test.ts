import { describe, expect, test } from "vitest";
import { expectOk } from "../testing/models";
import { type Description, descriptionLimits, readDescription } from ".";

// The specification's examples (OpenAPI 3.0.3 and 3.1.1: Paths, Components, Reference and Schema Object), written anew for meters.

const bytes = (text: string) => new TextEncoder().encode(text);
function read(text: string, files: { readonly [path: string]: string } = {}, name = "meters.yaml"): Description {
  return expectOk(
    readDescription({
      name,
      bytes: bytes(text),
      beside: (path) => (Object.hasOwn(files, path) ? bytes(files[path] as string) : undefined),
    }),
  );
}
const operationsOf = ({ interfaces }: Description) =>
  interfaces.flatMap(({ operations }) =>
    operations.map(({ name, in: ins, out, errors }) => ({
      name,
      in: ins.map((field) => field.name),
      out: out.map((field) => field.name),
      errors,
    })),
  );
const problemsOf = ({ problems }: Description) => problems.map(({ text }) => text);

const meters = `
openapi: 3.1.0
info: { title: Meter platform, version: 2.4.0 }
paths:
  /meters/{id}:
    parameters:
      - { name: id, in: path, required: true, schema: { type: string } }
      - { name: unit, in: query, schema: { type: string } }
    get:
      operationId: readMeter
      parameters:
        - $ref: "#/components/parameters/unit"
      responses:
        "404": { description: Unknown }
        default: { description: Otherwise }
        "200":
          description: The meter
          content:
            text/plain: { schema: { type: string } }
            application/json: { schema: { $ref: "#/components/schemas/Meter" } }
    delete:
      responses: { 2XX: { description: Gone } }
  /meters:
    get:
      operationId: listMeters
      responses:
        "201": { description: none, content: { application/json: { schema: { type: object, properties: { late: {} } } } } }
        "200":
          description: All
          content:
            application/vnd.quillmere.meters+json; charset=utf-8:
              schema: { type: array, items: { $ref: "#/components/schemas/Meter" } }
    post:
      operationId: exchangeMeter
      requestBody: { $ref: "#/components/requestBodies/exchange" }
      responses: { "204": { description: Done }, "409": { description: Busy } }
components:
  parameters:
    unit: { name: unit, in: query, required: true, schema: { type: string } }
  requestBodies:
    exchange:
      required: true
      content:
        application/json:
          schema:
            allOf:
              - $ref: "#/components/schemas/Meter"
              - type: object
                required: [reason]
                properties: { reason: { type: string }, id: { type: string } }
  schemas:
    Meter:
      type: object
      required: [id]
      properties:
        id: { type: string }
        installed: { type: string, format: date }
        replaces: { $ref: "#/components/schemas/Meter" }
        readings: { type: array, items: { type: number } }
`;

test("operations by id or by method and path, with what goes in, comes out and goes wrong", () => {
  const description = read(meters);
  expect(description).toMatchObject({ format: "OpenAPI 3.1", version: "2.4.0", problems: [] });
  expect(description.interfaces.map(({ name }) => name)).toEqual(["Meter platform"]);
  const fields = ["id", "installed", "replaces", "readings"];
  expect(operationsOf(description)).toEqual([
    { name: "readMeter", in: ["id", "unit"], out: fields, errors: ["404", "default"] },
    { name: "DELETE /meters/{id}", in: ["id", "unit"], out: [], errors: [] },
    { name: "listMeters", in: [], out: fields, errors: [] },
    { name: "exchangeMeter", in: [...fields, "reason"], out: [], errors: ["409"] },
  ]);
});

test("types and what is required, in words", () => {
  const [readMeter, , , exchange] = read(meters).interfaces[0]?.operations ?? [];
  expect(readMeter?.in).toMatchObject([
    { name: "id", type: "string", isRequired: true },
    { name: "unit", isRequired: true },
  ]);
  expect(readMeter?.out.map(({ type }) => type)).toEqual(["string", "date", "Meter", "list of number"]);
  expect(exchange?.in.filter(({ isRequired }) => isRequired).map(({ name }) => name)).toEqual(["id", "reason"]);
});

test("a version without quotes is a number in YAML, and meant all the same", () => {
  expect(read("openapi: 3.0\ninfo: { title: A }\npaths: {}")).toMatchObject({ format: "OpenAPI 3.0" });
  expect(read("openapi: 3.1\ninfo: { title: A }\npaths: {}")).toMatchObject({ format: "OpenAPI 3.1" });
});

test("JSON says the same as YAML", () => {
  const json = JSON.stringify({
    openapi: "3.0.3",
    info: { title: "Billing ledger", version: "1" },
    paths: { "/bills": { post: { operationId: "bill", responses: { "200": { description: "ok" } } } } },
  });
  expect(read(json, {}, "bills.json")).toMatchObject({
    format: "OpenAPI 3.0",
    interfaces: [{ name: "Billing ledger" }],
  });
});

describe("references", () => {
  const within = (schema: string) => `
openapi: 3.0.3
info: { title: A, version: "1" }
paths:
  /a: { get: { responses: { "200": { description: a, content: { application/json: { schema: ${schema} } } } } } }
`;

  test("to files beside and below are followed, from file to file, in rings as well", () => {
    const files = {
      "types/meter.yaml": 'Meter: { type: object, properties: { id: {}, next: { $ref: "../ring.json#/Ring" } } }',
      "ring.json": '{ "Ring": { "$ref": "types/meter.yaml#/Meter" } }',
    };
    const description = read(within('{ $ref: "ring.json#/Ring" }'), files);
    expect(operationsOf(description)[0]?.out).toEqual(["id", "next"]);
    expect(problemsOf(description)).toEqual([]);
  });

  test.each([
    ["on a network", "https://quillmere.example/meter.json#/Meter"],
    ["above the folder", "../meter.yaml"],
    ["above, by a way down", "types/../../meter.yaml"],
    ["above, escaped", "%2e%2e/meter.yaml"],
    ["on this machine", "/etc/passwd"],
    ["on this machine, as an address", "file:///etc/passwd"],
    ["behind another sign", "..\\\\meter.yaml"],
  ])("%s: named, and never asked for", (_, reference) => {
    const asked: string[] = [];
    const description = expectOk(
      readDescription({
        name: "a.yaml",
        bytes: bytes(within(`{ type: object, properties: { id: {}, other: { $ref: "${reference}" } } }`)),
        beside: (path) => {
          asked.push(path);
          return undefined;
        },
      }),
    );
    expect(asked).toEqual([]);
    expect(operationsOf(description)[0]?.out).toEqual(["id", "other"]);
    expect(problemsOf(description)[0]).toMatch(/leads out of the description's folder/);
  });

  test("that lead nowhere, or into a ring alone, are told or let be", () => {
    expect(problemsOf(read(within('{ $ref: "#/components/schemas/Gone" }')))).toEqual([
      "The reference #/components/schemas/Gone leads nowhere.",
    ]);
    expect(problemsOf(read(within('{ $ref: "gone.yaml" }')))[0]).toMatch(/gone\.yaml.*is not there/);
    const ring = `${within('{ $ref: "#/x" }')}x: { $ref: "#/y" }\ny: { $ref: "#/x" }\n`;
    expect(operationsOf(read(ring))[0]?.out).toEqual([]);
  });

  test("what only looks like one, in an example, is none", () => {
    const text = within('{ type: object, properties: { id: { example: { $ref: "https://a.example" } } } }');
    expect(problemsOf(read(text))).toEqual([]);
  });

  test("with signs escaped as RFC 6901 has it", () => {
    const text = `${within('{ $ref: "#/x-parts/a~1b~0c%20d" }')}x-parts: { "a/b~c d": { properties: { found: {} } } }\n`;
    expect(operationsOf(read(text))[0]?.out).toEqual(["found"]);
  });
});

describe("what cannot be used", () => {
  const fails = (text: string | Uint8Array) =>
    readDescription({ name: "x.yaml", bytes: typeof text === "string" ? bytes(text) : text });

  test.each<[string, string, RegExp]>([
    ["broken JSON", '{ "openapi": "3.0.0", ', /neither JSON nor YAML/],
    ["broken YAML", "openapi: [3.1.0", /neither JSON nor YAML/],
    ["a text", "hello", /no OpenAPI description/],
    ["an older one", "swagger: '2.0'", /version 2.0; OpenAPI 3.0 and 3.1 are read/],
    ["an older one, as a number", "swagger: 2.0", /version 2.0; OpenAPI/],
    ["a newer one", "openapi: 4.0.0", /version 4.0.0/],
    ["nested too deep", `{"openapi":"3.1.0","a":${"[".repeat(5_000)}${"]".repeat(5_000)}}`, /nests/],
    [
      "aliases that multiply",
      `openapi: 3.1.0\n${Array.from({ length: 30 }, (_, at) => `a${at}: &a${at} [${at === 0 ? "x" : `*a${at - 1}, `.repeat(9)}]`).join("\n")}`,
      /neither JSON nor YAML/,
    ],
    ["a ring of aliases", "openapi: 3.1.0\na: &a { b: *a }", /nests|neither/],
  ])("%s", (_, text, message) => {
    const read = fails(text);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.problems[0]?.message).toMatch(message);
  });

  test("too large, and not UTF-8", () => {
    expect(fails(new Uint8Array(descriptionLimits.bytes + 1)).ok).toBe(false);
    expect(fails(new Uint8Array([0x6f, 0xff, 0xfe])).ok).toBe(false);
  });

  test("a place is given where the text has one", () => {
    const read = fails("openapi: 3.1.0\ninfo: {\n");
    expect(read.ok ? undefined : read.problems[0]).toMatchObject({
      line: expect.any(Number),
      column: expect.any(Number),
    });
  });

  test("names that are words of the language are names", () => {
    const text = `
openapi: 3.0.0
info: { title: A, version: "1" }
paths:
  /a:
    get:
      operationId: __proto__
      responses: { "200": { description: a, content: { application/json: { schema: { properties: { constructor: {}, toString: {} } } } } } }
`;
    expect(operationsOf(read(text))).toMatchObject([{ name: "__proto__", out: ["constructor", "toString"] }]);
  });
});
