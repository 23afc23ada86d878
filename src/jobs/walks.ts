import { runWalkTest, type WalkTest, type WalkTestResult, worldWith } from "@/core/tokens";
import { calledModels } from "./called";
import { type Job, needs } from "./job";

/** How kept walks go on a model, with what it calls. */
export const walks: Job<{ readonly tests: readonly WalkTest[] }, WalkTestResult[]> = (models, { tests }, tell) => {
  const world = worldWith(needs(models, "model"), calledModels(models));
  return tests.map((test, at) => {
    tell(at / tests.length);
    return runWalkTest(world, test);
  });
};
