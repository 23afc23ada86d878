import { z } from "zod";
import { segmentCrosses } from "../../layout";
import { say } from "../../messages";
import { type Bounds, edgeOn, type Id, isEvent, isGateway, type Model, type Point } from "../../model";
import { type Change, refuse } from "../kernel/change";
import { courseFor, endBounds, endsOf, obstaclesOn } from "../kernel/page";

const id = z.string().min(1).max(200);

export const straightenSchema = z.object({
  type: z.literal("straighten"),
  diagram: id,
  connections: z.array(id).min(1),
});

/** Leads connections by one straight piece where their ends face each other and nothing stands between; else by the fewest bends. */
export function straighten(change: Change, { diagram, connections }: z.infer<typeof straightenSchema>): void {
  for (const connection of connections) {
    const element = change.element(connection);
    const edge = edgeOn(change.model, diagram, connection);
    const ends = endsOf(element);
    if (!edge || !ends) {
      refuse("not-a-line", say`Choose flows of this page to straighten.`, [connection]);
      continue;
    }
    const course =
      straightLine(change.model, diagram, ends.source, ends.target) ?? courseFor(change.model, diagram, element);
    if (!course) continue;
    change.set("edges", edge.id, "waypoints", course);
    change.set("edges", edge.id, "label", undefined);
  }
}

function straightLine(model: Model, diagram: Id, source: Id, target: Id): Point[] | undefined {
  const a = endBounds(model, diagram, source);
  const b = endBounds(model, diagram, target);
  if (!a || !b) return undefined;
  const line = level(model, source, target, a, b) ?? upright(model, source, target, a, b);
  const [from, to] = line ?? [];
  if (!from || !to) return undefined;
  const isBlocked = obstaclesOn(model, diagram, new Set([source, target])).some((box) => segmentCrosses(box, from, to));
  return isBlocked ? undefined : [from, to];
}

function level(model: Model, source: Id, target: Id, a: Bounds, b: Bounds): Point[] | undefined {
  const y = sharedLine(model, source, target, [a.y, a.height], [b.y, b.height]);
  if (y === undefined) return undefined;
  if (a.x + a.width < b.x)
    return [
      { x: a.x + a.width, y },
      { x: b.x, y },
    ];
  if (b.x + b.width < a.x)
    return [
      { x: a.x, y },
      { x: b.x + b.width, y },
    ];
  return undefined;
}

function upright(model: Model, source: Id, target: Id, a: Bounds, b: Bounds): Point[] | undefined {
  const x = sharedLine(model, source, target, [a.x, a.width], [b.x, b.width]);
  if (x === undefined) return undefined;
  if (a.y + a.height < b.y)
    return [
      { x, y: a.y + a.height },
      { x, y: b.y },
    ];
  if (b.y + b.height < a.y)
    return [
      { x, y: a.y },
      { x, y: b.y + b.height },
    ];
  return undefined;
}

/** A line that meets both sides: the source's middle, else the target's, else one between. Circles and diamonds are met in their middle only. */
function sharedLine(
  model: Model,
  source: Id,
  target: Id,
  [a, aSize]: readonly [number, number],
  [b, bSize]: readonly [number, number],
): number | undefined {
  const isPointed = (element: Id) => {
    const type = model.elements.get(element)?.type;
    return isEvent(type) || isGateway(type);
  };
  const clear = 8;
  const meets = (element: Id, from: number, size: number, line: number) =>
    isPointed(element) ? Math.abs(line - from - size / 2) < 1 : line >= from + clear && line <= from + size - clear;
  const between = (Math.max(a, b) + Math.min(a + aSize, b + bSize)) / 2;
  return [a + aSize / 2, b + bSize / 2, between].find(
    (line) => meets(source, a, aSize, line) && meets(target, b, bSize, line),
  );
}
