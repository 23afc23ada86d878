import { say } from "../../messages";
import { type Element, flowNodesIn, isScope, type Model, outgoingOf, shapesOf, triggerOf } from "../../model";
import { type Rule, saidOf } from "../finding";

function needsWayOut(model: Model, node: Element): boolean {
  if (node.type === "endEvent" || node.triggeredByEvent === true || node.isForCompensation === true) return false;
  const trigger = node.type.endsWith("Event") ? triggerOf(model, node) : "none";
  if (node.type === "intermediateThrowEvent" && trigger === "linkEventDefinition") return false;
  return !(node.type === "boundaryEvent" && trigger === "compensateEventDefinition");
}

export const noWayOut: Rule = {
  id: "no-way-out",
  group: "completeness",
  severity: "warning",
  wants: say`Every step but an end event leads on.`,
  find: (model) =>
    [...model.elements].flatMap((scope) => {
      if (!isScope(scope.type) || scope.type === "adHocSubProcess") return [];
      const nodes = flowNodesIn(model, scope.id);
      if (!nodes.some((node) => node.type === "endEvent" || node.type === "startEvent")) return [];
      return nodes
        .filter((node) => needsWayOut(model, node) && outgoingOf(model, node.id).length === 0)
        .map((node) => {
          const diagram = shapesOf(model, node.id)[0]?.diagram;
          return {
            elements: [node.id],
            message: say`${saidOf(model, node)} leads nowhere. It counts as an end, but readers cannot tell whether one was meant. Connect it to the next step, or end it with an end event.`,
            ...(diagram !== undefined && {
              repair: {
                label: say`Add an end event behind it`,
                commands: [
                  {
                    type: "append" as const,
                    diagram,
                    from: node.id,
                    id: `${node.id}.end`,
                    flow: `${node.id}.to-end`,
                    kind: { type: "endEvent" as const },
                  },
                ],
              },
            }),
          };
        });
    }),
};
