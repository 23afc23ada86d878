export { caseDataOf, type ReadValue, readValue } from "./caseData";
export { type DataType, typesAsked } from "./dataTypes";
export { type CaseData, holds, valueFor } from "./evaluate";
export { type ConditionReading, readCondition } from "./readCondition";
export { renamedIn } from "./renamed";
