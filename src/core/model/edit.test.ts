import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { commandScript, expectOk, runScript, smallModel, startModel } from "../testing/models";
import { applyEdits, editSchema, invertAll, sameJson } from "./edit";
import { brokenInvariants } from "./invariants";
import { indexIsTrue } from "./modelIndex";
import { toStored } from "./stored";
import { Table } from "./table";

describe("edits", () => {
  test("taking back what a command did restores the document exactly", () => {
    fc.assert(
      fc.property(commandScript(14), (script) => {
        runScript(smallModel(), script, (before, after, edits) => {
          const back = expectOk(applyEdits(after, invertAll(edits)));
          expect(sorted(back)).toEqual(sorted(before));
        });
      }),
      { numRuns: 40 },
    );
  });

  test("edits mean the same after a journey through JSON", () => {
    fc.assert(
      fc.property(commandScript(10), (script) => {
        runScript(smallModel(), script, (before, after, edits) => {
          const sent = JSON.parse(JSON.stringify(edits)) as unknown[];
          const read = sent.map((edit) => editSchema.parse(edit)) as unknown as typeof edits;
          expect(sorted(expectOk(applyEdits(before, read)))).toEqual(sorted(after));
        });
      }),
      { numRuns: 25 },
    );
  });

  test("random commands break no invariant", () => {
    fc.assert(
      fc.property(commandScript(30), (script) => {
        runScript(startModel(), script, (_, after) => expect(brokenInvariants(after)).toEqual([]));
        runScript(smallModel(), script, (_, after) => expect(brokenInvariants(after)).toEqual([]));
      }),
      { numRuns: 60 },
    );
  });

  test("the index carried from edit to edit is the one built from scratch", () => {
    fc.assert(
      fc.property(commandScript(20), (script) => {
        runScript(smallModel(), script, (_, after) => expect(indexIsTrue(after)).toBe(true));
      }),
      { numRuns: 30 },
    );
  });

  test("an edit that meets another state is a conflict that names the element", () => {
    const model = smallModel();
    const edit = {
      kind: "set",
      table: "elements",
      id: "check",
      field: "name",
      from: "Something else",
      to: "New",
    } as const;
    const applied = applyEdits(model, [edit]);
    expect(applied.ok).toBe(false);
    if (!applied.ok) expect(applied.problems[0]).toMatchObject({ code: "edit-conflict", elements: ["check"] });
  });

  test("ids that are property names of every object are ids like any other", () => {
    for (const id of ["__proto__", "constructor", "toString"]) {
      const model = startModel();
      const record = { id, type: "task", parent: "process", slot: "flowElements", order: 5 } as const;
      const applied = expectOk(applyEdits(model, [{ kind: "insert", table: "elements", record }]));
      expect(applied.elements.get(id)?.type).toBe("task");
      expect(model.elements.get(id)).toBeUndefined();
    }
  });

  test("a record equals itself whatever the order of its fields, and an absent field equals null", () => {
    expect(sameJson({ a: 1, b: [1, { c: 2 }] }, { b: [1, { c: 2 }], a: 1 })).toBe(true);
    expect(sameJson({ a: null }, {})).toBe(true);
    expect(sameJson({ a: 1 }, { a: 2 })).toBe(false);
    expect(sameJson([1, 2], [2, 1])).toBe(false);
  });
});

describe("table", () => {
  test("a table is a map: against a native map, over random changes", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(40), fc.option(fc.nat(9), { nil: undefined })), { maxLength: 300 }),
        (changes) => {
          let table = Table.empty<number>();
          const map = new Map<string, number>();
          for (const [key, value] of changes) {
            table = table.with(new Map([[`k${key}`, value]]));
            if (value === undefined) map.delete(`k${key}`);
            else map.set(`k${key}`, value);
            expect(table.size).toBe(map.size);
          }
          expect(new Map(table.entries())).toEqual(map);
        },
      ),
    );
  });
});

const sorted = (model: Parameters<typeof toStored>[0]) => {
  const stored = toStored(model);
  const byId = <Item extends { id: string }>(items: readonly Item[]) =>
    [...items].sort((a, b) => (a.id < b.id ? -1 : 1));
  return {
    ...stored,
    elements: byId(stored.elements),
    shapes: byId(stored.shapes),
    edges: byId(stored.edges),
    diagrams: byId(stored.diagrams),
  };
};
