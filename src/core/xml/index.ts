export { decodeReferences, escapeAttribute, escapeText } from "./escape";
export { reviseText } from "./reviseText";
export { sameInformation } from "./treeKeys";
