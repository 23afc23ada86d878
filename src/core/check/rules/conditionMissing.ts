import { say } from "../../messages";
import { called, isA, outgoingOf } from "../../model";
import type { Rule } from "../finding";

export const conditionMissing: Rule = {
  id: "no-condition",
  group: "completeness",
  severity: "advice",
  wants: say`Every answer of a decision but the default has a condition.`,
  find: (model) =>
    [...model.elements].flatMap((gateway) => {
      if (!isA(gateway, "exclusiveGateway", "inclusiveGateway")) return [];
      const flows = outgoingOf(model, gateway.id);
      if (flows.length < 2) return [];
      return flows
        .filter((flow) => flow.id !== gateway.default && !flow.conditionExpression?.text.trim())
        .map((flow) => ({
          elements: [flow.id],
          message: say`The answer ${flow.name ? say`“${flow.name}”` : say`without a name`} of ${called(model, gateway)} has no condition, so developers have to guess when it is taken. Write the condition in the tray, in plain words if need be.`,
        }));
    }),
};
