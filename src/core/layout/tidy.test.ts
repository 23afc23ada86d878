import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { isTidy, perform } from "../commands";
import { flowLabel, type LabelAnchor, labelBeside } from "../drawing";
import {
  type Bounds,
  flowNodesIn,
  isDataNode,
  isEvent,
  isFlowNode,
  isGateway,
  isSubProcess,
  laneOf,
  type Model,
  outgoingOf,
  type Point,
  type Shape,
  shapeOn,
} from "../model";
import { commandScript, expectOk, performAll, runScript, smallModel } from "../testing/models";
import { randomProcess, tangledProcess } from "../testing/randomProcess";
import { layersOf, overlaps, segmentCrosses } from ".";

/** Random models of three kinds, tidied: built of blocks with loops and events at edges, tangled, and made by random commands. */
const tidied = fc
  .record({
    kind: fc.constantFrom("blocks", "tangled", "commands"),
    seed: fc.nat(100_000),
    nodes: fc.integer({ min: 4, max: 40 }),
    lanes: fc.integer({ min: 0, max: 5 }),
    script: commandScript(20),
  })
  .map(({ kind, script, ...shape }): Model => {
    const model =
      kind === "blocks"
        ? randomProcess(shape)
        : kind === "tangled"
          ? tangledProcess(shape)
          : runScript(smallModel(), script);
    return expectOk(perform(model, { type: "tidy", diagram: pageOf(model) })).model;
  });
const pageOf = (model: Model) => [...model.diagrams].sort((a, b) => a.order - b.order)[0]?.id as string;
const onPage = (model: Model) => [...model.shapes].filter((shape) => shape.diagram === pageOf(model));

const isSolid = (model: Model) => (shape: Shape) => {
  const type = model.elements.get(shape.element)?.type;
  return (
    type !== undefined &&
    (isFlowNode(type) || isDataNode(type) || type === "textAnnotation") &&
    !(isSubProcess(type) && shape.isExpanded)
  );
};

/** Where a page's names stand, as they are drawn. */
function labelsOf(model: Model): { of: string; bounds: Bounds }[] {
  const page = pageOf(model);
  const beside = onPage(model).flatMap((shape) => {
    const element = model.elements.get(shape.element);
    const name = element?.name?.trim() ?? "";
    if (!element || name === "" || !(isEvent(element.type) || isGateway(element.type) || isDataNode(element.type)))
      return [];
    const anchor: LabelAnchor = isGateway(element.type)
      ? "above"
      : element.type === "boundaryEvent"
        ? "below-right"
        : "below";
    return [{ of: shape.element, bounds: shape.label?.bounds ?? labelBeside(name, shape.bounds, anchor).bounds }];
  });
  const along = [...model.edges].flatMap((edge) => {
    const name = model.elements.get(edge.element)?.name ?? "";
    const label = edge.diagram === page ? flowLabel(name, edge) : undefined;
    return label ? [{ of: edge.element, bounds: edge.label?.bounds ?? label.bounds }] : [];
  });
  return [...beside, ...along];
}

describe("tidy", () => {
  test("shapes never overlap, events on the edge of their step apart", () => {
    fc.assert(
      fc.property(tidied, (model) => {
        const shapes = onPage(model).filter(isSolid(model));
        shapes.forEach((shape, at) => {
          const host = model.elements.get(shape.element)?.attachedToRef;
          for (const other of shapes.slice(at + 1)) {
            if (host === other.element || model.elements.get(other.element)?.attachedToRef === shape.element) continue;
            expect(overlaps(shape.bounds, other.bounds), `${shape.element} and ${other.element}`).toBe(false);
          }
        });
      }),
      { numRuns: 60 },
    );
  });

  test("names lie over no shape and no other name", () => {
    fc.assert(
      fc.property(tidied, (model) => {
        const labels = labelsOf(model);
        const shapes = onPage(model).filter(isSolid(model));
        labels.forEach(({ of, bounds }, at) => {
          for (const shape of shapes)
            expect(overlaps(bounds, shape.bounds), `the name of ${of} and ${shape.element}`).toBe(false);
          for (const other of labels.slice(at + 1))
            expect(overlaps(bounds, other.bounds), `the names of ${of} and ${other.of}`).toBe(false);
        });
      }),
      { numRuns: 60 },
    );
  });

  test("each node lies in its lane", () => {
    fc.assert(
      fc.property(tidied, (model) => {
        for (const { element, bounds } of onPage(model).filter(isSolid(model))) {
          const lane = laneOf(model, element);
          const around = lane && shapeOn(model, pageOf(model), lane.id)?.bounds;
          if (!around) continue;
          expect(bounds.y).toBeGreaterThanOrEqual(around.y);
          expect(bounds.y + bounds.height).toBeLessThanOrEqual(around.y + around.height);
        }
      }),
      { numRuns: 60 },
    );
  });

  test("sequence flows are orthogonal, cross no shape, and run rightwards unless they close a loop", () => {
    fc.assert(
      fc.property(tidied, (model) => {
        const shapes = onPage(model).filter(isSolid(model));
        for (const edge of model.edges) {
          if (edge.diagram !== pageOf(model) || model.elements.get(edge.element)?.type !== "sequenceFlow") continue;
          edge.waypoints.slice(1).forEach((b, at) => {
            const a = edge.waypoints[at] as Point;
            expect(a.x === b.x || a.y === b.y, `${edge.element} is orthogonal`).toBe(true);
            for (const shape of shapes)
              expect(segmentCrosses(shape.bounds, a, b), `${edge.element} crosses ${shape.element}`).toBe(false);
          });
        }
        const process = [...model.elements].find((element) => element.type === "process")?.id as string;
        const nodes = flowNodesIn(model, process).filter((node) => node.type !== "boundaryEvent");
        const flows = nodes.flatMap((node) =>
          outgoingOf(model, node.id).map((flow) => ({ from: node.id, to: String(flow.targetRef) })),
        );
        const { loops } = layersOf(
          nodes.map((node) => node.id),
          flows,
        );
        for (const flow of flows) {
          const [from, to] = [flow.from, flow.to].map((id) => shapeOn(model, pageOf(model), id)?.bounds);
          if (
            from &&
            to &&
            !loops.has(flow) &&
            flow.from !== flow.to &&
            model.elements.get(flow.from)?.type !== "boundaryEvent"
          )
            expect(to.x + to.width / 2, `${flow.from} to ${flow.to}`).toBeGreaterThan(from.x + from.width / 2);
        }
      }),
      { numRuns: 60 },
    );
  });

  test("the path most cases take is one straight line within a lane", () => {
    fc.assert(
      fc.property(fc.nat(100_000), fc.integer({ min: 5, max: 40 }), (seed, nodes) => {
        const model = randomProcess({ seed, nodes, lanes: 1 });
        const after = expectOk(perform(model, { type: "tidy", diagram: pageOf(model) })).model;
        const middle = (id: string) => {
          const bounds = shapeOn(after, pageOf(after), id)?.bounds as Bounds;
          return bounds.y + bounds.height / 2;
        };
        const seen = new Set<string>();
        const start = [...after.elements].find((element) => element.type === "startEvent")?.id as string;
        for (let at = start; !seen.has(at); ) {
          seen.add(at);
          const [next] = outgoingOf(after, at);
          const to = next?.targetRef as string | undefined;
          if (to === undefined || seen.has(to)) return;
          expect(middle(to), `${at} to ${to}`).toBe(middle(at));
          at = to;
        }
      }),
      { numRuns: 40 },
    );
  });

  test("a tidy page stays as it is", () => {
    fc.assert(
      fc.property(tidied, (model) => {
        expect(isTidy(model, pageOf(model))).toBe(true);
      }),
      { numRuns: 15 },
    );
  });

  test("a flow back to a step with data above it and an event below it goes around both", () => {
    const model = performAll(
      smallModel(),
      {
        type: "giveDocument",
        diagram: "page",
        step: "check",
        document: { entry: "paper", name: "Form" },
        direction: "in",
        id: "form",
      },
      { type: "connect", diagram: "page", id: "again", source: "approve", target: "check" },
      { type: "tidy", diagram: "page" },
    );
    const again = [...model.edges].find((edge) => edge.element === "again");
    for (const shape of onPage(model).filter(isSolid(model)))
      again?.waypoints.slice(1).forEach((b, at) => {
        expect(segmentCrosses(shape.bounds, again.waypoints[at] as Point, b), shape.element).toBe(false);
      });
  });
});
