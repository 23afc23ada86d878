import { z } from "zod";
import { roleOfLane, rolesOf } from "../../directory";
import { eventSize, onGrid, taskSize } from "../../layout";
import { say } from "../../messages";
import { type Element, edgeOn, type Id, isActivity, laneOf, nameOf, outgoingOf, shapeOn } from "../../model";
import { assignRole } from "../directory/assign";
import { type Change, refuse } from "../kernel/change";
import { drawnInside, redraw } from "../kernel/drawnInside";
import { forgetRecordedFlows } from "../kernel/flowLists";
import { connectionsTouching } from "../kernel/page";
import { type Flow, pieceOf } from "../kernel/piece";
import { reroute } from "../kernel/reroute";
import { putIntoLane } from "../lanes/lanes";
import { addPage } from "../lanes/pools";
import { connect } from "./connect";
import { newNode } from "./create";

const id = z.string().min(1).max(200);

export const wrapSchema = z.object({
  type: z.literal("wrap"),
  diagram: id,
  ids: z.array(id).min(1),
  /** The new sub-process and its page; ids of what is made besides are derived from the first. */
  id,
  page: id,
  name: z.string().max(2000).optional(),
});

/** Makes a closed sub-process of the chosen steps: they move to a page of their own, with a start and an end around them. */
export function wrap(change: Change, command: z.infer<typeof wrapSchema>): void {
  const { diagram, id: subId } = command;
  const { nodes, scope, into, outOf, entry } = pieceOf(change.model, diagram, command.ids);
  const inside = new Set(nodes.map((node) => node.id));
  const drawn = drawnInside(change, diagram, (element) => inside.has(element));
  const box = drawn.bounds ?? refuse("not-drawn", say`The chosen steps are not drawn on this page.`);
  const anchor = shapeOn(change.model, diagram, entry ?? (nodes[0] as Element).id)?.bounds ?? box;
  const lane = laneOf(change.model, entry ?? (nodes[0] as Element).id);
  const middle = { x: anchor.x + taskSize.width / 2, y: anchor.y + anchor.height / 2 };
  const touchedBefore = connectionsTouching(change.model, inside);
  keepResponsible(change, nodes, lane);

  newNode(change, diagram, subId, { type: "subProcess" }, scope.id, middle, command.name);
  addPage(change, { type: "addPage", id: command.page, element: subId });
  if (lane) putIntoLane(change, subId, lane.id);
  for (const node of nodes) {
    putIntoLane(change, node.id, undefined);
    change.set("elements", node.id, "parent", subId);
  }
  forgetRecordedFlows(change, [
    ...inside,
    ...[...into, ...outOf].flatMap((flow) => [flow.sourceRef as Id, flow.targetRef as Id]),
  ]);
  for (const flow of nodes.flatMap((node) => outgoingOf(change.model, node.id)))
    if (inside.has(flow.targetRef as Id)) change.set("elements", flow.id, "parent", subId);
  redraw(change, drawn, command.page, { x: 200 - box.x, y: 120 - box.y });

  for (const flow of into) change.set("elements", flow.id, "targetRef", subId);
  if (entry) {
    const at = shapeOn(change.model, command.page, entry)?.bounds ?? box;
    const start = `${subId}.start`;
    const spot = { x: onGrid(200 - eventSize.width / 2 - 56), y: at.y + at.height / 2 };
    newNode(change, command.page, start, { type: "startEvent" }, subId, spot);
    connect(change, { type: "connect", diagram: command.page, id: `${subId}.begins`, source: start, target: entry });
  }
  const [exit] = outOf;
  if (exit) leaveBy(change, command, exit, box.width);
  const touched = new Set([...touchedBefore, ...connectionsTouching(change.model, new Set([subId]))]);
  reroute(
    change,
    diagram,
    [...change.model.edges].filter((edge) => edge.diagram === diagram && touched.has(edge.element)),
  );
}

/** The flow out ends inside, with its name and condition; another one leads on from the sub-process. */
function leaveBy(
  change: Change,
  { diagram, id: subId, page }: z.infer<typeof wrapSchema>,
  exit: Flow,
  width: number,
): void {
  const source = exit.sourceRef as Id;
  const target = exit.targetRef as Id;
  const at = shapeOn(change.model, page, source)?.bounds;
  const end = `${subId}.end`;
  newNode(change, page, end, { type: "endEvent" }, subId, {
    x: onGrid(200 + width + 56 + eventSize.width / 2),
    y: at ? at.y + at.height / 2 : 152,
  });
  const edge = edgeOn(change.model, diagram, exit.id);
  change.set("elements", exit.id, "targetRef", end);
  change.set("elements", exit.id, "parent", subId);
  if (edge) {
    change.set("edges", edge.id, "diagram", page);
    change.set("edges", edge.id, "label", undefined);
    reroute(change, page, [change.model.edges.get(edge.id) ?? edge]);
  }
  connect(change, { type: "connect", diagram, id: `${subId}.leads`, source: subId, target });
}

/** Inside a sub-process, lanes no longer tell who does a step: where that was another lane's role, it is now written at the step. */
function keepResponsible(change: Change, nodes: readonly Element[], lane: Element | undefined): void {
  for (const node of nodes) {
    const own = laneOf(change.model, node.id);
    const role = own && own.id !== lane?.id ? roleOfLane(change.model, own) : undefined;
    if (!role?.entry || !isActivity(node.type)) continue;
    if (rolesOf(change.model, node.id).some((one) => one.part === "responsible" && one.from === "step")) continue;
    let roleId = `${node.id}.responsible`;
    for (let counter = 2; change.isTaken(roleId); counter++) roleId = `${node.id}.responsible.${counter}`;
    assignRole(change, {
      type: "assignRole",
      step: node.id,
      role: { entry: role.entry, name: role.name },
      part: "responsible",
      id: roleId,
    });
    change.remarks.push(say`${nameOf(change.model, node.id) || say`A step`} stays with ${role.name}.`);
  }
}
