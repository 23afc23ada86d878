import { z } from "zod";
import { say } from "../../messages";
import {
  type Bounds,
  boundaryEventsOf,
  called,
  type Element,
  type Id,
  isFlowNode,
  laneOf,
  processOf,
  shapeOn,
} from "../../model";
import { move } from "../arrange/move";
import { type Change, refuse } from "../kernel/change";
import { growLaneDown } from "../kernel/grow";
import { obstaclesOn } from "../kernel/page";
import { neighbourLane } from "./lanes";

const id = z.string().min(1).max(200);

export const moveToNeighbourLaneSchema = z.object({
  type: z.literal("moveToNeighbourLane"),
  diagram: id,
  ids: z.array(id).min(1),
  direction: z.enum(["up", "down"]),
});
export const moveToLaneSchema = z.object({
  type: z.literal("moveToLane"),
  diagram: id,
  ids: z.array(id).min(1),
  lane: id,
});

/** Into the lane above or below, at the same place along the flow. */
export function moveToNeighbourLane(
  change: Change,
  { diagram, ids, direction }: z.infer<typeof moveToNeighbourLaneSchema>,
): void {
  for (const elementId of stepsAmong(change, ids)) {
    const next = neighbourLane(change, elementId, direction);
    if (!laneOf(change.model, elementId) || !next) {
      refuse(
        "no-lane",
        say`There is no lane ${direction === "up" ? say`above` : say`below`} ${called(change.model, change.element(elementId))}.`,
        [elementId],
      );
    }
    shiftIntoLane(change, diagram, elementId, (next as Element).id);
  }
}

/** Into a given lane of the same pool, at the same place along the flow. */
export function moveToLane(change: Change, { diagram, ids, lane }: z.infer<typeof moveToLaneSchema>): void {
  if (change.element(lane).type !== "lane") refuse("no-lane", say`Steps are moved into lanes.`, [lane]);
  for (const elementId of stepsAmong(change, ids)) {
    if (processOf(change.model, elementId)?.id !== processOf(change.model, lane)?.id) {
      refuse("other-process", say`${called(change.model, change.element(elementId))} belongs to another process.`, [
        lane,
      ]);
    }
    shiftIntoLane(change, diagram, elementId, lane);
  }
}

function stepsAmong(change: Change, ids: readonly Id[]): Id[] {
  const steps = ids.filter((elementId) => isFlowNode(change.element(elementId).type));
  if (steps.length === 0) refuse("not-a-step", say`Only steps, events and gateways can be moved to another lane.`);
  return steps;
}

function shiftIntoLane(change: Change, diagram: Id, elementId: Id, lane: Id): void {
  const to = shapeOn(change.model, diagram, lane);
  const shape = shapeOn(change.model, diagram, elementId);
  if (!to || !shape) {
    refuse("not-drawn", say`The lanes are not drawn on this page.`);
    return;
  }
  const wanted = to.bounds.y + to.bounds.height / 2 - (shape.bounds.y + shape.bounds.height / 2);
  const hanging = boundaryEventsOf(change.model, elementId).map((event) => event.id);
  const moving = new Set([elementId, ...hanging]);
  const y = freeShift(change, diagram, shape.bounds, wanted, to.bounds, moving);
  // Where the lane is full, it grows before the step comes: outside of it the step would belong to nobody.
  growLaneDown(change, diagram, change.element(lane), shape.bounds.y + y + shape.bounds.height + 20, moving);
  move(change, { type: "move", diagram, ids: [elementId], by: { x: 0, y } });
}

/** The shift nearest to a wanted one at which a box stands on nothing, within a lane if it can be. */
function freeShift(
  change: Change,
  diagram: Id,
  box: Bounds,
  wanted: number,
  lane: Bounds,
  except: ReadonlySet<Id>,
): number {
  const taken = obstaclesOn(change.model, diagram, except);
  const free = (shift: number) =>
    !taken.some((other) => {
      const y = box.y + shift;
      return (
        box.x < other.x + other.width + 8 &&
        other.x - 8 < box.x + box.width &&
        y < other.y + other.height + 8 &&
        other.y - 8 < y + box.height
      );
    });
  for (let offset = 0; offset <= 200; offset += 8) {
    for (const shift of [wanted + offset, wanted - offset]) {
      const y = box.y + shift;
      if (y < lane.y + 6) continue;
      if (free(shift)) return shift;
    }
  }
  return wanted;
}
