import { say } from "../../messages";
import { flowNodesIn, isScope } from "../../model";
import type { Rule } from "../finding";

export const endUnnamed: Rule = {
  id: "unnamed-end",
  group: "names",
  severity: "advice",
  wants: say`Where there are several ends, each names the state reached.`,
  find: (model) =>
    [...model.elements].flatMap((scope) => {
      if (!isScope(scope.type)) return [];
      const ends = flowNodesIn(model, scope.id).filter((node) => node.type === "endEvent");
      if (ends.length < 2) return [];
      return ends
        .filter((end) => !end.name?.trim())
        .map((end) => ({
          elements: [end.id],
          message: say`One of several end events has no name, so readers cannot tell the results apart. Name it after the state reached, such as “Plant connected”.`,
        }));
    }),
};
