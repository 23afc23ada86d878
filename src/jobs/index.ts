/** Every long work that can be asked for in the browser and on the server alike. */
import { checklist } from "./checklist";
import { decisionFindings, decisionProposals } from "./decisions";
import { caseOfLog, figuresOfLog, holdLog, repairAll, repairDifference, replayLog } from "./evidence";
import { findings, soundness } from "./findings";
import { followed, forecasts, matters, runLength, staff, vary } from "./forecasts";
import { deviations } from "./lenses";
import {
  compareGroups,
  discoverLog,
  dotsOfLog,
  mapOfLog,
  overviewLog,
  packLog,
  readLog,
  traceOfLog,
  tracesOfLog,
} from "./logs";
import { performAll } from "./perform";
import { tidyPage, writeSteps } from "./steps";
import { walks } from "./walks";

export const jobs = {
  caseOfLog,
  checklist,
  compareGroups,
  decisionFindings,
  decisionProposals,
  deviations,
  discoverLog,
  dotsOfLog,
  figuresOfLog,
  findings,
  followed,
  forecasts,
  holdLog,
  mapOfLog,
  matters,
  overviewLog,
  packLog,
  performAll,
  readLog,
  repairAll,
  repairDifference,
  replayLog,
  runLength,
  soundness,
  staff,
  tidyPage,
  traceOfLog,
  tracesOfLog,
  vary,
  walks,
  writeSteps,
} as const;
export type Jobs = typeof jobs;

export { calledName } from "./called";
export type { DecisionFindings, DecisionProposals } from "./decisions";
export type {
  Fit,
  HeldLog,
  HoldInput,
  LogFigures,
  MatchedActivity,
  Repaired,
  ReplayedLog,
  StepTally,
  ToldDifference,
} from "./evidence";
export type { Forecasted, Staffed, StaffedRow, Unsound, VariedPoint } from "./forecasts";
export { followedWorld } from "./forecasts";
export type { Job, Models, Tell } from "./job";
export {
  type MappedLog,
  notHeld,
  type OfLog,
  type Overviewed,
  type ReadFile,
  type TraceRow,
} from "./logs";
export type { ListWritten, LongList } from "./steps";
export { freshId } from "./steps";

/** What a job of a register is given, besides models, and what it comes to. */
export type InputOf<Register, Name extends keyof Register> = Register[Name] extends (
  models: never,
  input: infer Input,
  tell: never,
) => unknown
  ? Input
  : never;
export type OutputOf<Register, Name extends keyof Register> = Register[Name] extends (
  models: never,
  input: never,
  tell: never,
) => infer Output
  ? Awaited<Output>
  : never;
