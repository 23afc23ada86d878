export { lensBadge, lensFigures, penColours, type SeenLens, withLenses, withLensLegend } from "./drawn";
export { countsAt, type Facts, factsOf, type Surroundings } from "./facts";
export {
  amountTests,
  choiceTests,
  fieldKinds,
  fieldsOf,
  type Lens,
  type LensCondition,
  type LensField,
  type LensKind,
  type LensLine,
  type LensPen,
  type LensSign,
  type LensTest,
  lensFields,
  lensKinds,
  lensLines,
  lensPens,
  lensSchema,
  lensSigns,
  wordTests,
} from "./lens";
export { conditionHolds, isLensFeel, markedBy } from "./matching";
