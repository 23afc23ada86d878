import { say } from "../../messages";
import type { Rule } from "../finding";

export const duplicateId: Rule = {
  id: "duplicate-id",
  group: "connections",
  severity: "error",
  wants: say`Every id stands for one element.`,
  find: (model) =>
    model.notes
      .filter((note) => note.code === "duplicate-id")
      .map((note) => ({
        elements: [note.element],
        message: say`The id “${note.detail}” is given twice in the file, the second time in line ${note.line}. References to it can mean either. Give one of the two another id where the file comes from.`,
      })),
};
