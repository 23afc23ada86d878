import { runWalkTest, type WalkTest, type WalkTestResult, worldWith } from "@/core/tokens";
import { type Job, needs } from "./job";

/** The name of a model that is called, among the models of a job. */
const calledPrefix = "called ";
export const calledName = (calls: string) => calledPrefix + calls;

/** How kept walks go on a model, with what it calls. */
export const walks: Job<{ readonly tests: readonly WalkTest[] }, WalkTestResult[]> = (models, { tests }, tell) => {
  const called = Object.entries(models).flatMap(([name, model]) =>
    name.startsWith(calledPrefix) ? [[name.slice(calledPrefix.length), model] as const] : [],
  );
  const world = worldWith(needs(models, "model"), new Map(called));
  return tests.map((test, at) => {
    tell(at / tests.length);
    return runWalkTest(world, test);
  });
};
