export { type Advice, adviceOn } from "./advice";
export { buildFrame } from "./build";
export { asOneModel, buildAll, processId } from "./buildAll";
export { type Ask, asksOf, type BriefSummary, type Coverage, coverageOf } from "./coverage";
export type { OpenQuestion } from "./discourse/questions";
export {
  type BriefContent,
  type BriefNode,
  type BriefPart,
  briefContentSchema,
  emptyBrief,
  type Mark,
  type MarkKind,
  markKinds,
  type Span,
} from "./document";
export { documentsIn, type ToldDocument } from "./documents";
export { decisionsIn, type Frame, framesOf, placingsOf, stepsIn } from "./frames";
export { type Growth, growthOf, stepNames } from "./growth";
export { linksOf, markOfKey, nodeOf } from "./links";
export { markAll } from "./markAll";
export { markedText } from "./markedText";
export { type BriefReading, readBrief, type Sentence } from "./sentences";
export { refusalOf, type Suggestion, suggestMarks } from "./suggest/suggest";
export { thingName } from "./wording";
