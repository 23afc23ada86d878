import { isA, wordFor } from "../../model";
import type { Rule } from "../finding";

export const flowWithoutEnd: Rule = {
  id: "flow-without-end",
  group: "connections",
  severity: "error",
  wants: "A flow has a source and a target.",
  find: (model) =>
    [...model.elements].flatMap((element) => {
      if (!isA(element, "sequenceFlow", "messageFlow", "association")) return [];
      if (element.sourceRef !== undefined && element.targetRef !== undefined) return [];
      return [
        {
          elements: [element.id],
          message: `This ${wordFor(element.type)} has no ${element.sourceRef === undefined ? "source" : "target"}, so it says nothing. Draw that end again, or delete it.`,
          repair: {
            label: `Delete this ${wordFor(element.type)}`,
            commands: [{ type: "delete" as const, ids: [element.id] }],
          },
        },
      ];
    }),
};
