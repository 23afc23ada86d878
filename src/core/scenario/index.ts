export { emptySimulation, putFigures, simulationNamespace, takeFigures } from "./bpsim";
export { always, bothOf, butNot, eitherOf, type Hours, hoursOf, knownHours } from "./calendar/hours";
export { type CalendarEvent, type ReadCalendar, readCalendar } from "./calendar/iCalendar";
export { isZone, momentOf, type WallTime, wallAt } from "./calendar/zone";
export { distributionSchema, spreadSchema } from "./distributionSchema";
export {
  type Chance,
  constant,
  type Distribution,
  draw,
  faultOf,
  gammaFunction,
  momentsOf,
  normalQuantile,
  normalShare,
  type Point,
} from "./distributions";
export {
  type DrawnData,
  type DrawnKind,
  type DrawnValue,
  drawValue,
  readSpread,
  type Spread,
  spreadWords,
} from "./drawnData";
export {
  type ScenarioWords,
  type SiteWords,
  simulationOf,
  weekText,
  withCalendar,
  withDrawn,
  withNewScenario,
  withoutScenario,
  withParameter,
  withSites,
  withWords,
} from "./edit";
export { currencyOf, type Estimate, estimatesOf, holderIn, simulationHolder } from "./estimates";
export { type SaidRow, scenarioInWords } from "./inWords";
export { type ParameterName, type ParameterValue, parameterNames, parameters } from "./parameters";
export { scenariosOf } from "./readScenarios";
export { readSaid, type SaidAs, saidOf } from "./said";
export { type Assumption, type Given, type Need, type Scenario, type TimeKind, timeKinds } from "./scenario";
export { shareBelow } from "./shareBelow";
export { type Link, linkBetween, noSites, type Sites } from "./sites";
export { type Input, inputOf, inputWords, readInput, stretched, withInput, withMean } from "./vary";
export { isoOf } from "./writeValues";
