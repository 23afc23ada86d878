import { say } from "../../messages";
import { flowNodesIn, isScope, isSubProcess, nameOf, termFor } from "../../model";
import type { Rule } from "../finding";

export const startMissing: Rule = {
  id: "no-start",
  group: "completeness",
  severity: "warning",
  wants: say`A process begins with a start event.`,
  find: (model) =>
    [...model.elements].flatMap((scope) => {
      if (!isScope(scope.type) || scope.type === "adHocSubProcess") return [];
      const nodes = flowNodesIn(model, scope.id);
      if (nodes.length === 0 || nodes.some((node) => node.type === "startEvent")) return [];
      if (
        isSubProcess(scope.type) &&
        scope.triggeredByEvent !== true &&
        !nodes.some((node) => node.type === "endEvent")
      )
        return [];
      return [
        {
          elements: [scope.id],
          message: say`${nameOf(model, scope.id) || say`This ${termFor(scope.type)}`} has no start event, so nobody can see what sets it off. Place one before the first step and name it after what happens.`,
        },
      ];
    }),
};
