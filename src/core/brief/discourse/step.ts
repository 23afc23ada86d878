import type { Mark } from "../document";
import type { Thing } from "../frames";
import type { Mention } from "../subjects";
import { isRecurring } from "../times";
import { doneName, infinitiveOf, meaningOf, stepName, thingKey, uncapitalised, workKey } from "../wording";
import { askingVerbs, givingVerbs, readingVerbs, sendingVerbs } from "../words";
import { actorOf } from "./actor";
import type { Course, OpenStep } from "./course";
import type { Part } from "./part";
import { isWaitOfItsOwn } from "./wait";

/** What a marked activity comes to: who does it, with what, for whom. */
export function stepOf(
  part: Part,
  mark: Mark,
  course: Course,
  everybody: readonly Mention[],
  shared: ReadonlySet<string>,
): OpenStep {
  const { sentence, clause } = part;
  const actor = actorOf(part, everybody, course);
  const from = mark.from - sentence.from;
  const others = sentence.marks.filter((other) => other.kind === "activity" && other.from > mark.from);
  const until = Math.max(clause.to, mark.to - sentence.from);
  const end = Math.min(until, ...others.map((other) => other.from - sentence.from));
  const isFirst = sentence.marks.find((other) => other.kind === "activity") === mark;
  const begins = clause.verb?.isPassive || isFirst ? clause.from : from;
  const own = everybody.filter((mention) => mention.from >= begins && mention.from < end);
  const said = own.filter((mention) => mention.from >= from || clause.verb?.isPassive);
  const verb = verbOf(part, mark);
  const awaits = actor?.kind === "party" ? actor : undefined;
  const receiver = receiverOf(part, said, verb, awaits, course);
  const meant = /\b(?:it|them)\b/.test(mark.text) ? documentMeant(everybody, course, from) : undefined;
  const words = withoutPronouns(wholeWords(part, mark), verb, course, receiver);
  const key = workKey(words);
  return {
    kind: "step",
    mark: mark.id,
    alsoMarks: [],
    name: awaits ? doneName(words) : stepName(words),
    role: actor?.kind === "role" ? actor : undefined,
    bySystem: actor?.kind === "system",
    awaits,
    isWait: false,
    sendsTo: !awaits && receiver && (sendingVerbs.has(verb) || askingVerbs.has(verb)) ? receiver : undefined,
    systems: distinct(own.filter((mention) => mention.kind === "system")).map((system) => ({
      ...system,
      use: readingVerbs.has(verb) ? ("reads" as const) : ("writes" as const),
    })),
    documents: awaits
      ? []
      : distinct([...(meant ? [meant] : []), ...said.filter((mention) => mention.kind === "document")]).map(
          (document) => ({
            ...document,
            direction: givingVerbs.has(verb) ? ("out" as const) : ("in" as const),
          }),
        ),
    times: part.marks
      .filter((other) => other.kind === "time" && !isWaitOfItsOwn(part, other.text))
      .map((other) => ({ name: other.text, marks: [other.id] })),
    deadline: undefined,
    isForEach:
      /\b(?:each|every)\s+(?:of\s+)?(?:the\s+)?\p{L}+/iu.test(withoutTimes(sentence.text.slice(clause.from, end))) ||
      /^for\s+(?:each|every)\b/i.test(part.lead),
    isForAll: /\ball\s+(?:of\s+)?(?:the\s+)?\p{L}+/iu.test(sentence.text),
    calls: shared.has(key) ? `shared:${key}` : undefined,
    passage: sentence.passage,
  };
}

/** "Is locked" says what is done only with what it is done to. */
function wholeWords(part: Part, mark: Mark): string {
  const { subject, verb } = part.clause;
  const { text, from } = part.sentence;
  const begins = mark.from - from;
  if (!verb?.isPassive || !subject || begins > verb.main.to) return mark.text;
  // "Invoices that are wrong are sent back": which they are is asked before.
  const who = text.slice(subject.from, subject.to);
  const what = /^they$/i.test(who) ? "them" : who.replace(/\s+(?:that|which|who)\s+.*$/i, "");
  const rest = text.slice(verb.main.to, Math.max(verb.main.to, mark.to - from)).replace(/\s+\(?by\s+.*$/i, "");
  const base = verb.base.split(" ")[0];
  // "A pump is ordered and installed".
  const [, tie, also] = /^\s+(and|or)\s+(\p{L}+(?:ed|en|wn|ght))$/iu.exec(rest) ?? [];
  if (tie && also) return `${base} ${tie} ${infinitiveOf(also).toLowerCase()} ${uncapitalised(what)}`;
  return `${base} ${uncapitalised(what)}${rest}`;
}

/** The ground form of what a mark says is done. */
export function verbOf(part: Part, mark: Mark): string {
  const { verb } = part.clause;
  const place = mark.from - part.sentence.from;
  const isOwn = verb && verb.main.from >= place && verb.main.to <= mark.to - part.sentence.from;
  if (isOwn || (verb?.isPassive && place <= verb.to)) return (verb as { base: string }).base.split(" ")[0] as string;
  const first = stepName(mark.text).split(" ")[0] ?? "";
  return [...meaningOf(first)][0] ?? infinitiveOf(first).toLowerCase();
}

/** The outside party something goes to: named behind the verb, or meant by "them" where people are told or asked something. */
function receiverOf(
  part: Part,
  said: readonly Mention[],
  verb: string,
  awaits: Mention | undefined,
  course: Course,
): Mention | undefined {
  const named = said.find((mention) => mention.kind === "party" && mention.name !== awaits?.name);
  if (named) return named;
  const text = part.sentence.text.slice(part.clause.verb?.to ?? part.clause.from, part.clause.to);
  const isTold =
    /\bto\s+(?:them|him|her)\b/i.test(text) || (askingVerbs.has(verb) && /^\s*(?:them|him|her)\b/i.test(text));
  return isTold ? course.lastParty : undefined;
}

function documentMeant(everybody: readonly Mention[], course: Course, from: number): Mention | undefined {
  const here = everybody.findLast((mention) => mention.kind === "document" && mention.to <= from);
  if (here) return here;
  return course.lastThing &&
    course.lastDocument &&
    thingKey(course.lastThing.text).endsWith(thingKey(course.lastDocument.name))
    ? course.lastDocument
    : undefined;
}

/** "Signs it" with the name of what is signed. */
function withoutPronouns(words: string, verb: string, course: Course, receiver: Mention | undefined): string {
  if (askingVerbs.has(verb) && /^\s*\p{L}+\s+(?:them|him|her)\b/iu.test(words))
    return receiver ? words.replace(/\b(?:them|him|her)\b/i, () => `the ${uncapitalised(receiver.name)}`) : words;
  const thing = course.lastThing;
  const asked = /\bfor (it|them)\b/.exec(words);
  if (thing && asked && (asked[1] === "them") === thing.isPlural)
    return inPlaceOf(words, asked, `for the ${uncapitalised(thing.text)}`);
  const pronoun =
    /(?<!\b(?:to|for|by|with|against|worth)\s)\b(?:[Ii]t|[Tt]hem)\b(?!\s+(?:will|can|may|must|should|would|is|are|was|were|has|have|takes|costs)\b)/.exec(
      words,
    );
  if (!thing || !pronoun || (pronoun[0].toLowerCase() === "them") !== thing.isPlural) return words;
  return inPlaceOf(words, pronoun, `the ${uncapitalised(thing.text)}`);
}

/** Other words where some were found, and nowhere else: there is an "it" in "submits it". */
const inPlaceOf = (words: string, found: RegExpExecArray, others: string): string =>
  words.slice(0, found.index) + others + words.slice(found.index + found[0].length);

const withoutTimes = (text: string) =>
  text.replace(/\b(?:every|each)\s+\p{L}+(?:\s+at\s+[\d:]+)?/giu, (words) => (isRecurring(words) ? "" : words));

export function distinct(mentions: readonly Mention[]): Mention[] {
  return [...new Map(mentions.map((mention) => [thingKey(mention.name), mention])).values()];
}

export const roleOf = (mention: Mention | undefined): Thing | undefined =>
  mention?.kind === "role" ? mention : undefined;
