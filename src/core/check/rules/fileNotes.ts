import { say } from "../../messages";
import type { Rule } from "../finding";

export const fileNotes: Rule = {
  id: "unreadable-part",
  group: "connections",
  severity: "warning",
  wants: say`Every part of a file can be understood.`,
  find: (model) =>
    model.notes
      .filter((note) => note.code !== "duplicate-id")
      .map((note) => ({
        elements: [note.element],
        message:
          note.code === "bad-value"
            ? say`Line ${note.line} has ${note.detail}, which is no value the standard knows there. It is kept, but nothing here goes by it. Set it anew.`
            : say`Line ${note.line} has a <${note.detail}> where the standard has no place for one. It is kept as it is, but not shown. Move it to where it belongs.`,
      })),
};
