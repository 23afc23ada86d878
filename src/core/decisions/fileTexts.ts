import { modelOf, openDocument } from "./document/document";
import type { DecisionModel } from "./model";

/** A file of decisions as its text, by its id in the workspace. */
export interface DecisionFileText {
  readonly id: string;
  readonly content: string;
}

/** What files of decisions say, by their ids; one that cannot be read is left out. O(length). */
export function decisionModels(files: readonly DecisionFileText[]): ReadonlyMap<string, DecisionModel> {
  return new Map(
    files.flatMap(({ id, content }) => {
      const opened = openDocument(new TextEncoder().encode(content));
      return opened.ok ? [[id, modelOf(opened.value)] as const] : [];
    }),
  );
}
