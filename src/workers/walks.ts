import { expose } from "comlink";
import { type Id, type StoredModel, trustStored } from "@/core/model";
import { runWalkTest, type WalkTest, type WalkTestResult, worldWith } from "@/core/tokens";

/** Kept walks are played again away from the page one works on. */
const walks = {
  /** How each walk goes on a model, with what that calls by process. */
  run(
    stored: StoredModel,
    called: readonly (readonly [Id, StoredModel])[],
    tests: readonly WalkTest[],
  ): readonly WalkTestResult[] {
    const world = worldWith(
      trustStored(stored),
      new Map(called.map(([process, model]) => [process, trustStored(model)])),
    );
    return tests.map((test) => runWalkTest(world, test));
  },
};
export type WalksWorker = typeof walks;

expose(walks);
