import { expose } from "comlink";
import { type CheckOptions, checkModel, type Finding } from "@/core/check";
import { type StoredModel, trustStored } from "@/core/model";

/** A check away from the page one works on: what a process can do takes long to find out where it is tangled. */
const check = {
  /** Everything a check asks. */
  async all(stored: StoredModel, options: CheckOptions): Promise<Finding[]> {
    const { everyRule } = await import("@/core/language");
    return checkModel(trustStored(stored), { ...options, rules: everyRule });
  },
  /** What is found at once, however large the model. */
  quick: async (stored: StoredModel, options: CheckOptions): Promise<Finding[]> =>
    checkModel(trustStored(stored), { ...options, part: "rest" }),
  /** What can take a while: behaviour, and what reads language. */
  async long(stored: StoredModel, options: CheckOptions): Promise<Finding[]> {
    const { languageRules } = await import("@/core/language");
    const model = trustStored(stored);
    return [
      ...checkModel(model, { ...options, part: "behaviour" }),
      ...checkModel(model, { ...options, rules: languageRules }),
    ];
  },
};
export type CheckWorker = typeof check;

expose(check);
