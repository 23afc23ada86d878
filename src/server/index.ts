/** Every use case, by stage. Routes call these and nothing else. */

import { buildProcesses, openBrief, previewBuild, saveBrief } from "./brief/briefs";
import { adaptRule, chooseProfile } from "./check/checkProfiles";
import { openCheck, signVerdict, waive, withdrawWaiver } from "./check/checks";
import {
  answerThread,
  assignThread,
  deleteThread,
  editSaid,
  listThreads,
  myThreads,
  restoreThread,
  settleThread,
  startThread,
} from "./comments/threads";
import { listCounterparts } from "./compare/counterparts";
import { giveReason, listReasons } from "./compare/reasons";
import { adoptToBe, createToBe, describeVersion } from "./compare/toBe";
import {
  createDecisionFile,
  decisionTexts,
  deleteDecisionFile,
  listDecisionFiles,
  openDecisionFile,
  restoreDecisionFile,
  saveDecisionFile,
} from "./decisions/decisionFiles";
import {
  changeEntry,
  createEntry,
  deleteEntry,
  exportDirectory,
  importDirectory,
  mergeEntries,
  openDirectory,
  restoreEntry,
  whereUsed,
} from "./directory/directory";
import { takeBackDirectory } from "./directory/takeBack";
import {
  deleteLog,
  judgeDifference,
  keepLog,
  listLogs,
  logContent,
  openLog,
  restoreLog,
  sayStep,
} from "./evidence/logs";
import { reportFile } from "./evidence/report";
import { exportBpmn, exportPicture, exportSheet } from "./files/exports";
import { keepFile, openFile } from "./files/files";
import { importFile, importToBe } from "./files/imports";
import { find, listCallable } from "./find/find";
import { listTypes, searchElements } from "./find/search";
import { handbookFile } from "./handbook/handbooks";
import { deleteTemplate, listTemplates, restoreTemplate, saveTemplate } from "./handbook/templates";
import {
  askDeveloper,
  lookAtBuildCopies,
  openBuildCopy,
  sendToBuildCopy,
  takeOverBuildCopy,
  tieBuildCopy,
  untieBuildCopy,
} from "./handoff/buildCopies";
import { importDescription, listDescriptions, removeDescription } from "./handoff/descriptions";
import { downloadPackage, handOff, listHandoffs } from "./handoff/handoffs";
import { createArea, deleteArea, moveArea, renameArea } from "./home/areas";
import { listCallers } from "./home/callers";
import { openHome } from "./home/openHome";
import { openMap } from "./home/openMap";
import {
  copyProcess,
  createProcess,
  deleteProcess,
  deleteVersion,
  moveProcess,
  renameProcess,
  undelete,
} from "./home/processes";
import { deleteLens, listLenses, restoreLens, saveLens } from "./lenses/lenses";
import { listLinks, makeLink, withdrawLink } from "./links/links";
import { listCases, listWaits, openCase } from "./live/cases";
import { runFigures } from "./live/figures";
import {
  cancelCase,
  leadOn,
  letHappen,
  moveToken,
  previewCase,
  retryIncident,
  setCaseData,
  skipStep,
  suspendCase,
} from "./live/interfering";
import { listKeys, makeKey, memberOfKey, withdrawKey } from "./live/keys";
import { downloadLog } from "./live/log";
import { answerProgram, describedInterface } from "./live/programs";
import { listMoves, moveCases, renewRun } from "./live/renewing";
import { endRun, listRuns, openRun, runModel, setClock, setStandIn, startRun } from "./live/runs";
import { runStaff } from "./live/staff";
import { beginLiveCase } from "./live/starts";
import { acknowledgeAlert, listTargets } from "./live/targets";
import { assignWork, completeWork, listWork, openWork, remindWork, saveWork, setDue } from "./live/work";
import { listWritten } from "./live/written";
import { listAudit } from "./members/audit";
import { inviteMember } from "./members/invitations";
import { listAccounts, listMembers, removeMember, setMember, signOutMember } from "./members/members";
import { sayWhereIAm } from "./presence/presence";
import { answerReview, askReview, listReviews, myReviews, withdrawReview } from "./review/reviews";
import { applyCommands, changesSince } from "./version/editing";
import { extractProcess } from "./version/extract";
import { changeDays, elementHistory, listHistory } from "./version/history";
import { openVersion } from "./version/openVersion";
import { labelRevision, listRevisions, nameRevision, openRevision, restoreRevision } from "./version/revisions";
import { changeWalkTest, deleteWalkTest, keepWalkTests, listWalkTests, openCalled } from "./walk/walks";
import { backup, restore } from "./workspace/backup";

/** Those that speak JSON, which the one route answers by name. */
export const useCases = {
  signOutMember,
  removeMember,
  listAudit,
  listAccounts,
  inviteMember,
  acknowledgeAlert,
  adaptRule,
  adoptToBe,
  answerReview,
  answerThread,
  applyCommands,
  askDeveloper,
  askReview,
  assignThread,
  assignWork,
  beginLiveCase,
  buildProcesses,
  cancelCase,
  changeDays,
  changeEntry,
  changeWalkTest,
  changesSince,
  chooseProfile,
  completeWork,
  copyProcess,
  createArea,
  createDecisionFile,
  createEntry,
  createProcess,
  createToBe,
  decisionTexts,
  deleteArea,
  deleteDecisionFile,
  deleteEntry,
  deleteLens,
  deleteTemplate,
  deleteLog,
  deleteProcess,
  deleteThread,
  deleteVersion,
  deleteWalkTest,
  describeVersion,
  editSaid,
  elementHistory,
  endRun,
  extractProcess,
  find,
  giveReason,
  handOff,
  importDescription,
  importDirectory,
  judgeDifference,
  keepWalkTests,
  labelRevision,
  leadOn,
  letHappen,
  listCallable,
  listCallers,
  listCases,
  listCounterparts,
  listDecisionFiles,
  listDescriptions,
  listHandoffs,
  listHistory,
  listKeys,
  listLenses,
  listTemplates,
  listLinks,
  listLogs,
  listMembers,
  listMoves,
  listReasons,
  listReviews,
  listRevisions,
  listRuns,
  listTargets,
  listThreads,
  listTypes,
  listWaits,
  listWalkTests,
  listWork,
  listWritten,
  lookAtBuildCopies,
  makeKey,
  makeLink,
  mergeEntries,
  moveArea,
  moveCases,
  moveProcess,
  moveToken,
  myReviews,
  myThreads,
  nameRevision,
  openBrief,
  openBuildCopy,
  openCalled,
  openCase,
  openCheck,
  openDecisionFile,
  openDirectory,
  openHome,
  openLog,
  openMap,
  openRevision,
  openRun,
  openVersion,
  openWork,
  previewBuild,
  previewCase,
  remindWork,
  removeDescription,
  renameArea,
  renameProcess,
  renewRun,
  restoreDecisionFile,
  restoreEntry,
  restoreLens,
  restoreTemplate,
  restoreLog,
  restoreRevision,
  restoreThread,
  retryIncident,
  runFigures,
  runModel,
  runStaff,
  saveBrief,
  saveDecisionFile,
  saveLens,
  saveTemplate,
  saveWork,
  sayStep,
  sayWhereIAm,
  searchElements,
  sendToBuildCopy,
  setCaseData,
  setClock,
  setDue,
  setMember,
  setStandIn,
  settleThread,
  signVerdict,
  skipStep,
  startRun,
  startThread,
  suspendCase,
  takeBackDirectory,
  takeOverBuildCopy,
  tieBuildCopy,
  undelete,
  untieBuildCopy,
  waive,
  whereUsed,
  withdrawKey,
  withdrawLink,
  withdrawReview,
  withdrawWaiver,
} as const;

/** Those that take or give files, each with a route of its own. */
export const fileUseCases = {
  backup,
  downloadLog,
  downloadPackage,
  exportBpmn,
  exportDirectory,
  exportPicture,
  exportSheet,
  handbookFile,
  importFile,
  importToBe,
  keepFile,
  keepLog,
  logContent,
  openFile,
  reportFile,
  restore,
} as const;

export { mostFileBytes } from "./files/files";
export { whyForeign } from "./kernel/access";
export { hearFeed, listenToFeed } from "./kernel/events";
export { signsIn } from "./kernel/signInMode";
export { endThreads } from "./kernel/threads";
export { localMember, type Member, runUseCase, type UseCase, UseCaseError } from "./kernel/useCase";
export { whatHappened } from "./kernel/whatHappened";
export { type CommentPage, commentByLink, openCommentPage } from "./links/commenting";
export { type OpenedLink, openLink, openLinkPicture } from "./links/opened";
export { memberSaid } from "./members/members";
export { hasOwner } from "./members/ownerCode";
export { providerOf } from "./members/signIn";
export {
  becomeOwner,
  changePassword,
  endOwnSession,
  fromElsewhere,
  memberInSession,
  ownSessions,
  signedOut,
  signIn,
  signOut,
  takeInvitation,
  toElsewhere,
} from "./members/signingIn";
export { mostBackupBytes } from "./workspace/backupFile";
export { workspaceReady } from "./workspace/workspace";
export { answerProgram, describedInterface, memberOfKey };
