import type { Span } from "../document";
import { infinitiveOf } from "../wording";
import { formsOfBe, type Link, negators, particles } from "./grammar";
import { isFiniteVerb, type Word, wordsOf } from "./words";

/** What somebody does, or how something is, with what it hangs on. Places are those in the sentence. */
export interface Clause extends Span {
  readonly link: Link;
  /** Where the words begin that tie nothing; between them and the subject stands what leads the clause in ("otherwise"). */
  readonly begins: number;
  /** Who or what is spoken of; of "checks the form and signs it" the second clause has that of the first. */
  readonly subject: Span | undefined;
  /** Whether the subject stands in an earlier clause of the sentence. */
  readonly sharesSubject: boolean;
  readonly verb: ClauseVerb | undefined;
  /** Whether a clause that hangs on another stands before it ("If …, …"). */
  readonly isFronted: boolean;
}

export interface ClauseVerb extends Span {
  /** The ground form of what is done, with a particle that belongs to it: "send back". */
  readonly base: string;
  /** Where the word itself stands. */
  readonly main: Span;
  readonly isPassive: boolean;
  readonly isNegated: boolean;
  /** "Is", "has": how something is. */
  readonly isState: boolean;
  /** "Is it", "can they": nothing but a helping verb. */
  readonly isBare: boolean;
}

const known = new Map<string, readonly Clause[]>();

/**
 * Takes a sentence apart into clauses: coordination ("checks the form and signs it"), subordination ("if …", "until …", "who …"),
 * enumerations that hold no verb of their own stay together. O(length of the sentence).
 */
export function clausesOf(sentence: string): readonly Clause[] {
  const found = known.get(sentence) ?? takenApart(sentence);
  if (known.size > 2_000) known.clear();
  known.set(sentence, found);
  return found;
}

/** A stretch of words between possible ends of clauses. */
interface Stretch {
  readonly words: Word[];
  readonly link: Link;
  readonly hasVerb: boolean;
  readonly isParted: boolean;
}

function takenApart(sentence: string): Clause[] {
  const groups: { link: Link; words: Word[]; isParted: boolean }[] = [];
  let waiting: Stretch[] = [];
  let isAfterFronted = false;
  const begin = (stretch: Stretch) => {
    const words = [...waiting.flatMap((one) => one.words), ...stretch.words];
    // "After the talk, …" is no clause of its own.
    // "The kitchen, the bar and the service team set …": several who do one thing.
    const isListOfDoers =
      groups.length === 0 && waiting[0]?.words.some((word) => word.class === "noun") && !isLead(waiting[0]);
    const link = isListOfDoers ? waiting[0]?.link : (waiting.find((one) => isTie(one.link))?.link ?? stretch.link);
    groups.push({ link, words, isParted: stretch.isParted });
    waiting = [];
  };
  for (const stretch of stretchesOf(wordsOf(sentence))) {
    const last = groups.at(-1);
    const isDependent = stretch.link !== undefined && !isTie(stretch.link);
    const standsAlone =
      stretch.link === "if" || stretch.link === "unless" || stretch.link === "whether" || stretch.link === "until";
    if (isDependent && (stretch.hasVerb || standsAlone)) {
      begin(stretch);
      isAfterFronted = true;
    } else if (stretch.hasVerb && !goesOnAsInfinitive(last?.words, stretch)) {
      begin(stretch);
      isAfterFronted = false;
    } else if (!last || waiting.length > 0 || isLead(stretch) || (isAfterFronted && stretch.isParted))
      waiting.push(stretch);
    else last.words.push(...stretch.words);
  }
  const rest = waiting.flatMap((one) => one.words);
  const last = groups.at(-1);
  if (rest.length > 0) {
    if (last) last.words.push(...rest);
    else groups.push({ link: undefined, words: rest, isParted: false });
  }
  const clauses: Clause[] = [];
  for (const [at, group] of groups.entries()) {
    const before = clauses.at(-1);
    clauses.push(
      clauseOf(
        groups.length === 1 ? withoutLeadingTime(group) : group,
        groups[at - 1]?.words,
        clauses,
        before !== undefined && isFronting(before, groups, at),
      ),
    );
  }
  return clauses;
}

const tieOf = ({ lower }: Word): Link => (lower === "or" || lower === "but" || lower === "then" ? lower : "and");
const isTie = (link: Link) => link !== undefined && ["and", "or", "but", "then"].includes(link);

/** "And", "otherwise" or "in parallel" by itself belongs to what comes. */
const isLead = ({ words }: Stretch) =>
  words.every((word) => word.class === "coordinator" || word.class === "adverb") ||
  /^(?:and )?(?:in parallel|at the same time|in this case|in that case|if so|if not|or else)$/.test(
    words.map((word) => word.lower).join(" "),
  );

function isFronting(before: Clause, groups: readonly { isParted: boolean }[], at: number): boolean {
  return (
    before.link !== undefined && !isTie(before.link) && before.link !== "relative" && at === 1 && groups.length > 1
  );
}

/** "Asks the engineer to check and sign the plan": the signing belongs to the asking. */
function goesOnAsInfinitive(last: readonly Word[] | undefined, stretch: Stretch): boolean {
  if (!last || (stretch.link !== "and" && stretch.link !== "or") || stretch.isParted) return false;
  const verb = stretch.words.find((word) => word.class === "verb");
  const first = stretch.words.find((word) => word.class !== "coordinator" && word.class !== "adverb");
  const finite = last.find((word) => word.class === "verb");
  return (
    verb !== undefined &&
    verb === first &&
    /[^s]s$/.test(finite?.lower ?? "") &&
    !/s$/.test(verb.lower) &&
    last.some((word) => word.class === "infinitive")
  );
}

function stretchesOf(words: readonly Word[]): Stretch[] {
  const parts: Word[][] = [];
  words.forEach((word, at) => {
    const before = words[at - 1];
    const opens =
      at === 0 ||
      word.isParted ||
      (word.class === "coordinator" && !(before?.class === "coordinator" && !word.isParted)) ||
      (word.link !== undefined && before?.class !== "coordinator");
    if (opens) parts.push([]);
    parts.at(-1)?.push(word);
  });
  return parts.map((part, at): Stretch => {
    const first = part[0] as Word;
    // "…, where a clerk files it": what is done next, and by whom.
    const isNext = at > 0 && first.lower === "where" && first.isParted;
    const link = isNext
      ? "then"
      : part.find(
          (word) =>
            word.link !== undefined && part.slice(0, part.indexOf(word)).every((one) => one.class === "coordinator"),
        )?.link;
    const isRelative = first.class === "relative" && first.isParted;
    return {
      words: part,
      link: link ?? (isRelative ? "relative" : first.class === "coordinator" ? tieOf(first) : undefined),
      hasVerb: verbAt(part) >= 0,
      isParted: first.isParted,
    };
  });
}

/** The first verb that is not inside "who …" or "that …" about a thing. */
function verbAt(words: readonly Word[]): number {
  const at = words.findIndex(isFiniteVerb);
  if (at < 0) return -1;
  const relative = words.findIndex(
    (word, place) =>
      (word.class === "relative" || word.lower === "that") && place > 0 && words[place - 1]?.class === "noun",
  );
  if (relative < 0 || relative > at) return at;
  // "The meters that are due are read": the second verb is the clause's.
  const group = endOfGroup(words, at);
  const second = words.findIndex(
    (word, place) =>
      place > Math.max(group, at + 1) &&
      isFiniteVerb(word) &&
      (place - 1 === group || !isFiniteVerb(words[place - 1] as Word)),
  );
  return second >= 0 ? second : -1;
}

/** "After the interview, sales and the manager decide": the interview is a time, and decides nothing. */
function withoutLeadingTime<Group extends { readonly link: Link; readonly words: readonly Word[] }>(
  group: Group,
): Group {
  if (!["after", "before", "until"].includes(group.link ?? "")) return group;
  const comma = group.words.findIndex((word, at) => at > 0 && word.isParted);
  return comma < 0 ? group : { ...group, link: undefined, words: group.words.slice(comma) };
}

/** Where "do not reply" ends, of which the first is at a place. */
function endOfGroup(words: readonly Word[], at: number): number {
  if (!["auxiliary", "modal"].includes(words[at]?.class ?? "")) return at;
  let place = at + 1;
  while (["not", "adverb", "auxiliary", "modal"].includes(words[place]?.class ?? "")) place++;
  return ["verb", "infinitive"].includes(words[place]?.class ?? "") ? place : at;
}

function clauseOf(
  { link, words }: { readonly link: Link; readonly words: readonly Word[] },
  wordsBefore: readonly Word[] | undefined,
  earlier: readonly Clause[],
  isFronted: boolean,
): Clause {
  const [first, last] = [words[0] as Word, words.at(-1) as Word];
  const at = verbAt(words);
  const isLink = (word: Word) =>
    word.class === "coordinator" || word.class === "subordinator" || (link === "relative" && word.class === "relative");
  const head = words.findIndex((word) => !isLink(word));
  const begins = (words[head] ?? first).from;
  const behindLink = words.slice(Math.max(head, 0), Math.max(at, 0));
  const own = at < 0 ? undefined : (whoAndWhich(behindLink) ?? subjectIn(behindLink));
  const before = earlier.findLast((clause) => link === "relative" || clause.subject !== undefined);
  // "… to the client, who corrects it": who was named last.
  const antecedent = link === "relative" && wordsBefore ? lastNameIn(wordsBefore) : undefined;
  const shared = own || at < 0 ? undefined : (antecedent ?? before?.subject);
  // "After the repairs the house is visited": what stands before the house is a time, and ties no clause.
  const isTime = own !== undefined && own.from > begins && ["after", "before", "until", "because"].includes(link ?? "");
  return {
    link: isTime ? undefined : link,
    from: first.from,
    to: last.to,
    begins: isTime ? first.from : begins,
    subject: own ?? shared,
    sharesSubject: own === undefined && shared !== undefined,
    verb: at >= 0 ? verbOf(words, at) : undefined,
    isFronted,
  };
}

/**
 * Who or what stands before the verb: from the last article that does not stand behind a preposition, so that of "after the talk the
 * head of department" the head of department is left.
 */
function subjectIn(words: readonly Word[]): Span | undefined {
  const isName = (word: Word) => ["noun", "pronoun", "number", "gerund"].includes(word.class);
  const end = words.findLastIndex(isName);
  if (end < 0) return undefined;
  const isLed =
    words[0]?.class === "preposition" || words[0]?.class === "adverb" || /^(?:every|each)$/.test(words[0]?.lower ?? "");
  let start = end;
  for (let at = end; at >= 0; at--) {
    const [word, before] = [words[at] as Word, words[at - 1]];
    // "Deviations of more than 5 percent".
    const isCompared = /^(?:more|less|fewer)$/.test(word.lower) && words[at + 1]?.lower === "than";
    if (
      ["coordinator", "adverb", "subordinator"].includes(word.class) &&
      at < end &&
      !isCompared &&
      !isListed(words, at)
    )
      break;
    start = at;
    if (word.isParted && !isListed(words, at)) break;
    const isHead = word.class === "determiner" || word.class === "pronoun";
    if (isHead && word.isParted && !isLed && isListed(words, at)) continue;
    if (isHead && (!before || !["preposition", "coordinator"].includes(before.class))) break;
    if (isHead && before?.class === "preposition" && isLed && at - 1 === 0) break;
  }
  while (start < end && words[start]?.class === "preposition") start++;
  // "In parallel": what stands behind a preposition, and nothing else, does nothing.
  if (
    words[start - 1]?.class === "preposition" &&
    words.slice(0, start - 1).every((word) => ["coordinator", "adverb"].includes(word.class))
  )
    return undefined;
  return { from: (words[start] as Word).from, to: (words[end] as Word).to };
}

/** The name a clause ends with. */
function lastNameIn(words: readonly Word[]): Span | undefined {
  const end = words.findLastIndex((word) => word.class === "noun");
  if (end < 0) return undefined;
  let start = end;
  while (
    start > 0 &&
    ["noun", "adjective", "determiner"].includes((words[start - 1] as Word).class) &&
    !words[start]?.isParted
  )
    start--;
  return { from: (words[start] as Word).from, to: (words[end] as Word).to };
}

/** "Invoices that are wrong" all of it, where something is said of them besides. */
function whoAndWhich(words: readonly Word[]): Span | undefined {
  const relative = words.findIndex(
    (word, at) => at > 0 && (word.lower === "that" || word.class === "relative") && words[at - 1]?.class === "noun",
  );
  if (relative < 0 || !words.slice(relative).some(isFiniteVerb)) return undefined;
  const name = subjectIn(words.slice(0, relative));
  return name && { from: name.from, to: (words.at(-1) as Word).to };
}

/** "The kitchen, the bar and the terrace": a comma or "and" between names. */
const isListed = (words: readonly Word[], at: number) =>
  words[at]?.class === "coordinator" ||
  words.slice(at + 1).some((word) => word.class === "coordinator" && word.lower === "and");

function verbOf(words: readonly Word[], at: number): ClauseVerb {
  let end = at;
  let main = words[at] as Word;
  let isPassive = false;
  let isNegated = false;
  let isBare = main.class === "auxiliary" || main.class === "modal";
  for (let place = at + 1; place < words.length; place++) {
    const word = words[place] as Word;
    if (word.isParted) break;
    if (word.class === "not" || negators.has(word.lower))
      isNegated = isNegated || word.class === "not" || word.lower === "never";
    else if (isBare && ["auxiliary", "modal"].includes(word.class)) {
      main = word;
      end = place;
    } else if (isBare && ["participle", "verb", "infinitive"].includes(word.class)) {
      const helper = main;
      isPassive = formsOfBe.has(helper.lower) && word.class === "participle";
      main = word;
      end = place;
      isBare = false;
      break;
    } else if (
      word.lower === "to" &&
      /^(?:has|have|had|needs?|is|are)$/.test(main.lower) &&
      words[place + 1]?.class === "infinitive"
    )
      continue;
    else if (word.class !== "adverb" || !isBare) break;
  }
  const group = words.slice(at, end + 1);
  isNegated = isNegated || group.some((word) => /n't$|^cannot$/.test(word.lower));
  const next = words[words.indexOf(main) + 1];
  const particle = next && !next.isParted && particles.has(next.lower) ? ` ${next.lower}` : "";
  const base = infinitiveOf(main.text).toLowerCase();
  return {
    from: (words[at] as Word).from,
    to: (words[end] as Word).to,
    base: base + particle,
    main: { from: main.from, to: main.to },
    isPassive,
    isNegated,
    isState: isBare,
    isBare: isBare && isElliptic(words, words.indexOf(main)),
  };
}

/** "If it is", "if they do not": nothing follows the helping verb. */
function isElliptic(words: readonly Word[], at: number): boolean {
  return words
    .slice(at + 1)
    .every((word) => word.class === "not" || word.class === "adverb" || /^(?:so|in|time)$/.test(word.lower));
}
