import { type CheckOptions, type Summary, verdictOf, type Waiver } from "@/core/check";
import type { DecisionFileText } from "@/core/decisions";
import { howAssumed } from "@/core/forecast";
import { type OutwardFacts, outwardFactsOf } from "@/core/landscape";
import { isFlowNode } from "@/core/model";
import type { WalkTest } from "@/core/tokens";
import { findings } from "./findings";
import { type Job, needs } from "./job";
import { walks } from "./walks";

export interface SummaryInput extends Pick<CheckOptions, "profile" | "adaption"> {
  readonly waivers: readonly Waiver[];
  readonly tests: readonly WalkTest[];
  readonly decisions: readonly DecisionFileText[];
}

/** What is kept with a version's head for Home. */
export type CountedVersion = Summary & { readonly outward: OutwardFacts };

/** Counts what a version holds, what a check finds in it that nobody accepted, and how its kept walks go, and what it says of other processes. */
export const summary: Job<SummaryInput, CountedVersion> = async (
  models,
  { waivers, tests, decisions, ...options },
  tell,
) => {
  const model = needs(models, "model");
  const { counts } = verdictOf(await findings(models, { ...options, part: "all" }, tell), waivers);
  const played = await walks(models, { tests, decisions }, tell);
  let steps = 0;
  for (const element of model.elements) if (isFlowNode(element.type)) steps++;
  return {
    steps,
    shapes: model.shapes.size,
    errors: counts.error,
    warnings: counts.warning,
    advice: counts.advice,
    walks: tests.length,
    failingWalks: played.filter((result) => result.verdict !== "passes").length,
    assumed: howAssumed(model),
    outward: outwardFactsOf(model),
  };
};
