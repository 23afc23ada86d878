import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { applyEdits, brokenInvariants, invertAll } from "../../model";
import { expectOk, smallModel } from "../../testing/models";
import { Change, Refusal, type Setting } from "./change";

const model = smallModel();
const shapes = [...model.shapes];
const edges = [...model.edges];

const at = fc.integer({ min: -500, max: 5_000 });
const anySetting: fc.Arbitrary<Setting> = fc.oneof(
  fc
    .tuple(fc.constantFrom(...shapes), at, at)
    .map(([shape, x, y]): Setting => ["shapes", shape.id, "bounds", { ...shape.bounds, x, y }]),
  fc.constantFrom(...shapes).map((shape): Setting => ["shapes", shape.id, "bounds", { ...shape.bounds }]),
  fc
    .tuple(fc.constantFrom(...edges), at)
    .map(
      ([edge, by]): Setting => ["edges", edge.id, "waypoints", edge.waypoints.map(({ x, y }) => ({ x: x + by, y }))],
    ),
  fc
    .tuple(fc.constantFrom("check", "desk"), fc.option(fc.string({ maxLength: 20 })))
    .map(([id, name]): Setting => ["elements", id, "name", name]),
);
const settings = fc.uniqueArray(anySetting, {
  maxLength: 12,
  selector: ([table, id, field]) => `${table} ${id} ${field}`,
});

describe("many fields set in one step", () => {
  test("come to what they come to one after the other, and are undone by what they were", () => {
    fc.assert(
      fc.property(settings, (wanted) => {
        const [together, each] = [new Change(model), new Change(model)];
        together.setAll(wanted);
        for (const setting of wanted) each.set(...setting);
        expect(together.edits).toEqual(each.edits);
        expect([...together.model.shapes]).toEqual([...each.model.shapes]);
        expect([...together.model.edges]).toEqual([...each.model.edges]);
        expect([...together.model.elements]).toEqual([...each.model.elements]);
        expect(brokenInvariants(together.model)).toEqual([]);
        const back = expectOk(applyEdits(together.model, invertAll(together.edits)));
        expect([...back.shapes]).toEqual(shapes);
        expect([...back.edges]).toEqual(edges);
        expect([...back.elements]).toEqual([...model.elements]);
      }),
    );
  });

  test("what is so already is no edit, and nothing is made anew by it", () => {
    const change = new Change(model);
    change.setAll(shapes.map((shape): Setting => ["shapes", shape.id, "bounds", { ...shape.bounds }]));
    expect(change.edits).toEqual([]);
    expect(change.model).toBe(model);
  });

  test("one of them that is gone refuses all, and leaves the model as it was", () => {
    const change = new Change(model);
    const [shape] = shapes;
    expect(() =>
      change.setAll([
        ["shapes", shape?.id ?? "", "bounds", { x: 0, y: 0, width: 1, height: 1 }],
        ["shapes", "nowhere", "bounds", { x: 0, y: 0, width: 1, height: 1 }],
      ]),
    ).toThrow(Refusal);
    expect(change.edits).toEqual([]);
    expect(change.model).toBe(model);
  });
});
