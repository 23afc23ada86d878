import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import { commandSchema, perform } from "../commands";
import { register } from "../commands/kernel/register";
import { commandScript, expectOk, performAll, runScript, smallModel } from "../testing/models";
import {
  admitEdits,
  applyEdits,
  brokenInvariants,
  type Edit,
  editSchema,
  fromStored,
  invertAll,
  type Model,
  toStored,
} from ".";
import { indexIsTrue } from "./modelIndex";

const base = smallModel();
const set = (id: string, field: string, from: unknown, to: unknown, table = "elements") =>
  ({ kind: "set", table, id, field, from, to }) as Edit;
const shape = [...base.shapes].find((one) => one.element === "check");
const shapeId = shape?.id as string;

describe("edits from outside", () => {
  test.each<[what: string, edits: Edit[]]>([
    ["a shape without bounds", [set(shapeId, "bounds", shape?.bounds, null, "shapes")]],
    ["a shape with words for bounds", [set(shapeId, "bounds", shape?.bounds, { x: "left" }, "shapes")]],
    [
      "a shape of endless size",
      [set(shapeId, "bounds", shape?.bounds, { x: 0, y: 0, width: 1e300, height: 1 }, "shapes")],
    ],
    ["a shape of nothing", [set(shapeId, "element", "check", "nobody", "shapes")]],
    ["a step in itself", [set("check", "parent", base.elements.get("check")?.parent, "check")]],
    [
      "two lanes in each other",
      [
        set("desk", "parent", base.elements.get("desk")?.parent, "engineer"),
        set("engineer", "parent", base.elements.get("engineer")?.parent, "desk"),
      ],
    ],
    ["a step in a step", [set("check", "parent", base.elements.get("check")?.parent, "approve")]],
    ["a number for a name", [set("check", "name", "Check application", 5)]],
    ["a field the standard does not have", [set("check", "colour", null, "red")]],
    ["a type that is none", [set("check", "type", "userTask", "robotTask")]],
    ["another id", [set("check", "id", "check", "other")]],
    ["a flow to nowhere", [set("f2", "targetRef", "decide", "nowhere")]],
    [
      "a step taken out from under its flows",
      [{ kind: "remove", table: "elements", record: base.elements.get("check") as never }],
    ],
    ["foreign content that is no XML", [set("check", "extension", null, [{ element: { name: "x" } }])]],
    ["notes that are no text", [set("check", "documentation", null, [{ text: { html: "<b>" } }])]],
    [
      "a line of one point",
      [set([...base.edges][0]?.id as string, "waypoints", [...base.edges][0]?.waypoints, [{ x: 1, y: 2 }], "edges")],
    ],
    [
      "a figure that is not of its element",
      [{ kind: "insert", table: "figures", record: { id: "x", element: "check", field: "fixedCost", value: 3 } }],
    ],
    [
      "a figure of a kind there is not",
      [
        {
          kind: "insert",
          table: "figures",
          record: { id: "check mood", element: "check", field: "mood", value: 3 } as never,
        },
      ],
    ],
    [
      "a page of nothing",
      [{ kind: "insert", table: "diagrams", record: { id: "p", order: 1, element: "nobody", plane: {} } }],
    ],
    [
      "an element in a place that does not take it",
      [
        {
          kind: "insert",
          table: "elements",
          record: { id: "e", type: "lane", parent: "process", slot: "flowElements", order: 1 },
        },
      ],
    ],
  ])("%s is refused in words, and nothing is changed", (_, edits) => {
    const admitted = admitEdits(base, edits);
    expect(admitted.ok).toBe(false);
    expect(admitted.ok || admitted.problems[0]?.message).toMatch(/^This change (would break the model|no longer fits)/);
  });

  test("whatever a person does, and its undo, passes", () => {
    fc.assert(
      fc.property(commandScript(8), (script) => {
        runScript(base, script, (before, after, edits) => {
          expect(admitEdits(before, edits).ok).toBe(true);
          expect(admitEdits(after, invertAll(edits)).ok).toBe(true);
        });
      }),
      { numRuns: 40 },
    );
  });

  test("what was wrong in a file may stay wrong: a step beside a dangling flow is renamed and moved", () => {
    const broken = expectOk(
      readBpmn(`<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" targetNamespace="t"><process id="p">
        <task id="a" name="A"/><sequenceFlow id="f" sourceRef="a" targetRef="gone"/></process></definitions>`),
    );
    expect(brokenInvariants(broken)).not.toEqual([]);
    expect(admitEdits(broken, [set("a", "name", "A", "B"), set("f", "name", null, "to nowhere")]).ok).toBe(true);
    expect(admitEdits(broken, [set("f", "sourceRef", "a", "gone too")]).ok).toBe(false);
  });
});

/** Values of every kind, ids of the model among them, so that hostile edits hit something. */
const ids = [...base.elements].map(({ id }) => id);
const anyId = fc.oneof(fc.constantFrom(...ids, "page", shapeId, "__proto__", "constructor"), fc.string());
const anyValue = fc.oneof(
  anyId,
  fc.jsonValue({ maxDepth: 3 }),
  fc.constantFrom(null, -1, 1e308, "", [], {}, [null], { text: 4 }, [{ element: {} }]),
);
const anyField = fc.oneof(
  fc.constantFrom(
    "id",
    "type",
    "parent",
    "slot",
    "order",
    "name",
    "bounds",
    "waypoints",
    "element",
    "diagram",
    "sourceRef",
    "extension",
    "flowNodeRef",
    "value",
  ),
  fc.string({ minLength: 1 }),
);
const table = fc.constantFrom("elements", "diagrams", "shapes", "edges", "figures");

/** Edits that know what is there, so that they are not turned away before they are looked at. */
const hostileEdit = fc
  .tuple(fc.constantFrom("insert", "remove", "set"), table, anyId, anyField, anyValue)
  .map(([kind, of, id, field, to]): unknown => {
    const known = (base[of as "elements"].get(id) ?? undefined) as Record<string, unknown> | undefined;
    if (kind === "set") return { kind, table: of, id, field, from: known?.[field] ?? null, to };
    if (kind === "remove") return { kind, table: of, record: known ?? { id } };
    return { kind, table: of, record: { ...known, id: `${id}-new`, [field]: to } };
  });

const holds = (model: Model) => {
  expect(brokenInvariants(model)).toEqual([]);
  expect(indexIsTrue(model)).toBe(true);
  expect(fromStored(JSON.parse(JSON.stringify(toStored(model)))).ok).toBe(true);
};

test("hostile edits are refused, or leave a whole model in which everything can be deleted", () => {
  let admittedCount = 0;
  fc.assert(
    fc.property(fc.array(hostileEdit, { minLength: 1, maxLength: 2 }), (candidates) => {
      const parsed = candidates.map((one) => editSchema.safeParse(one));
      if (!parsed.every((one) => one.success)) return;
      const admitted = admitEdits(
        base,
        parsed.map((one) => one.data as Edit),
      );
      if (!admitted.ok) return;
      admittedCount++;
      holds(admitted.value);
      const all = [...admitted.value.elements].filter(({ parent }) => parent === "process").map(({ id }) => id);
      if (all.length > 0) performAll(admitted.value, { type: "delete", ids: all });
    }),
    { numRuns: 4000 },
  );
  // Enough were let in for that to mean something; how many is chance.
  expect(admittedCount).toBeGreaterThan(5);
});

const commandTypes = Object.keys(register) as (keyof typeof register)[];
/** Commands of a type with fields from a hostile hand: those that its schema lets in are performed. */
const hostileCommand = fc.constantFrom(...commandTypes).chain((type) => {
  const fields = Object.keys(register[type].schema.shape).filter((field) => field !== "type");
  const value = fc.oneof(
    { weight: 5, arbitrary: anyId },
    { weight: 1, arbitrary: fc.constantFrom("page", "desk", true, 0, 5, "right", "down", "ours") },
    { weight: 1, arbitrary: fc.array(anyId, { maxLength: 3 }) },
    { weight: 1, arbitrary: fc.record({ x: fc.double(), y: fc.double() }) },
    {
      weight: 1,
      arbitrary: fc.record({ type: fc.constantFrom("task", "lane", "participant", "startEvent", "dataObject") }),
    },
    { weight: 1, arbitrary: anyValue },
  );
  return fc
    .record(Object.fromEntries(fields.map((field) => [field, value])), { requiredKeys: [] })
    .map((more) => ({ ...more, type }));
});

test("hostile commands are refused by their schema or in words, or leave a whole model", () => {
  fc.assert(
    fc.property(fc.array(hostileCommand, { minLength: 1, maxLength: 6 }), (candidates) => {
      let model = base;
      for (const candidate of candidates) {
        const parsed = commandSchema.safeParse(candidate);
        if (!parsed.success) continue;
        const done = perform(model, parsed.data);
        if (!done.ok) continue;
        const applied = applyEdits(model, done.value.edits);
        expect(applied.ok).toBe(true);
        // The server looks at the outcome of every command as at edits from outside.
        if (admitEdits(model, done.value.edits).ok) model = done.value.model;
      }
      holds(model);
    }),
    { numRuns: 3000 },
  );
});
