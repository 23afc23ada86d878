export {
  type DataField,
  type FieldKind,
  fieldKinds,
  fieldOf,
  type JsonObject,
  newField,
  recordSchema,
  schemaOf,
} from "./fields";
export { fieldsFromExample } from "./fromExample";
export { type DataMatrix, type DataUse, dataMatrix, nodeUses, placesOf } from "./uses";
export { type WrittenData, writtenData } from "./written";
