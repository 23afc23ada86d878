import { evaluate as evaluateFeel } from "feelin";

/** Data of a case, by name. */
export type CaseData = { readonly [name: string]: unknown };

/**
 * Whether a condition holds for some data (DMN 1.3, chapter 10).
 * @returns undefined where the data does not decide it: names are missing, the words are not FEEL, or the answer is neither true nor false
 */
export function holds(condition: string, data: CaseData): boolean | undefined {
  const typed = condition.trim();
  if (typed === "" || Object.keys(data).length === 0) return undefined;
  try {
    const { value } = evaluateFeel(typed, { ...data }) as { readonly value: unknown };
    return typeof value === "boolean" ? value : undefined;
  } catch {
    // What is no FEEL decides nothing; `readCondition` says so where it is written.
    return undefined;
  }
}
