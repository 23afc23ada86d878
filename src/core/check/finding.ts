import type { Command } from "../commands";
import { capital, type Said } from "../messages";
import { called, type Element, type Id, type Model } from "../model";

export type Severity = "error" | "warning" | "advice";
/** What a rule is about, as the Check stage groups its findings. */
export type RuleGroup = "connections" | "completeness" | "names" | "layout" | "guidelines" | "behaviour" | "automation";

/** One thing the check has to say: what, why it matters, how to mend it. */
export interface Finding {
  readonly rule: string;
  readonly group: RuleGroup;
  readonly severity: Severity;
  readonly elements: readonly Id[];
  /** What it says, in English. */
  readonly message: string;
  /** The same as code and data, for other languages. */
  readonly said: Said;
  /** The mend, where there is an obvious one: commands to perform, and what the button says. */
  readonly repair?: { readonly label: Said; readonly commands: readonly Command[] };
  /** For behaviour: the run that leads there. */
  readonly witness?: readonly Id[];
  /** What it depends on; see `aboutOf`. */
  readonly about: string;
}

/** What a rule finds; the check adds whose it is. */
export type Found = Omit<Finding, "rule" | "group" | "severity" | "about" | "message" | "said"> & {
  readonly message: Said;
};

export interface Rule {
  readonly id: string;
  readonly group: RuleGroup;
  readonly severity: Severity;
  /** What the rule wants, in a sentence for the list of rules. */
  readonly wants: Said;
  readonly find: (model: Model) => readonly Found[];
}

/** An element at the beginning of a sentence. */
export const saidOf = (model: Model, element: Element): Said => capital(called(model, element));

/** A finding's name: rule and elements. A waiver is for one such name, as long as what it was about has not changed. */
export function keyOf(finding: Pick<Finding, "rule" | "elements">): string {
  return `${finding.rule}:${[...finding.elements].sort().join(",")}`;
}
