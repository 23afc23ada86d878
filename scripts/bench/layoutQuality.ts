import ELK, { type ElkExtendedEdge } from "elkjs/lib/elk.bundled.js";
import { type Bounds, type Model, type Point, shapeOn } from "@/core/model";

export interface Quality {
  readonly crossings: number;
  readonly bends: number;
  readonly length: number;
}

/**
 * What a drawing's sequence flows cost a reader: the points at which they cross (one, where several run together), where they bend,
 * how long they are together.
 */
export function qualityOf(lines: readonly (readonly Point[])[]): Quality {
  const points = new Set<string>();
  let bends = 0;
  let length = 0;
  lines.forEach((line, at) => {
    bends += Math.max(0, line.length - 2);
    for (let piece = 1; piece < line.length; piece++) {
      const [a, b] = [line[piece - 1] as Point, line[piece] as Point];
      length += Math.abs(a.x - b.x) + Math.abs(a.y - b.y);
      for (const other of lines.slice(at + 1))
        for (let second = 1; second < other.length; second++) {
          const at = crossing(a, b, other[second - 1] as Point, other[second] as Point);
          if (at) points.add(`${at.x}/${at.y}`);
        }
    }
  });
  return { crossings: points.size, bends, length };
}

/** Where a level and an upright piece cross, each within itself. */
function crossing(a: Point, b: Point, c: Point, d: Point): Point | undefined {
  const isLevel = a.y === b.y;
  if (isLevel === (c.y === d.y)) return undefined;
  const [level, upright] = isLevel ? [[a, b] as const, [c, d] as const] : [[c, d] as const, [a, b] as const];
  const inside = (value: number, one: number, other: number) =>
    Math.min(one, other) < value && value < Math.max(one, other);
  return inside(upright[0].x, level[0].x, level[1].x) && inside(level[0].y, upright[0].y, upright[1].y)
    ? { x: upright[0].x, y: level[0].y }
    : undefined;
}

/** The courses of a page's sequence flows. */
export function flowLines(model: Model): Point[][] {
  return [...model.edges]
    .filter((edge) => model.elements.get(edge.element)?.type === "sequenceFlow")
    .map((edge) => edge.waypoints.map(({ x, y }) => ({ x, y })));
}

/** The same nodes and flows by the layered algorithm of elkjs, without lanes. */
export async function layeredByElk(model: Model): Promise<Point[][]> {
  const nodes = [...model.elements].filter(
    (element) =>
      element.parent === "process" &&
      element.slot === "flowElements" &&
      element.type !== "sequenceFlow" &&
      element.type !== "boundaryEvent",
  );
  const flows = [...model.elements].filter((element) => element.type === "sequenceFlow");
  const graph = await new ELK().layout({
    id: "root",
    layoutOptions: {
      "elk.algorithm": "layered",
      "elk.direction": "RIGHT",
      "elk.edgeRouting": "ORTHOGONAL",
      "elk.randomSeed": "1",
    },
    children: nodes.map((node) => {
      const { width, height } = shapeOn(model, "page", node.id)?.bounds ?? pageBounds(model, node.id);
      // Events sit at the lower edge here as there.
      const events = [...model.elements].filter((element) => element.attachedToRef === node.id);
      return {
        id: node.id,
        width,
        height,
        ...(events.length > 0 && {
          ports: events.map((event) => ({ id: event.id, layoutOptions: { "elk.port.side": "SOUTH" } })),
          layoutOptions: { "elk.portConstraints": "FIXED_SIDE" },
        }),
      };
    }),
    edges: flows.map(
      (flow): ElkExtendedEdge => ({
        id: flow.id,
        sources: [flow.sourceRef as string],
        targets: [flow.targetRef as string],
      }),
    ),
  });
  return (graph.edges ?? []).map((edge) => {
    const section = edge.sections?.[0];
    return section
      ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint].map(({ x, y }) => ({
          x: round(x),
          y: round(y),
        }))
      : [];
  });
}

const round = (value: number) => Math.round(value * 4) / 4;
const pageBounds = (model: Model, id: string): Bounds =>
  [...model.shapes].find((shape) => shape.element === id)?.bounds ?? { x: 0, y: 0, width: 112, height: 64 };
