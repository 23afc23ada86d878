import { expose } from "comlink";
import { perform } from "@/core/commands";
import { type Edit, type StoredModel, trustStored } from "@/core/model";

/** Tidies a page away from the page one works on. Gives the edits; none where nobody could tidy it. */
const layout = {
  tidyEdits(stored: StoredModel, diagram: string): readonly Edit[] {
    const done = perform(trustStored(stored), { type: "tidy", diagram });
    return done.ok ? done.value.edits : [];
  },
};
export type LayoutWorker = typeof layout;

expose(layout);
