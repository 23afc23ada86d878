import { isExpanded } from "../../drawing";
import { onGrid } from "../../layout";
import {
  ancestorsOf,
  boundaryEventsOf,
  type Element,
  type Id,
  isEvent,
  isSubProcess,
  laneOf,
  type Model,
  participantOf,
  type Shape,
  shapeOn,
} from "../../model";
import { openRoom } from "../arrange/room";
import type { Change } from "./change";
import { plain, shapesOnPage } from "./page";

const padding = 20;

/** Makes the lane, pool and sub-processes around an element wide and high enough for it, moving what lies beyond. */
export function growAround(change: Change, diagram: Id, id: Id): void {
  const shape = shapeOn(change.model, diagram, id);
  if (!shape) return;
  const { bounds } = shape;
  const lane = laneOf(change.model, id);
  const laneShape = lane && shapeOn(change.model, diagram, lane.id);
  const pool = participantOf(change.model, id);
  const poolShape = pool && shapeOn(change.model, diagram, pool.id);
  const scope = change.model.elements.get(change.element(id).parent ?? "");
  if (scope && isSubProcess(scope.type)) {
    const scopeShape = shapeOn(change.model, diagram, scope.id);
    if (scopeShape && isExpanded(scope, scopeShape)) {
      const right = Math.max(scopeShape.bounds.x + scopeShape.bounds.width, bounds.x + bounds.width + padding);
      const bottom = Math.max(scopeShape.bounds.y + scopeShape.bounds.height, bounds.y + bounds.height + padding);
      const grown = {
        ...plain(scopeShape.bounds),
        width: right - scopeShape.bounds.x,
        height: bottom - scopeShape.bounds.y,
      };
      if (grown.width !== scopeShape.bounds.width || grown.height !== scopeShape.bounds.height) {
        change.set("shapes", scopeShape.id, "bounds", grown);
        growAround(change, diagram, scope.id);
      }
    }
    return;
  }
  const floor = laneShape ?? poolShape;
  if (floor) {
    const labelRoom = isEvent(change.element(id).type) ? 36 : 0;
    const missing = onGrid(
      bounds.y + bounds.height + Math.max(padding, labelRoom) - (floor.bounds.y + floor.bounds.height) + 1.9,
    );
    if (missing > 0)
      openRoom(
        change,
        diagram,
        "y",
        floor.bounds.y + floor.bounds.height,
        missing,
        lane ? laneChain(change.model, lane, pool) : new Set([pool?.id ?? ""]),
        new Set([id, ...boundaryEventsOf(change.model, id).map((event) => event.id)]),
      );
  }
  if (poolShape) {
    const right = bounds.x + bounds.width + padding + 16;
    if (right > poolShape.bounds.x + poolShape.bounds.width) widenPools(change, diagram, poolShape, onGrid(right));
  }
}

/** Makes a lane reach down to a line, moving what lies below it; what is on its way into the lane stays where it is. */
export function growLaneDown(change: Change, diagram: Id, lane: Element, to: number, staying: ReadonlySet<Id>): void {
  const bounds = shapeOn(change.model, diagram, lane.id)?.bounds;
  if (!bounds) return;
  const bottom = bounds.y + bounds.height;
  const missing = onGrid(to - bottom + 1.9);
  if (missing <= 0) return;
  const chain = laneChain(change.model, lane, participantOf(change.model, lane.id));
  openRoom(change, diagram, "y", bottom, missing, new Set([...chain, lane.id]), staying);
}

function laneChain(model: Model, lane: Element, pool: Element | undefined): Set<Id> {
  const chain = new Set(
    ancestorsOf(model, lane.id)
      .filter((element) => element.type === "lane")
      .map((element) => element.id),
  );
  if (pool) chain.add(pool.id);
  return chain;
}

/** Moves the right edge of a pool with its lanes; pools that ended at the same line go along. */
function widenPools(change: Change, diagram: Id, poolShape: Shape, right: number): void {
  const oldRight = poolShape.bounds.x + poolShape.bounds.width;
  for (const { shape, element } of shapesOnPage(change.model, diagram)) {
    if (element.type !== "participant" && element.type !== "lane") continue;
    if (Math.abs(shape.bounds.x + shape.bounds.width - oldRight) > 1) continue;
    change.set("shapes", shape.id, "bounds", { ...plain(shape.bounds), width: right - shape.bounds.x });
  }
}
