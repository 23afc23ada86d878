import { say } from "../../messages";
import { isA, outgoingOf } from "../../model";
import { type Rule, saidOf } from "../finding";

export const defaultMissing: Rule = {
  id: "no-default",
  group: "completeness",
  severity: "warning",
  wants: say`A decision has a default answer.`,
  find: (model) =>
    [...model.elements].flatMap((gateway) => {
      if (!isA(gateway, "exclusiveGateway", "inclusiveGateway")) return [];
      const flows = outgoingOf(model, gateway.id);
      if (flows.length < 2 || gateway.default !== undefined) return [];
      const usual = flows.find((flow) => flow.conditionExpression === undefined) ?? flows[flows.length - 1];
      return [
        {
          elements: [gateway.id],
          message: say`${saidOf(model, gateway)} has no default answer, so a case for which no condition holds is stuck there. Make the most common answer the default.`,
          ...(usual && {
            repair: {
              label: say`Make “${usual.name ?? say`the flow without a condition`}” the default`,
              commands: [{ type: "setField" as const, id: gateway.id, field: "default", value: usual.id }],
            },
          }),
        },
      ];
    }),
};
