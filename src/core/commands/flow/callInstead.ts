import { z } from "zod";
import { taskSize } from "../../layout";
import { say } from "../../messages";
import { type Element, type Id, laneOf, shapeOn } from "../../model";
import { type Change, refuse } from "../kernel/change";
import { forgetRecordedFlows } from "../kernel/flowLists";
import { pieceOf } from "../kernel/piece";
import { reroute } from "../kernel/reroute";
import { putIntoLane } from "../lanes/lanes";
import { newNode } from "./create";
import { remove } from "./remove";

const id = z.string().min(1).max(200);

export const callInsteadSchema = z.object({
  type: z.literal("callInstead"),
  diagram: id,
  ids: z.array(id).min(1),
  id,
  calledElement: id,
  name: z.string().max(2000).optional(),
});

/** Puts a call activity in the place of the chosen steps, which another process now holds. */
export function callInstead(change: Change, command: z.infer<typeof callInsteadSchema>): void {
  const { diagram, id: callId, calledElement, name } = command;
  const { nodes, scope, into, outOf, entry } = pieceOf(change.model, diagram, command.ids);
  const first = entry ?? (nodes[0] as Element).id;
  const anchor =
    shapeOn(change.model, diagram, first)?.bounds ?? refuse("not-drawn", say`The steps are not drawn here.`);
  const lane = laneOf(change.model, first);
  const middle = { x: anchor.x + taskSize.width / 2, y: anchor.y + anchor.height / 2 };
  newNode(change, diagram, callId, { type: "callActivity" }, scope.id, middle, name, { calledElement });
  if (lane) putIntoLane(change, callId, lane.id);
  const ends = [...into, ...outOf].flatMap((flow) => [flow.sourceRef as Id, flow.targetRef as Id]);
  forgetRecordedFlows(change, ends);
  for (const flow of into) change.set("elements", flow.id, "targetRef", callId);
  for (const flow of outOf) {
    const source = change.element(flow.sourceRef as Id);
    if (source.default === flow.id) change.set("elements", source.id, "default", undefined);
    change.set("elements", flow.id, "sourceRef", callId);
    for (const field of ["name", "conditionExpression"]) change.set("elements", flow.id, field, undefined);
  }
  remove(change, { type: "delete", ids: nodes.map((node) => node.id) });
  reroute(
    change,
    diagram,
    [...change.model.edges].filter((edge) =>
      [...into, ...outOf].some((flow) => edge.element === flow.id && edge.diagram === diagram),
    ),
  );
}
