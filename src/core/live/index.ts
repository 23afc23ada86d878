export type { Running } from "./caseBook";
export { byChance, Chance } from "./chance";
export { byData, type Choosing } from "./choosing";
export { type ControlChart, controlChart, type Unusual } from "./controlChart";
export { isByMachine, nameOfAwaited } from "./courses";
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
export { type CaseHistory, type MeasuredRun, type MeasuredStep, measuredRun, spreadOf } from "./measuring";
export { type Moved, movedCase } from "./moving";
export { begunWith, firstProcess, type RunOutcome, type RunRequest, runCases, runWorld } from "./runCases";
export { sampleValues } from "./sampleData";
export { type StaffRequest, staffedCases } from "./staff";
export { type Answer, answerOf, latencyOf, pauseBefore, type StandIn, standInSchema, usualStandIn } from "./standIns";
export { storesOf } from "./stores";
export { type Measured, measured, targetValues } from "./targets";
export { startAgain, startsSet, type TimerSet } from "./timers";
