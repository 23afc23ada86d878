import { isEvent, positionOf, triggerIsAllowed, triggerOf, wordFor } from "../../model";
import { type Rule, saidOf } from "../finding";

/** BPMN 2.0, table 10.93. */
export const eventPosition: Rule = {
  id: "event-position",
  group: "connections",
  severity: "error",
  wants: "An event has a trigger the standard allows where the event stands.",
  find: (model) =>
    [...model.elements].flatMap((element) => {
      if (!isEvent(element.type) || element.type === "implicitThrowEvent" || triggerIsAllowed(model, element))
        return [];
      const trigger = triggerOf(model, element);
      return [
        {
          elements: [element.id],
          message: `${saidOf(model, element)} has ${trigger === "none" ? "no trigger" : `the trigger ${wordFor(trigger)}`}, which the standard does not allow for this event (${positionOf(model, element)}). No engine will run it. Choose another trigger.`,
        },
      ];
    }),
};
