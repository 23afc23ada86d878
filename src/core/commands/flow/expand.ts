import { z } from "zod";
import { isExpanded, pageOf } from "../../drawing";
import { expandedSize, onGrid, taskSize } from "../../layout";
import { say } from "../../messages";
import { boundaryEventsOf, called, type Id, isSubProcess, type Shape, shapeOn } from "../../model";
import { containersAcross, openRoom } from "../arrange/room";
import { type Change, refuse } from "../kernel/change";
import { drawnInside, isInside, redraw } from "../kernel/drawnInside";
import { growAround } from "../kernel/grow";
import { connectionsTouching, plain } from "../kernel/page";
import { reroute } from "../kernel/reroute";
import { addPage } from "../lanes/pools";
import { nearestEdgePoint } from "./create";

const id = z.string().min(1).max(200);

export const expandSchema = z.object({ type: z.literal("expand"), diagram: id, id });
export const collapseSchema = z.object({ type: z.literal("collapse"), diagram: id, id, page: id });

const padding = { side: 28, top: 40, bottom: 28 } as const;

/** Opens a sub-process in place: its page is drawn into it, and what lies around makes room. */
export function expand(change: Change, { diagram, id: elementId }: z.infer<typeof expandSchema>): void {
  const shape = subProcessShape(change, diagram, elementId);
  if (isExpanded(change.element(elementId), shape)) refuse("is-open", say`This sub-process is open in place already.`);
  const page = pageOf(change.model, elementId);
  const inside = page && drawnInside(change, page.id, isInside(change, elementId));
  const content = inside?.bounds;
  const size = content
    ? {
        width: Math.max(160, onGrid(content.width + 2 * padding.side)),
        height: Math.max(112, onGrid(content.height + padding.top + padding.bottom)),
      }
    : expandedSize;
  const bounds = makeRoomFor(change, diagram, elementId, size);
  resizeTo(change, diagram, elementId, bounds);
  change.set("shapes", shape.id, "isExpanded", true);
  if (page && inside) {
    if (content)
      redraw(change, inside, diagram, {
        x: bounds.x + (bounds.width - content.width) / 2 - content.x,
        y: bounds.y + padding.top + (bounds.height - padding.top - padding.bottom - content.height) / 2 - content.y,
      });
    change.remove("diagrams", page.id);
  }
  growAround(change, diagram, elementId);
  rerouteFlows(change, diagram, elementId);
}

/** Closes a sub-process that is open in place: its inside gets a page of its own. The room stays; tidying takes it back. */
export function collapse(change: Change, { diagram, id: elementId, page }: z.infer<typeof collapseSchema>): void {
  const shape = subProcessShape(change, diagram, elementId);
  if (!isExpanded(change.element(elementId), shape)) refuse("is-closed", say`This sub-process is closed already.`);
  const inside = drawnInside(change, diagram, isInside(change, elementId));
  if (inside.bounds) {
    addPage(change, { type: "addPage", id: page, element: elementId });
    const own = pageOf(change.model, elementId)?.id ?? page;
    redraw(change, inside, own, { x: 160 - inside.bounds.x, y: 120 - inside.bounds.y });
  }
  const { x, y, height } = shape.bounds;
  resizeTo(change, diagram, elementId, { x, y: y + (height - taskSize.height) / 2, ...taskSize });
  change.set("shapes", shape.id, "isExpanded", false);
  rerouteFlows(change, diagram, elementId);
}

function subProcessShape(change: Change, diagram: Id, elementId: Id): Shape {
  const element = change.element(elementId);
  if (!isSubProcess(element.type))
    refuse("no-inside", say`${called(change.model, element)} has no inside that could be shown.`, [elementId]);
  return (
    shapeOn(change.model, diagram, elementId) ?? refuse("not-drawn", say`The sub-process is not drawn on this page.`)
  );
}

/**
 * Room for a shape that becomes larger: what lies right of it goes further right, and what lies below further down. It keeps its
 * left edge and the height of its middle, so that the flow into it stays straight.
 */
export function makeRoomFor(
  change: Change,
  diagram: Id,
  elementId: Id,
  size: { readonly width: number; readonly height: number },
) {
  const now = () => (shapeOn(change.model, diagram, elementId) as Shape).bounds;
  const attached = boundaryEventsOf(change.model, elementId).map((event) => event.id);
  const wider = size.width - now().width;
  const higher = Math.ceil((size.height - now().height) / 2);
  const open = (axis: "x" | "y", line: number, by: number, staying: readonly Id[]) => {
    const growing = containersAcross(change, diagram, axis, line);
    growing.delete(elementId);
    if (by > 0) openRoom(change, diagram, axis, line, by, growing, new Set(staying));
  };
  const { x, y, width, height } = now();
  open("x", x + width, wider, attached);
  // Upwards first, with the step itself and its row; then below it.
  open("y", y - 1, higher, []);
  open("y", now().y + height, higher, attached);
  const top = now();
  return { x: top.x, y: top.y + top.height / 2 - size.height / 2, ...size };
}

function resizeTo(
  change: Change,
  diagram: Id,
  elementId: Id,
  bounds: { readonly x: number; readonly y: number; readonly width: number; readonly height: number },
): void {
  const shape = shapeOn(change.model, diagram, elementId) as Shape;
  const old = shape.bounds;
  change.set("shapes", shape.id, "bounds", plain(bounds));
  for (const event of boundaryEventsOf(change.model, elementId)) {
    const eventShape = shapeOn(change.model, diagram, event.id);
    if (!eventShape) continue;
    const middle = (at: "x" | "y", extent: "width" | "height") =>
      bounds[at] + (bounds[extent] * (eventShape.bounds[at] + eventShape.bounds[extent] / 2 - old[at])) / old[extent];
    const edge = nearestEdgePoint(bounds, { x: middle("x", "width"), y: middle("y", "height") });
    change.set("shapes", eventShape.id, "bounds", {
      ...plain(eventShape.bounds),
      x: edge.x - eventShape.bounds.width / 2,
      y: edge.y - eventShape.bounds.height / 2,
    });
  }
}

function rerouteFlows(change: Change, diagram: Id, elementId: Id): void {
  const attached = boundaryEventsOf(change.model, elementId).map((event) => event.id);
  const touched = connectionsTouching(change.model, new Set([elementId, ...attached]));
  reroute(
    change,
    diagram,
    [...change.model.edges].filter((edge) => edge.diagram === diagram && touched.has(edge.element)),
  );
}
