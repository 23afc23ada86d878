import { say } from "../../messages";
import { brokenRules, elementsOfType } from "../../model";
import type { Rule } from "../finding";

/** BPMN 2.0, table 7.3. */
export const sequenceFlowRules: Rule = {
  id: "sequence-flow-rule",
  group: "connections",
  severity: "error",
  wants: say`Sequence flows join what the standard lets them join.`,
  find: (model) =>
    elementsOfType(model, "sequenceFlow").flatMap((flow) => {
      const source = model.elements.get(flow.sourceRef ?? "");
      const target = model.elements.get(flow.targetRef ?? "");
      if (!source || !target) return [];
      return brokenRules(model, "sequenceFlow", source, target).map((problem) => ({
        elements: [flow.id],
        message: problem.said,
        repairs: [{ label: say`Delete this flow`, commands: [{ type: "delete" as const, ids: [flow.id] }] }],
      }));
    }),
};
