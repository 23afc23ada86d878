import { say } from "../../messages";
import { called, isA, outgoingOf } from "../../model";
import type { Rule } from "../finding";

export const answerUnnamed: Rule = {
  id: "unnamed-answer",
  group: "names",
  severity: "warning",
  wants: say`Every flow out of a decision is an answer.`,
  find: (model) =>
    [...model.elements].flatMap((gateway) => {
      if (!isA(gateway, "exclusiveGateway", "inclusiveGateway")) return [];
      const flows = outgoingOf(model, gateway.id);
      if (flows.length < 2) return [];
      return flows
        .filter((flow) => !flow.name?.trim())
        .map((flow) => ({
          elements: [flow.id],
          message: say`A flow out of ${called(model, gateway)} has no name, so it is open when it is taken. Name it with the answer to the question.`,
        }));
    }),
};
