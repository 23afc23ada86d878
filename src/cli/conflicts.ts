import { compareModels } from "@/core/compare";
import type { MergeConflict } from "@/core/merge";
import { counted, type Model } from "@/core/model";

/** What a merge came to, as `--json` tells it. */
export function toldMerge(
  [base, ours, theirs, outcome]: readonly [Model, Model, Model, Model],
  conflicts: readonly MergeConflict[],
) {
  const merged = {
    ours: compareModels(base, ours, "id").changes.length,
    theirs: compareModels(base, theirs, "id").changes.length,
    unchanged: compareModels(base, outcome, "id").unchanged,
  };
  return {
    merged,
    conflicts: conflicts.map(({ element, field, ours: own, theirs: their }) => ({
      element,
      field,
      ours: own,
      theirs: their,
    })),
  };
}

/** The same for a person: a line a conflict, then the sum. */
export function writeMerge(
  { merged }: ReturnType<typeof toldMerge>,
  conflicts: readonly MergeConflict[],
  [ours, theirs]: readonly [string, string],
): void {
  for (const conflict of conflicts)
    process.stdout.write(
      `conflict ${conflict.name}: ${conflict.field} is ${words(conflict.ours)} in ${ours} and ${words(conflict.theirs)} in ${theirs}; the first was kept\n`,
    );
  process.stdout.write(
    `${counted(merged.ours, "change")} of ${ours}, ${merged.theirs} of ${theirs}, ${counted(conflicts.length, "conflict")}\n`,
  );
}

const words = (value: unknown) => (typeof value === "string" ? `"${value}"` : JSON.stringify(value));
