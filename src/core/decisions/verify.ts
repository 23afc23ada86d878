import type { Decision, DecisionModel, DecisionTable, HitPolicy } from "./model";
import { Proof, Unclear } from "./proof";
import { TooMuch } from "./sweep";

/** Data, by input expression, at which what is said can be seen. */
export type Example = { readonly [expression: string]: unknown };

/** What a table leaves out, says twice, and can never say. */
export interface TableProof {
  readonly decision: string;
  readonly hitPolicy: HitPolicy;
  /** Null where a cell cannot be analysed; why stands in the problems. */
  readonly complete: boolean | null;
  readonly gaps: readonly { readonly when: string; readonly example: Example }[];
  /** Pairs of rules, by their numbers from 1, that some input satisfies both. */
  readonly overlaps: readonly {
    readonly rules: readonly [number, number];
    readonly conflict: boolean;
    readonly example: Example;
  }[];
  /** Rules under FIRST that those before them take everything from. */
  readonly hidden: readonly number[];
  readonly problems: readonly string[];
}

/**
 * Proves a table: the inputs no rule takes, the pairs of rules that meet, the rules that are never come to. Each input is cut at all values
 * its cells speak of; within a piece no cell changes its mind, so one value of each decides (a sweep over the rules' boxes, input by input).
 * Null is not looked at.
 * Source of the method: D. Calvanese, M. Dumas, Ü. Laurson, F. M. Maggi, M. Montali, I. Teinemaa, "Semantics, Analysis and Simplification of
 * DMN Decision Tables" (Information Systems 78, 2018), from memory. O(rules² × inputs × pieces), and what the gaps themselves take.
 */
export function proveTable(model: DecisionModel, decision: Decision, table: DecisionTable): TableProof {
  const head = { decision: decision.id, hitPolicy: table.hitPolicy };
  const nothing = { ...head, complete: null, gaps: [], overlaps: [], hidden: [] };
  try {
    const proof = new Proof(model, table);
    const hidden = table.hitPolicy === "FIRST" ? proof.hidden() : [];
    const overlaps = proof.overlaps();
    const gaps = proof.gaps();
    return { ...head, complete: gaps.length === 0, gaps, overlaps, hidden, problems: [] };
  } catch (error) {
    if (error instanceof TooMuch) return { ...nothing, problems: ["The table has too many parts to be looked at."] };
    if (error instanceof Unclear) return { ...nothing, problems: [error.message] };
    throw error;
  }
}

/** Whether two rules that meet are a fault: where only one may match, and where all that match must say the same. */
export const isFaultyOverlap = (hitPolicy: HitPolicy, conflict: boolean): boolean =>
  hitPolicy === "UNIQUE" || (hitPolicy === "ANY" && conflict);
