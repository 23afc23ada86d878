import { say } from "../../messages";
import { elementsOfType, flowNodesIn } from "../../model";
import { type Rule, saidOf } from "../finding";

/** BPMN 2.0, 10.3.5, table 10.22: an ad-hoc sub-process holds activities and no start or end events. */
export const adHocContent: Rule = {
  id: "ad-hoc-content",
  group: "connections",
  severity: "error",
  wants: say`An ad-hoc sub-process holds activities and neither start nor end.`,
  find: (model) =>
    elementsOfType(model, "adHocSubProcess").flatMap((sub) => {
      const wrong = flowNodesIn(model, sub.id).filter((node) => node.type === "startEvent" || node.type === "endEvent");
      if (wrong.length === 0) return [];
      return [
        {
          elements: wrong.map((node) => node.id),
          message: say`${saidOf(model, sub)} is done in any order, so it has no start and no end. Take these events out.`,
          repairs: [
            {
              label: say`Take them out`,
              commands: [{ type: "delete" as const, ids: wrong.map((node) => node.id) }],
            },
          ],
        },
      ];
    }),
};
