import type { BriefNode } from "./document";
import { readBrief } from "./sentences";
import { articles, thingKey, thingName } from "./wording";

/** A document that a description speaks of, with what it says stands in it. */
export interface ToldDocument {
  readonly name: string;
  /** All its marks. */
  readonly marks: readonly string[];
  /** The sentence that says most of it. */
  readonly sentence: string;
  /** What it says stands in it, in the order of the text. */
  readonly parts: readonly string[];
}

const mostParts = 30;
/** What introduces a list of what stands in a document. */
const opening =
  /^\s*(?:,?\s*(?:which|that)\s+)?(?:with|stating|showing|naming|listing|containing|giving|states?|shows?|names?|lists?|contains?|gives?|says?|holds?)\s+|^\s*[(:]\s*/i;

/** The things of a list behind the words of a document; none where what follows is no list of things. */
function listBehind(rest: string): string[] {
  const opened = opening.exec(rest);
  if (!opened) return [];
  const until = opened[0].includes("(")
    ? /\)/
    : /[.;:!?]|,? (?:to|in|into|by|for|from|before|after|when|if|so that)\b/i;
  const list = rest.slice(opened[0].length).split(until)[0] ?? "";
  return list
    .split(/,\s*(?:and\s+|or\s+)?|\s+and\s+|\s+or\s+/)
    .map((one) => one.trim().replace(articles, "").trim())
    .filter((one) => one !== "" && one.split(/\s+/).length <= 6)
    .slice(0, mostParts);
}

/**
 * The documents of a description, each once however often it is named, in the order of the text. What stands in one is read where its
 * words are followed by a list: "the application with the address, the rated power and the roof". O(marks × sentences).
 */
export function documentsIn(document: BriefNode): readonly ToldDocument[] {
  const found = new Map<string, { name: string; marks: string[]; sentence: string; parts: string[] }>();
  for (const sentence of readBrief(document).sentences)
    for (const mark of sentence.marks) {
      if (mark.kind !== "document") continue;
      const key = thingKey(mark.text);
      const parts = listBehind(sentence.text.slice(mark.to - sentence.from));
      const known = found.get(key) ?? { name: thingName(mark.text), marks: [], sentence: sentence.text, parts: [] };
      if (!known.marks.includes(mark.id)) known.marks.push(mark.id);
      if (known.parts.length === 0 && parts.length > 0) known.sentence = sentence.text;
      for (const part of parts) if (!known.parts.includes(part)) known.parts.push(part);
      found.set(key, known);
    }
  return [...found.values()];
}
