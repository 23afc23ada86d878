import { type Rule, rules } from "../check";
import { eventState } from "./eventState";

/**
 * Rules that read names as language. They stand apart because the package they read with is larger than all other rules: what runs on
 * the page one works on does without it, and asks a worker.
 */
export const languageRules: readonly Rule[] = [eventState];
/** Everything a check asks. */
export const everyRule: readonly Rule[] = [...rules, ...languageRules];
