import { holds, readCondition } from "../feel";
import type { Id } from "../model";
import type { Facts } from "./facts";
import type { Lens, LensCondition, LensKind } from "./lens";

const plain = (words: string) => words.normalize("NFKC").trim().toLowerCase();

/** What a condition is about at an element, as words. */
function wordsAt({ field, name }: LensCondition, { kinds, words, own }: Facts): readonly string[] {
  if (field === "own") return own[name ?? ""] === undefined ? [] : [own[name ?? ""] as string];
  if (field === "kind") return kinds;
  return words[field as keyof Facts["words"]] ?? [];
}

/** Whether a condition holds at an element. What is not known is neither more nor less than anything. */
export function conditionHolds(condition: LensCondition, facts: Facts): boolean {
  const { field, test, value } = condition;
  if (test === "more" || test === "less") {
    const amount = field === "own" ? Number.parseFloat(facts.own[condition.name ?? ""] ?? "") : facts.amounts[field];
    if (amount === undefined || Number.isNaN(amount)) return false;
    return test === "more" ? amount > Number(value) : amount < Number(value);
  }
  const isAmount = field in facts.amounts || !["kind", "own", ...Object.keys(facts.words)].includes(field);
  const isKnown = isAmount ? facts.amounts[field] !== undefined : wordsAt(condition, facts).some((one) => one !== "");
  if (test === "isThere") return isKnown;
  if (test === "isMissing") return !isKnown;
  if (isAmount) return (facts.amounts[field] === Number(value)) === (test === "is");
  const wanted = plain(String(value));
  const found = wordsAt(condition, facts).map(plain);
  if (test === "contains") return found.some((one) => one.includes(wanted));
  return found.includes(wanted) === (test === "is");
}

/** An element's facts as a condition in FEEL asks for them. */
export const feelDataOf = ({ kinds, words, amounts, own }: Facts): { readonly [name: string]: unknown } => ({
  kind: kinds,
  name: words.name[0] ?? null,
  ...Object.fromEntries(Object.entries(words).filter(([field]) => field !== "name")),
  ...Object.fromEntries(amountNames.map((name) => [name, amounts[name] ?? null])),
  own,
});
const amountNames = ["takes", "waits", "costs", "busy", "findings", "comments", "cases", "incidents"] as const;

/** Names a condition in FEEL can ask for. */
const feelNames = ["kind", "name", "role", "system", "lane", "site", ...amountNames, "own"];

/** Whether a condition in FEEL can be decided by what is known of elements. */
export function isLensFeel(feel: string): boolean {
  const read = readCondition(feel, feelNames);
  return read.kind === "executable" && read.unknown.length === 0;
}

const stepsAlone: readonly LensKind[] = ["flow"];

/**
 * Elements that a lens marks. One without any condition marks nothing. Flows are marked only where a condition speaks of them, or of
 * their names or attributes. O(elements × conditions).
 */
export function markedBy(lens: Lens, facts: ReadonlyMap<Id, Facts>): readonly Id[] {
  const { conditions, feel, which } = lens;
  if (conditions.length === 0 && feel.trim() === "") return [];
  const marked: Id[] = [];
  for (const [id, one] of facts) {
    const isFlow = stepsAlone.some((kind) => one.kinds.includes(kind));
    if (isFlow && !speaksOfFlows(lens)) continue;
    const answers = conditions.map((condition) => conditionHolds(condition, one));
    const byWords = answers.length === 0 || (which === "all" ? answers.every(Boolean) : answers.some(Boolean));
    if (byWords && (feel.trim() === "" || holds(feel, feelDataOf(one)) === true)) marked.push(id);
  }
  return marked;
}

const speaksOfFlows = ({ conditions, feel }: Lens): boolean =>
  conditions.some(({ field, test, value }) => field === "kind" && test === "is" && value === "flow") ||
  (conditions.length > 0 &&
    conditions.every(({ field }) => field === "own" || field === "findings" || field === "comments")) ||
  /"flow"/.test(feel);
