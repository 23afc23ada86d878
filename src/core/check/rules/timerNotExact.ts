import { say } from "../../messages";
import { elementsOfType } from "../../model";
import { type Rule, saidOf } from "../finding";

/** BPMN 2.0, 10.5.5, table 10.101: timers are ISO 8601. */
export const timerNotExact: Rule = {
  id: "timer-in-words",
  group: "automation",
  severity: "warning",
  wants: say`A timer can be read by a machine: ISO 8601.`,
  find: (model) =>
    elementsOfType(model, "timerEventDefinition").flatMap((timer) => {
      const text = (timer.timeDate ?? timer.timeDuration ?? timer.timeCycle)?.text.trim() ?? "";
      if (text === "" || /^(R\d*\/|P|\d{4}-\d\d-\d\d)/.test(text)) return [];
      const event = model.elements.get(timer.parent ?? "");
      return [
        {
          elements: [event?.id ?? timer.id],
          message: say`${event ? saidOf(model, event) : say`This timer`} goes off at “${text}”, which no engine can read. Type it again in the tray, which makes ISO 8601 of most words.`,
        },
      ];
    }),
};
