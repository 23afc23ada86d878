import { say } from "../../messages";
import { isFlowNode } from "../../model";
import { type Rule, saidOf } from "../finding";

export const defaultFlow: Rule = {
  id: "default-flow",
  group: "connections",
  severity: "error",
  wants: say`A default flow leaves the element that names it.`,
  find: (model) =>
    [...model.elements].flatMap((element) => {
      if (!isFlowNode(element.type) || typeof element.default !== "string") return [];
      const flow = model.elements.get(element.default);
      if (!flow || flow.sourceRef === element.id) return [];
      return [
        {
          elements: [element.id, flow.id],
          message: say`${saidOf(model, element)} has a default flow that leaves another element, so it has none of its own. Choose one of its own flows.`,
          repairs: [
            {
              label: say`Take the wrong default away`,
              commands: [{ type: "setField" as const, id: element.id, field: "default", value: null }],
            },
          ],
        },
      ];
    }),
};
