import { say } from "../../messages";
import { isActivity } from "../../model";
import type { Rule } from "../finding";

/** Source: Mendling, Reijers, van der Aalst, "Seven process modeling guidelines (7PMG)", Information and Software Technology 52 (2010), guideline G6; the endings that tell a noun are our own rule of thumb. */
export const verbObject: Rule = {
  id: "verb-and-object",
  group: "names",
  severity: "advice",
  wants: say`A step is named with a verb and an object.`,
  find: (model) =>
    [...model.elements].flatMap((step) => {
      const name = step.name?.trim();
      if (!isActivity(step.type) || step.type === "callActivity" || !name || step.triggeredByEvent === true) return [];
      const words = name.split(/\s+/);
      const [first = ""] = words;
      if (words.length > 1 && !/(tion|ment|ing|ance|ence|ure|al)$/i.test(first)) return [];
      if (
        words.length > 1 &&
        /^(bring|sing|ring|string|seal|deal|heal|measure|ensure|secure|mention|question|position|document|comment|implement|finance|balance|reference)$/i.test(
          first,
        )
      )
        return [];
      return [
        {
          elements: [step.id],
          message: say`“${name}” does not say what is done to what. Use a verb and an object, such as “Check feeder capacity” instead of “Capacity check”.`,
        },
      ];
    }),
};
