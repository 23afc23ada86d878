import { fromStored, type LoggedEdits, type Problem, toStored } from "@/core/model";
import type { Job } from "./job";

export type Opened = { readonly model: string } | { readonly problem: Problem | undefined };

/** Reads a stored model through its form and migrations, with what was logged since; models go in and out as JSON text. */
export const openedModel: Job<{ readonly snapshot: string; readonly edits: string }, Opened> = (
  _,
  { snapshot, edits },
): Opened => {
  const opened = fromStored(JSON.parse(snapshot), { edits: JSON.parse(edits) as LoggedEdits[] });
  return opened.ok ? { model: JSON.stringify(toStored(opened.value)) } : { problem: opened.problems[0] };
};
