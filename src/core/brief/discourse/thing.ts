import type { Mark } from "../document";
import { particles } from "../reading/grammar";
import { wordsOf } from "../reading/words";
import { uncapitalised } from "../wording";
import type { Part } from "./part";

/** What an activity is done to, by its words: what "it" or "them" means in the next clause. */
export function objectOf(part: Part, mark: Pick<Mark, "text">): { text: string; isPlural: boolean } | undefined {
  const { clause, sentence } = part;
  if (clause.verb?.isPassive && clause.subject) {
    const text = sentence.text.slice(clause.subject.from, clause.subject.to);
    return told(text.replace(/^(?:the|an?)\s+/i, ""));
  }
  const words = wordsOf(`she ${uncapitalised(mark.text)}`).slice(1);
  // "Check the form": a doing that looks like a name.
  const verb = Math.max(
    0,
    words.findIndex((word) => word.class === "verb"),
  );
  // "Fills in the form", "comments on it": the little word belongs to the verb.
  const behind = words.slice(verb + 1);
  const rest =
    behind[0] && (particles.has(behind[0].lower) || /^(?:for|at|through|after)$/.test(behind[0].lower))
      ? behind.slice(1)
      : behind;
  const end = rest.findIndex(
    (word) =>
      (word.class === "preposition" && word.lower !== "of") ||
      word.isParted ||
      word.class === "coordinator" ||
      word.class === "subordinator",
  );
  const object = (end < 0 ? rest : rest.slice(0, end)).filter(
    (word) => word.class !== "determiner" && word.class !== "adverb",
  );
  const head = object.findLast((word) => word.class === "noun");
  if (head)
    return told(
      object
        .filter((word) => word.to <= head.to)
        .map((word) => word.text)
        .join(" "),
    );
  // "Signs it": what it was stays what is spoken of.
  return undefined;
}

/** What a clause speaks of that tells of no work: "a customer brings a coat", "if the piece is found". */
export function spokenOf(part: Part, isPerson: boolean): { text: string; isPlural: boolean } | undefined {
  const { clause, sentence } = part;
  if (!clause.verb) return undefined;
  const behind = clause.verb.isState
    ? undefined
    : objectOf(part, { text: sentence.text.slice(clause.verb.main.from, clause.to) });
  if (behind) return behind;
  return clause.subject && !isPerson && !clause.sharesSubject
    ? told(sentence.text.slice(clause.subject.from, clause.subject.to).replace(/^(?:the|an?|all|no)\s+/i, ""))
    : undefined;
}

/** A thing by its words, without an article; undefined where they only point at one. */
export const thingOf = (words: string) => told(words.replace(/^(?:the|an?)\s+/i, ""));

function told(text: string) {
  const bare = text.trim();
  if (bare === "" || /^(?:it|them|he|she|they|there|one|none|nobody|somebody|both|this|that)$/i.test(bare))
    return undefined;
  return { text: bare, isPlural: (/[^s]s$/i.test(bare) && !/(?:us|is|as)$/i.test(bare)) || / and /.test(bare) };
}
