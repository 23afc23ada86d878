export { type Call, type Callable, resolver } from "./called";
export {
  type LandscapeLink,
  type LandscapeProcess,
  landscapeLinks,
  type OutwardFacts,
  outwardFactsOf,
} from "./landscape";
export { type MapLane, type MapLine, type MapSizes, type PlacedMap, placeMap } from "./lanes";
