import type { Edge, Element, Model, Point } from "../model";
import { isActivity } from "../model";
import { circle, filled, outlined, type Primitive, polyline, stroke } from "./primitives";

/** A connection as drawn, without its name. Line styles and ends after BPMN 2.0, tables 7.1 and 7.2. */
export function drawFlow(model: Model, element: Element, edge: Edge): Primitive[] {
  const line = edge.waypoints;
  if (line.length < 2) return [];
  const primitives: Primitive[] = [];
  const end = line[line.length - 1] as Point;
  const beforeEnd = line[line.length - 2] as Point;
  const start = line[0] as Point;
  const afterStart = line[1] as Point;
  switch (element.type) {
    case "sequenceFlow": {
      primitives.push(stroke(polyline(shortened(line, 5)), 1.5), filled(arrowHead(beforeEnd, end, 10, 4.6)));
      const source = model.elements.get(element.sourceRef as string);
      if (source?.default === element.id) primitives.push(stroke(polyline(defaultMark(start, afterStart)), 1.5));
      else if (element.conditionExpression && source && isActivity(source.type)) {
        primitives.push(outlined(smallDiamond(start, afterStart), 1.3));
      }
      break;
    }
    case "messageFlow":
      primitives.push(
        stroke(polyline(shortened(line, 8)), 1.4, "ink", "6 4"),
        outlined(circle(...alongFrom(start, afterStart, 3.5), 3.5), 1.3),
        outlined(arrowHead(beforeEnd, end, 10, 5), 1.3),
      );
      break;
    case "dataInputAssociation":
    case "dataOutputAssociation":
      primitives.push(stroke(polyline(line), 1.3, "ink", "1.5 3"), stroke(openHead(beforeEnd, end), 1.3));
      break;
    case "association": {
      primitives.push(stroke(polyline(line), 1.3, "ink", "1.5 3"));
      const direction = element.associationDirection;
      if (direction === "One" || direction === "Both") primitives.push(stroke(openHead(beforeEnd, end), 1.3));
      if (direction === "Both") primitives.push(stroke(openHead(afterStart, start), 1.3));
      break;
    }
    default:
      primitives.push(stroke(polyline(line), 1.3, "pencil"));
  }
  return primitives;
}

function direction(from: Point, to: Point): { x: number; y: number } {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  return { x: (to.x - from.x) / length, y: (to.y - from.y) / length };
}

function alongFrom(from: Point, to: Point, distance: number): [number, number] {
  const way = direction(from, to);
  return [from.x + way.x * distance, from.y + way.y * distance];
}

function arrowHead(from: Point, tip: Point, length: number, half: number): string {
  const way = direction(from, tip);
  const base = { x: tip.x - way.x * length, y: tip.y - way.y * length };
  const f = (value: number) => Math.round(value * 100) / 100;
  return `M${f(tip.x)} ${f(tip.y)}L${f(base.x - way.y * half)} ${f(base.y + way.x * half)}L${f(base.x + way.y * half)} ${f(base.y - way.x * half)}Z`;
}

function openHead(from: Point, tip: Point): string {
  const way = direction(from, tip);
  const base = { x: tip.x - way.x * 7, y: tip.y - way.y * 7 };
  return `M${base.x - way.y * 4} ${base.y + way.x * 4}L${tip.x} ${tip.y}L${base.x + way.y * 4} ${base.y - way.x * 4}`;
}

/** A line that ends a little earlier, so that it does not show beyond the tip of its arrow. */
function shortened(line: readonly Point[], by: number): Point[] {
  const end = line[line.length - 1] as Point;
  const before = line[line.length - 2] as Point;
  const [x, y] = alongFrom(end, before, by);
  return [...line.slice(0, -1), { x, y }];
}

/** The stroke across a default flow, near its source: its two ends. */
export function defaultMark(start: Point, towards: Point): readonly [Point, Point] {
  const way = direction(start, towards);
  const [x, y] = alongFrom(start, towards, 9);
  return [
    { x: x - way.y * 4.5 - way.x * 3, y: y + way.x * 4.5 - way.y * 3 },
    { x: x + way.y * 4.5 + way.x * 3, y: y - way.x * 4.5 + way.y * 3 },
  ];
}

function smallDiamond(start: Point, towards: Point): string {
  const way = direction(start, towards);
  const [mx, my] = alongFrom(start, towards, 7);
  const [ex, ey] = alongFrom(start, towards, 14);
  return `M${start.x} ${start.y}L${mx - way.y * 4} ${my + way.x * 4}L${ex} ${ey}L${mx + way.y * 4} ${my - way.x * 4}Z`;
}
