import { say } from "../../messages";
import { isEvent, positionOf, termFor, triggerIsAllowed, triggerOf } from "../../model";
import { type Rule, saidOf } from "../finding";

/** BPMN 2.0, table 10.93. */
export const eventPosition: Rule = {
  id: "event-position",
  group: "connections",
  severity: "error",
  wants: say`An event has a trigger the standard allows where the event stands.`,
  find: (model) =>
    [...model.elements].flatMap((element) => {
      if (!isEvent(element.type) || element.type === "implicitThrowEvent" || triggerIsAllowed(model, element))
        return [];
      const trigger = triggerOf(model, element);
      return [
        {
          elements: [element.id],
          message: say`${saidOf(model, element)} has ${trigger === "none" ? say`no trigger` : say`the trigger ${termFor(trigger)}`}, which the standard does not allow for this event (${positionOf(model, element)}). No engine will run it. Choose another trigger.`,
        },
      ];
    }),
};
