/** Every use case the interface can ask for by name. Routes call these and nothing else. */
import { buildProcesses, openBrief, saveBrief } from "./briefs";
import { changeEntry, createEntry, deleteEntry, openDirectory, restoreEntry, whereUsed } from "./directory";
import { applyCommands, changesSince } from "./editing";
import { extractProcess } from "./extract";
import { find, listCallable } from "./find";
import { handOff, listHandoffs, listWaivers, waive, withdrawWaiver } from "./handoffs";
import {
  copyProcess,
  createArea,
  createProcess,
  createToBe,
  deleteArea,
  deleteProcess,
  deleteVersion,
  moveArea,
  moveProcess,
  openHome,
  openVersion,
  renameArea,
  renameProcess,
  renameVersion,
  undelete,
} from "./home";
import { listRevisions, nameRevision, openRevision, restoreRevision } from "./revisions";

export const useCases = {
  applyCommands,
  buildProcesses,
  changeEntry,
  changesSince,
  copyProcess,
  createArea,
  createEntry,
  createProcess,
  createToBe,
  deleteArea,
  deleteEntry,
  deleteProcess,
  deleteVersion,
  extractProcess,
  find,
  handOff,
  listCallable,
  listHandoffs,
  listRevisions,
  listWaivers,
  moveArea,
  moveProcess,
  nameRevision,
  openBrief,
  openDirectory,
  openHome,
  openRevision,
  openVersion,
  renameArea,
  renameProcess,
  renameVersion,
  restoreEntry,
  restoreRevision,
  saveBrief,
  undelete,
  waive,
  whereUsed,
  withdrawWaiver,
} as const;

export { backup, restore } from "./backup";
export type { BriefLink } from "./briefLinks";
export type { BriefData, BuiltProcess } from "./briefs";
export type { DirectoryData } from "./directory";
export type { AppliedBatch } from "./editing";
export { exportBpmn, exportPicture, exportSheet } from "./exports";
export type { Found } from "./find";
export { downloadPackage, type HandoffRow } from "./handoffs";
export { type HomeData, importFile, type VersionData } from "./home";
export type { RevisionRow } from "./revisions";
export { localMember, type Member, runUseCase, UseCaseError } from "./useCase";
export { workspaceReady } from "./workspace";
