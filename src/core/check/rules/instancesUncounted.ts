import { say } from "../../messages";
import { elementsOfType } from "../../model";
import { type Rule, saidOf } from "../finding";

/** BPMN 2.0, 10.3.7: a multi-instance activity says for how many, or for what collection. */
export const instancesUncounted: Rule = {
  id: "instances-uncounted",
  group: "automation",
  severity: "warning",
  wants: say`What is done for each says for how many.`,
  find: (model) =>
    elementsOfType(model, "multiInstanceLoopCharacteristics").flatMap((loop) => {
      if (loop.loopCardinality || loop.loopDataInputRef) return [];
      const activity = model.elements.get(loop.parent ?? "");
      return activity
        ? [
            {
              elements: [activity.id],
              message: say`${saidOf(model, activity)} is done for each of several, but does not say of how many or of what. Give a number or the data in the tray.`,
            },
          ]
        : [];
    }),
};
