import { say } from "../../messages";
import { brokenRules, elementsOfType } from "../../model";
import type { Rule } from "../finding";

/** BPMN 2.0, table 7.4. */
export const messageFlowRules: Rule = {
  id: "message-flow-rule",
  group: "connections",
  severity: "error",
  wants: say`Message flows join two pools at ends that can send and receive.`,
  find: (model) =>
    elementsOfType(model, "messageFlow").flatMap((flow) => {
      const source = model.elements.get(flow.sourceRef ?? "");
      const target = model.elements.get(flow.targetRef ?? "");
      if (!source || !target) return [];
      return brokenRules(model, "messageFlow", source, target).map((problem) => ({
        elements: [flow.id],
        message: problem.said,
        repairs: [{ label: say`Delete this message flow`, commands: [{ type: "delete" as const, ids: [flow.id] }] }],
      }));
    }),
};
