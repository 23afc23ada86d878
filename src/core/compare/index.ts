export {
  type Change,
  type ComparedField,
  type Comparison,
  compareModels,
  type FieldChange,
  type Named,
} from "./changes";
export { familyOfCompared, isCompared } from "./compared";
export { counterpartsIn, startToBe, withoutLinks } from "./counterparts";
export { type Effect, type EffectId, effectOf } from "./effect";
export { type ChangeGroup, changeGroups, type GroupKind } from "./groups";
export { type ChangeMark, marksOf } from "./marks";
export { type Besides, type MatchBy, matchElements, splitAndMerged } from "./match";
export { movedShapes } from "./movedShapes";
export { type OnePicture, onePicture, type Part } from "./onePicture";
export { type Fault, type Outcome, outcomeOf } from "./outcome";
export { type ChangeState, changeStates, noReason, type Pain, pains, type Reason, reasonSchema } from "./reasons";
export { changesAsCsv, changesAsMarkdown, type Report } from "./report";
export { inIdsOf, type SameIds } from "./sameIds";
export { type Request as TakeOverRequest, type TakenOver, takeOver, withNeeded } from "./takeOver";
export { type TechnicalLine, technicalLines } from "./technicalData";
