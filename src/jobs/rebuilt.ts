import { isDeepStrictEqual } from "node:util";
import { fromStored, type LoggedEdits, toStored } from "@/core/model";
import type { Job } from "./job";

/**
 * Whether a kept state can be made anew from an older one and what was logged in between: element for element, in the same order. A
 * model that does not open is not made anew from anything.
 */
export const isRebuilt: Job<{ readonly base: string; readonly edits: string; readonly wanted: string }, boolean> = (
  _,
  { base, edits, wanted },
) => {
  const rebuilt = fromStored(JSON.parse(base), { edits: JSON.parse(edits) as LoggedEdits[] });
  const kept = fromStored(JSON.parse(wanted));
  return rebuilt.ok && kept.ok && isDeepStrictEqual(toStored(rebuilt.value), toStored(kept.value));
};
