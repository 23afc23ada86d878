import { say } from "../../messages";
import { elementsOfType, isSubProcess } from "../../model";
import type { Rule } from "../finding";

export const startUnnamed: Rule = {
  id: "unnamed-start",
  group: "names",
  severity: "advice",
  wants: say`A start event names what happens.`,
  find: (model) =>
    elementsOfType(model, "startEvent").flatMap((start) => {
      const scope = model.elements.get(start.parent ?? "");
      if (start.name?.trim() || (scope && isSubProcess(scope.type) && scope.triggeredByEvent !== true)) return [];
      return [
        {
          elements: [start.id],
          message: say`The start event has no name, so it is open what sets the process off. Name it after what happens, such as “Application received”.`,
        },
      ];
    }),
};
