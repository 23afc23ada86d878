import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { lineCrosses } from "../../layout";
import { type Bounds, edgeOn, emptyModel, type Model, type Point, shapeOn } from "../../model";
import { performAll } from "../../testing/models";

const diagram = "page";

/** A note, the step it is about, and a step between them. */
function between(y: number): Model {
  const start = emptyModel({ definitions: "definitions", process: "process", diagram }, "Between");
  const put = (id: string, x: number, at: number) =>
    ({ type: "place", diagram, id, kind: { type: "task" }, at: { x, y: at }, name: id }) as const;
  return performAll(
    start,
    put("step", 200, 500),
    put("between", 500, y),
    {
      type: "place",
      diagram,
      id: "paper",
      kind: { type: "dataObjectReference" },
      at: { x: 800, y: 500 },
      name: "Paper",
    },
    { type: "connect", diagram, id: "line", source: "paper", target: "step" },
  );
}

describe("an association", () => {
  test.each([500, 480, 520, 460])("passes through no step that stands between its ends, at %d", (y) => {
    const model = between(y);
    const line = edgeOn(model, diagram, "line")?.waypoints as readonly Point[];
    const box = shapeOn(model, diagram, "between")?.bounds as Bounds;
    expect(line.length).toBeGreaterThan(1);
    for (const [at, point] of line.slice(1).entries()) expect(lineCrosses(box, line[at] as Point, point)).toBe(false);
  });

  test("is straight where nothing stands in its way", () => {
    expect(edgeOn(between(900), diagram, "line")?.waypoints).toHaveLength(2);
  });
});

test("a line crosses a rectangle where one of its points lies inside", () => {
  const number = fc.double({ min: -100, max: 100, noNaN: true, noDefaultInfinity: true });
  const point = fc.record({ x: number, y: number });
  fc.assert(
    fc.property(point, point, (a, b) => {
      const box = { x: -20, y: -10, width: 40, height: 20 };
      const isInside = ({ x, y }: Point) => x > -19.9 && x < 19.9 && y > -9.9 && y < 9.9;
      const points = Array.from({ length: 201 }, (_, at) => ({
        x: a.x + ((b.x - a.x) * at) / 200,
        y: a.y + ((b.y - a.y) * at) / 200,
      }));
      // Sampled, so it may miss a corner that is cut; what it finds inside must be told as a crossing.
      if (points.some(isInside)) expect(lineCrosses(box, a, b)).toBe(true);
      if (!lineCrosses(box, a, b)) expect(points.some(isInside)).toBe(false);
    }),
  );
});
