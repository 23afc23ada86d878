import {
  type Decision,
  type DecisionDocument,
  type DecisionModel,
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

/** One decision of a file, given as its text. */
interface Asked {
  readonly content: string;
  readonly decision: string;
}

/** What a decision's table leaves out and says twice, and how its test cases go. */
export interface DecisionFindings {
  readonly proof: TableProof | undefined;
  readonly outcomes: readonly TestOutcome[];
}

/** What would make a table whole, or shorter. */
export interface DecisionProposals {
  readonly missing: MissingRules | undefined;
  readonly joined: JoinedRules | undefined;
}

interface Opened {
  readonly document: DecisionDocument;
  readonly model: DecisionModel;
  readonly decision: Decision;
  readonly table: DecisionTable | undefined;
}
function opened({ content, decision: id }: Asked): Opened | undefined {
  const read = openDocument(new TextEncoder().encode(content));
  const model = read.ok ? modelOf(read.value) : undefined;
  const decision = model?.decisions.get(id);
  if (!read.ok || !model || !decision) return undefined;
  return { document: read.value, model, decision, table: decision.logic.kind === "table" ? decision.logic : undefined };
}

export const decisionFindings: Job<Asked, DecisionFindings> = (_, asked) => {
  const open = opened(asked);
  if (!open) return { proof: undefined, outcomes: [] };
  const { document, model, decision, table } = open;
  return {
    proof: table && proveTable(model, decision, table),
    outcomes: runTestCases(model, decision, testCasesOf(document, decision.id)),
  };
};

/** Asked for behind the proof: it can take longer than that. */
export const decisionProposals: Job<Asked, DecisionProposals> = (_, asked) => {
  const open = opened(asked);
  if (!open?.table) return { missing: undefined, joined: undefined };
  return { missing: missingRules(open.model, open.table), joined: joinedRules(open.model, open.table) };
};
