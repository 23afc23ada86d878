import { say } from "../../messages";
import { flowNodesIn, isSubProcess } from "../../model";
import { type Rule, saidOf } from "../finding";

export const emptySubProcess: Rule = {
  id: "empty-sub-process",
  group: "completeness",
  severity: "advice",
  wants: say`A sub-process has something inside.`,
  find: (model) =>
    [...model.elements].flatMap((element) => {
      if (!isSubProcess(element.type) || flowNodesIn(model, element.id).length > 0) return [];
      return [
        {
          elements: [element.id],
          message: say`${saidOf(model, element)} is drawn as a sub-process, but nothing is inside. Open it and draw its steps, or make it a task until they are known.`,
        },
      ];
    }),
};
