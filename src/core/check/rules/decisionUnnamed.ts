import { isA, outgoingOf } from "../../model";
import type { Rule } from "../finding";

export const decisionUnnamed: Rule = {
  id: "unnamed-decision",
  group: "names",
  severity: "warning",
  wants: "A decision asks a question.",
  find: (model) =>
    [...model.elements].flatMap((gateway) =>
      isA(gateway, "exclusiveGateway", "inclusiveGateway") &&
      outgoingOf(model, gateway.id).length > 1 &&
      !gateway.name?.trim()
        ? [
            {
              elements: [gateway.id],
              message:
                "A decision has no name, so readers see that something is decided but not what. Name it with the question that is asked there.",
            },
          ]
        : [],
    ),
};
