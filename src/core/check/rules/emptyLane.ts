import { say } from "../../messages";
import { elementsOfType, lanesOf } from "../../model";
import { type Rule, saidOf } from "../finding";

export const emptyLane: Rule = {
  id: "empty-lane",
  group: "completeness",
  severity: "advice",
  wants: say`Every lane has something to do.`,
  find: (model) =>
    elementsOfType(model, "lane").flatMap((lane) => {
      if ((lane.flowNodeRef ?? []).length > 0 || lanesOf(model, lane.id).length > 0) return [];
      return [
        {
          elements: [lane.id],
          message: say`${saidOf(model, lane)} has no step, so it only takes up room. Move the steps of this role into it, or delete the lane.`,
          repairs: [{ label: say`Delete this lane`, commands: [{ type: "delete" as const, ids: [lane.id] }] }],
        },
      ];
    }),
};
