import { say } from "../../messages";
import { isEvent, triggerOf } from "../../model";
import { type Rule, saidOf } from "../finding";

/** BPMN 2.0, 10.5.3 and 10.5.4: cancel events belong to transactions. */
export const cancelOutside: Rule = {
  id: "cancel-outside-transaction",
  group: "connections",
  severity: "error",
  wants: say`Only a transaction is cancelled.`,
  find: (model) =>
    [...model.elements].flatMap((event) => {
      if (!isEvent(event.type) || triggerOf(model, event) !== "cancelEventDefinition") return [];
      const owner = event.type === "boundaryEvent" ? event.attachedToRef : event.parent;
      if (model.elements.get(String(owner))?.type === "transaction") return [];
      return [
        {
          elements: [event.id],
          message: say`${saidOf(model, event)} cancels, which only a transaction can be. Make the sub-process a transaction, or use an error.`,
        },
      ];
    }),
};
