export { emptySimulation, putFigures, simulationNamespace, takeFigures } from "./bpsim";
export { always, bothOf, eitherOf, type Hours, hoursOf } from "./calendar/hours";
export { type CalendarEvent, type ReadCalendar, readCalendar } from "./calendar/iCalendar";
export { isZone, momentOf, type WallTime, wallAt } from "./calendar/zone";
export { distributionSchema } from "./distributionSchema";
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
  isoOf,
  type ParameterName,
  type ParameterValue,
  parameterNames,
  parameters,
  type ScenarioWords,
  type SiteWords,
  simulationOf,
  weekText,
  withCalendar,
  withNewScenario,
  withoutScenario,
  withParameter,
  withSites,
  withWords,
} from "./edit";
export { currencyOf, type Estimate, estimatesOf, holderIn, simulationHolder } from "./estimates";
export { type SaidRow, scenarioInWords } from "./inWords";
export { scenariosOf } from "./readScenarios";
export { readSaid, type SaidAs, saidOf } from "./said";
export { type Assumption, type Given, type Need, type Scenario, type TimeKind, timeKinds } from "./scenario";
export { shareBelow } from "./shareBelow";
export { type Link, linkBetween, noSites, type Sites } from "./sites";
export { type Input, inputOf, inputWords, readInput, stretched, withInput, withMean } from "./vary";
