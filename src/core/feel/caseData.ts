import type { CaseData } from "./evaluate";

/**
 * Data of a case as a person types it: numbers, yes and no, and lists or structures as JSON are taken as such, other words as text;
 * what is empty is not given.
 * @example caseDataOf({ "rated power": "12", urgent: "yes", note: "" }) // { "rated power": 12, urgent: true }
 */
export function caseDataOf(typed: { readonly [name: string]: string }): CaseData {
  const given = Object.entries(typed).filter(([, words]) => words.trim() !== "");
  return Object.fromEntries(given.map(([name, words]) => [name, valueTyped(words.trim())]));
}

function valueTyped(words: string): unknown {
  if (words === "true" || words === "yes") return true;
  if (words === "false" || words === "no") return false;
  if (Number.isFinite(Number(words))) return Number(words);
  if (!/^[[{"]/.test(words)) return words;
  try {
    return JSON.parse(words);
  } catch {
    // Still being typed, or text that merely begins like it.
    return words;
  }
}
