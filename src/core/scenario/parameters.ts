import type { Distribution } from "./distributions";
import { siteProperty } from "./sites";

/** What can be said of an element, by name: where it stands in the standard's form, and what it is a value of. */
export const parameters = {
  processing: { group: "TimeParameters", name: "ProcessingTime", as: "time" },
  wait: { group: "TimeParameters", name: "WaitTime", as: "time" },
  transfer: { group: "TimeParameters", name: "TransferTime", as: "time" },
  interval: { group: "ControlParameters", name: "InterTriggerTimer", as: "time" },
  count: { group: "ControlParameters", name: "TriggerCount", as: "number" },
  probability: { group: "ControlParameters", name: "Probability", as: "number" },
  quantity: { group: "ResourceParameters", name: "Quantity", as: "number" },
  selection: { group: "ResourceParameters", name: "Selection", as: "expression" },
  availability: { group: "ResourceParameters", name: "Availability", as: "calendar" },
  unitCost: { group: "CostParameters", name: "UnitCost", as: "rate" },
  fixedCost: { group: "CostParameters", name: "FixedCost", as: "number" },
  priority: { group: "PriorityParameters", name: "Priority", as: "number" },
  site: { group: "PropertyParameters", name: "Property", as: "text", property: siteProperty },
} as const;
export type ParameterName = keyof typeof parameters;
export const parameterNames = Object.keys(parameters) as ParameterName[];

/** A value as it is written: a distribution, an expression, or the id of a calendar. */
export type ParameterValue = Distribution | string;
