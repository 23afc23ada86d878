export {
  type Change,
  type ComparedField,
  type Comparison,
  compareModels,
  type FieldChange,
  type Named,
} from "./changes";
export { startToBe } from "./counterparts";
export { isCompared, type MatchBy, matchElements } from "./match";
export { type MergeConflict, type Merged, type MergeOptions, mergeModels } from "./merge";
export { replacementEdits } from "./replacement";
