import type { Model } from "../model";
import { type Finding, keyOf, type Severity } from "./finding";
import { rules } from "./registry";
import { behaviourOf } from "./soundness";

/** Runs every rule over a model. O(rules · elements). */
export function checkModel(model: Model): Finding[] {
  return rules.flatMap((rule) =>
    rule.find(model).map((said) => ({ ...said, rule: rule.id, group: rule.group, severity: rule.severity })),
  );
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

export function verdictOf(findings: readonly Finding[], waivers: readonly Waiver[]): Verdict {
  const byKey = new Map(waivers.map((waiver) => [waiver.finding, waiver]));
  const waived = findings.flatMap((finding) => {
    const waiver = byKey.get(keyOf(finding));
    return waiver ? [{ finding, waiver }] : [];
  });
  const open = findings.filter((finding) => !byKey.has(keyOf(finding)));
  const count = (severity: Severity) => open.filter((finding) => finding.severity === severity).length;
  return {
    counts: { error: count("error"), warning: count("warning"), advice: count("advice") },
    openErrors: open.filter((finding) => finding.severity === "error"),
    waived,
  };
}
