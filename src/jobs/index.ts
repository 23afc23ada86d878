/** Every long work that can be asked for in the browser and on the server alike. */
import { checklist } from "./checklist";
import { decisionFindings, decisionProposals } from "./decisions";
import { findings, soundness } from "./findings";
import { followed, forecasts, matters, runLength, staff, vary } from "./forecasts";
import { performAll } from "./perform";
import { tidyPage, writeSteps } from "./steps";
import { walks } from "./walks";

export const jobs = {
  checklist,
  decisionFindings,
  decisionProposals,
  findings,
  followed,
  forecasts,
  matters,
  performAll,
  runLength,
  soundness,
  staff,
  tidyPage,
  vary,
  walks,
  writeSteps,
} as const;
export type Jobs = typeof jobs;

export { calledName } from "./called";
export type { DecisionFindings, DecisionProposals } from "./decisions";
export type { Forecasted, Staffed, StaffedRow, Unsound, VariedPoint } from "./forecasts";
export { followedWorld } from "./forecasts";
export type { Job, Models, Tell } from "./job";
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
