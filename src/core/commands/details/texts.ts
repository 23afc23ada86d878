import { z } from "zod";
import { withNameIn } from "../../model";
import type { Change } from "../kernel/change";

export const nameInSchema = z.object({
  type: z.literal("nameIn"),
  id: z.string().min(1).max(200),
  /** A BCP 47 tag. */
  language: z.string().regex(/^[A-Za-z]{2,3}(?:-[A-Za-z0-9]{2,8})*$/, "A language is a tag such as de or pt-BR."),
  /** "" takes it away. */
  name: z.string().max(2_000),
});

/** Says what an element is called in a language besides the model's own. */
export function nameIn(change: Change, { id, language, name }: z.infer<typeof nameInSchema>): void {
  const element = change.element(id);
  change.set("elements", id, "extension", withNameIn(element, language, name.trim()));
}
