export { addBefore, addBehind, addDecision, addParallel, addPath, changeSplit } from "./addRows";
export { cellsOf, type StepCells } from "./cells";
export { Draft, type NewId, type Plan, plan } from "./draft";
export { type FilledColumn, fillCells, filledRows, filledSteps } from "./fillCells";
export { addFirstStep } from "./firstStep";
export { giveRole, type NamedEntry } from "./giveRole";
export { addNext, giveAnswers, leadOn, openWay } from "./goOn";
export { headOf, type SheetHead } from "./head";
export { type ColumnMap, type ColumnMeaning, columnMeanings, recogniseHeadings } from "./headings";
export { canBeLedTo, leadTo, type PathGoal } from "./leadTo";
export { type ListedStep, listOf, readAmount, writeList } from "./list";
export { addMeanwhile, type Happening, happeningsFor } from "./meanwhile";
export { moveRow, moveRowBehind } from "./moveRow";
export { type Resolve, readSheet } from "./readSheet";
export { removeRow } from "./removeRow";
export type { StepLead, StepRow } from "./stepRow";
export { stepSheetOf } from "./stepSheet";
export {
  describing,
  missingIn,
  type TextRow,
  type TextsRead,
  textRows,
  textsAsCsv,
  textsFromCsv,
} from "./texts";
export { notInSheet, writeSheet } from "./writeSheet";
