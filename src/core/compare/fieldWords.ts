import type { FieldChange } from "./changes";

/** "a user task", "an exclusive gateway". */
export const article = (words: string): string => `${/^[aeio]/.test(words) ? "an" : "a"} ${words}`;

/** One field's difference, as it follows an element's name in a sentence. */
export function fieldWords({ field, from, to }: FieldChange): string {
  const was = (value: string) => (value === "" ? "nothing" : value);
  switch (field) {
    case "name":
      return from === ""
        ? "has a name now"
        : to === ""
          ? `has no name any more; it was “${from}”`
          : `was called “${from}”`;
    case "type":
      return `is ${article(to)} instead of ${article(from)}`;
    case "lane":
      return from === ""
        ? `is now done by ${to}`
        : to === ""
          ? `is no longer done by ${from}`
          : `moves from ${from} to ${to}`;
    case "parent":
      return `is now part of ${was(to)} instead of ${was(from)}`;
    case "source":
      return `comes from ${was(to)} instead of ${was(from)}`;
    case "target":
      return `leads to ${was(to)} instead of ${was(from)}`;
    case "systems":
      return usedWords(from, to);
    case "documents":
      return `handles ${was(to)} instead of ${was(from)}`;
    case "roles":
      return `has ${was(to)} instead of ${was(from)}`;
    case "documentation":
      return "has other guidance";
    case "markers":
      return `is ${was(to)} instead of ${was(from)}`;
    case "extension":
      return "has other technical attributes";
    default:
      return `has the ${field} ${was(to)} instead of ${was(from)}`;
  }
}

/** What a list of names has besides the other one, and no longer. */
export function listChange({ from, to }: Pick<FieldChange, "from" | "to">): { added: string; gone: string } {
  const list = (words: string) => words.split(", ").filter((word) => word !== "");
  const [before, now] = [list(from), list(to)];
  return {
    added: now.filter((word) => !before.includes(word)).join(", "),
    gone: before.filter((word) => !now.includes(word)).join(", "),
  };
}

function usedWords(from: string, to: string): string {
  const { added, gone } = listChange({ from, to });
  if (added && gone) return `uses ${added} instead of ${gone}`;
  return added ? `uses ${added} ${from === "" ? "now" : "too"}` : `no longer uses ${gone}`;
}
