export { type Command, commandSchema, type Performed, perform, undoOf } from "./command";
export { referenceOf } from "./details";
export {
  allKindsThatMayFollow,
  everyKind,
  type KindGroup,
  kindsToBecome,
  kindWords,
  triggerWords,
} from "./everyKind";
export { extractedProcess, type NewProcess } from "./extract";
export { canHoldBoundaryEvents, type Kind, kindOf, kindsThatMayFollow } from "./kinds";
export { withWhatHangsOnThem } from "./move";
export { connectionsTouching, courseFor, endsOf, placeAt } from "./page";
export { copy, type Fragment, fragmentSchema } from "./paste";
export { modelOfKind, pictureOfKind } from "./pictureOfKind";
export { settled } from "./settle";
export { allSymbols, type BpmnSymbol, type SymbolGroup } from "./symbols";
export { drawMissingPages, isTidy, knownTidy, noteTidy } from "./tidy";
