export type { Running } from "./caseBook";
export { byChance, Chance } from "./chance";
export { byData, type Choosing } from "./choosing";
export { isByMachine } from "./courses";
export { Engine, mostSteps } from "./engine";
export {
  type CaseState,
  caseStates,
  type LiveCase,
  type LiveEvent,
  liveCaseSchema,
  type Wait,
  type WaitKind,
} from "./liveCase";
export { anonymised, type LogTrace, logCsv, logXes, roleOf, traceOf } from "./log";
export { begunWith, firstProcess, type RunOutcome, type RunRequest, runCases, runWorld } from "./runCases";
export { sampleValues } from "./sampleData";
export { type StaffRequest, staffedCases } from "./staff";
export { type Answer, answerOf, latencyOf, pauseBefore, type StandIn, standInSchema, usualStandIn } from "./standIns";
export { type Measured, measured } from "./targets";
