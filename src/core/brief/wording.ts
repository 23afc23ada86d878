import nlp from "compromise";

/** A word of a text, with its place and what the tagger takes it for. */
export interface Term {
  readonly text: string;
  readonly from: number;
  readonly to: number;
  readonly tags: ReadonlySet<string>;
}

interface TaggedSentence {
  readonly terms: readonly { text: string; tags: string[]; offset: { start: number; length: number } }[];
}

/** Answers for words asked about before: a page is read again with every change, and most of it is as it was. */
function remembered<Answer>(answer: (words: string) => Answer): (words: string) => Answer {
  const known = new Map<string, Answer>();
  return (words) => {
    const found = known.get(words) ?? answer(words);
    if (known.size > 5000) known.clear();
    known.set(words, found);
    return found;
  };
}

/** The longest text that is tagged at once: the package takes much longer for one long sentence than for many short ones. */
const longestAtOnce = 1_500;

/** A text in pieces, cut between words where it has no end of a sentence for too long. */
function piecesOf(text: string): { readonly text: string; readonly from: number }[] {
  const pieces: { text: string; from: number }[] = [];
  for (let from = 0; from < text.length; ) {
    const rest = text.length - from;
    const blank = rest > longestAtOnce ? text.lastIndexOf(" ", from + longestAtOnce) : -1;
    const to = rest <= longestAtOnce ? text.length : blank > from ? blank + 1 : from + longestAtOnce;
    pieces.push({ text: text.slice(from, to), from });
    from = to;
  }
  return pieces;
}

/** Tags the words of a text by the language package's English model. O(length). */
export const termsOf = remembered((text: string): readonly Term[] =>
  piecesOf(text).flatMap((piece) => {
    const sentences = nlp(piece.text).json({ offset: true, terms: { offset: true } }) as TaggedSentence[];
    return sentences.flatMap((sentence) =>
      sentence.terms
        .filter((term) => term.text !== "")
        .map((term) => ({
          text: term.text,
          from: piece.from + term.offset.start,
          to: piece.from + term.offset.start + term.text.length,
          tags: new Set(term.tags),
        })),
    );
  }),
);

export const articles = /^(?:an?|the|his|her|its|their|our|any|this|that|these|those|each|every|all)\s+/i;
/** In the middle of a name only articles go; "their" before a noun is left out too. */
const innerArticles = /\b(?:an?|the|this|these|his|her|its|their|our)\s+/gi;

export const capitalised = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
export const uncapitalised = (words: string) =>
  /^\p{Lu}\p{Ll}/u.test(words) ? words.charAt(0).toLowerCase() + words.slice(1) : words;
export const tidied = (words: string) =>
  words
    .replace(/\s+/g, " ")
    .replace(/^[\s,;:.]+|[\s,;:.?]+$/g, "")
    .trim();

/** "The papers" are no paper, and the department of sales sells more than one. */
const alwaysPlural =
  /^(?:papers|goods|data|details|documents|minutes|premises|sales|operations|logistics|accounts|facilities|communications|resources|relations|affairs|headquarters)$/i;
/** The name of a role, party, system or document: "the front desks" is "Front desk". */
export const thingName = remembered((words: string): string => {
  const bare = tidied(words).replace(articles, "");
  const cut = bare.lastIndexOf(" ") + 1;
  const last = bare.slice(cut);
  const isPlural =
    !alwaysPlural.test(last) && /[^s]s$|ies$|[xs]es$|people$/i.test(last) && !/(?:us|is|as)$/i.test(last);
  const singular = isPlural ? singularOf(last) : last;
  return capitalised(bare.slice(0, cut) + singular);
});

/** Things of one name have the same key, however they were written. */
export const thingKey = (words: string): string =>
  thingName(words)
    .toLowerCase()
    .replace(/[\s-]+/g, " ");

/** The first verb of words that begin with what somebody does; its context decides the tagger's doubtful cases. */
function firstVerb(words: string) {
  const subject = "she ";
  const terms = termsOf(subject + words).filter((term) => term.from >= subject.length);
  const at = terms.findIndex((term) => term.tags.has("Verb") && !term.tags.has("Modal") && !term.tags.has("Auxiliary"));
  const term = terms[at];
  return (
    term && { text: term.text, from: term.from - subject.length, to: term.to - subject.length, tags: term.tags, at }
  );
}

function verbsIn(verb: string) {
  const view = nlp(verb);
  view.tag("Verb");
  return view.verbs();
}
export const infinitiveOf = remembered((verb: string) => verbsIn(verb).toInfinitive().text() || verb);
export const pastOf = (verb: string) => verbsIn(verb).toPastTense().text() || verb;
/** "Pays" of "pay". */
export const thirdPersonOf = (verb: string) => verbsIn(verb).toPresentTense().text() || verb;
/** "Withdrawn", where its past is "withdrew". */
const participleOf = (verb: string) =>
  verbsIn(verb)
    .toPastParticiple()
    .text()
    .replace(/^ha[sd]\s+/, "") || pastOf(verb);

/** The singular of a plural: "bodies" is "body". */
export const singularOf = remembered((plural: string): string => {
  const view = nlp(plural);
  view.tag("Plural");
  return view.nouns().toSingular().text() || plural;
});
const isPassive =
  /^(?<what>.*?)\s*\b(?:is|are|was|were|gets?|be|been|being)\s+(?:then\s+|also\s+|now\s+)?(?<done>\p{L}+)(?<rest>.*)$/iu;

/** What is done, as verb and object: "registers the application" and "the application is registered" are "Register application". */
export const stepName = remembered((words: string): string => {
  const text = tidied(words);
  const passive = isPassive.exec(text)?.groups;
  // In "reads the meters that are due" the reading is what is done.
  if (
    passive &&
    !firstVerb(passive.what as string) &&
    /(?:ed|en|t|ght|wn|ld|id|de|ne|d)$/i.test(passive.done as string)
  ) {
    const what = tidied(passive.what as string).replace(
      /^(?:must|has to|have to|should|will|can)\s+|\s+(?:must|has to|have to|should|will|can)$/gi,
      "",
    );
    const rest = (passive.rest as string).replace(/^\s*by\s+.*$/i, "");
    return named(`${infinitiveOf(passive.done as string)} ${uncapitalised(what)} ${rest}`);
  }
  const verb = firstVerb(text);
  // "Alerts the crew": what looks like a name and has an article behind it is done.
  const doing = verb ?? /^(?<text>\p{L}+[^s\W]s)(?=\s+(?:the|an?|his|her|its|their)\s)/iu.exec(text)?.groups;
  if (!doing?.text) return named(text);
  return named(`${infinitiveOf(doing.text)} ${text.slice(verb?.to ?? doing.text.length)}`);
});

export const named = (words: string) => {
  const bare = tidied(words).replace(innerArticles, "");
  return capitalised(bare.length > 80 ? `${bare.slice(0, bare.lastIndexOf(" ", 78))} …` : bare);
};

/** What somebody else did with something, as a state of that: "sends the missing papers" is "Missing papers sent". */
export function doneName(words: string): string {
  const text = tidied(words);
  const verb = firstVerb(text);
  if (!verb) return named(text);
  const rest = tidied(text.slice(verb.to)).replace(/\s+at any (?:time|point|stage)$/i, "");
  // "Arrives at the clinic" is "Arrived at clinic".
  if (/^(?:at|in|on|to|for|with|from|by)\s/i.test(rest)) return named(`${pastOf(verb.text)} ${rest}`);
  if (rest === "") return named(pastOf(verb.text));
  // "Submits the form online" is "Form submitted online".
  const [, what = rest, how = ""] =
    /^(.+?)(\s+(?:online|again|electronically|in person|by\s.+|via\s.+|on the portal))$/i.exec(rest) ?? [];
  return named(`${what.replace(articles, "")} ${participleOf(verb.text)}${how}`);
}

const keyWords = ["Noun", "Adjective", "Verb", "Value"];
/** The words that carry the meaning, in their ground forms: for comparing two descriptions. */
export const meaningOf = remembered((words: string): ReadonlySet<string> => {
  const kept = termsOf(words).filter(
    (term) =>
      keyWords.some((tag) => term.tags.has(tag)) &&
      !["Pronoun", "Auxiliary", "Modal", "Copula", "Determiner"].some((tag) => term.tags.has(tag)),
  );
  return new Set(
    kept.map(({ text, tags }) =>
      (tags.has("Verb") ? infinitiveOf(text) : tags.has("Plural") ? singularOf(text) : text).toLowerCase(),
    ),
  );
});

/** Whether two descriptions speak of the same: at least half of the shorter one's words are the other's too. */
export function speaksOf(a: string, b: string): boolean {
  const [one, other] = [meaningOf(a), meaningOf(b)];
  const shared = [...one].filter((word) => other.has(word)).length;
  return shared > 0 && shared * 2 >= Math.min(one.size, other.size);
}

/** What an activity comes down to; equal for two that are the same work in other words. */
export const workKey = (words: string): string => [...meaningOf(stepName(words))].sort().join(" ");
