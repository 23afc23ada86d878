export { type AlignedMove, type Alignment, align, distancesToEnd, shortestRun } from "./align";
export { Automaton, type Edge } from "./automaton";
export { type GroupDifference, type GroupsCompared, groupsCompared } from "./comparing";
export { type Difference, type DifferenceKind, differenceKey, differenceKinds, differencesOf } from "./differences";
export { discover } from "./discovery/discover";
export { type FollowGraph, followGraph } from "./discovery/followGraph";
export type { ProcessTree } from "./discovery/processTree";
export { treeFile } from "./discovery/treeFile";
export { bestFit, type Fitted, fitted, leastToFit } from "./figures/fitting";
export { hoursIn, type MeasuredHours } from "./figures/hours";
export { type MeasuredLog, type MeasuredWay, type MeasuredWork, measuredIn } from "./figures/measured";
export { figuresTaken, scenarioFrom, type Taken, type TakenFigure } from "./figures/scenario";
export {
  filtered,
  filterSchema,
  filterSentence,
  type LogFilter,
  leftOutBy,
  part,
  spanOf,
  type WordsOfTime,
} from "./filters";
export { type FollowMap, followMap, type MapEdge, type MapNode, mapFile, mapIds } from "./followMap";
export { type ByOthers, type Held, holdAgainst, type Variant } from "./holding";
export { type Judgement, judgements, type LogFacts, logFactsSchema, type SaidSteps } from "./kept";
export { type Late, lateIn } from "./late";
export { LogBuilder, logOf } from "./logs/building";
export {
  type CaseAttribute,
  type Counts,
  countsIn,
  doneIn,
  type EventLog,
  eventAt,
  eventCount,
  type LeftOut,
  type LoggedEvent,
  type LoggedTrace,
  type LogVariant,
  mostNamed,
  traceAt,
  variantsOf,
  type WordColumn,
  wordAt,
} from "./logs/eventLog";
export { openedLog, packedLog, pseudonymised } from "./logs/keptLog";
export { columnsIn, columnsOf, type LogColumn, type LogColumns, rowsOf, type ToldColumns } from "./logs/logTable";
export { textPieces } from "./logs/pieces";
export { readLogCsv, type SaidOfTable } from "./logs/readCsv";
export { classifiersIn, readXes, type SaidOfXes } from "./logs/readXes";
export { processesMeant, shownSteps, stepProposed, stepsFor } from "./matching";
export {
  type ActivityRow,
  type Counted,
  type DottedChart,
  dottedChart,
  type HandOver,
  type LogOverview,
  medianDuration,
  overviewOf,
  type Spread,
  spreadOf,
  type VariantRow,
} from "./overview";
export type { Closeness } from "./precision";
export { type Mended, mended } from "./repair";
export {
  type CaseMove,
  goneAlong,
  movesOfCase,
  type PlayedCase,
  pathKey,
  type Replay,
  replayOf,
  type StepSpan,
  spansOfSteps,
  standingAt,
} from "./replay";
export { type EvidenceReport, evidenceReport, type ReportedJudgement } from "./report";
export { type Unused, unusedIn } from "./unused";
