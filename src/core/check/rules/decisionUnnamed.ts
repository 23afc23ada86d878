import { say } from "../../messages";
import { isA, outgoingOf } from "../../model";
import type { Rule } from "../finding";

export const decisionUnnamed: Rule = {
  id: "unnamed-decision",
  group: "names",
  severity: "warning",
  wants: say`A decision asks a question.`,
  find: (model) =>
    [...model.elements].flatMap((gateway) =>
      isA(gateway, "exclusiveGateway", "inclusiveGateway") &&
      outgoingOf(model, gateway.id).length > 1 &&
      !gateway.name?.trim()
        ? [
            {
              elements: [gateway.id],
              message: say`A decision has no name, so readers see that something is decided but not what. Name it with the question that is asked there.`,
            },
          ]
        : [],
    ),
};
