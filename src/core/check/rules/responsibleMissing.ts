import { rolesOf } from "../../directory";
import { say } from "../../messages";
import { called, isTask } from "../../model";
import type { Rule } from "../finding";

export const responsibleMissing: Rule = {
  id: "no-role",
  group: "completeness",
  severity: "warning",
  wants: say`Every step that people do has somebody responsible.`,
  find: (model) =>
    [...model.elements].flatMap((step) => {
      if (
        !isTask(step.type) ||
        step.type === "serviceTask" ||
        step.type === "scriptTask" ||
        step.type === "businessRuleTask"
      )
        return [];
      if (rolesOf(model, step.id).some((role) => role.part === "responsible")) return [];
      return [
        {
          elements: [step.id],
          message: say`Nobody is responsible for ${called(model, step)}. Neither forecast nor work list can place it. Put it into a lane that stands for a role, or assign a role in the tray.`,
        },
      ];
    }),
};
