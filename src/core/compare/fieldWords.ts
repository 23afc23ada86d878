import { type Said, say, term } from "../messages";
import type { FieldChange } from "./changes";

/** "a user task", "an exclusive gateway". */
export const article = (words: string): string => `${/^[aeio]/.test(words) ? "an" : "a"} ${words}`;

/** One field's difference, as it follows an element's name in a sentence. */
export function fieldWords({ field, from, to }: FieldChange): Said {
  const was = (value: string) => (value === "" ? say`nothing` : value);
  switch (field) {
    case "name":
      return from === ""
        ? say`has a name now`
        : to === ""
          ? say`has no name any more; it was “${from}”`
          : say`was called “${from}”`;
    case "type":
      return say`is ${term(article(to))} instead of ${term(article(from))}`;
    case "lane":
      return from === ""
        ? say`is now done by ${to}`
        : to === ""
          ? say`is no longer done by ${from}`
          : say`moves from ${from} to ${to}`;
    case "parent":
      return say`is now part of ${was(to)} instead of ${was(from)}`;
    case "source":
      return say`comes from ${was(to)} instead of ${was(from)}`;
    case "target":
      return say`leads to ${was(to)} instead of ${was(from)}`;
    case "systems":
      return usedWords(from, to);
    case "documents":
      return say`handles ${was(to)} instead of ${was(from)}`;
    case "roles":
      return say`has ${was(to)} instead of ${was(from)}`;
    case "documentation":
      return say`has other guidance`;
    case "markers":
      return say`is ${was(to)} instead of ${was(from)}`;
    case "decision":
      return say`decides by ${was(to)} instead of ${was(from)}`;
    case "form":
      return formWords(from, to);
    case "holds":
      return lineWords(from, to, say`now holds`, say`no longer holds`);
    case "extension":
      return say`has other technical attributes`;
    default:
      return say`has the ${field} ${was(to)} instead of ${was(from)}`;
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

const linesIn = (text: string) => text.split("\n").filter((line) => line !== "");
/** So many lines are told one by one. */
const mostLines = 6;

/** What of a list of lines came, and what went. */
function lineWords(from: string, to: string, came: Said, went: Said): Said {
  const [before, now] = [linesIn(from), linesIn(to)];
  const told = (lines: readonly string[]): Said =>
    lines.length > mostLines
      ? say`${lines.slice(0, mostLines).join(", ")} and ${lines.length - mostLines} more`
      : say`${lines.join(", ")}`;
  const added = now.filter((line) => !before.includes(line));
  const gone = before.filter((line) => !now.includes(line));
  if (added.length === 0 && gone.length === 0) return say`has the same in another order`;
  if (gone.length === 0) return say`${came} ${told(added)}`;
  if (added.length === 0) return say`${went} ${told(gone)}`;
  return say`${came} ${told(added)}, ${went} ${told(gone)}`;
}

function formWords(from: string, to: string): Said {
  if (from === "") return say`has a form now: ${linesIn(to).length} to fill in`;
  if (to === "") return say`has no form any more`;
  const [before, now] = [linesIn(from), linesIn(to)];
  const isSorted = before.length === now.length && before.every((line) => now.includes(line));
  if (isSorted) return say`asks in another order`;
  return lineWords(from, to, say`asks for`, say`no longer asks for`);
}

function usedWords(from: string, to: string): Said {
  const { added, gone } = listChange({ from, to });
  if (added && gone) return say`uses ${added} instead of ${gone}`;
  if (!added) return say`no longer uses ${gone}`;
  return from === "" ? say`uses ${added} now` : say`uses ${added} too`;
}
