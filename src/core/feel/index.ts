export { type ConditionReading, readCondition } from "./readCondition";
