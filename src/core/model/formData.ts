import { z } from "zod";
import type { Element } from "./element";
import { ownNamespace } from "./model";
import { ownNodes, replaced } from "./ownData";

const words = z.string().max(5_000);
const formItemSchema = z.object({
  /** The piece of data, and the part of it: names from the data down. */
  path: z.array(z.string().min(1).max(500)).min(1).max(30),
  label: words.optional(),
  help: words.optional(),
  /** The heading it stands under; items of one group stand together. */
  group: words.optional(),
  isReadOnly: z.boolean().optional(),
  /** A condition in FEEL: shown where it holds. */
  shownWhen: words.optional(),
  /** A condition in FEEL that has to hold when the form is completed, and what is said where it does not. */
  check: words.optional(),
  checkWords: words.optional(),
});
export const formSchema = z.object({ items: z.array(formItemSchema).max(500) });
export type FormItem = z.infer<typeof formItemSchema>;
/** What a person fills in at a step, in its order. */
export type Form = z.infer<typeof formSchema>;

/** The form of a step; undefined where there is none, or somebody wrote one by hand that is none. */
export function formOf(step: Element): Form | undefined {
  const node = ownNodes(step, "form")[0];
  if (!node) return undefined;
  try {
    const text = node.children.map((child) => ("text" in child ? child.text : "")).join("");
    return formSchema.safeParse(JSON.parse(text)).data;
  } catch {
    return undefined;
  }
}

export const withForm = (step: Element, form: Form | undefined) =>
  replaced(
    step,
    "form",
    form
      ? [
          {
            element: {
              name: "lln:form",
              uri: ownNamespace,
              attributes: [],
              children: [{ text: JSON.stringify(form) }],
            },
          },
        ]
      : [],
  );

/** Whether a step is filled in by a person: user tasks, and events a person begins a case with. */
export const canHoldForm = ({ type }: Element): boolean => type === "userTask" || type === "startEvent";
