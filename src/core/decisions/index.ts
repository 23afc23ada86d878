export { type Decided, decide, topDecisions } from "./decide";
export type { Decision, DecisionModel, DecisionTable } from "./model";
export { readDecisions } from "./read";
export { proveTable, type TableProof } from "./verify";
