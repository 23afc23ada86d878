import { say } from "../../messages";
import {
  called,
  type Element,
  flowNodesIn,
  type Id,
  incomingOf,
  isScope,
  type Model,
  outgoingOf,
  shapesOf,
  triggerOf,
} from "../../model";
import type { Repair, Rule } from "../finding";
import { canLeadOn, needsWayOut } from "./noWayOut";

/** Starts, events at edges, link targets, compensation and event sub-processes are reached in other ways than by a flow. */
function needsWayIn(model: Model, node: Element): boolean {
  if (node.type === "startEvent" || node.type === "boundaryEvent") return false;
  if (node.triggeredByEvent === true || node.isForCompensation === true || node.instantiate === true) return false;
  return !(node.type === "intermediateCatchEvent" && triggerOf(model, node) === "linkEventDefinition");
}

/** More steps that lead nowhere than this are not offered as the one that was to lead here. */
const mostOpen = 4;

/** It is led to by what leads nowhere itself; one that leads on to nothing either can go. */
function repairsOf(model: Model, node: Element, nodes: readonly Element[]): { readonly repairs?: readonly Repair[] } {
  const diagram = shapesOf(model, node.id)[0]?.diagram;
  const open = nodes.filter((one) => needsWayOut(model, one) && outgoingOf(model, one.id).length === 0);
  const repairs = open
    .filter(
      (one) =>
        diagram !== undefined &&
        one !== node &&
        canLeadOn(model, one) &&
        shapesOf(model, one.id)[0]?.diagram === diagram,
    )
    .slice(0, mostOpen)
    .map(
      (one): Repair => ({
        label: say`Lead ${called(model, one)} to it`,
        commands: [
          { type: "connect", diagram: diagram as Id, id: `${one.id}.to-${node.id}`, source: one.id, target: node.id },
        ],
      }),
    );
  // The only end of a process is what it was drawn for, and not to be deleted.
  const isOnlyEnd = node.type === "endEvent" && !nodes.some((one) => one !== node && one.type === "endEvent");
  if (outgoingOf(model, node.id).length === 0 && !isOnlyEnd)
    repairs.push({ label: say`Delete this element`, commands: [{ type: "delete", ids: [node.id] }] });
  return repairs.length > 0 ? { repairs } : {};
}

/** What follows from it, that no case gets there, is an error of its own (dead-element); this tells where it comes from. */
export const noWayIn: Rule = {
  id: "no-way-in",
  group: "completeness",
  severity: "warning",
  wants: say`Every step is reached by a flow.`,
  find: (model) =>
    [...model.elements].flatMap((scope) => {
      if (!isScope(scope.type) || scope.type === "adHocSubProcess") return [];
      const nodes = flowNodesIn(model, scope.id);
      if (!nodes.some((node) => node.type === "startEvent")) return [];
      return nodes
        .filter((node) => needsWayIn(model, node) && incomingOf(model, node.id).length === 0)
        .map((node) => ({
          elements: [node.id],
          message: say`No flow leads to ${called(model, node)}. Connect it from the step before it, or delete it.`,
          ...repairsOf(model, node, nodes),
        }));
    }),
};
