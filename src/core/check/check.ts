import type { Model } from "../model";
import { aboutOf } from "./about";
import type { Finding } from "./finding";
import { type Adaption, levelOf, type ProfileName } from "./profiles";
import { rules } from "./registry";
import { behaviourOf } from "./soundness";

export interface CheckOptions {
  readonly profile?: ProfileName;
  readonly adaption?: Adaption;
  /** Only what can take long, or only the rest; both where nothing is said. */
  readonly part?: "behaviour" | "rest";
}

/** Runs the rules of a profile over a model, "review" where none is named. O(rules · elements). */
export function checkModel(model: Model, { profile = "review", adaption, part }: CheckOptions = {}): Finding[] {
  return rules.flatMap((rule) => {
    if (part !== undefined && (rule.group === "behaviour") !== (part === "behaviour")) return [];
    const severity = levelOf(rule, profile, adaption);
    if (severity === "off") return [];
    return rule.find(model).map(({ message, ...found }) => ({
      ...found,
      message: message.text,
      said: message,
      rule: rule.id,
      group: rule.group,
      severity,
      about: aboutOf(model, rule.group, found.elements),
    }));
  });
}

/** What is known of a process' behaviour. `sound` is null where a bound was met before it was. */
export interface ProcessVerdict {
  readonly id: string;
  readonly sound: boolean | null;
  readonly states: number;
  readonly complete: boolean;
}

export function processVerdicts(model: Model): ProcessVerdict[] {
  return behaviourOf(model).map(({ process, sound, states, complete }) => ({ id: process, sound, states, complete }));
}
