export {
  type Change,
  type ComparedField,
  type Comparison,
  compareModels,
  type FieldChange,
  type Named,
} from "./changes";
export { isCompared } from "./compared";
export { startToBe } from "./counterparts";
export { type ChangeGroup, changeGroups, type GroupKind } from "./groups";
export { type Besides, type MatchBy, matchElements, splitAndMerged } from "./match";
export { type MergeConflict, type Merged, type MergeOptions, mergeModels } from "./merge";
export type { Phrase } from "./phrases";
export { replacementEdits } from "./replacement";
export { inIdsOf, type SameIds } from "./sameIds";
export { type Request as TakeOverRequest, type TakenOver, takeOver, withNeeded } from "./takeOver";
