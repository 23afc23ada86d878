import type { Command } from "../commands";
import { capital, type Said } from "../messages";
import { called, type Element, type Id, type Model } from "../model";

export type Severity = "error" | "warning" | "advice";
/** What a rule is about, as the Check stage groups its findings. */
export type RuleGroup = "connections" | "completeness" | "names" | "layout" | "guidelines" | "behaviour" | "automation";

/** A mend: what its button says, and the commands to perform. */
export interface Repair {
  readonly label: Said;
  readonly commands: readonly Command[];
}

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
  /** The mends, where they are obvious; of several a person chooses. The most likely one comes first. */
  readonly repairs?: readonly Repair[];
  /** For behaviour: the run that leads there. */
  readonly witness?: readonly Id[];
  /** For a case that is stuck: the flows on which what it waits for would have to come. */
  readonly awaited?: readonly Id[];
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

/**
 * What is found now and was not before. A finding that is about some of the elements it was about is the old one, grown smaller.
 * O(before × after).
 */
export const newFindings = (before: readonly Finding[], after: readonly Finding[]): Finding[] =>
  after.filter(
    ({ rule, elements }) =>
      !before.some((old) => old.rule === rule && elements.every((element) => old.elements.includes(element))),
  );
