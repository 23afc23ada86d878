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
  entryChangeSchema,
  entryKinds,
  foldedName,
  lookUp,
  roleHues,
} from "./entry";
export { type Handover, handoverMatrix, handoversOf, stepsOf } from "./handovers";
export {
  type MatrixColumn,
  type MatrixTable,
  type MatrixView,
  matrixCell,
  matrixColumns,
  matrixTable,
  partOfLetter,
  stepName,
  useOfLetter,
} from "./matrix";
export { type NamedRow, namedEntries } from "./named";
export { isWithin, type OrganisationNode, organisationOf } from "./organisation";
export { editDistance, nameSimilarity, type SimilarPair, similarEntries } from "./similar";
