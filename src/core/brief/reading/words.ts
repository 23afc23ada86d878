import type { Span } from "../document";
import { singularOf, type Term, termsOf } from "../wording";
import { alwaysParties, partyNouns, roleNouns } from "../words";
import {
  auxiliaries,
  coordinators,
  determiners,
  intransitive,
  type Link,
  modals,
  particles,
  prepositions,
  pronouns,
  subordinators,
} from "./grammar";

export type WordClass =
  | "noun"
  | "verb"
  | "auxiliary"
  | "modal"
  | "participle"
  | "gerund"
  | "infinitive"
  | "adjective"
  | "adverb"
  | "determiner"
  | "pronoun"
  | "preposition"
  | "coordinator"
  | "subordinator"
  | "relative"
  | "number"
  | "not";

/** A word of a sentence and the part it plays there. */
export interface Word extends Span {
  readonly text: string;
  readonly lower: string;
  class: WordClass;
  /** Of a subordinator: how it ties. Its other words are subordinators without a link. */
  readonly link: Link;
  /** A comma, semicolon, colon, dash or bracket stands before it. */
  readonly isParted: boolean;
}

/**
 * The words of a sentence with their parts of speech: the closed classes by list, the others by the language package's tagger, put
 * right by what stands around them where its choice is known to be doubtful. O(length).
 */
export function wordsOf(text: string): Word[] {
  const words: Word[] = termsOf(text).map((term, at, all) => {
    const between = text.slice(all[at - 1]?.to ?? 0, term.from);
    return {
      from: term.from,
      to: term.to,
      text: term.text,
      lower: term.text.toLowerCase().replace(/[’]/g, "'"),
      class: classOf(term),
      link: undefined,
      isParted: at > 0 && /[,;:–—()]/.test(between),
    };
  });
  tieClauses(words);
  for (const at of words.keys()) correct(words, at);
  for (const at of words.keys()) correctHelped(words, at);
  for (const part of partsOf(words)) findVerb(part);
  return words.map((word, at) => {
    if (isBareDepartment(words, at)) return { ...word, class: "noun", isParted: true };
    return goesOnWith(words, at) ? { ...word, isParted: true } : word;
  });
}

/** What somebody is or is there for, which tells who is meant and not what is done next. */
const lasting =
  /^(?:wants?|needs?|knows?|likes?|lives?|works?|owns?|uses?|belongs?|deals?|handles?|does|do|leads?|manages?|runs?)$/;

/** "Hands it over to the planner who estimates the effort": as with a comma before it, what is done next, by whom it came to. */
function goesOnWith(words: readonly Word[], at: number): boolean {
  if (words[at]?.lower !== "who" || words[at]?.isParted) return false;
  let from = at;
  while (from > 0 && /^(?:noun|adjective|determiner)$/.test(words[from - 1]?.class ?? "")) from--;
  const behind = words.slice(at + 1).find((word) => word.class !== "adverb");
  return (
    from < at &&
    words[from - 1]?.lower === "to" &&
    words.slice(0, from).some(isFiniteVerb) &&
    behind?.class === "verb" &&
    !lasting.test(behind.lower)
  );
}

const timeUnits =
  /^(?:hour|day|night|morning|evening|week|month|quarter|year|(?:mon|tues|wednes|thurs|fri|satur|sun)day)$/;

/**
 * A department without an article, right behind what leads the clause and before its verb: "every month billing collects", "for each
 * customer billing compares", "at the end accounting pays". It is named by itself and no part of the time or thing before it.
 */
function isBareDepartment(words: readonly Word[], at: number): boolean {
  const [word, before, next] = [words[at] as Word, words[at - 1], words[at + 1]];
  if (!before || !next || word.isParted || !isFiniteVerb(next)) return false;
  if (!["noun", "gerund"].includes(word.class) || !["noun", "number"].includes(before.class)) return false;
  let first = at - 1;
  while (first > 0 && !words[first]?.isParted && words[first - 1]?.class !== "coordinator") first--;
  const lead = words[first] as Word;
  // "In the spring the morning meeting ends": a name with an article of its own is one.
  if (at - 2 > first && words[at - 2]?.class === "determiner" && words[at - 3]?.class !== "preposition") return false;
  const recurs = /^(?:every|each)$/.test(lead.lower);
  if (recurs && timeUnits.test(before.lower)) return true;
  // "The lending desk" and "the morning meeting" have their article; what is led by a preposition has none of its own.
  return (recurs || lead.class === "preposition") && at - first >= 2 && /[^r]ing$/.test(word.lower);
}

/** What the tagger takes for all kinds of words. */
const particlesAlone = new Set([
  "otherwise",
  "else",
  "meanwhile",
  "again",
  "afterwards",
  "finally",
  "also",
  "only",
  "there",
]);

function classOf(term: Term): WordClass {
  const { tags } = term;
  const lower = term.text.toLowerCase().replace(/[’]/g, "'");
  if (lower === "not" || /n't$/.test(lower)) return lower === "not" ? "not" : "auxiliary";
  // "The IT department" is no "it".
  if (term.text === "IT") return "noun";
  if (coordinators.has(lower)) return "coordinator";
  if (particlesAlone.has(lower)) return "adverb";
  if (modals.has(lower) && !(lower === "need" && !tags.has("Modal"))) return "modal";
  if (auxiliaries.has(lower)) return "auxiliary";
  if (lower === "who" || lower === "which" || lower === "whom" || lower === "whose") return "relative";
  if (determiners.has(lower) && !tags.has("Pronoun")) return "determiner";
  if (pronouns.has(lower)) return "pronoun";
  if (prepositions.has(lower)) return "preposition";
  if (lower === "worth") return "adjective";
  if (tags.has("Value")) return "number";
  // "Billing reads the meters": a department, whatever its ending looks like.
  if (tags.has("Gerund")) return roleNouns.has(lower) ? "noun" : "gerund";
  if (tags.has("Verb")) return tags.has("PastTense") || tags.has("Participle") ? "participle" : "verb";
  if (tags.has("Adverb")) return "adverb";
  if (tags.has("Adjective") || tags.has("Comparative")) return "adjective";
  return "noun";
}

/** Marks the words that begin a dependent clause. */
function tieClauses(words: Word[]): void {
  // "Should the value exceed the limit, …"
  const [first, second] = words;
  if (first?.lower === "should" && second && ["determiner", "pronoun", "noun"].includes(second.class))
    words[0] = { ...first, class: "subordinator", link: "if" };
  for (let at = 0; at < words.length; at++) {
    const found = subordinators.find(([phrase]) =>
      phrase.split(" ").every((word, place) => words[at + place]?.lower === word),
    );
    if (!found) continue;
    const [phrase, link] = found;
    // "In case of fire" and "once a month" begin no clause.
    const next = words[at + phrase.split(" ").length];
    if (phrase === "in case" && next?.lower === "of") continue;
    if (phrase === "once" && /^(?:a|an|per|every|more|again)$/.test(next?.lower ?? "")) continue;
    const meant = phrase === "if" && isAskedAt(words, at) ? "whether" : link;
    phrase.split(" ").forEach((_, place) => {
      const word = words[at + place] as Word;
      words[at + place] = { ...word, class: "subordinator", link: place === 0 ? meant : undefined };
    });
    at += phrase.split(" ").length - 1;
  }
}

/** What is done to know something. */
const asking =
  /^(?:check(?:s|ing)?|verif(?:y|ies|ying)|determin(?:es?|ing)|decid(?:es?|ing)|ask(?:s|ing)?|tests?|testing|examin(?:es?|ing)|assess(?:es|ing)?|evaluat(?:es?|ing)|judg(?:es?|ing)|investigat(?:es?|ing)|sees?|finds?|finding|looks?|looking)$/;

/** "Checks if the part is there": the "if" stands for "whether". "Checks if necessary" and "is checked if the value is high" do not. */
function isAskedAt(words: readonly Word[], at: number): boolean {
  const [verb, before, next] = [words[at - 1], words[at - 2], words[at + 1]];
  if (!verb || !next || words[at]?.isParted || next.isParted) return false;
  if (/^(?:so|not|yes|no|any|ever|necessary|needed|required|possible|applicable|wanted|desired)$/.test(next.lower))
    return false;
  // "Asks the household if it wants one".
  let asked = at - 1;
  while (asked > 0 && !words[asked]?.isParted && /^(?:noun|determiner|adjective)$/.test(words[asked]?.class ?? ""))
    if (/^asks?$/.test(words[--asked]?.lower ?? "")) return true;
  const asks = verb.lower === "out" && before ? before : verb;
  return asking.test(asks.lower) && !(before && asks === verb && before.class === "determiner" && !verb.isParted);
}

const isNominal = (word: Word | undefined) =>
  word?.class === "noun" || word?.class === "pronoun" || word?.class === "number";

/** What the tagger often takes for something else, told by its neighbours. */
function correct(words: Word[], at: number): void {
  const word = words[at] as Word;
  const [before, next] = [words[at - 1], words[at + 1]];
  const touches = before !== undefined && !word.isParted;
  // "…, so the crew changes it"; "if so" is an answer.
  if (word.lower === "so" && word.isParted && next && !next.isParted) word.class = "coordinator";
  const isVerbal = word.class === "verb" || word.class === "participle" || word.class === "gerund";
  if (isVerbal && touches && before.lower === "to") {
    word.class = "infinitive";
    return;
  }
  // "An application for leave": what stands behind a preposition names something.
  if (word.class === "verb" && touches && before.class === "preposition" && !particles.has(before.lower)) {
    word.class = "noun";
    return;
  }
  // "A household that wants to feed in power": "that" is no article here.
  const isOfOne = touches && before.lower === "that" && !before.isParted && words[at - 2]?.class === "noun";
  const isPluralBefore = /[^s]s$/.test(words[at - 2]?.lower ?? "");
  if (isVerbal && isOfOne && isPluralBefore !== /[^s]s$/.test(word.lower)) {
    word.class = "verb";
    return;
  }
  const isInNoun =
    touches && (before.class === "determiner" || before.class === "number" || before.class === "adjective");
  if (isVerbal && isInNoun) {
    // "The missing papers", "a corrected invoice"; "the check is repeated".
    const isBeforeNoun = next !== undefined && !next.isParted && next.class === "noun";
    word.class = word.class !== "verb" && isBeforeNoun ? "adjective" : "noun";
    return;
  }
  // "With forbidden content": a participle between a preposition and its noun.
  if (
    word.class === "participle" &&
    touches &&
    before.class === "preposition" &&
    next?.class === "noun" &&
    !next.isParted
  )
    word.class = "adjective";
  // "By then", "four weeks", "both go on", "either issues".
  if (word.lower === "then" && touches && before.class === "preposition") word.class = "noun";
  // "Is then filed", "he then signs it": in the middle of a clause it begins none.
  if (word.lower === "then" && touches && ["auxiliary", "modal", "pronoun"].includes(before.class))
    word.class = "adverb";
  if (isVerbal && touches && before.class === "number") word.class = "noun";
  if (/^(?:both|all|these|those|either)$/.test(word.lower) && next && !next.isParted) {
    const isVerbNext = next.class === "verb" || next.class === "auxiliary" || next.class === "modal";
    const after = words[at + 2];
    const isVerbThen = word.lower === "either" && after?.class === "determiner" && before?.class !== "preposition";
    if (isVerbNext || isVerbThen) word.class = word.lower === "either" ? "adverb" : "pronoun";
    if (isVerbThen && next.class === "noun") next.class = "verb";
  }
  // "Who wants power fills in a form".
  if (
    word.class === "noun" &&
    next &&
    /^(?:fill|hand|send|give|put|draw|type)s (?:in|out|over|up|down|back)$/.test(`${word.lower} ${next.lower}`) &&
    words[at + 2]?.class === "determiner"
  ) {
    word.class = "verb";
    return;
  }
  // "The desk offers the …", "changes the meter": nothing but a verb stands right before an article.
  const opensObject =
    next !== undefined &&
    !next.isParted &&
    (next.class === "determiner" || next.link === "whether" || /^(?:it|them|him|which|what|how)$/.test(next.lower));
  if (
    word.class === "noun" &&
    opensObject &&
    before?.class !== "number" &&
    (isNominal(before) || before?.class === "adverb" || !touches || before?.class === "coordinator")
  ) {
    // "… or refuse the request": a thing named among others has no article behind it.
    const isInRow = !touches || before?.class === "coordinator";
    // "A clerk and a manager review each claim".
    const near = words.slice(Math.max(0, at - 8), at);
    const ofTwo = near.some(({ lower }) => lower === "and") && !near.some(isFiniteVerb);
    const looksFinite = isInRow || ofTwo || /[^s]s$/.test(word.lower) || /[^s]s$/.test(before?.lower ?? "");
    if (looksFinite && at > 0) word.class = "verb";
  }
}

/** "Is repeated", "was found", "has been told": what stands behind a helping verb and looks like a participle is one. */
function correctHelped(words: Word[], at: number): void {
  const word = words[at] as Word;
  if (word.isParted || !["noun", "adjective", "verb"].includes(word.class) || !looksDone.test(word.lower)) return;
  let place = at - 1;
  while (place >= 0 && ["adverb", "not"].includes(words[place]?.class ?? "") && !words[place + 1]?.isParted) place--;
  const next = words[at + 1];
  if (words[place]?.class === "auxiliary" && !(next?.class === "noun" && !next.isParted)) word.class = "participle";
}
const looksDone =
  /(?:[^e]ed|[^a-z]en|(?:tak|giv|chos|writt|brok|driv|spok|stol|eat|forgott|hidd|prov|beat)en|(?:sen|los|lef|kep|spen|bough|brough|though|caugh|taugh|mean|buil|dealt?)t?|pai(?:d)|sai(?:d)|lai(?:d)|tol(?:d)|sol(?:d)|hel(?:d)|foun(?:d)|mad(?:e)|don(?:e)|gon(?:e)|know(?:n)|draw(?:n)|show(?:n)|see(?:n)|withdraw(?:n)|begu(?:n)|read|put|cut|set|met|hit|hurt|shut)$/;

/** The stretches of a sentence in which a verb of its own is looked for. */
function partsOf(words: readonly Word[]): Word[][] {
  const parts: Word[][] = [];
  for (const word of words) {
    if (
      parts.length === 0 ||
      word.isParted ||
      word.class === "coordinator" ||
      word.link !== undefined ||
      word.class === "relative"
    )
      parts.push([]);
    parts.at(-1)?.push(word);
  }
  return parts;
}

export const isFiniteVerb = (word: Word): boolean =>
  word.class === "verb" || word.class === "auxiliary" || word.class === "modal";

/** "The application lapses": where nothing else is done, what is taken for a plural at the end is the verb. */
function findVerb(part: readonly Word[]): void {
  if (part.some(isFiniteVerb)) return;
  const at = part.findIndex((word, place) => {
    const [before, next] = [part[place - 1], part[place + 1]];
    if (word.class !== "noun" || !isNominal(before) || !/[^s]s$/.test(word.lower)) return false;
    const ends =
      !next || ["preposition", "adverb", "coordinator", "not"].includes(next.class) || particles.has(next.lower);
    return (
      ends &&
      (intransitive.has(word.lower.replace(/(?:ies)$/, "y").replace(/s$/, "")) ||
        intransitive.has(singularOf(word.lower).toLowerCase()))
    );
  });
  if (at >= 0) {
    (part[at] as Word).class = "verb";
    return;
  }
  // "When a visitor rings": a clause that hangs on another has a verb.
  const isTied = part.some(
    (word) => word.link !== undefined && word.link !== "after" && word.link !== "before" && word.link !== "until",
  );
  const lastWord = part.findLastIndex(
    (word, place) => word.class === "noun" && isNominal(part[place - 1]) && !word.isParted,
  );
  if (
    isTied &&
    lastWord > 0 &&
    /[^s]s$/.test((part[lastWord] as Word).lower) &&
    part[lastWord - 1]?.class !== "number"
  ) {
    (part[lastWord] as Word).class = "verb";
    return;
  }
  // "The doctor prescribes medicine": what stands right behind a person, and before a thing.
  const deed = part.findIndex((word, place) => {
    const [before, next] = [part[place - 1], part[place + 1]];
    const isPerson =
      before !== undefined &&
      (roleNouns.has(before.lower) || partyNouns.has(before.lower) || alwaysParties.has(before.lower));
    return (
      word.class === "noun" &&
      !word.isParted &&
      isPerson &&
      /[^s]s$/.test(word.lower) &&
      next?.class === "noun" &&
      !next.isParted
    );
  });
  if (deed >= 0) {
    (part[deed] as Word).class = "verb";
    return;
  }
  // "The clerk checked the form": told in the past, nothing else says what was done.
  const past = part.findIndex((word, place) => word.class === "participle" && isNominal(part[place - 1]));
  if (past >= 0) (part[past] as Word).class = "verb";
}
