import { overlaps } from "../../layout";
import {
  type Bounds,
  boundaryEventsOf,
  type Edit,
  type Id,
  isDataNode,
  isFlowNode,
  laneOf,
  type Model,
  participantOf,
  shapeOn,
} from "../../model";
import { tidy } from "../arrange/tidy";
import { nearestEdgePoint } from "../flow/create";
import { Change } from "./change";
import { growAround } from "./grow";
import { placeLabels } from "./labelPlaces";
import { connectionsTouching, endsOf, freeSpot, obstaclesOn, plain } from "./page";
import { reroute } from "./reroute";

/**
 * The edits that give shapes which came from another drawing their place in this one: they stay where they stood if nothing is there,
 * else go to the nearest free spot of their lane, and lanes and pools grow around them. Connections that touch them, and those named,
 * get new courses; all else stays.
 * @param anew the whole page is laid out instead: for one nobody has arranged by hand, or one that got another lane
 */
export function settled(
  model: Model,
  diagram: Id,
  ids: readonly Id[],
  flows: readonly Id[],
  anew: boolean,
): { readonly model: Model; readonly edits: readonly Edit[] } {
  const change = new Change(model);
  if (anew) tidy(change, { type: "tidy", diagram });
  else settle(change, diagram, ids, flows);
  return { model: change.model, edits: change.edits };
}

function settle(change: Change, diagram: Id, ids: readonly Id[], flows: readonly Id[]): void {
  const nodes = ids.filter((id) => {
    const type = change.model.elements.get(id)?.type;
    return (isFlowNode(type) || isDataNode(type)) && type !== "boundaryEvent";
  });
  for (const id of nodes) {
    const shape = shapeOn(change.model, diagram, id);
    if (!shape) continue;
    const lane = laneOf(change.model, id) ?? participantOf(change.model, id);
    const floor = lane && shapeOn(change.model, diagram, lane.id)?.bounds;
    const own = new Set([id, ...boundaryEventsOf(change.model, id).map((event) => event.id)]);
    const wanted = inside(plain(shape.bounds), floor);
    const isTaken = obstaclesOn(change.model, diagram, own).some((other) => overlaps(wanted, other, 4));
    const bounds = isTaken ? freeSpot(change.model, diagram, wanted, floor, own) : wanted;
    change.set("shapes", shape.id, "bounds", bounds);
    for (const event of boundaryEventsOf(change.model, id)) {
      const at = shapeOn(change.model, diagram, event.id);
      if (!at) continue;
      const middle = { x: at.bounds.x + at.bounds.width / 2, y: at.bounds.y + at.bounds.height / 2 };
      const point = nearestEdgePoint(bounds, {
        x: middle.x + bounds.x - shape.bounds.x,
        y: middle.y + bounds.y - shape.bounds.y,
      });
      change.set("shapes", at.id, "bounds", {
        ...plain(at.bounds),
        x: point.x - at.bounds.width / 2,
        y: point.y - at.bounds.height / 2,
      });
    }
    growAround(change, diagram, id);
  }
  const touched = connectionsTouching(change.model, new Set(ids));
  const courses = new Set([...touched, ...flows]);
  reroute(
    change,
    diagram,
    [...change.model.edges].filter((edge) => edge.diagram === diagram && courses.has(edge.element)),
  );
  const ends = [...courses].flatMap((id) => {
    const both = endsOf(change.element(id));
    return both ? [both.source, both.target] : [];
  });
  placeLabels(change, diagram, new Set([...ids, ...courses, ...ends]));
}

/** Within the height of a lane, where the shape was drawn above or below it. */
function inside(bounds: Bounds, floor: Bounds | undefined): Bounds {
  if (!floor) return bounds;
  const isIn = bounds.y >= floor.y && bounds.y + bounds.height <= floor.y + floor.height;
  return {
    ...bounds,
    x: Math.max(bounds.x, floor.x + 40),
    y: isIn ? bounds.y : Math.round(floor.y + Math.max(8, (floor.height - bounds.height) / 2)),
  };
}
