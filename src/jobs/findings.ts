import { type CheckOptions, checkModel, type Finding, type ProcessVerdict, processVerdicts } from "@/core/check";
import { type Job, needs } from "./job";

export interface FindingsInput extends Pick<CheckOptions, "profile" | "adaption"> {
  /** What is found at once however large the model, what can take a while (how it behaves), or both. */
  readonly part: "quick" | "long" | "all";
}

const parts = { quick: { part: "rest" }, long: { part: "behaviour" }, all: {} } as const;

/** What a check finds in a model. */
export const findings: Job<FindingsInput, Finding[]> = (models, { part, ...options }) =>
  checkModel(needs(models, "model"), { ...options, ...parts[part] });

/** What is known of the behaviour of each process of a model. */
export const soundness: Job<object, ProcessVerdict[]> = (models) => processVerdicts(needs(models, "model"));
