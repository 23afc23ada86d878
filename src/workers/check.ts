import { expose } from "comlink";
import { type CheckOptions, checkModel, type Finding } from "@/core/check";
import { everyRule, languageRules } from "@/core/language";
import { type StoredModel, trustStored } from "@/core/model";

/** A check away from the page one works on: what a process can do takes long to find out where it is tangled. */
const check = {
  /** Everything a check asks. */
  all: (stored: StoredModel, options: CheckOptions): Finding[] =>
    checkModel(trustStored(stored), { ...options, rules: everyRule }),
  /** What the page does not ask itself: behaviour, and what reads language. */
  long(stored: StoredModel, options: CheckOptions): Finding[] {
    const model = trustStored(stored);
    return [
      ...checkModel(model, { ...options, part: "behaviour" }),
      ...checkModel(model, { ...options, rules: languageRules }),
    ];
  },
};
export type CheckWorker = typeof check;

expose(check);
