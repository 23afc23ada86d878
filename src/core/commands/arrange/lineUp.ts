import { z } from "zod";
import { sizeOf } from "../../layout";
import { say } from "../../messages";
import {
  type Bounds,
  type Element,
  type Id,
  isActivity,
  isConnection,
  isDataNode,
  isFlowNode,
  shapeOn,
} from "../../model";
import { type Change, refuse } from "../kernel/change";
import { plain } from "../kernel/page";
import { move, resize } from "./move";

const id = z.string().min(1).max(200);

export const alignSchema = z.object({
  type: z.literal("align"),
  diagram: id,
  ids: z.array(id).min(1),
  along: z.enum(["left", "centre", "right", "top", "middle", "bottom"]),
});
export const distributeSchema = z.object({
  type: z.literal("distribute"),
  diagram: id,
  ids: z.array(id).min(1),
  axis: z.enum(["across", "down"]),
});
export const sameSizeSchema = z.object({ type: z.literal("sameSize"), diagram: id, ids: z.array(id).min(1) });

interface Placed {
  readonly element: Element;
  readonly bounds: Bounds;
}

/** The chosen elements that can be lined up: what stands by itself, not what sits on an edge or holds the others. */
function placedAmong(change: Change, diagram: Id, ids: readonly Id[], least: number): Placed[] {
  const found = [...new Set(ids)].flatMap((elementId): Placed[] => {
    const element = change.element(elementId);
    const shape = shapeOn(change.model, diagram, elementId);
    const isFree =
      !isConnection(element.type) && !["boundaryEvent", "lane", "participant"].includes(element.type) && shape;
    return isFree ? [{ element, bounds: plain(shape.bounds) }] : [];
  });
  if (found.length < least)
    refuse("too-few", say`Choose at least ${least === 2 ? say`two` : say`three`} elements of this page to line up.`);
  return found;
}

/** Lines elements up by an edge or their middles. Edges: the outermost one; middles: the mean of the outermost ones. */
export function align(change: Change, { diagram, ids, along }: z.infer<typeof alignSchema>): void {
  const placed = placedAmong(change, diagram, ids, 2);
  const [axis, extent] =
    along === "left" || along === "centre" || along === "right"
      ? (["x", "width"] as const)
      : (["y", "height"] as const);
  const share = along === "left" || along === "top" ? 0 : along === "right" || along === "bottom" ? 1 : 0.5;
  const lineOf = (bounds: Bounds) => bounds[axis] + bounds[extent] * share;
  const lines = placed.map(({ bounds }) => lineOf(bounds));
  const [low, high] = [Math.min(...lines), Math.max(...lines)];
  const line = share === 0 ? low : share === 1 ? high : (low + high) / 2;
  for (const { element, bounds } of placed) shift(change, diagram, element.id, axis, line - lineOf(bounds));
}

/** Spreads elements so that the gaps between them are equal; the two outermost stay. */
export function distribute(change: Change, { diagram, ids, axis: way }: z.infer<typeof distributeSchema>): void {
  const [axis, extent] = way === "across" ? (["x", "width"] as const) : (["y", "height"] as const);
  const placed = placedAmong(change, diagram, ids, 3).sort(
    (a, b) => a.bounds[axis] + a.bounds[extent] / 2 - b.bounds[axis] - b.bounds[extent] / 2,
  );
  const first = placed[0] as Placed;
  const last = placed.at(-1) as Placed;
  const taken = placed.reduce((sum, { bounds }) => sum + bounds[extent], 0);
  const gap = (last.bounds[axis] + last.bounds[extent] - first.bounds[axis] - taken) / (placed.length - 1);
  let at = first.bounds[axis];
  for (const { element, bounds } of placed) {
    shift(change, diagram, element.id, axis, Math.round(at) - bounds[axis]);
    at += bounds[extent] + gap;
  }
}

function shift(change: Change, diagram: Id, element: Id, axis: "x" | "y", by: number): void {
  if (by !== 0) move(change, { type: "move", diagram, ids: [element], by: { x: 0, y: 0, [axis]: by } });
}

/** Gives activities, notes or data of the selection the size of the largest; each keeps its middle. */
export function sameSize(change: Change, { diagram, ids }: z.infer<typeof sameSizeSchema>): void {
  const sizable = ids.filter((elementId) => {
    const element = change.element(elementId);
    return isActivity(element.type) || element.type === "textAnnotation" || element.type === "group";
  });
  const placed = placedAmong(change, diagram, sizable, 2);
  const width = Math.max(...placed.map(({ bounds }) => bounds.width));
  const height = Math.max(...placed.map(({ bounds }) => bounds.height));
  for (const { element, bounds } of placed) {
    if (bounds.width === width && bounds.height === height) continue;
    const x = bounds.x + (bounds.width - width) / 2;
    const y = bounds.y + (bounds.height - height) / 2;
    resize(change, { type: "resize", diagram, id: element.id, bounds: { x, y, width, height } });
  }
}

/** Back to the size a new element of its type has, around its middle. */
export function usualSize(change: Change, diagram: Id, element: Element): void {
  const shape = shapeOn(change.model, diagram, element.id);
  if (!shape || !(isFlowNode(element.type) || isDataNode(element.type))) return;
  const size = sizeOf(element.type, shape.isExpanded === true);
  const x = shape.bounds.x + (shape.bounds.width - size.width) / 2;
  const y = shape.bounds.y + (shape.bounds.height - size.height) / 2;
  resize(change, { type: "resize", diagram, id: element.id, bounds: { x, y, ...size } });
}
