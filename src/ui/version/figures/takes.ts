import type { Id } from "@/core/model";
import type { Need } from "@/core/scenario";

type People = ReadonlyMap<Id, string>;

/** Who a step takes, in words: "2 Field crew and Network engineer", "Front desk or Billing". */
export const takesWords = (need: Need, people: People): string =>
  need
    .map(({ oneOf, count }) => `${count > 1 ? `${count} ` : ""}${oneOf.map((id) => people.get(id) ?? id).join(" or ")}`)
    .join(" and ");

/**
 * The same words as the standard's expression; several are all needed, or one of them is enough. Undefined where somebody is named whom
 * the model does not have, or both are meant at once.
 */
export function takesExpression(words: string, people: People): string | undefined {
  const [all, some] = [words.split(/\s+and\s+|\s*\+\s*/i), words.split(/\s+or\s+/i)];
  if (all.length > 1 && some.length > 1) return undefined;
  const called = new Map([...people].map(([id, name]) => [name.toLowerCase(), id]));
  const calls = (all.length > 1 ? all : some).map((part) => {
    const [, count, name = ""] = /^(?:(\d{1,4})\s+)?(.+)$/.exec(part.trim()) ?? [];
    const id = called.get(name.toLowerCase()) ?? (people.has(name) ? name : undefined);
    return id === undefined || count === "0" ? undefined : `bpsim:getResource('${id}',${count ?? 1})`;
  });
  if (calls.some((call) => call === undefined)) return undefined;
  return calls.join(all.length > 1 ? " and " : " or ");
}
