/** Every use case the interface can ask for by name. Routes call these and nothing else. */
import { buildProcesses, openBrief, saveBrief } from "./briefs";
import { adaptRule, chooseProfile } from "./checkProfiles";
import { openCheck, signVerdict, waive, withdrawWaiver } from "./checks";
import { listCounterparts } from "./counterparts";
import {
  changeEntry,
  createEntry,
  deleteEntry,
  importDirectory,
  mergeEntries,
  openDirectory,
  restoreEntry,
  whereUsed,
} from "./directory";
import { applyCommands, changesSince } from "./editing";
import { extractProcess } from "./extract";
import { find, listCallable } from "./find";
import { handOff, listHandoffs } from "./handoffs";
import { elementHistory, listHistory } from "./history";
import {
  copyProcess,
  createArea,
  createProcess,
  deleteArea,
  deleteProcess,
  deleteVersion,
  moveArea,
  moveProcess,
  openHome,
  openVersion,
  renameArea,
  renameProcess,
  undelete,
} from "./home";
import { listCallers, openLandscape } from "./landscape";
import { giveReason, listReasons } from "./reasons";
import { labelRevision, listRevisions, nameRevision, openRevision, restoreRevision } from "./revisions";
import { listTypes, searchElements } from "./search";
import { adoptToBe, createToBe, describeVersion } from "./toBe";
import { changeWalkTest, deleteWalkTest, keepWalkTests, listWalkTests, openCalled } from "./walks";

export const useCases = {
  adaptRule,
  adoptToBe,
  applyCommands,
  buildProcesses,
  changeEntry,
  changesSince,
  changeWalkTest,
  chooseProfile,
  copyProcess,
  createArea,
  createEntry,
  createProcess,
  createToBe,
  deleteArea,
  deleteEntry,
  deleteProcess,
  deleteVersion,
  deleteWalkTest,
  describeVersion,
  elementHistory,
  extractProcess,
  find,
  giveReason,
  handOff,
  importDirectory,
  keepWalkTests,
  labelRevision,
  listCallable,
  listCallers,
  listCounterparts,
  listHandoffs,
  listHistory,
  listReasons,
  listRevisions,
  listTypes,
  listWalkTests,
  mergeEntries,
  moveArea,
  moveProcess,
  nameRevision,
  openBrief,
  openCalled,
  openCheck,
  openDirectory,
  openHome,
  openLandscape,
  openRevision,
  openVersion,
  renameArea,
  renameProcess,
  restoreEntry,
  restoreRevision,
  saveBrief,
  searchElements,
  signVerdict,
  undelete,
  waive,
  whereUsed,
  withdrawWaiver,
} as const;

export { backup, restore } from "./backup";
export { mostBackupBytes } from "./backupFile";
export type { BriefLink } from "./briefLinks";
export type { BriefData, BuiltProcess } from "./briefs";
export type { CheckData, VerdictRow } from "./checks";
export type { CounterpartRow } from "./counterparts";
export { type DirectoryData, exportDirectory } from "./directory";
export type { AppliedBatch } from "./editing";
export { exportBpmn, exportPicture, exportSheet } from "./exports";
export { keepFile, mostFileBytes, openFile } from "./files";
export type { Found } from "./find";
export { downloadPackage, type HandoffRow } from "./handoffs";
export type { HistoryRow } from "./history";
export type { HomeData, VersionData } from "./home";
export { importFile } from "./imports";
export { whyForeign } from "./kernel/access";
export { whatHappened } from "./kernel/whatHappened";
export type { Caller, LandscapeData } from "./landscape";
export type { ReasonRow } from "./reasons";
export type { RevisionRow } from "./revisions";
export type { SearchRow } from "./search";
export { localMember, type Member, runUseCase, UseCaseError } from "./useCase";
export type { WalkTestRow } from "./walks";
export { workspaceReady } from "./workspace";
