import { infinitiveOf, singularOf } from "../wording";
import { clausesOf } from "./clauses";
import { negators } from "./grammar";
import { type Word, wordsOf } from "./words";

/**
 * Words of one matter, what is said of it when all is well before the bar, the opposite behind it. Everyday business English, common
 * practice, no source.
 */
const matters = [
  "complete ready finish done | incomplete missing lack unfinished partial absent empty",
  "free available vacant open there present enough sufficient stock exist home | missing taken take occupy full book unavailable absent short insufficient sell gone out none empty low",
  "accept approve agree confirm grant allow consent sign support authorise pass release admit like want content satisfied happy | reject refuse decline deny disapprove object withdraw disagree oppose cancel dislike dissatisfied unhappy",
  "correct right valid fine ok okay good clean sound flawless proper satisfactory successful succeed positive pass well work run intact | wrong incorrect invalid faulty bad defective error fault mistake defect damage break broken flaw fail failure negative problem ill",
  "agree match equal same identical | differ deviate mismatch disagree different difference",
  "fit healthy suitable eligible able | unfit ill sick unsuitable ineligible unable",
  "know old exist already | unknown new",
  "pay settle | unpaid owe overdue outstanding",
  "urgent | normal regular ordinary",
  "high heavy | low light",
  "above over exceed more | below under less",
  "early punctual time | late overdue delay",
  "find locate | lose lost missing",
  "arrive come receive return answer reply respond | missing overdue",
  "open | close",
  "worth worthwhile | worthless",
].map((line) => line.split("|").map((side) => new Set(side.trim().split(" "))) as [Set<string>, Set<string>]);

/** Words that carry no matter of their own. */
const bare = new Set(
  "be have do get it they he she this that there one can may must will should case in of to on at for by from with within still already again also then so not and or any all both a an the".split(
    " ",
  ),
);

export interface Statement {
  /** The ground forms of the words that carry the meaning, those of its predicate first. */
  readonly words: ReadonlySet<string>;
  readonly predicate: ReadonlySet<string>;
  readonly subject: string;
  readonly isPronoun: boolean;
  readonly isNegated: boolean;
  /** Of how many it is said, where that is what it turns on: "both agree", "only one of them agrees". */
  readonly howMany: "one" | "several" | undefined;
}

/** "Missing" is the word itself and its verb. */
const grounds = (word: Word): string[] =>
  word.class === "gerund" || word.class === "participle" || (word.class === "adjective" && /ed$/.test(word.lower))
    ? [word.lower, infinitiveOf(word.lower).toLowerCase(), ground(word)]
    : [ground(word)];
const ground = (word: Word): string => {
  if (["verb", "participle", "gerund", "infinitive"].includes(word.class))
    return infinitiveOf(word.lower).toLowerCase();
  return word.class === "noun" && /[^s]s$/.test(word.lower) ? singularOf(word.lower).toLowerCase() : word.lower;
};

/** What a condition or question says, and whether it denies it. */
export function statementOf(text: string): Statement {
  const told = text.replace(/^\s*(?:if|unless|whether|when|where|in case|once|until|provided(?: that)?)\s+/i, "");
  const words = wordsOf(told).filter((word) => word.class !== "determiner" || negators.has(word.lower));
  const clause = clausesOf(told)[0];
  const { subject, verb } = clause ?? {};
  const isIn = (word: Word) => subject !== undefined && word.from >= subject.from && word.to <= subject.to;
  const carried = words.filter(
    (word) =>
      !bare.has(word.lower) &&
      !negators.has(word.lower) &&
      !["pronoun", "auxiliary", "modal", "not"].includes(word.class),
  );
  const denials = words.filter(
    (word) => negators.has(word.lower) || /n't$/.test(word.lower) || word.lower === "against",
  ).length;
  const name = subject ? told.slice(subject.from, subject.to) : "";
  return {
    words: new Set(carried.flatMap(grounds)),
    predicate: new Set(carried.filter((word) => !verb || !isIn(word)).flatMap(grounds)),
    subject: name.toLowerCase().replace(/^(?:the|an?|its|their|his|her)\s+/, ""),
    isPronoun:
      name === "" ||
      /^(?:it|they|he|she|this|that|these|those|there|nobody|(?:only |just )?(?:one|none|both|any|either|neither|all|some)(?: of (?:them|these|those))?)$/i.test(
        name,
      ),
    isNegated: denials % 2 === 1,
    howMany: /\b(?:(?:only|just) one|one of (?:them|these|those)|a single)\b/i.test(told)
      ? "one"
      : /\b(?:both|all|several|many|two|three|more than one)\b/i.test(told)
        ? "several"
        : undefined,
  };
}

/**
 * Whether one statement says the same as another (1), the opposite (−1), or nothing that tells (0). Both may be denied; what is
 * denied twice is said.
 */
export function relationOf(one: Statement, other: Statement): -1 | 0 | 1 {
  // Where nothing is said behind the subject, the subject is all there is to compare.
  const sides =
    signs(one.predicate, other.predicate) ||
    (one.predicate.size === 0 || other.predicate.size === 0 ? signs(one.words, other.words) : 0);
  if (sides === 0) return 0;
  if (sides === 1 && one.howMany && other.howMany && one.howMany !== other.howMany) return -1;
  return one.isNegated === other.isNegated ? sides : sides === 1 ? -1 : 1;
}

function signs(ones: ReadonlySet<string>, others: ReadonlySet<string>): -1 | 0 | 1 {
  let shared: 0 | 1 = 0;
  for (const one of ones) {
    for (const other of others) {
      if (one === other) shared = 1;
      else if (denies(one, other) || denies(other, one)) return -1;
      else
        for (const [well, ill] of matters) {
          if ((well.has(one) && ill.has(other)) || (ill.has(one) && well.has(other))) return -1;
          if ((well.has(one) && well.has(other)) || (ill.has(one) && ill.has(other))) shared = 1;
        }
    }
  }
  return shared;
}

/** "Implausible" and "plausible". */
const denies = (one: string, other: string) => ["un", "in", "im", "il", "ir"].some((prefix) => one === prefix + other);

/** Whether two statements are about one thing. */
export const sharesSubject = (one: Statement, other: Statement): boolean =>
  (one.subject !== "" && one.subject === other.subject) || [...one.words].some((word) => other.words.has(word));
