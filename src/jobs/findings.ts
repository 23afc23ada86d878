import { type CheckOptions, checkModel, type Finding, type ProcessVerdict, processVerdicts } from "@/core/check";
import { type Job, needs } from "./job";

export interface FindingsInput extends Pick<CheckOptions, "profile" | "adaption"> {
  /** What is found at once however large the model, what can take a while (behaviour, and what reads language), or both. */
  readonly part: "quick" | "long" | "all";
}

/** What a check finds in a model. */
export const findings: Job<FindingsInput, Finding[]> = async (models, { part, ...options }, tell) => {
  const model = needs(models, "model");
  const quick = part === "long" ? [] : checkModel(model, { ...options, part: "rest" });
  if (part === "quick") return quick;
  tell(0.1);
  const behaviour = checkModel(model, { ...options, part: "behaviour" });
  tell(0.8);
  // What reads language is large; only who asks for it loads it.
  const { everyRule, languageRules } = await import("@/core/language");
  // All of it in the order of the rules, as a check that is done in one go has it.
  const found = [...quick, ...behaviour, ...checkModel(model, { ...options, rules: languageRules })];
  const order = new Map(everyRule.map((rule, at) => [rule.id, at]));
  return found.sort((one, other) => (order.get(one.rule) ?? 0) - (order.get(other.rule) ?? 0));
};

/** What is known of the behaviour of each process of a model. */
export const soundness: Job<object, ProcessVerdict[]> = (models) => processVerdicts(needs(models, "model"));
