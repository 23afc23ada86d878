import { z } from "zod";
import { bandWidth, laneHeight } from "../../layout";
import { say } from "../../messages";
import {
  boundaryEventsOf,
  called,
  childrenOf,
  derivedId,
  type Element,
  flowNodesIn,
  type Id,
  isFlowNode,
  laneOf,
  lanesOf,
  participantOf,
  processOf,
  referrersOf,
  type Shape,
  shapeOn,
} from "../../model";
import { openRoom } from "../arrange/room";
import { type Change, refuse } from "../kernel/change";
import { plain } from "../kernel/page";

const id = z.string().min(1).max(200);

export const addLaneSchema = z.object({
  type: z.literal("addLane"),
  diagram: id,
  id,
  /** The pool, or the lane below which the new one goes. */
  beside: id,
  name: z.string().max(2000).optional(),
});

/** Puts a flow node into a lane, out of any other, and the events at its edge with it. What the lane stands for then does the step. */
export function putIntoLane(change: Change, node: Id, lane: Id | undefined): void {
  for (const event of boundaryEventsOf(change.model, node))
    if (referrersOf(change.model, event.id, "flowNodeRef").length > 0) putIntoLane(change, event.id, lane);
  for (const other of referrersOf(change.model, node, "flowNodeRef")) {
    if (other.id === lane) continue;
    const left = (other.flowNodeRef as readonly Id[]).filter((ref) => ref !== node);
    change.set("elements", other.id, "flowNodeRef", left.length > 0 ? left : undefined);
  }
  if (lane === undefined) return;
  const target = change.element(lane);
  const refs = (target.flowNodeRef as readonly Id[] | undefined) ?? [];
  if (!refs.includes(node)) change.set("elements", lane, "flowNodeRef", [...refs, node]);
}

/** Adds a lane below another, or to a pool. The first lane of a pool takes in everything the pool holds. */
export function addLane(change: Change, { diagram, id: laneId, beside, name }: z.infer<typeof addLaneSchema>): void {
  const anchor = change.element(beside);
  const sibling = anchor.type === "lane" ? anchor : undefined;
  const process = sibling ? processOf(change.model, sibling.id) : change.model.elements.get(String(anchor.processRef));
  if (!process) {
    refuse("no-process", say`${called(change.model, anchor)} shows no process, so it has no lanes.`, [beside]);
  }
  const pool = sibling ? participantOf(change.model, sibling.id) : anchor;
  const owner = (process as Element).id;
  const laneSet = sibling
    ? (sibling.parent as Id)
    : (childrenOf(change.model, owner, "laneSets")[0]?.id ??
      change.insert("laneSet", derivedId(change.isTaken, owner, "lanes"), owner).id);
  const before = lanesOf(change.model, owner);
  const poolShape = pool && shapeOn(change.model, diagram, pool.id);
  change.insert("lane", laneId, laneSet, name ? { name } : {});
  if (!poolShape) return;
  if (before.length === 0) {
    const { x, y, width, height } = poolShape.bounds;
    change.insertShape(
      diagram,
      laneId,
      { x: x + bandWidth, y, width: width - bandWidth, height },
      { isHorizontal: true },
    );
    const nodes = flowNodesIn(change.model, owner).filter((node) => isFlowNode(node.type));
    if (nodes.length > 0)
      change.set(
        "elements",
        laneId,
        "flowNodeRef",
        nodes.map((node) => node.id),
      );
    return;
  }
  const last = sibling ?? (before[before.length - 1] as Element);
  const lastShape = shapeOn(change.model, diagram, last.id);
  const { bounds } = lastShape ?? (poolShape as Shape);
  const line = bounds.y + bounds.height;
  openRoom(change, diagram, "y", line, laneHeight, new Set([pool?.id ?? ""]));
  change.insertShape(diagram, laneId, { ...plain(bounds), y: line, height: laneHeight }, { isHorizontal: true });
  if (sibling) orderBehind(change, laneId, sibling);
}

/** Ranks a lane right behind another, so that files and lists have the order of the drawing. */
function orderBehind(change: Change, laneId: Id, sibling: Element): void {
  const siblings = childrenOf(change.model, sibling.parent as Id).filter((lane) => lane.id !== laneId);
  const next = siblings[siblings.findIndex((lane) => lane.id === sibling.id) + 1];
  if (next) change.set("elements", laneId, "order", (sibling.order + next.order) / 2);
}

/** The lane above or below the one an element is in. */
export function neighbourLane(change: Change, node: Id, direction: "up" | "down"): Element | undefined {
  const lane = laneOf(change.model, node);
  const process = lane && processOf(change.model, lane.id);
  if (!lane || !process) return undefined;
  const leaves = leavesOf(change, process.id);
  const at = leaves.findIndex((leaf) => leaf.id === lane.id);
  return leaves[at + (direction === "up" ? -1 : 1)];
}

function leavesOf(change: Change, container: Id): Element[] {
  return lanesOf(change.model, container).flatMap((lane) => {
    const inner = leavesOf(change, lane.id);
    return inner.length > 0 ? inner : [lane];
  });
}
