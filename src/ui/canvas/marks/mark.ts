import type { Figure } from "@/core/drawing";
import type { Id } from "@/core/model";
import type { text } from "../../messages";

/** What a mark says; its words stand in the legend. */
export type Meaning = keyof typeof text.marks;

/** Whose pen a mark is drawn with; each has a line style of its own besides its colour. */
export type Tone = "attention" | "accent" | "pencil";

/**
 * One thing that a stage has to say about an element on a drawing: findings, runs, hand-overs, tokens, differences. What it looks like
 * is decided here, once for all stages.
 */
export type Mark = { readonly on: Id; readonly means: Meaning } & (
  | Sign
  | Label
  | { readonly as: "ribbon"; readonly tone: Tone }
  | { readonly as: "dashes" }
  | { readonly as: "frame"; readonly tone: Tone; readonly isThin?: boolean }
  | { readonly as: "token"; readonly count: number }
  /** A token that moves along a flow, once for each step. */
  | { readonly as: "motion"; readonly step: number }
  /** The element itself in another pen than ink. */
  | { readonly as: "pen"; readonly pen: Pen }
  | { readonly as: "arrow"; readonly to: Id }
  /** Drawn as it goes out in pictures and on paper too: what a lens marks. */
  | { readonly as: "drawn"; readonly figure: Figure }
);

export interface Sign {
  readonly as: "sign";
  readonly sign: "error" | "warning" | "hand-over" | "break";
  /** What it says, for who does not see it; without it, what it says is told elsewhere. */
  readonly words?: string;
}

export interface Label {
  readonly as: "label";
  readonly text: string;
  readonly tone: Tone;
  /** At the upper corner where reading begins or where it ends; on a connection always at its middle. */
  readonly at: "start" | "end";
  /** Filled: one of a row of numbers. */
  readonly isFilled?: boolean;
}

/** Of two sides that are compared: only on the old one, or only on the new one. */
export type Pen = "from" | "to";

/** One mark of each meaning there is, in the order in which they were given: what a legend has to explain. Lenses have one of their own. */
export function meaningsOf(marks: readonly Mark[]): Mark[] {
  const first = new Map<Meaning, Mark>();
  for (const mark of marks)
    if (mark.as !== "motion" && mark.as !== "drawn" && !first.has(mark.means)) first.set(mark.means, mark);
  return [...first.values()];
}
