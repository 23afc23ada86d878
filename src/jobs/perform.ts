import { type Command, perform } from "@/core/commands";
import { type Edit, newFault, type Problem, problem } from "@/core/model";
import { type Job, needs } from "./job";

export type Performed =
  | { readonly edits: readonly Edit[]; readonly label: string; readonly remarks: readonly string[] }
  | { readonly refused: readonly Problem[] };

/** Performs commands one after the other, all or none, and looks at what each leaves behind. */
export const performAll: Job<{ readonly commands: readonly Command[] }, Performed> = (
  models,
  { commands },
  tell,
): Performed => {
  const edits: Edit[] = [];
  const remarks: string[] = [];
  let label = "";
  let current = needs(models, "model");
  for (const [at, command] of commands.entries()) {
    tell(at / commands.length);
    const done = perform(current, command);
    if (!done.ok) return { refused: done.problems };
    const fault = newFault(current, done.value.model, done.value.edits);
    if (fault) return { refused: [problem({ code: "refused", message: fault.message })] };
    current = done.value.model;
    edits.push(...done.value.edits);
    remarks.push(...done.value.remarks);
    label ||= done.value.label;
  }
  return { edits, label, remarks };
};
