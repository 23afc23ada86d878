import { say } from "../../messages";
import { elementsOfType } from "../../model";
import { type Rule, saidOf } from "../finding";

export const calledProcessMissing: Rule = {
  id: "no-called-process",
  group: "completeness",
  severity: "warning",
  wants: say`A call activity names the process it calls.`,
  find: (model) =>
    elementsOfType(model, "callActivity").flatMap((call) =>
      call.calledElement
        ? []
        : [
            {
              elements: [call.id],
              message: say`${saidOf(model, call)} is drawn as a call but does not say which process it calls. Choose the process in the tray, or make it a task.`,
            },
          ],
    ),
};
