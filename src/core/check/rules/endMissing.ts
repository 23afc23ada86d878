import { say } from "../../messages";
import { flowNodesIn, isScope, nameOf, termFor } from "../../model";
import type { Rule } from "../finding";

export const endMissing: Rule = {
  id: "no-end",
  group: "completeness",
  severity: "warning",
  wants: say`A process ends with an end event.`,
  find: (model) =>
    [...model.elements].flatMap((scope) => {
      if (!isScope(scope.type) || scope.type === "adHocSubProcess") return [];
      const nodes = flowNodesIn(model, scope.id);
      if (!nodes.some((node) => node.type === "startEvent") || nodes.some((node) => node.type === "endEvent"))
        return [];
      return [
        {
          elements: [scope.id],
          message: say`${nameOf(model, scope.id) || say`This ${termFor(scope.type)}`} has a start but no end event, so it is open what it achieves. Add an end event for each result and name it after the state reached.`,
        },
      ];
    }),
};
