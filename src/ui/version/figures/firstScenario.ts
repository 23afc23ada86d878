import { noSites, type Scenario } from "@/core/scenario";

/** The scenario a model without any gets with the first figure that is said. */
export const firstScenario: Scenario = {
  id: "estimates",
  name: "Estimates",
  currency: "EUR",
  start: Date.UTC(2027, 0, 4, 8),
  zone: "UTC",
  calendars: new Map(),
  sites: noSites,
  of: new Map(),
  own: new Map(),
  problems: [],
};
