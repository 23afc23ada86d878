export {
  type DataField,
  type FieldKind,
  fieldKinds,
  fieldOf,
  type JsonObject,
  kindByName,
  newField,
  recordSchema,
  schemaOf,
} from "./fields";
export {
  exampleData,
  type FieldValue,
  type FormData,
  fieldAt,
  fieldWords,
  formFromData,
  formProblems,
  isShown,
  packedForm,
  readField,
  type ShownItem,
  shownItems,
  valueIn,
  withValueIn,
} from "./forms";
export { fieldsFromExample } from "./fromExample";
export { fieldsOfProcess } from "./ofProcess";
export {
  type DataRow,
  limitWords,
  rowsOf,
  withFieldAt,
  withKind,
  withLimits,
  withPart,
  withPartIndented,
  withPartMoved,
} from "./sheet";
export {
  type DataMatrix,
  type DataUse,
  dataMatrix,
  nodeUses,
  type PieceOfData,
  piecesOfProcess,
  placesOf,
} from "./uses";
export { type WrittenData, writtenData } from "./written";
