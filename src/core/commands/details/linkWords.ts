import { z } from "zod";
import { withWords, wordsOf } from "../../model";
import type { Change } from "../kernel/change";

const id = z.string().min(1).max(200);

export const linkWordsSchema = z.object({ type: z.literal("linkWords"), id, marks: z.array(id).max(1000) });
export const unlinkWordsSchema = z.object({ type: z.literal("unlinkWords"), id, marks: z.array(id).max(1000) });

/** Ties an element to marks of a brief: the words it was taken from. */
export function linkWords(change: Change, { id: elementId, marks }: z.infer<typeof linkWordsSchema>): void {
  const element = change.element(elementId);
  const known = wordsOf(element);
  const added = marks.filter((mark, at) => !known.includes(mark) && marks.indexOf(mark) === at);
  if (added.length > 0) change.set("elements", elementId, "extension", withWords(element, [...known, ...added]));
}

export function unlinkWords(change: Change, { id: elementId, marks }: z.infer<typeof unlinkWordsSchema>): void {
  const element = change.element(elementId);
  const kept = wordsOf(element).filter((mark) => !marks.includes(mark));
  change.set("elements", elementId, "extension", withWords(element, kept));
}
