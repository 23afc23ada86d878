export { alignedTo } from "./alignedTo";
export { meet } from "./meet";
export { type Decision, type MergeConflict, type Merged, type MergeOptions, mergeModels } from "./merge";
export { spelledLike } from "./prefixes";
export { replacementEdits } from "./replacement";
