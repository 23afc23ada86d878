import type { Edge, Id, Point } from "../../model";
import type { Change } from "./change";
import { courseFor } from "./page";

/** Gives edges new courses, in the order given: known ones, else around everything but what still waits for its own. */
export function reroute(
  change: Change,
  diagram: Id,
  edges: readonly Edge[],
  courses: ReadonlyMap<Id, readonly Point[]> = new Map(),
): void {
  // Old courses must not stand in the way of new ones.
  const waiting = new Set(edges.map((edge) => edge.id));
  for (const edge of edges) {
    const course = courses.get(edge.element) ?? courseFor(change.model, diagram, change.element(edge.element), waiting);
    waiting.delete(edge.id);
    const rounded = course?.map(({ x, y }) => ({ x: Math.round(x), y: Math.round(y) }));
    if (rounded) change.set("edges", edge.id, "waypoints", rounded);
  }
}
