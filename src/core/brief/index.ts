export { type Advice, adviceOn } from "./advice";
export { buildFrame } from "./build";
export type { BuildContext } from "./buildGround";
export { type Coverage, coverageOf } from "./coverage";
export {
  type BriefContent,
  type BriefNode,
  type BriefPart,
  briefContentOf,
  briefContentSchema,
  emptyBrief,
  type Mark,
  type MarkKind,
  markKinds,
  mostCharacters,
  type Span,
} from "./document";
export { type Frame, type FrameItem, type FrameStep, framesOf, placingsOf, stepsIn } from "./frames";
export { linksOf, nodeOf } from "./links";
export { markedText } from "./markedText";
export { type BriefReading, readBrief, type Sentence } from "./sentences";
export { type KnownName, refusalOf, type Suggestion, suggestMarks } from "./suggest";
export { thingName } from "./wording";
