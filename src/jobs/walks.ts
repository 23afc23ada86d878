import { type DecisionFileText, decisionModels } from "@/core/decisions";
import { runWalkTest, type WalkTest, type WalkTestResult, worldWith } from "@/core/tokens";
import { calledModels } from "./called";
import { type Job, needs } from "./job";

/** How kept walks go on a model, with what it calls and what it decides by. */
export const walks: Job<
  { readonly tests: readonly WalkTest[]; readonly decisions: readonly DecisionFileText[] },
  WalkTestResult[]
> = (models, { tests, decisions }, tell) => {
  const world = worldWith(needs(models, "model"), calledModels(models), false, decisionModels(decisions));
  return tests.map((test, at) => {
    tell(at / tests.length);
    return runWalkTest(world, test);
  });
};
