/**
 * Every long work that can be asked for in the browser and on the server alike: by its name, where it is. A worker loads what it is asked
 * for and nothing else, since to read all of it takes longer than most of it takes to do.
 */
export const jobModules = {
  caseOfLog: () => import("./evidence"),
  checklist: () => import("./checklist"),
  compareGroups: () => import("./logs"),
  decisionFindings: () => import("./decisions"),
  decisionProposals: () => import("./decisions"),
  deviations: () => import("./lenses"),
  discoverLog: () => import("./logs"),
  dotsOfLog: () => import("./logs"),
  figuresOfLog: () => import("./evidence"),
  findings: () => import("./findings"),
  followed: () => import("./forecasts"),
  forecasts: () => import("./forecasts"),
  holdLog: () => import("./evidence"),
  mapOfLog: () => import("./logs"),
  matters: () => import("./forecasts"),
  overviewLog: () => import("./logs"),
  packLog: () => import("./logs"),
  performAll: () => import("./perform"),
  readLog: () => import("./logs"),
  repairAll: () => import("./evidence"),
  repairDifference: () => import("./evidence"),
  replayLog: () => import("./evidence"),
  runLength: () => import("./forecasts"),
  soundness: () => import("./findings"),
  staff: () => import("./forecasts"),
  tidyPage: () => import("./steps"),
  traceOfLog: () => import("./logs"),
  tracesOfLog: () => import("./logs"),
  vary: () => import("./forecasts"),
  walks: () => import("./walks"),
  writeSteps: () => import("./steps"),
} as const;
export type Jobs = JobsIn<typeof jobModules>;

/** The jobs of a register: each is called in its module what it is called in the register. */
export type JobsIn<Modules> = {
  readonly [Name in keyof Modules]: Modules[Name] extends () => Promise<{ readonly [Called in Name]: infer Body }>
    ? Body
    : never;
};

/** A job of a register, loaded where it was not before. */
export async function jobIn<Modules, Name extends keyof Modules>(
  modules: Modules,
  name: Name,
): Promise<JobsIn<Modules>[Name]> {
  const load = modules[name] as () => Promise<JobsIn<Modules>>;
  return (await load())[name];
}

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
export type { Job, Models, Tell } from "./job";
export type { MappedLog, Overviewed, ReadFile, TraceRow } from "./logs";
export type { OfLog } from "./ofLog";
export type { ListWritten, LongList } from "./steps";

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
