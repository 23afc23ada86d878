export { type Arrangement, type ArrangeOptions, arrangePage, arrangeScope } from "./arrange";
export {
  boundsAround,
  boundsOfPoints,
  centre,
  contains,
  grow,
  lineCrosses,
  nearestOnLine,
  overlaps,
  type Side,
  segmentCrosses,
  sidePoint,
  simplified,
} from "./geometry";
export { layersOf } from "./layers";
export { clearance, type Port, portsOf, type RouteRequest, route } from "./route";
export * from "./sizes";
