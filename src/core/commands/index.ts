export { withWhatHangsOnThem } from "./arrange/move";
export { drawMissingPages, isTidy, knownTidy, noteTidy } from "./arrange/tidy";
export { referenceOf } from "./details/details";
export { extractedProcess, type NewProcess } from "./flow/extract";
export { copy, type Fragment, fragmentSchema } from "./flow/paste";
export { type Command, commandSchema, type Performed, perform, performed, undoOf } from "./kernel/command";
export { connectionsTouching, courseFor, endsOf, placeAt, spotFor } from "./kernel/page";
export { settled } from "./kernel/settle";
export {
  allKindsThatMayFollow,
  everyKind,
  type KindGroup,
  kindsToBecome,
  kindWords,
  triggerWords,
} from "./kinds/everyKind";
export { canHoldBoundaryEvents, type Kind, kindOf, kindsThatMayFollow } from "./kinds/kinds";
export { kindsIn } from "./kinds/kindsIn";
export { lostBy } from "./kinds/lostBy";
export { modelOfKind, pictureOfKind } from "./kinds/pictureOfKind";
export { possibleKinds } from "./kinds/possibleKinds";
export { allSymbols, type BpmnSymbol, type SymbolGroup } from "./kinds/symbols";
