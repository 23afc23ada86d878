import {
  type DecisionTable,
  type JoinedRules,
  joinedRules,
  type MissingRules,
  missingRules,
  modelOf,
  openDocument,
  proveTable,
  runTestCases,
  type TableProof,
  type TestOutcome,
  testCasesOf,
} from "@/core/decisions";
import type { Job } from "./job";

/** What a decision's table leaves out, says twice, and could say shorter; and how its test cases go. */
export interface DecisionFindings {
  readonly proof: TableProof | undefined;
  readonly missing: MissingRules | undefined;
  readonly joined: JoinedRules | undefined;
  readonly outcomes: readonly TestOutcome[];
}

/** Looks at one decision of a file, given as its text. */
export const decisionFindings: Job<{ readonly content: string; readonly decision: string }, DecisionFindings> = (
  _,
  { content, decision: id },
) => {
  const opened = openDocument(new TextEncoder().encode(content));
  const model = opened.ok ? modelOf(opened.value) : undefined;
  const decision = model?.decisions.get(id);
  if (!opened.ok || !model || !decision)
    return { proof: undefined, missing: undefined, joined: undefined, outcomes: [] };
  const table = decision.logic.kind === "table" ? (decision.logic as DecisionTable) : undefined;
  const proof = table && proveTable(model, decision, table);
  return {
    proof,
    missing: table && proof?.complete === false ? missingRules(model, table) : undefined,
    joined: table && joinedRules(model, table),
    outcomes: runTestCases(model, decision, testCasesOf(opened.value, id)),
  };
};
