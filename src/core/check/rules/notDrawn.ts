import { say } from "../../messages";
import { flowNodesIn, isScope, shapesOf } from "../../model";
import { type Rule, saidOf } from "../finding";

export const notDrawn: Rule = {
  id: "not-drawn",
  group: "layout",
  severity: "advice",
  wants: say`What is in the model is on a page.`,
  find: (model) =>
    model.diagrams.size === 0
      ? []
      : [...model.elements].flatMap((scope) => {
          if (!isScope(scope.type)) return [];
          return flowNodesIn(model, scope.id)
            .filter((node) => shapesOf(model, node.id).length === 0)
            .map((node) => ({
              elements: [node.id],
              message: say`${saidOf(model, node)} is in the model but on no page, so nobody sees it. Open the page of its process and draw it, or delete it.`,
              repairs: [{ label: say`Delete this element`, commands: [{ type: "delete" as const, ids: [node.id] }] }],
            }));
        }),
};
