import { z } from "zod";
import { say } from "../../messages";
import { called, canHoldForm, formSchema, withForm } from "../../model";
import { type Change, refuse } from "../kernel/change";

/** What a person fills in at a user task or a start event; null takes it away. */
export const setFormSchema = z.object({
  type: z.literal("setForm"),
  id: z.string().min(1).max(200),
  form: formSchema.nullable(),
});

export function setForm(change: Change, { id, form }: z.infer<typeof setFormSchema>): void {
  const step = change.element(id);
  if (!canHoldForm(step))
    refuse(
      "no-form",
      say`${called(change.model, step)} is not filled in by a person. A user task or a start event has a form.`,
      [id],
    );
  change.set("elements", id, "extension", withForm(step, form ?? undefined));
}
