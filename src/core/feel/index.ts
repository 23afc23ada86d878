export { caseDataOf } from "./caseData";
export { type CaseData, holds } from "./evaluate";
export { type ConditionReading, readCondition } from "./readCondition";
