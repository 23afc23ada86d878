export { type Command, commandSchema, type Performed, perform, undoOf } from "./command";
export { canHoldBoundaryEvents, type Kind, kindOf, kindsThatMayFollow } from "./kinds";
export { withWhatHangsOnThem } from "./move";
export { connectionsTouching, courseFor, endsOf, placeAt } from "./page";
export { copy, type Fragment, fragmentSchema } from "./paste";
export { drawMissingPages, isTidy, knownTidy, noteTidy } from "./tidy";
