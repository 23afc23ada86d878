import { say } from "../../messages";
import { called, elementsOfType } from "../../model";
import type { Rule } from "../finding";

/** BPMN 2.0, 8.3.13 and 13.3.1: what leaves a parallel or event-based gateway, or is the default, is not decided by a condition. */
export const conditionIgnored: Rule = {
  id: "condition-ignored",
  group: "connections",
  severity: "warning",
  wants: say`A condition stands only where something is decided.`,
  find: (model) =>
    elementsOfType(model, "sequenceFlow").flatMap((flow) => {
      const source = model.elements.get(flow.sourceRef ?? "");
      if (!flow.conditionExpression || !source) return [];
      const isDefault = source.default === flow.id;
      const undecided = ["parallelGateway", "eventBasedGateway"].includes(source.type) || /Event$/.test(source.type);
      if (!isDefault && !undecided) return [];
      return [
        {
          elements: [flow.id],
          message: isDefault
            ? say`A flow of ${called(model, source)} is its default and has a condition. The default is taken when no condition holds, so its own is never asked. Take it away.`
            : say`A flow of ${called(model, source)} has a condition, but nothing is decided there: all that leaves it is taken. Take the condition away, or use a decision.`,
          repairs: [
            {
              label: say`Take the condition away`,
              commands: [{ type: "setField" as const, id: flow.id, field: "conditionExpression", value: null }],
            },
          ],
        },
      ];
    }),
};
