import { say } from "../../messages";
import { flowNodesIn, isSubProcess, triggerOf } from "../../model";
import { type Rule, saidOf } from "../finding";

/** BPMN 2.0, 10.3.5 and 10.5.2: an embedded sub-process begins with a none start, an event sub-process with one that has a trigger. */
export const subProcessStart: Rule = {
  id: "sub-process-start",
  group: "connections",
  severity: "error",
  wants: say`A sub-process begins without a trigger, an event sub-process with exactly one.`,
  find: (model) =>
    [...model.elements].flatMap((sub) => {
      if (!isSubProcess(sub.type)) return [];
      const starts = flowNodesIn(model, sub.id).filter((node) => node.type === "startEvent");
      const triggered = starts.filter((start) => triggerOf(model, start) !== "none");
      if (sub.triggeredByEvent === true) {
        if (starts.length === 1 && triggered.length === 1) return [];
        return [
          {
            elements: [sub.id],
            message: say`${saidOf(model, sub)} begins when something happens, so it needs exactly one start event with a trigger; it has ${triggered.length}. Say what it begins with.`,
          },
        ];
      }
      return triggered.map((start) => ({
        elements: [start.id],
        message: say`${saidOf(model, start)} has a trigger inside ${sub.name ? say`“${sub.name}”` : say`a sub-process`}, which begins when the flow comes to it. Use a start without a trigger, or make it an event sub-process.`,
      }));
    }),
};
