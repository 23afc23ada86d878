export { drawnCase, drawnFor, isDecidedByData, namesDrawn } from "./caseData";
export { compared, type Difference } from "./compare";
export { type Assumed, howAssumed } from "./completeness";
export { type RoleDefaults, type TakenFromDirectory, withDirectory } from "./defaults";
export type { Path } from "./duration";
export { type Exact, exactOf } from "./exact";
export { type ForecastFigures, figuresAlone } from "./figures";
export { type Followed, follow, standsAfter, standsFirst } from "./follow";
export type { Choice, Chosen, ChosenByHand, Moment } from "./follower";
export {
  type Asked,
  type Curve,
  type ElementFigures,
  type Forecast,
  forecast,
  type ResourceFigures,
} from "./forecast";
export type { Gap } from "./gaps";
export { type Effect, whatMatters } from "./matters";
export { worldAssumed } from "./plan";
export { Stream } from "./random";
export type { Stretch } from "./recorder";
export { proposeRun, type RunProposal } from "./runLength";
export { type Staffing, shareWithin, staffingFor, type Target } from "./staffing";
export type { StationFigures } from "./stations";
export { logGamma, quantileOf } from "./statistics";
export { type Story, storyOf } from "./story";
