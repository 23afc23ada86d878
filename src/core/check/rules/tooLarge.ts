import { say } from "../../messages";
import { isFlowNode } from "../../model";
import type { Rule } from "../finding";

/** Source: Mendling, Reijers, van der Aalst (2010), guideline G7: decompose a model with more than 50 elements. */
export const tooLarge: Rule = {
  id: "too-large",
  group: "guidelines",
  severity: "advice",
  wants: say`A page has at most 50 nodes.`,
  find: (model) =>
    [...model.diagrams].flatMap((diagram) => {
      let nodes = 0;
      for (const shape of model.shapes) {
        if (shape.diagram === diagram.id && isFlowNode(model.elements.get(shape.element)?.type)) nodes++;
      }
      if (nodes <= 50 || diagram.element === undefined) return [];
      return [
        {
          elements: [diagram.element],
          message: say`One page shows ${nodes} steps, events and gateways. Above 50, errors become likely and readers give up. Move a part that has a name of its own into a sub-process.`,
        },
      ];
    }),
};
