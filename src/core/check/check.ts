import type { Model } from "../model";
import { aboutOf } from "./about";
import { type Finding, keyOf, type Rule, type Severity } from "./finding";
import { type Adaption, levelOf, type ProfileName } from "./profiles";
import { rules as quickRules } from "./registry";
import { behaviourOf } from "./soundness";

export interface CheckOptions {
  readonly profile?: ProfileName;
  readonly adaption?: Adaption;
  /** The rules to ask, where not only those that need no language. */
  readonly rules?: readonly Rule[];
  /** Only what can take long, or only the rest; both where nothing is said. */
  readonly part?: "behaviour" | "rest";
}

/** Runs the rules of a profile over a model, "review" where none is named. O(rules · elements). */
export function checkModel(
  model: Model,
  { profile = "review", adaption, part, rules = quickRules }: CheckOptions = {},
): Finding[] {
  return rules.flatMap((rule) => {
    if (part !== undefined && (rule.group === "behaviour") !== (part === "behaviour")) return [];
    const severity = levelOf(rule, profile, adaption);
    if (severity === "off") return [];
    return rule.find(model).map((said) => ({
      ...said,
      rule: rule.id,
      group: rule.group,
      severity,
      about: aboutOf(model, rule.group, said.elements),
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

/** A finding accepted by somebody, with the reason. */
export interface Waiver {
  readonly finding: string;
  /** What the finding was about when it was accepted. */
  readonly about: string;
  readonly reason: string;
  readonly member: string;
  readonly at: string;
}

export interface Verdict {
  readonly counts: { readonly [severity in Severity]: number };
  /** Errors nobody has accepted; while there are any, nothing is handed off. */
  readonly openErrors: readonly Finding[];
  readonly waived: readonly { readonly finding: Finding; readonly waiver: Waiver }[];
}

/** The waiver that holds for a finding: one of its name, given when it was about what it is about now. */
export function waiverFor(finding: Finding, waivers: readonly Waiver[]): Waiver | undefined {
  const key = keyOf(finding);
  return waivers.find((waiver) => waiver.finding === key && waiver.about === finding.about);
}

export function verdictOf(findings: readonly Finding[], waivers: readonly Waiver[]): Verdict {
  const waived = findings.flatMap((finding) => {
    const waiver = waiverFor(finding, waivers);
    return waiver ? [{ finding, waiver }] : [];
  });
  const accepted = new Set(waived.map(({ finding }) => finding));
  const open = findings.filter((finding) => !accepted.has(finding));
  const count = (severity: Severity) => open.filter((finding) => finding.severity === severity).length;
  return {
    counts: { error: count("error"), warning: count("warning"), advice: count("advice") },
    openErrors: open.filter((finding) => finding.severity === "error"),
    waived,
  };
}
