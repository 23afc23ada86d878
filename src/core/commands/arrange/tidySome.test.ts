import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { overlaps } from "../../layout";
import { type Bounds, isFlowNode, type Model, shapeOn } from "../../model";
import { expectOk, performAll, smallModel } from "../../testing/models";
import { randomProcess } from "../../testing/randomProcess";
import { perform } from "../kernel/command";

const boundsOf = (model: Model, id: string) => shapeOn(model, "page", id)?.bounds as Bounds;

describe("tidying some steps", () => {
  test("they are laid out from where they begin, and everything else stays where it is", () => {
    const before = performAll(
      smallModel(),
      { type: "tidy", diagram: "page" },
      { type: "move", diagram: "page", ids: ["decide"], by: { x: 3, y: 9 } },
    );
    const after = performAll(before, { type: "tidy", diagram: "page", ids: ["check", "decide"] });
    expect(boundsOf(after, "check")).toEqual(boundsOf(before, "check"));
    const middle = (id: string) => boundsOf(after, id).y + boundsOf(after, id).height / 2;
    expect(middle("decide")).toBe(middle("check"));
    for (const id of ["start", "approve", "late", "pool", "household"])
      expect(boundsOf(after, id)).toEqual(boundsOf(before, id));
  });

  test.each([
    ["one step", ["check"], "too-few"],
    ["what is no step", ["pool", "f1"], "too-few"],
  ])("%s is refused", (_, ids, code) => {
    const done = perform(smallModel(), { type: "tidy", diagram: "page", ids });
    expect(done.ok || done.problems[0]?.code).toBe(code);
  });

  test("on random models it is done without laying a step over another, or refused", () => {
    fc.assert(
      fc.property(fc.nat(10_000), fc.nat(1000), fc.integer({ min: 2, max: 8 }), (seed, first, count) => {
        const model = randomProcess({ seed, nodes: 24, lanes: 3 });
        const page = [...model.diagrams][0]?.id as string;
        const nodes = [...model.elements].filter((element) => isFlowNode(element.type)).map((element) => element.id);
        const ids = nodes.slice(first % nodes.length, (first % nodes.length) + count);
        const done = perform(model, { type: "tidy", diagram: page, ids });
        if (!done.ok) return;
        const { model: after } = expectOk(done);
        const shapes = [...after.shapes].filter((shape) => {
          const element = after.elements.get(shape.element);
          return element && isFlowNode(element.type) && element.type !== "boundaryEvent";
        });
        shapes.forEach((shape, at) => {
          for (const other of shapes.slice(at + 1))
            expect(overlaps(shape.bounds, other.bounds), `${shape.element} and ${other.element}`).toBe(false);
        });
      }),
      { numRuns: 40 },
    );
  });
});
