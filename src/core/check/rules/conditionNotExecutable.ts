import { readCondition } from "../../feel";
import { say } from "../../messages";
import { called, dataInReach, elementsOfType } from "../../model";
import type { Rule } from "../finding";

/** DMN 1.3, chapter 10: a condition in FEEL over data in reach can be decided by a machine. */
export const conditionNotExecutable: Rule = {
  id: "condition-in-words",
  group: "automation",
  severity: "warning",
  wants: say`A condition can be decided by a machine: FEEL over data that is there.`,
  find: (model) =>
    elementsOfType(model, "sequenceFlow").flatMap((flow) => {
      const text = flow.conditionExpression?.text.trim() ?? "";
      if (text === "") return [];
      const read = readCondition(text, dataInReach(model, flow.id));
      const source = model.elements.get(flow.sourceRef ?? "");
      const where = source ? called(model, source) : "this decision";
      if (read.kind === "words")
        return [
          {
            elements: [flow.id],
            message: say`The condition “${text}” at ${where} is words for people, so no engine can decide by it. Write it in FEEL, such as “rated power > 10”.`,
          },
        ];
      if (read.unknown.length === 0) return [];
      return [
        {
          elements: [flow.id],
          message: say`The condition “${text}” at ${where} asks for ${read.unknown.join(", ")}, which no data object here holds. Draw the data, or use a name that is there.`,
        },
      ];
    }),
};
