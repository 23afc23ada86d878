import { isA, outgoingOf } from "../../model";
import { type Rule, saidOf } from "../finding";

export const defaultMissing: Rule = {
  id: "no-default",
  group: "completeness",
  severity: "warning",
  wants: "A decision has a default answer.",
  find: (model) =>
    [...model.elements].flatMap((gateway) => {
      if (!isA(gateway, "exclusiveGateway", "inclusiveGateway")) return [];
      const flows = outgoingOf(model, gateway.id);
      if (flows.length < 2 || gateway.default !== undefined) return [];
      const usual = flows.find((flow) => flow.conditionExpression === undefined) ?? flows[flows.length - 1];
      return [
        {
          elements: [gateway.id],
          message: `${saidOf(model, gateway)} has no default answer, so a case for which no condition holds is stuck there. Make the most common answer the default.`,
          ...(usual && {
            repair: {
              label: `Make “${usual.name ?? "the flow without a condition"}” the default`,
              commands: [{ type: "setField" as const, id: gateway.id, field: "default", value: usual.id }],
            },
          }),
        },
      ];
    }),
};
