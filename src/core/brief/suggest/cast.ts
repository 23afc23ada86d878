import type { Clause } from "../reading/clauses";
import { clausesOf } from "../reading/clauses";
import { wordsOf } from "../reading/words";
import type { Sentence } from "../sentences";
import {
  alwaysParties,
  casePapers,
  documentNouns,
  partyNouns,
  roleNouns,
  stateVerbs,
  systemNouns,
  thingsLikePeople,
} from "../words";
import { type Phrase, phrasesOf } from "./phrases";

export type CastKind = "role" | "party" | "system";

/** Verbs by which somebody outside sets work off: they speak, send, bring. */
const calling = new Set(
  "apply ask book bring call claim come complain contact enrol enter hand inquire inform announce need notify offer open order pay phone register report request return ring send sign submit suggest tell visit want wish write arrive leave".split(
    " ",
  ),
);

/**
 * Who takes part in what a text tells, by the keys of their names. Whoever sets the work off by asking for it is outside; whoever does
 * something with something is inside, unless the word is one for people outside. Common practice, no source.
 */
export function castOf(
  sentences: readonly Sentence[],
  isTrigger: (sentence: Sentence, clause: Clause) => boolean,
): Map<string, CastKind> {
  const cast = new Map<string, CastKind>();
  const callers = new Map<string, CastKind>();
  const deeds = new Map<string, string[]>();
  for (const sentence of sentences) {
    const words = wordsOf(sentence.text);
    const phrases = phrasesOf(sentence.text, words);
    for (const clause of clausesOf(sentence.text)) {
      const { subject, verb } = clause;
      if (!verb) continue;
      if (verb.isPassive) {
        const by = phrases.find((one) => one.preposition === "by" && one.from > verb.to && one.to <= clause.to);
        if (by && !documentNouns.has(by.head) && !isChannel(by))
          set(cast, by, systemNouns.has(by.head) ? "system" : insideOr(by));
        continue;
      }
      const isRelative = clause.link === "relative";
      const phrase = isRelative
        ? phrases.findLast((one) => one.to <= clause.from && !isChannel(one))
        : subject && !clause.sharesSubject
          ? phrases.findLast((one) => one.from >= subject.from && one.to <= subject.to + 1 && !isBehindAnother(one))
          : undefined;
      if (
        !phrase ||
        verb.isState ||
        (!isRelative && /\bof\b/.test(sentence.text.slice(subject?.from ?? 0, phrase.from)))
      )
        continue;
      const base = verb.base.split(" ")[0] as string;
      const called = isTrigger(sentence, clause);
      if (called) {
        const isDoing = /ing$/.test(phrase.head) && !roleNouns.has(phrase.head);
        if (calling.has(base) && !isPaper(phrase.head) && !isThing(phrase.head) && !isDoing)
          set(callers, phrase, roleNouns.has(phrase.head) && !partyNouns.has(phrase.head) ? "role" : "party");
        continue;
      }
      if (["whether", "until", "because", "after"].includes(clause.link ?? "")) {
        // "After the technician has installed it, he tests it": who is called by their trade.
        if (clause.link === "after" && roleNouns.has(phrase.head)) set(cast, phrase, "role");
        continue;
      }
      if (clause.link === "if" || clause.link === "unless" || clause.link === "when") {
        if (alwaysParties.has(phrase.head)) set(cast, phrase, "party");
        continue;
      }
      if (stateVerbs.has(base)) continue;
      // "The panels arrive": what comes is nobody, if the word is none for people.
      const isKnown = roleNouns.has(phrase.head) || partyNouns.has(phrase.head) || alwaysParties.has(phrase.head);
      if (/^(?:arrive|come|fall|reach)$/.test(base) && !isKnown) continue;
      const kind = kindOf(phrase, hasObject(words, verb.main.to, clause.to));
      if (kind) set(cast, phrase, kind);
      // "The engineer and the planner check it".
      if (kind === "role" && subject)
        for (const beside of phrases)
          if (
            beside.from >= subject.from &&
            beside.to < phrase.from &&
            roleNouns.has(beside.head) &&
            !isBehindAnother(beside)
          )
            set(cast, beside, "role");
      deeds.set(phrase.key, [...(deeds.get(phrase.key) ?? []), base]);
    }
    for (const phrase of phrases)
      if (alwaysParties.has(phrase.head) && isSpokenTo(sentence.text, phrase)) set(cast, phrase, "party");
  }
  for (const sentence of sentences)
    for (const phrase of phrasesOf(sentence.text, wordsOf(sentence.text)))
      if (isSpokenTo(sentence.text, phrase)) {
        if (partyNouns.has(phrase.head)) set(cast, phrase, "party");
        // "Orders it from the pharmacy, and the pharmacy delivers it": who only ever answers is outside.
        const done = deeds.get(phrase.key) ?? [];
        if (
          cast.get(phrase.key) === "role" &&
          !roleNouns.has(phrase.head) &&
          done.length > 0 &&
          done.every((base) => replying.has(base))
        )
          cast.set(phrase.key, "party");
      }
  // Who asked for the work is who they are throughout.
  for (const [key, kind] of callers) if (kind === "party" || !cast.has(key)) cast.set(key, kind);
  return cast;
}

/** "An application for leave", "the report of the engineer": what stands behind a preposition does nothing here. */
const isBehindAnother = ({ preposition }: Phrase) =>
  preposition !== undefined && /^(?:for|of|with|without|from|about|on)$/.test(preposition);

/** "By phone", "by e-mail, who …": the way something comes, and nobody. */
const isChannel = ({ head, article }: Phrase) =>
  article === "" &&
  /^(?:phone|telephone|e-?mail|mail|post|letter|fax|app|courier|hand|radio|chat|text|message|form|web|website|internet)$/.test(
    head,
  );

const replying = new Set(
  "answer deliver reply confirm send return pay accept decline respond supply report agree ship".split(" "),
);

const set = (cast: Map<string, CastKind>, { key }: Phrase, kind: CastKind) => {
  if (!cast.has(key)) cast.set(key, kind);
};

const insideOr = (phrase: Phrase): CastKind => (alwaysParties.has(phrase.head) ? "party" : "role");

function kindOf(phrase: Phrase, worksOnSomething: boolean): CastKind | undefined {
  const { head } = phrase;
  if (alwaysParties.has(head)) return "party";
  if (roleNouns.has(head) || partyNouns.has(head)) return "role";
  if (head === "board") return "role";
  if (systemNouns.has(head)) return /^(?:registry|planner)$/.test(head) ? "role" : "system";
  if (isPaper(head) || isThing(head) || isText(head)) return undefined;
  // "The meter reading": what is done, and nobody; departments that end so are among the roles.
  if (/ing$/.test(head)) return undefined;
  const looksLikePeople = /(?:er|or|ist|ian|man|men|woman|women|team|crew)$/.test(head) && !thingsLikePeople.has(head);
  return looksLikePeople || worksOnSomething ? "role" : undefined;
}

const isText = (head: string) =>
  /^(?:purpose|aim|goal|objective|scope|procedure|workflow|description|section|chapter|guideline)$/.test(head);
const isPaper = (head: string) => documentNouns.has(head) || casePapers.has(head);
const isThing = (head: string) =>
  /^(?:application|case|check|copy|date|day|delivery|deadline|goods|item|lesson|machine|matter|meter|payment|parcel|place|plot|price|process|product|result|review|sample|test|thing|time|value|visit|week|work|year|batch|screening|answer|everything|rest|money|house|tree|car|box)$/.test(
    head,
  );

/** Something follows the verb that it is done to, with or for. */
const hasObject = (words: ReturnType<typeof wordsOf>, from: number, to: number): boolean => {
  const next = words.find((word) => word.from >= from && word.class !== "adverb" && word.class !== "not");
  return next !== undefined && next.from < to && !next.isParted && next.class !== "coordinator";
};

/** "Sends it to the household", "informs the authority", "from the wholesaler". */
const isSpokenTo = (text: string, phrase: Phrase): boolean =>
  /\b(?:to|from|with|asks?|tells?|informs?|invites?|reminds?|notif(?:y|ies)|calls?|phones?|sends?|warns?|thanks?|contacts?|pays?|offers?|gives?)\s+(?:(?:the|an?|each|every|all|its|their)\s+)?$/i.test(
    text.slice(0, phrase.from),
  );
