import { nanoid } from "nanoid";
import { type Draft, type ListedStep, type NamedEntry, plan, stepSheetOf, writeList } from "@/core/capture";
import { perform } from "@/core/commands";
import type { Edit, Id, Problem } from "@/core/model";
import { type Job, needs } from "./job";

export interface LongList {
  readonly process: Id;
  /** The row behind which the steps go; below 0 for an empty sheet. */
  readonly row: number;
  readonly steps: readonly ListedStep[];
  /** Directory entries by kind and name. */
  readonly entries: ReadonlyMap<string, NamedEntry>;
  /** The page, where it is kept tidy. */
  readonly tidy: Id | undefined;
}

export interface ListWritten {
  readonly edits: readonly Edit[];
  readonly focus: Id | undefined;
  readonly problems: readonly Problem[];
}

/** Letters and digits that no other id ends in. */
export const freshId = (of: string) => `${of}-${nanoid(8).replace(/[^A-Za-z0-9]/g, "x")}`;

/** Writes a list of steps into a sheet; the edits come back, none where something was refused. */
export const writeSteps: Job<LongList, ListWritten> = (models, { process, row, steps, entries, tidy }) => {
  const model = needs(models, "model");
  const write = (draft: Draft) => {
    const resolve = (kind: string, name: string) => entries.get(`${kind}\n${name}`) as NamedEntry;
    const last = writeList(draft, steps, { row, rows: stepSheetOf(model, process), process, resolve });
    if (tidy !== undefined) draft.do({ type: "tidy", diagram: tidy });
    return last;
  };
  const made = plan(model, freshId, write, tidy !== undefined);
  return made.ok
    ? { edits: made.value.edits, focus: made.value.focus, problems: [] }
    : { edits: [], focus: undefined, problems: made.problems };
};

/** The edits that tidy a page. */
export const tidyPage: Job<{ readonly diagram: Id }, readonly Edit[]> = (models, { diagram }) => {
  const done = perform(needs(models, "model"), { type: "tidy", diagram });
  return done.ok ? done.value.edits : [];
};
