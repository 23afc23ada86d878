export { decodeReferences, escapeAttribute, escapeText } from "./escape";
export { reviseText } from "./reviseText";
export { type SourceElement, sourceTree } from "./sourceTree";
export { TreeKeys } from "./treeKeys";
