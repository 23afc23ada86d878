import { say } from "../../messages";
import { isA, outgoingOf } from "../../model";
import type { Rule } from "../finding";

export const questionMark: Rule = {
  id: "decision-not-a-question",
  group: "names",
  severity: "advice",
  wants: say`The name of a decision is a question.`,
  find: (model) =>
    [...model.elements].flatMap((gateway) => {
      if (!isA(gateway, "exclusiveGateway", "inclusiveGateway") || outgoingOf(model, gateway.id).length < 2) return [];
      const name = gateway.name?.trim();
      if (!name || name.endsWith("?")) return [];
      return [
        {
          elements: [gateway.id],
          message: say`“${name}” names a decision but is no question; a gateway decides nothing, it only asks. Put it as a question that its flows answer, and do the work in a step before it.`,
          repairs: [
            {
              label: say`Call it “${name}?”`,
              commands: [{ type: "rename" as const, id: gateway.id, name: `${name}?` }],
            },
          ],
        },
      ];
    }),
};
