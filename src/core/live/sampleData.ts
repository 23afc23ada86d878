import { type DataField, fieldOf, nodeUses, placesOf } from "../data";
import type { CaseData } from "../feel";
import { dataOfProcess, type Id, type Model } from "../model";
import { processOfScope } from "./courses";

/** Numbers from 0 to below 1. */
type Draw = () => number;

const dayOf = (now: number, days: number) => new Date(now + days * 86_400_000).toISOString().slice(0, 10);

/** A made-up value of a field, within its limits. */
function sampleOf(field: DataField, draw: Draw, now: number): unknown {
  const one = (): unknown => {
    const { kind, least, most, choices = [], fields = [] } = field;
    switch (kind) {
      case "number":
      case "amount": {
        const low = least ?? 0;
        const high = most ?? low + 100;
        return Math.round((low + draw() * (high - low)) * 10) / 10;
      }
      case "yesNo":
        return draw() < 0.5;
      case "date":
        return dayOf(now, 1 + Math.floor(draw() * 14));
      case "dateTime":
        return `${dayOf(now, 1 + Math.floor(draw() * 14))}T09:00:00`;
      case "duration":
        return `P${1 + Math.floor(draw() * 5)}D`;
      case "choice":
        return choices[Math.floor(draw() * choices.length)] ?? "";
      case "record":
        return Object.fromEntries(fields.map((part) => [part.name, sampleOf(part, draw, now)]));
      default:
        return `${field.name} ${1 + Math.floor(draw() * 900)}`;
    }
  };
  if (!field.isList) return one();
  // Most lists are of what is amiss: empty, as a rule.
  const count = Math.max(0, Math.floor(draw() * 5) - 2);
  return Array.from({ length: count }, one);
}

/**
 * Made-up values for all that a step writes and the case does not know yet, by the schemas of the data; what it changes is left as it
 * is. For stand-ins and simulated people. O(what it writes).
 */
export function sampleValues(model: Model, step: Id, known: CaseData, draw: Draw, now: number): CaseData {
  const process = processOfScope(model, step);
  const { writes } = nodeUses(model, step, placesOf(model, process));
  const found: { [name: string]: unknown } = {};
  for (const { id, name, schema } of dataOfProcess(model, process)) {
    if (!writes.has(id) || name in known || schema === undefined) continue;
    found[name] = sampleOf(fieldOf(name, JSON.parse(schema)), draw, now);
  }
  return found;
}
