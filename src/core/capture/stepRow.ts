import type { Id } from "../model";

/**
 * One line of a step sheet. Read from top to bottom, a step is followed by the next row of the same depth, unless a row between
 * them says otherwise:
 *
 * - `step`: a flow node. Every flow node of the sheet is in exactly one such row.
 * - `path`: one way out of a step that has several. Its rows stand indented below it and lead to the row after the last path,
 *   unless they say otherwise. The main path's rows (`isMain`) are not indented: they are the sheet going on.
 * - `jump`: the flow goes to a row elsewhere, forwards or back.
 * - `stop`: the path ends here without an end event.
 */
export type StepRow = {
  /** The same as long as what it shows is there. */
  readonly id: string;
  readonly depth: number;
  /** The process or sub-process whose flow it belongs to. */
  readonly scope: Id;
} & (
  | {
      readonly kind: "step";
      readonly element: Id;
      /** "3", "3a1" on the first path of step 3, "3.1" inside sub-process 3; empty for what only begins, joins or ends. */
      readonly number: string;
      readonly lead: StepLead;
    }
  | { readonly kind: "path"; readonly flow: Id; readonly of: Id; readonly isMain: boolean; readonly letter: string }
  | { readonly kind: "jump"; readonly flow: Id; readonly to: Id; readonly isBack: boolean }
  | { readonly kind: "stop"; readonly element: Id }
);

/** How a step's row is reached: from the row above, as a beginning, at the edge of a step, or by nothing. */
export type StepLead = "flow" | "start" | "edge" | "apart";
