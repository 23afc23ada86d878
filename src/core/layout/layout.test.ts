import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { perform } from "../commands";
import {
  type Bounds,
  flowNodesIn,
  isFlowNode,
  isSubProcess,
  laneOf,
  type Model,
  outgoingOf,
  type Point,
  processesOf,
  shapeOn,
} from "../model";
import { commandScript, expectOk, performAll, runScript, smallModel } from "../testing/models";
import { layersOf, overlaps, portsOf, route, segmentCrosses, simplified } from ".";

const solid = (model: Model) =>
  [...model.shapes].filter((shape) => {
    const element = model.elements.get(shape.element);
    return (
      element &&
      shape.diagram === "page" &&
      isFlowNode(element.type) &&
      element.type !== "boundaryEvent" &&
      !(isSubProcess(element.type) && shape.isExpanded)
    );
  });

/** Models as a script of commands makes them, tidied. Every one has a pool with lanes. */
const tidied = (script: readonly (readonly number[])[]) =>
  expectOk(perform(runScript(smallModel(), script), { type: "tidy", diagram: "page" })).model;

describe("tidy, on random models", () => {
  test("shapes never overlap", () => {
    fc.assert(
      fc.property(commandScript(25), (script) => {
        const shapes = solid(tidied(script));
        shapes.forEach((shape, at) => {
          for (const other of shapes.slice(at + 1))
            expect(overlaps(shape.bounds, other.bounds), `${shape.element} and ${other.element}`).toBe(false);
        });
      }),
      { numRuns: 40 },
    );
  });

  test("each node lies in its lane", () => {
    fc.assert(
      fc.property(commandScript(25), (script) => {
        const model = tidied(script);
        for (const shape of solid(model)) {
          const lane = laneOf(model, shape.element);
          const around = lane && shapeOn(model, "page", lane.id)?.bounds;
          if (around) expect(isInside(shape.bounds, around), `${shape.element} in ${lane.id}`).toBe(true);
        }
      }),
      { numRuns: 40 },
    );
  });

  test("sequence flows are orthogonal and cross no shape", () => {
    fc.assert(
      fc.property(commandScript(20), (script) => {
        const model = tidied(script);
        const shapes = solid(model);
        for (const edge of model.edges) {
          if (edge.diagram !== "page" || model.elements.get(edge.element)?.type !== "sequenceFlow") continue;
          edge.waypoints.slice(1).forEach((b, at) => {
            const a = edge.waypoints[at] as Point;
            expect(a.x === b.x || a.y === b.y, `${edge.element} is orthogonal`).toBe(true);
            for (const shape of shapes)
              expect(segmentCrosses(shape.bounds, a, b), `${edge.element} crosses ${shape.element}`).toBe(false);
          });
        }
      }),
      { numRuns: 30 },
    );
  });

  test("flows that close no loop run rightwards", () => {
    fc.assert(
      fc.property(commandScript(20), (script) => {
        const model = tidied(script);
        for (const process of processesOf(model)) {
          const nodes = flowNodesIn(model, process.id).filter((node) => node.type !== "boundaryEvent");
          const edges = nodes.flatMap((node) =>
            outgoingOf(model, node.id).map((flow) => ({ from: node.id, to: String(flow.targetRef) })),
          );
          const { loops } = layersOf(
            nodes.map((node) => node.id),
            edges,
          );
          for (const edge of edges) {
            const from = shapeOn(model, "page", edge.from)?.bounds;
            const to = shapeOn(model, "page", edge.to)?.bounds;
            const closes = [...loops].some((loop) => loop.from === edge.from && loop.to === edge.to);
            if (from && to && !closes && edge.from !== edge.to) expect(to.x).toBeGreaterThan(from.x);
          }
        }
      }),
      { numRuns: 30 },
    );
  });

  test("tidying changes places, never meaning", () => {
    const model = smallModel();
    const after = performAll(model, { type: "tidy", diagram: "page" });
    expect([...after.elements]).toEqual([...model.elements]);
  });

  test("tidying twice changes nothing the second time", () => {
    const once = performAll(smallModel(), { type: "tidy", diagram: "page" });
    const twice = performAll(once, { type: "tidy", diagram: "page" });
    const places = (model: Model) => [...model.shapes].map((shape) => shape.bounds);
    expect(places(twice)).toEqual(places(once));
  });
});

function isInside(inner: Bounds, outer: Bounds): boolean {
  return (
    inner.x >= outer.x &&
    inner.y >= outer.y &&
    inner.x + inner.width <= outer.x + outer.width &&
    inner.y + inner.height <= outer.y + outer.height
  );
}

describe("layers", () => {
  test.each([
    { what: "a chain", edges: ["ab", "bc"], layers: { a: 0, b: 1, c: 2 } },
    { what: "a split that joins: the longer way counts", edges: ["ab", "bc", "ac"], layers: { a: 0, b: 1, c: 2 } },
    { what: "a loop: the edge back is left out", edges: ["ab", "bc", "cb"], layers: { a: 0, b: 1, c: 2 } },
    { what: "a step that follows itself", edges: ["aa", "ab"], layers: { a: 0, b: 1, c: 0 } },
  ])("$what", ({ edges, layers }) => {
    const result = layersOf(
      ["a", "b", "c"],
      edges.map((edge) => ({ from: edge[0] as string, to: edge[1] as string })),
    );
    expect(Object.fromEntries(result.layer)).toEqual(layers);
  });
});

describe("routes", () => {
  const box = (x: number, y: number, width = 100, height = 60): Bounds => ({ x, y, width, height });
  const sides = { right: 0, bottom: 16, top: 18, left: 140 };
  const into = { left: 0, top: 16, bottom: 16, right: 140 };

  test("a flow between shapes on one level is one straight piece", () => {
    const [a, b] = [box(0, 0), box(200, 0)];
    expect(route({ from: portsOf(a, sides), to: portsOf(b, into), obstacles: [a, b] })).toEqual([
      { x: 100, y: 30 },
      { x: 200, y: 30 },
    ]);
  });

  test("a flow goes around what stands between, whatever stands there", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 130, max: 480 }), fc.integer({ min: -200, max: 200 })), { maxLength: 12 }),
        (places) => {
          const [a, b] = [box(0, 0), box(700, 40)];
          const others = places.map(([x, y]) => box(x, y, 80, 50));
          const line = route({ from: portsOf(a, sides), to: portsOf(b, into), obstacles: [a, b, ...others] });
          expect(line.length).toBeGreaterThanOrEqual(2);
          line.slice(1).forEach((end, at) => {
            const start = line[at] as Point;
            expect(start.x === end.x || start.y === end.y).toBe(true);
            for (const other of [a, b, ...others]) expect(segmentCrosses(other, start, end)).toBe(false);
          });
        },
      ),
      { numRuns: 150 },
    );
  });

  test("points on a straight line between others say nothing and are dropped", () => {
    expect(
      simplified([
        { x: 0, y: 0 },
        { x: 5, y: 0 },
        { x: 9, y: 0 },
        { x: 9, y: 4 },
        { x: 9, y: 4 },
      ]),
    ).toEqual([
      { x: 0, y: 0 },
      { x: 9, y: 0 },
      { x: 9, y: 4 },
    ]);
  });

  test("between shapes that touch, a flow has no length but two ends", () => {
    const [a, b] = [
      { x: 0, y: 0, width: 40, height: 40 },
      { x: 40, y: 0, width: 40, height: 40 },
    ];
    expect(route({ from: portsOf(a, { right: 0 }), to: portsOf(b, { left: 0 }), obstacles: [a, b] })).toHaveLength(2);
    expect(
      simplified([
        { x: 3, y: 3 },
        { x: 3, y: 3 },
      ]),
    ).toHaveLength(2);
  });
});
