export { type BuildState, buildStates, firstState } from "./buildState";
export {
  type Checklist,
  type ChecklistRow,
  checklistCsv,
  checklistMarkdown,
  checklistOf,
  type Giver,
  type Need,
  type NeedName,
  needWords,
  readyShare,
} from "./checklist";
export type { ReportedForecast } from "./forecastReport";
export { isArchive, openPackage, type PackageToRun } from "./openPackage";
export { makePackage, type PackageRequest } from "./package";
export { type UsedDescription, usedDescriptions } from "./services";
export {
  type BuildCopyText,
  type SyncChange,
  type SyncConflict,
  type Synced,
  type SyncState,
  sameContent,
  syncModels,
  syncState,
  syncStates,
} from "./sync";
export { type Manifest, type PartState, type VerifiedPackage, verifyPackage } from "./verify";
