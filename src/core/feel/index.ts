export { type CaseData, holds } from "./evaluate";
export { type ConditionReading, readCondition } from "./readCondition";
