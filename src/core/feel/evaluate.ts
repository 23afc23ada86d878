import { evaluate as evaluateFeel } from "feelin";
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
    const { value } = evaluateFeel(typed, { ...data }) as { readonly value: unknown };
    return typeof value === "boolean" ? value : undefined;
  } catch {
    // What is no FEEL decides nothing; `readCondition` says so where it is written.
    return undefined;
  }
}
