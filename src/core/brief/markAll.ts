import type { BriefNode } from "./document";
import type { Suggestion } from "./suggest/suggest";

/**
 * A page with suggestions taken as marks, called s1, s2, … in their order. The page may have no marks yet: each of its passages is
 * one run of words, as plain text gives it. O(suggestions × words of a passage).
 */
export function markAll(document: BriefNode, suggestions: readonly Suggestion[]): BriefNode {
  const named = suggestions.map((suggestion, at) => ({ ...suggestion, id: `s${at + 1}` }));
  let passage = -1;
  const visit = (node: BriefNode): BriefNode => {
    const [only] = node.content ?? [];
    if (only?.type !== "text") return node.content ? { ...node, content: node.content.map(visit) } : node;
    passage++;
    const text = (node.content ?? []).map((part) => part.text ?? "").join("");
    const here = named.filter((one) => one.passage === passage);
    const cuts = [...new Set([0, text.length, ...here.flatMap(({ from, to }) => [from, to])])].sort((a, b) => a - b);
    const content = cuts.slice(1).map((to, at): BriefNode => {
      const from = cuts[at] as number;
      const marks = here
        .filter((one) => one.from <= from && one.to >= to)
        .map(({ id, kind }) => ({ type: "word" as const, attrs: { id, kind } }));
      return { type: "text", text: text.slice(from, to), ...(marks.length > 0 && { marks }) };
    });
    return { ...node, content };
  };
  return visit(document);
}
