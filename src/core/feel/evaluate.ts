import { evaluate as evaluateFeel } from "feelin";
import { type DataType, typesAsked } from "./dataTypes";
import { effortOf, mostEffort } from "./effort";

/** Data of a case, by name. */
export type CaseData = { readonly [name: string]: unknown };

/**
 * Whether a condition holds for some data (DMN 1.3, chapter 10).
 * @returns undefined where the data does not decide it: names are missing, the words are not FEEL, the answer is neither true nor false,
 *   or working it out would take more than `mostEffort` steps
 */
export function holds(condition: string, data: CaseData): boolean | undefined {
  const typed = condition.trim();
  if (typed === "" || Object.keys(data).length === 0) return undefined;
  try {
    if (effortOf(typed, data) > mostEffort) return undefined;
    const { value } = evaluateFeel(typed, withMoments(typed, data)) as { readonly value: unknown };
    return typeof value === "boolean" ? value : undefined;
  } catch {
    // What is no FEEL decides nothing; `readCondition` says so where it is written.
    return undefined;
  }
}

const moments: { readonly [type in DataType]?: string } = {
  date: "date",
  dateAndTime: "date and time",
  time: "time",
  duration: "duration",
};

/** Points in time and lengths are kept as words of ISO 8601; where a condition holds them against such, they are read as such. */
function withMoments(condition: string, data: CaseData): { [name: string]: unknown } {
  const read = { ...data };
  if (!Object.values(data).some((value) => typeof value === "string")) return read;
  for (const [name, type] of typesAsked(condition, Object.keys(data))) {
    const value = data[name];
    const readAs = moments[type];
    if (readAs && typeof value === "string")
      read[name] = evaluateFeel(`${readAs}(words)`, { words: value }).value ?? value;
  }
  return read;
}
