import { isExpanded, labelBeside } from "../../drawing";
import { arrangeScope, boundsAround, overlaps } from "../../layout";
import { say } from "../../messages";
import {
  type Bounds,
  boundaryEventsOf,
  type Element,
  type Id,
  isDataNode,
  isFlowNode,
  isSubProcess,
  laneOf,
  scopeOf,
  shapeOn,
} from "../../model";
import { type Change, refuse } from "../kernel/change";
import { growAround } from "../kernel/grow";
import { placeLabels } from "../kernel/labelPlaces";
import { connectionsTouching, obstaclesOn, plain } from "../kernel/page";
import { reroute } from "../kernel/reroute";

/**
 * Lays out some steps among each other. Each lane's part of them stays where it begins; all else stays where it is, and where the
 * tidied steps would lie over it, the command is refused.
 */
export function tidySome(change: Change, diagram: Id, ids: readonly Id[]): void {
  const chosen = ids.flatMap((id) => {
    const element = change.model.elements.get(id);
    const isStep = element && isFlowNode(element.type) && element.type !== "boundaryEvent";
    return isStep && shapeOn(change.model, diagram, id) ? [element] : [];
  });
  const [scope, other] = [...new Set(chosen.map((element) => scopeOf(change.model, element.id)?.id))];
  if (chosen.length < 2 || scope === undefined)
    refuse("too-few", say`Choose at least two steps that are to be tidied among each other.`);
  if (other !== undefined)
    refuse(
      "several-scopes",
      say`These steps lie in different processes or sub-processes. Tidy each of them by itself.`,
    );
  const boundsOf = (id: Id) => plain((shapeOn(change.model, diagram, id) as { bounds: Bounds }).bounds);
  const sizes = new Map(
    chosen.map(({ id }) => {
      const { width, height } = boundsOf(id);
      return [id, { width, height }];
    }),
  );
  const { places } = arrangeScope(change.model, scope as Id, {
    sizes,
    only: new Set(chosen.map((element) => element.id)),
    // What is open in place keeps its inside as it is.
    isExpanded: () => false,
    labelSize: (id) => {
      const element = change.model.elements.get(id);
      const isOutside = element?.type.endsWith("Event") || element?.type.endsWith("Gateway");
      const name = element?.name?.trim() ?? "";
      return isOutside && name ? labelBeside(name, boundsOf(id), "below").bounds : undefined;
    },
  });
  const moved = new Map<Id, Bounds>();
  const left = (all: Iterable<Bounds>) => Math.min(...[...all].map((bounds) => bounds.x));
  const place = (id: Id) => places.get(id) as Bounds;
  const byX = left(chosen.map((element) => boundsOf(element.id))) - left(chosen.map((element) => place(element.id)));
  for (const part of byLane(change, chosen)) {
    const top = (all: readonly Bounds[]) => (boundsAround(all) as Bounds).y;
    const byY = top(part.map((element) => boundsOf(element.id))) - top(part.map((element) => place(element.id)));
    for (const { id } of part) {
      const { x, y } = place(id);
      moved.set(id, { ...boundsOf(id), x: Math.round(x + byX), y: Math.round(y + byY) });
    }
  }
  const along = goingAlong(change, diagram, chosen, moved);
  const all = new Map([...moved, ...along]);
  const staying = obstaclesOn(change.model, diagram, new Set(all.keys()));
  for (const [id, bounds] of all)
    if (staying.some((obstacle) => overlaps(bounds, obstacle)))
      refuse(
        "no-room",
        say`The tidied steps would lie over others. Make room beside them first, or choose those as well.`,
        [id],
      );
  for (const [id, bounds] of all) {
    const shape = shapeOn(change.model, diagram, id);
    if (shape) change.set("shapes", shape.id, "bounds", bounds);
  }
  for (const id of moved.keys()) growAround(change, diagram, id);
  const touched = connectionsTouching(change.model, new Set(all.keys()));
  reroute(
    change,
    diagram,
    [...change.model.edges].filter((edge) => edge.diagram === diagram && touched.has(edge.element)),
  );
  placeLabels(change, diagram, new Set([...all.keys(), ...touched]));
}

function byLane(change: Change, chosen: readonly Element[]): Element[][] {
  const parts = new Map<Id, Element[]>();
  for (const element of chosen) {
    const lane = laneOf(change.model, element.id)?.id ?? "";
    parts.set(lane, [...(parts.get(lane) ?? []), element]);
  }
  return [...parts.values()];
}

/** Events at the edge of a step go where it goes, and so does the inside of what is open in place. */
function goingAlong(
  change: Change,
  diagram: Id,
  chosen: readonly Element[],
  moved: ReadonlyMap<Id, Bounds>,
): Map<Id, Bounds> {
  const along = new Map<Id, Bounds>();
  for (const step of chosen) {
    const from = shapeOn(change.model, diagram, step.id)?.bounds as Bounds;
    const to = moved.get(step.id) as Bounds;
    const shift = (id: Id) => {
      const bounds = shapeOn(change.model, diagram, id)?.bounds;
      if (bounds) along.set(id, { ...plain(bounds), x: bounds.x + to.x - from.x, y: bounds.y + to.y - from.y });
    };
    for (const event of boundaryEventsOf(change.model, step.id)) shift(event.id);
    const shape = shapeOn(change.model, diagram, step.id);
    if (!shape || !isSubProcess(step.type) || !isExpanded(step, shape)) continue;
    for (const inner of change.model.elements) {
      if (!isFlowNode(inner.type) && !isDataNode(inner.type) && inner.type !== "textAnnotation") continue;
      for (let at = inner.parent; at !== null; at = change.model.elements.get(at)?.parent ?? null)
        if (at === step.id) {
          shift(inner.id);
          break;
        }
    }
  }
  return along;
}
