import { readBpmn } from "@/core/bpmn";
import { drawMissingPages } from "@/core/commands";
import { type ChangeGroup, changeGroups, compareModels, takeOver, withNeeded } from "@/core/compare";
import { type SyncChange, type SyncConflict, type Synced, type SyncState, syncModels } from "@/core/handoff";
import { alignedTo, type Decision, type MergeConflict, spelledLike } from "@/core/merge";
import { type Model, type Problem, type StoredModel, toStored } from "@/core/model";
import { type Job, needs } from "./job";

export interface SyncInput {
  /** What both held after the last sync; null where there was none: the model then has changed nothing. */
  readonly base: string | null;
  readonly build: string;
  /** Conflicts decided so far, by their keys. */
  readonly decisions: { readonly [conflict: string]: Decision };
  /** What is taken over into the model: all, some changes by their keys, or nothing. */
  readonly take: "all" | readonly string[] | null;
}

export type SyncOutcome =
  | { readonly problem: { readonly message: string; readonly line?: number; readonly column?: number } }
  | {
      readonly problem: null;
      readonly state: SyncState;
      readonly text: string;
      readonly isRewritten: boolean;
      readonly conflicts: readonly SyncConflict[];
      /** What taking over would change in the model. */
      readonly brings: readonly SyncChange[];
      /** What the model changed since the last sync. */
      readonly sends: readonly SyncChange[];
      /** The model with what was taken over; null where nothing was asked for, or why it could not be. */
      readonly taken: StoredModel | null;
      readonly refused: string | null;
    };

/** What stands in a developers' file, its elements known as the model's: those without ids by their place. */
export const builtModel: Job<
  { readonly build: string },
  { readonly model: StoredModel } | { readonly problem: Problem | undefined }
> = (models, { build }) => {
  const model = needs(models, "model");
  const read = readBpmn(build);
  if (!read.ok) return { problem: read.problems[0] };
  return { model: toStored(drawMissingPages(spelledLike(alignedTo(read.value, model), model))) };
};

const keyOf = ({ element, field }: MergeConflict) => `${element} ${field}`;

/** Holds a model against its build copy: which side changed, what a sync would do to either, and does it where asked. */
export const syncCopy: Job<SyncInput, SyncOutcome> = (models, { base, build, decisions, take }) => {
  const model = needs(models, "model");
  const read = readBpmn(build);
  if (!read.ok) return { problem: problemOf(read.problems[0]) };
  const last = base === null ? model : readBpmn(base);
  const from = "ok" in last ? (last.ok ? last.value : model) : last;
  const options = { decide: (conflict: MergeConflict) => decisions[keyOf(conflict)] ?? ("ours" as const) };
  const synced = syncModels(from, model, { text: build, model: read.value }, options);
  const outcome = spelledLike(synced.model, model);
  const arrived = groupsOf(model, outcome);
  const took = take === null ? null : taken(model, outcome, arrived, take);
  return {
    problem: null,
    state: synced.state,
    text: synced.text,
    isRewritten: synced.isRewritten,
    conflicts: conflictsOf(synced, decisions),
    brings: synced.state === "model changed" ? [] : arrived.groups.map(told),
    sends: groupsOf(spelledLike(from, model), model).groups.map(told),
    taken: took && typeof took !== "string" ? toStored(took) : null,
    refused: typeof took === "string" ? took : null,
  };
};

const told = ({ key, words }: ChangeGroup): SyncChange => ({ key, words });
const problemOf = (problem?: { message: string; line?: number; column?: number }) => ({
  message: problem?.message ?? "It cannot be read.",
  ...(problem?.line !== undefined && { line: problem.line }),
  ...(problem?.column !== undefined && { column: problem.column }),
});

function groupsOf(from: Model, to: Model) {
  const comparison = compareModels(from, to, "id");
  return { pairs: comparison.pairs, groups: changeGroups(from, to, comparison) };
}

const conflictsOf = ({ conflicts }: Synced, decisions: SyncInput["decisions"]): SyncConflict[] =>
  conflicts
    .map((conflict) => ({ ...conflict, key: keyOf(conflict) }))
    .filter(({ key }) => decisions[key] === undefined);

/** The model with what is taken over, or why it cannot be. */
function taken(
  model: Model,
  outcome: Model,
  { pairs, groups }: ReturnType<typeof groupsOf>,
  take: "all" | readonly string[],
): Model | string {
  if (take === "all") return outcome;
  if (!take.every((key) => groups.some((group) => group.key === key)))
    return "What was to be taken over is not there any more. Look at the build copy again.";
  const request = { from: model, to: outcome, pairs, groups, into: "from" as const };
  const done = takeOver(request, withNeeded(request, take));
  return done.ok ? done.model : done.message.text;
}
