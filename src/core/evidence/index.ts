export { type AlignedMove, type Alignment, align, distancesToEnd, shortestRun } from "./align";
export { Automaton, type Edge } from "./automaton";
export { type Difference, type DifferenceKind, differenceKinds, differencesOf } from "./differences";
export { discover } from "./discovery/discover";
export { type FollowGraph, followGraph } from "./discovery/followGraph";
export type { ProcessTree } from "./discovery/processTree";
export { treeFile } from "./discovery/treeFile";
export { type ByOthers, type Held, holdAgainst, type Variant } from "./holding";
export {
  type Counts,
  countsIn,
  doneIn,
  type EventLog,
  type LeftOut,
  type LoggedEvent,
  type LoggedTrace,
  mostNamed,
} from "./logs/eventLog";
export { columnsOf, type LogColumns, readLogCsv } from "./logs/readCsv";
export { readXes } from "./logs/readXes";
export { processesMeant, shownSteps, stepsFor } from "./matching";
export { type Mended, mended } from "./repair";
