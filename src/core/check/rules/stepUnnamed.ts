import { say } from "../../messages";
import { isActivity, termFor } from "../../model";
import type { Rule } from "../finding";

export const stepUnnamed: Rule = {
  id: "unnamed-step",
  group: "names",
  severity: "warning",
  wants: say`Every activity has a name.`,
  find: (model) =>
    [...model.elements].flatMap((step) =>
      isActivity(step.type) && !step.name?.trim()
        ? [
            {
              elements: [step.id],
              message: say`A ${termFor(step.type)} has no name, so nobody can tell what is done there. Name it with a verb and an object, such as “Check feeder capacity”.`,
            },
          ]
        : [],
    ),
};
