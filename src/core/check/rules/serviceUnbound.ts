import { say } from "../../messages";
import { isA } from "../../model";
import { type Rule, saidOf } from "../finding";

/** BPMN 2.0, 10.3.3: a service task names the operation it calls; a script task holds its script. */
export const serviceUnbound: Rule = {
  id: "nothing-to-run",
  group: "automation",
  severity: "warning",
  wants: say`A step that runs by itself says what runs.`,
  find: (model) =>
    [...model.elements].flatMap((step) => {
      if (isA(step, "serviceTask", "sendTask", "receiveTask") && !step.operationRef && !step.messageRef)
        return [
          {
            elements: [step.id],
            message: say`${saidOf(model, step)} is done by a system, but names no operation and no message. Bind it to the operation of a service.`,
          },
        ];
      if (step.type === "scriptTask" && !String(step.script ?? "").trim())
        return [
          {
            elements: [step.id],
            message: say`${saidOf(model, step)} is a script, but holds none. Write it, or use another kind of step.`,
          },
        ];
      return [];
    }),
};
