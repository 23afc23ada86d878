export * from "./connections";
export { counted } from "./counted";
export { dataInReach } from "./dataInReach";
export { type DecidedBy, decidedBy, decidingFiles, withDecidedBy } from "./decisionData";
export * from "./diagram";
export { admitEdits, holdsValue, modelLimits, newFault } from "./door";
export { durationWords, isoSeconds, readDuration, spanWords } from "./duration";
export * from "./edit";
export * from "./element";
export * from "./eventTable";
export * from "./extension";
export * from "./families";
export { type Figure, type FigureField, figureId } from "./figure";
export { canHoldForm, type Form, type FormItem, formOf, formSchema, withForm } from "./formData";
export * from "./ids";
export { brokenInvariants } from "./invariants";
export { dataOfProcess, itemOfData, type ProcessDatum, schemaTextOf, withSchemaText } from "./itemSchema";
export type { AttributeField, ContentField } from "./metamodel/fields";
export { elementTypes, isElementType, slotFor, type TypeInfo, typeInfo } from "./metamodel/lookup";
export * from "./model";
export { referencesOf } from "./modelIndex";
export { pathBetween } from "./paths";
export * from "./problem";
export * from "./queries";
export { edgeSchema, elementSchema, shapeSchema } from "./records";
export {
  documentationIn,
  documentedIn,
  isPlainText,
  plainOf,
  type RichNode,
  richTextSchema,
  safeAddress,
  textOfPlain,
  withDocumentation,
} from "./richText";
export * from "./serviceData";
export * from "./stored";
export { Table } from "./table";
export { type LiveTarget, type TargetKind, targetKinds, targetsOf, withTargets } from "./targetData";
export {
  descriptionIn,
  isRead,
  languagesOf,
  modelIn,
  nameIn,
  ownName,
  type Untold,
  withDescriptionIn,
  withNameIn,
} from "./texts";
export { readTimer, type Timer, type TimerField, timerWords } from "./timer";
export type { PlacedNode, XmlElement, XmlNode } from "./xmlNode";
