import { say } from "../../messages";
import { isA, termFor } from "../../model";
import type { Rule } from "../finding";

export const flowWithoutEnd: Rule = {
  id: "flow-without-end",
  group: "connections",
  severity: "error",
  wants: say`A flow has a source and a target.`,
  find: (model) =>
    [...model.elements].flatMap((element) => {
      if (!isA(element, "sequenceFlow", "messageFlow", "association")) return [];
      if (element.sourceRef !== undefined && element.targetRef !== undefined) return [];
      return [
        {
          elements: [element.id],
          message: say`This ${termFor(element.type)} has no ${element.sourceRef === undefined ? say`source` : say`target`}, so it says nothing. Draw that end again, or delete it.`,
          repairs: [
            {
              label: say`Delete this ${termFor(element.type)}`,
              commands: [{ type: "delete" as const, ids: [element.id] }],
            },
          ],
        },
      ];
    }),
};
