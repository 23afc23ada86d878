import { z } from "zod";
import type { Rule, RuleGroup, Severity } from "./finding";

/**
 * What a check is for: a draft is to be right in its logic, a model under review is to be understood as well, one that is handed
 * off is to be executable.
 */
export const profileNames = ["draft", "review", "hand-off"] as const;
export type ProfileName = (typeof profileNames)[number];

export type Level = Severity | "off";
export const levelSchema = z.enum(["error", "warning", "advice", "off"]);

/** How a workspace departs from the profiles as they are shipped: a level by profile and rule. */
export const adaptionSchema = z.partialRecord(z.enum(profileNames), z.record(z.string().max(200), levelSchema));
export type Adaption = z.infer<typeof adaptionSchema>;

/** Groups that a profile does not ask about at all. */
const unasked: { readonly [profile in ProfileName]: readonly RuleGroup[] } = {
  draft: ["completeness", "names", "layout", "guidelines", "automation"],
  review: ["automation"],
  "hand-off": [],
};

/** What makes a draft wrong whatever is still missing, and what a hand-off cannot do without. */
const levels: { readonly [profile in ProfileName]: { readonly [rule: string]: Level } } = {
  draft: { "no-start": "advice", "no-end": "advice", "no-way-in": "advice", "no-way-out": "advice" },
  review: {},
  "hand-off": { "no-called-process": "error", "timer-without-time": "error" },
};

/** The level of a rule in a profile: as the workspace has it, else as the profile, else as the rule itself. */
export function levelOf(rule: Rule, profile: ProfileName, adaption: Adaption = {}): Level {
  const adapted = adaption[profile]?.[rule.id];
  return adapted ?? shippedLevel(rule, profile);
}

/** As it is without the workspace's say. */
export function shippedLevel(rule: Rule, profile: ProfileName): Level {
  const own = levels[profile][rule.id];
  if (own) return own;
  return unasked[profile].includes(rule.group) ? "off" : rule.severity;
}
