export {
  type DocumentUse,
  documentsOf,
  type EntryUse,
  entryUses,
  type RoleAssignment,
  type RolePart,
  roleOfLane,
  roleParts,
  rolesOf,
} from "./assignments";
export {
  type DirectoryEntry,
  directoryEntrySchema,
  type EntryKind,
  entryKinds,
  foldedName,
  lookUp,
  roleHues,
} from "./entry";
export { type Handover, handoverMatrix, handoversOf, stepName, stepsOf } from "./handovers";
