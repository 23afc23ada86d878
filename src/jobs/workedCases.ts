import { type DecisionFileText, decisionModels } from "@/core/decisions";
import { type LiveCase, type LiveEvent, runWorld, staffedCases } from "@/core/live";
import type { Id } from "@/core/model";
import { scenariosOf } from "@/core/scenario";
import { calledModels } from "./called";
import { type Job, needs } from "./job";

/** A case as it stands once simulated people have worked it, with all that happened in it. */
export interface WorkedCase {
  readonly began: number;
  readonly content: LiveCase;
  readonly events: readonly LiveEvent[];
}

/** Cases that simulated people work for some time, after the first scenario of their model. */
export const workedCases: Job<
  {
    readonly process: Id;
    readonly decisions: readonly DecisionFileText[];
    readonly seed: number;
    /** Milliseconds since 1970. */
    readonly from: number;
    readonly until: number;
    readonly most: number;
  },
  WorkedCase[]
> = (models, { process, decisions, ...request }, tell) => {
  const model = needs(models, "model");
  const [scenario] = scenariosOf(model);
  const world = runWorld(model, calledModels(models), decisionModels(decisions));
  const found: WorkedCase[] = [];
  for (const { began, engine } of staffedCases(world, process, { ...request, scenario })) {
    engine.now = request.until;
    found.push({ began, content: engine.saved(), events: engine.events });
    tell(found.length / request.most);
  }
  return found;
};
