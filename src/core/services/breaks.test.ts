import { expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import type { Description, Operation } from "../descriptions";
import { expectOk, performAll } from "../testing/models";
import { breaksOf, offeredTo, offersOf } from ".";

const field = (name: string, type = "string", isRequired = false) => ({ name, type, isRequired });
const operation = (name: string, more: Partial<Operation> = {}): Operation => ({
  name,
  in: [field("id", "string", true), field("unit")],
  out: [field("value", "number"), field("read", "date")],
  errors: ["404"],
  address: `GET /${name}`,
  documentation: "",
  ...more,
});
const described = (...operations: Operation[]): Description => ({
  format: "OpenAPI 3.1",
  version: "2",
  interfaces: [{ name: "Meters", operations }],
  problems: [],
});
const plain = expectOk(
  readBpmn(`<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="t"><process id="p">
<serviceTask id="a" name="Read the meter"/><serviceTask id="b" name="Bill"/></process></definitions>`),
);
const { documentation: _, ...first } = operation("readMeter");
const model = ["a", "b"].reduce(
  (at, id) =>
    performAll(at, {
      type: "bindOperation",
      id,
      to: {
        source: "meters.yaml",
        format: "",
        version: "1",
        interface: "Meters",
        operation: { ...first, in: [...first.in], out: [...first.out], errors: [...first.errors] },
      },
    }),
  plain,
);

test.each<[string, Operation[], string[]]>([
  ["the same", [operation("readMeter")], []],
  [
    "more that comes out, more that may go in, less that is required: nothing breaks",
    [
      operation("readMeter", {
        in: [field("id"), field("unit"), field("new")],
        out: [...operation("x").out, field("more")],
      }),
    ],
    [],
  ],
  ["the operation is gone", [operation("readAll")], ["operation gone "]],
  [
    "a new field is required",
    [operation("readMeter", { in: [field("id", "string", true), field("unit"), field("day", "date", true)] })],
    ["asks for more day"],
  ],
  [
    "a field becomes required",
    [operation("readMeter", { in: [field("id", "string", true), field("unit", "string", true)] })],
    ["asks for more unit"],
  ],
  [
    "types change, on both ways",
    [
      operation("readMeter", {
        in: [field("id", "integer", true), field("unit")],
        out: [field("value", "string"), field("read", "date")],
      }),
    ],
    ["other type id string integer", "other type value number string"],
  ],
  [
    "fields are gone, on both ways",
    [operation("readMeter", { in: [field("id", "string", true)], out: [field("value", "number")] })],
    ["takes no more unit", "gives no more read"],
  ],
])("a newer description: %s", (_, operations, told) => {
  const breaks = breaksOf(model, "meters.yaml", described(...operations));
  expect(breaks.map(({ kind, field: name, from, to }) => `${kind} ${name}${from && ` ${from} ${to}`}`)).toEqual(told);
  for (const one of breaks) expect(one.elements).toEqual(["a", "b"]);
});

test("one of another file breaks nothing", () => {
  expect(breaksOf(model, "other.yaml", described())).toEqual([]);
});

test("operations are offered by the words of their names", () => {
  const descriptions = [
    {
      name: "meters.yaml",
      description: described(operation("billMonth"), operation("readMeter"), operation("orderMeter")),
    },
  ];
  const step = plain.elements.get("a");
  const offered = step ? offeredTo(plain, step, offersOf(descriptions)) : [];
  expect(offered.map((one) => one.operation.name)[0]).toBe("readMeter");
  expect(offered).toHaveLength(3);
  expect(offered[0]?.likeness).toBeGreaterThan(0.5);
  expect(offered.at(-1)?.likeness).toBeLessThan(0.5);
  // Nothing in common is no likeness, however alike the letters are.
  expect(offered.find((one) => one.operation.name === "billMonth")?.likeness).toBe(0);
});
