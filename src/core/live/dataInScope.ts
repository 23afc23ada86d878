import type { CaseData } from "../feel";
import type { Place } from "../tokens";

/** The data seen in a scope: that of the case, and what the instances around it have of their own. O(scopes around). */
export function dataIn(
  data: CaseData,
  own: ReadonlyMap<string, CaseData>,
  place: Place | undefined,
  extra?: CaseData,
): CaseData {
  const around: CaseData[] = [];
  for (let here = place; here; here = here.outer) {
    const held = own.get(here.key);
    if (held) around.unshift(held);
  }
  return around.length === 0 && !extra ? data : Object.assign({}, data, ...around, extra);
}

const isRecord = (value: unknown): value is CaseData =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** Data with values written into it; the parts of a record that nothing is said of stay. */
export function merged(data: CaseData, values: CaseData): CaseData {
  const result: { [name: string]: unknown } = { ...data };
  for (const [name, value] of Object.entries(values)) {
    const known = Object.hasOwn(data, name) ? data[name] : undefined;
    const next = isRecord(known) && isRecord(value) ? merged(known, value) : value;
    Object.defineProperty(result, name, { value: next, enumerable: true, writable: true, configurable: true });
  }
  return result;
}
