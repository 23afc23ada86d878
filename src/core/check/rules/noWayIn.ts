import { say } from "../../messages";
import { called, type Element, flowNodesIn, incomingOf, isScope, type Model, triggerOf } from "../../model";
import type { Rule } from "../finding";

/** Starts, events at edges, link targets, compensation and event sub-processes are reached in other ways than by a flow. */
function needsWayIn(model: Model, node: Element): boolean {
  if (node.type === "startEvent" || node.type === "boundaryEvent") return false;
  if (node.triggeredByEvent === true || node.isForCompensation === true || node.instantiate === true) return false;
  return !(node.type === "intermediateCatchEvent" && triggerOf(model, node) === "linkEventDefinition");
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
          repair: { label: say`Delete this element`, commands: [{ type: "delete" as const, ids: [node.id] }] },
        }));
    }),
};
