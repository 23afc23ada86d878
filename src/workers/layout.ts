import { expose } from "comlink";
import { nanoid } from "nanoid";
import { type Draft, type ListedStep, type NamedEntry, plan, stepSheetOf, writeList } from "@/core/capture";
import { perform } from "@/core/commands";
import { type Edit, type Id, type Problem, type StoredModel, trustStored } from "@/core/model";

export interface LongList {
  readonly model: StoredModel;
  readonly process: Id;
  /** The row behind which the steps go; below 0 for an empty sheet. */
  readonly row: number;
  readonly steps: readonly ListedStep[];
  /** Directory entries by kind and name. */
  readonly entries: ReadonlyMap<string, NamedEntry>;
  /** The page, where it is kept tidy. */
  readonly tidy: Id | undefined;
}

/** What takes long is done away from the page one works on; edits come back, none where something was refused. */
const layout = {
  writeList({ model: stored, process, row, steps, entries, tidy }: LongList): {
    readonly edits: readonly Edit[];
    readonly focus: Id | undefined;
    readonly problems: readonly Problem[];
  } {
    const model = trustStored(stored);
    const newId = (of: string) => `${of}-${nanoid(8).replace(/[^A-Za-z0-9]/g, "x")}`;
    const write = (draft: Draft) => {
      const resolve = (kind: string, name: string) => entries.get(`${kind}\n${name}`) as NamedEntry;
      const last = writeList(draft, steps, { row, rows: stepSheetOf(model, process), process, resolve });
      if (tidy !== undefined) draft.do({ type: "tidy", diagram: tidy });
      return last;
    };
    const made = plan(model, newId, write, tidy !== undefined);
    return made.ok
      ? { edits: made.value.edits, focus: made.value.focus, problems: [] }
      : { edits: [], focus: undefined, problems: made.problems };
  },

  tidyEdits(stored: StoredModel, diagram: string): readonly Edit[] {
    const done = perform(trustStored(stored), { type: "tidy", diagram });
    return done.ok ? done.value.edits : [];
  },
};
export type LayoutWorker = typeof layout;

expose(layout);
