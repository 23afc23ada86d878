import { say } from "../../messages";
import { type Element, isA, nameOf, outgoingOf } from "../../model";
import { type Rule, saidOf } from "../finding";

/** More answers than this are not offered one by one. */
const mostAnswers = 6;

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
      const [open, ...more] = flows.filter((flow) => flow.conditionExpression === undefined);
      // The one flow without a condition can only be meant as the default; else a person says which.
      const candidates = open && more.length === 0 ? [open] : flows;
      const nameOfAnswer = (flow: Element) => flow.name ?? nameOf(model, String(flow.targetRef));
      return [
        {
          elements: [gateway.id],
          message: say`${saidOf(model, gateway)} has no default answer, so a case for which no condition holds is stuck there. Make the most common answer the default.`,
          repairs: candidates.slice(0, mostAnswers).map((flow) => ({
            label: nameOfAnswer(flow)
              ? say`Make “${nameOfAnswer(flow)}” the default`
              : say`Make the flow without a name the default`,
            commands: [
              { type: "setField" as const, id: gateway.id, field: "default", value: flow.id },
              // The default has no condition of its own: it is taken when none holds.
              ...(flow.conditionExpression === undefined
                ? []
                : [{ type: "setField" as const, id: flow.id, field: "conditionExpression", value: null }]),
            ],
          })),
        },
      ];
    }),
};
