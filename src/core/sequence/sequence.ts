import type { Id } from "../model";

/** Who takes part: a role, a party outside, an IT system, or a service. */
export interface Lifeline {
  readonly id: string;
  readonly name: string;
  readonly kind: "role" | "party" | "system" | "service";
}

/** The frames of UML 2.5 sequence diagrams that are used (17.6.3, interaction operators; from memory). */
export type Operator = "alt" | "opt" | "loop" | "par" | "break" | "ref";

export type SequenceLine =
  | {
      readonly kind: "message";
      /** The step, event or message flow it comes from. */
      readonly element: Id;
      readonly from: string;
      readonly to: string;
      readonly label: string;
      readonly isAnswer: boolean;
    }
  | {
      readonly kind: "frame";
      /** The gateway, event or activity it comes from. */
      readonly element: Id;
      readonly operator: Operator;
      readonly operands: readonly { readonly guard: string; readonly lines: readonly SequenceLine[] }[];
    };

/** Who calls whom in which order. */
export interface Sequence {
  readonly lifelines: readonly Lifeline[];
  readonly lines: readonly SequenceLine[];
  /** There is more than is told. */
  readonly isCut: boolean;
}

/** So many lines are told at most. */
export const mostLines = 400;
