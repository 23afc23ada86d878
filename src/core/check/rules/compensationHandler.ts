import { say } from "../../messages";
import { elementsOfType, incomingOf, isActivity, outgoingOf, triggerOf } from "../../model";
import { type Rule, saidOf } from "../finding";

/** BPMN 2.0, 10.7: a compensation event leads by an association to one activity that is for compensation and outside the flow. */
export const compensationHandler: Rule = {
  id: "compensation-handler",
  group: "connections",
  severity: "error",
  wants: say`What can be undone has one activity that undoes it, outside the flow.`,
  find: (model) => {
    const associations = elementsOfType(model, "association");
    const events = elementsOfType(model, "boundaryEvent").filter(
      (event) => triggerOf(model, event) === "compensateEventDefinition",
    );
    const lonely = events.flatMap((event) => {
      const handlers = associations.filter((one) => one.sourceRef === event.id);
      const handler = model.elements.get(String(handlers[0]?.targetRef));
      if (handlers.length === 1 && handler?.isForCompensation === true) return [];
      return [
        {
          elements: [event.id],
          message: say`${saidOf(model, event)} says that its step can be undone, but not by what. Lead an association from it to one activity that is for compensation.`,
        },
      ];
    });
    const inFlow = [...model.elements].flatMap((handler) => {
      if (!isActivity(handler.type) || handler.isForCompensation !== true) return [];
      const flows = [...incomingOf(model, handler.id), ...outgoingOf(model, handler.id)];
      if (flows.length === 0) return [];
      return [
        {
          elements: [handler.id],
          message: say`${saidOf(model, handler)} undoes something, so it stands outside the flow; but sequence flows lead to it or from it. Take them away.`,
          repairs: [
            {
              label: say`Take the flows away`,
              commands: [{ type: "delete" as const, ids: flows.map((flow) => flow.id) }],
            },
          ],
        },
      ];
    });
    return [...lonely, ...inFlow];
  },
};
