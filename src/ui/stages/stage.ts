import type { text } from "../messages";

/** How far a stage is, as its sign says. */
export type StageSign =
  | { readonly kind: "none" | "begun" | "done" }
  | { readonly kind: "attention"; readonly count: number };

export const none: StageSign = { kind: "none" };
export const begun: StageSign = { kind: "begun" };
export const done: StageSign = { kind: "done" };
export const attention = (count: number): StageSign => ({ kind: "attention", count });

/** What is known of a version, of which its stages' signs tell. */
export interface Standing {
  readonly brief: { readonly sentences: number; readonly accounted: number; readonly asks?: readonly unknown[] } | null;
  /** Flow nodes; more than three are as good as three. */
  readonly nodes: number;
  /** Findings nobody accepted; undefined while they are not known yet. */
  readonly open: { readonly errors: number; readonly warnings: number } | undefined;
  readonly walks: number;
  readonly failingWalks: number;
  /** How much is assumed for a forecast. */
  readonly assumed: "nothing" | "something" | "enough";
  /** Versions of its process, itself among them. */
  readonly versions: number;
  readonly isCopy: boolean;
  readonly handedOff: number;
  /** Runs that go on, and what cannot go on in them. */
  readonly live: { readonly runs: number; readonly incidents: number; readonly logs: number };
}

/** A stage of the work on a version. */
export interface Stage {
  /** Its name in addresses. */
  readonly name: string;
  /** What it is called, among the words of the interface. */
  readonly words: keyof typeof text.stages;
  readonly sign: (at: Standing) => StageSign;
}
