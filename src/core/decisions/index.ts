export { answersOf } from "./answers";
export {
  cellProblem,
  expressionProblem,
  type Typed,
  typedTests,
  typedValue,
  wordsOfTests,
  wordsOfValue,
} from "./cellWords";
export { dataTypeOf } from "./dataType";
export { type Decided, decide, inputsNeeded, type Looked, lookAt, topDecisions } from "./decide";
export { testCasesOf, withTestCases } from "./document/cases";
export { type DecisionDocument, documentText, modelOf, openDocument } from "./document/document";
export { type DecisionEdit, edited, tableOf } from "./document/edit";
export { expressionOf, itemOf, logicOf, nameIn, parametersOf, questionOf, typeOfItem } from "./document/item";
export { emptyDocumentText, tableFileText } from "./document/newFile";
export type { InputColumn, NoteColumn, OutputColumn, SheetRule, TableSheet } from "./document/sheet";
export * as sheets from "./document/sheetEdits";
export { type DecisionFileText, decisionModels } from "./fileTexts";
export type { Decision, DecisionModel, DecisionTable } from "./model";
export { namesOf } from "./names";
export { type JoinedRules, joinedRules, type MissingRules, missingRules } from "./propose";
export { readDecisions } from "./read";
export { drawRequirements } from "./requirements";
export {
  runTestCases,
  shownValue,
  suggestedTestCases,
  type TestCase,
  type TestOutcome,
  typedResult,
} from "./testCases";
export { isFaultyOverlap, proveTable, type TableProof } from "./verify";
