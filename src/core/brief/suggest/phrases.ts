import type { Span } from "../document";
import { particles } from "../reading/grammar";
import type { Word } from "../reading/words";
import { singularOf, thingKey } from "../wording";

/** A name of somebody or something: "the head of department", without its article. */
export interface Phrase extends Span {
  readonly text: string;
  readonly key: string;
  /** The last noun, in the singular: what it is. */
  readonly head: string;
  /** "A", "the", or nothing. */
  readonly article: string;
  /** The word before it, where that is a preposition. */
  readonly preposition: string | undefined;
}

export const singular = (word: string): string => {
  const lower = word.toLowerCase();
  return /[^s]s$/.test(lower) && !/(?:us|is)$/.test(lower) ? singularOf(lower).toLowerCase() : lower;
};

const isInName = (word: Word) => word.class === "noun" || word.class === "adjective";
/** "The lending desk": what looks like a doing stands in a name. */
const isNaming = (words: readonly Word[], at: number) =>
  words[at]?.class === "gerund" &&
  words[at - 1]?.class === "determiner" &&
  words[at + 1]?.class === "noun" &&
  !words[at + 1]?.isParted;
/** Words that count or compare, and name nothing. */
const counting =
  /^(?:first|second|third|next|last|same|other|own|such|more|most|few|several|whole|full|free|new|old|later|missing)$/i;

const phrasal =
  /^(?:fill|hand|make|draw|look|write|put|send|give|take|note|pass|pay|set|type|lay)(?:s|es)? (?:in|out|over|up|down|away|back|off|on)$/;
/** "Fills in a form": the little word belongs to the verb, not to the form. */
const isOneVerb = (verb: Word, particle: Word) =>
  ["verb", "infinitive"].includes(verb.class) && phrasal.test(`${verb.lower} ${particle.lower}`);

/** The names in a sentence, from left to right. O(words). */
export function phrasesOf(text: string, words: readonly Word[]): Phrase[] {
  const phrases: Phrase[] = [];
  for (let at = 0; at < words.length; at++) {
    if (!isInName(words[at] as Word) && !isNaming(words, at)) continue;
    let end = at;
    while (end + 1 < words.length && isInName(words[end + 1] as Word) && !words[end + 1]?.isParted) end++;
    let last = end;
    while (last > at && words[last]?.class !== "noun") last--;
    const head = words[last] as Word;
    let isOfName = false;
    if (head.class === "noun") {
      let first = at;
      while (
        first < last &&
        (words[first]?.class === "adjective" || counting.test(words[first]?.lower ?? "")) &&
        counting.test(words[first]?.lower ?? "")
      )
        first++;
      // "The head of department", "a list of parts": what somebody or something is of belongs to the name.
      const ofWhat = words[last + 1]?.lower === "of" ? words[last + 2] : undefined;
      const behindOf = ofWhat?.class === "determiner" ? words[last + 3] : ofWhat;
      const isOf =
        /^(?:head|director|board|member|keeper|owner|list|proof|certificate|confirmation|letter|notice|statement|record)s?$/.test(
          head.lower,
        ) && behindOf?.class === "noun";
      isOfName = isOf;
      const until = isOf ? behindOf : head;
      const before = words[at - 1];
      const article = before?.class === "determiner" && !(words[at] as Word).isParted ? before.lower : "";
      const lead = article ? words[at - 2] : before;
      const from = (words[first] as Word).from;
      const name = text.slice(from, until.to);
      const verb = lead && words[words.indexOf(lead) - 1];
      const isPhrasal = lead !== undefined && verb !== undefined && isOneVerb(verb, lead);
      const isPreposition =
        !isPhrasal && (lead?.class === "preposition" || (lead !== undefined && particles.has(lead.lower)));
      phrases.push({
        from,
        to: until.to,
        text: name,
        key: thingKey(name),
        head: singular(head.text),
        article,
        preposition: isPreposition ? lead.lower : undefined,
      });
    }
    at = isOfName ? words.findIndex((word) => word.to === (phrases.at(-1)?.to ?? 0)) : end;
  }
  return phrases;
}
