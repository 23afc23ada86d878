import { say } from "../../messages";
import { elementsOfType } from "../../model";
import { type Rule, saidOf } from "../finding";

export const timerEmpty: Rule = {
  id: "timer-without-time",
  group: "completeness",
  severity: "warning",
  wants: say`A timer says when.`,
  find: (model) =>
    elementsOfType(model, "timerEventDefinition").flatMap((timer) => {
      if (timer.timeDate?.text.trim() || timer.timeDuration?.text.trim() || timer.timeCycle?.text.trim()) return [];
      const event = model.elements.get(timer.parent ?? "");
      return [
        {
          elements: [event?.id ?? timer.id],
          message: say`${event ? saidOf(model, event) : say`This timer`} does not say when it goes off. Nobody can run or forecast it. Enter a date, a duration or a cycle in the tray.`,
        },
      ];
    }),
};
