import type { Mark, MarkKind, Span } from "../document";
import { type Clause, clausesOf } from "../reading/clauses";
import { statementOf } from "../reading/polarity";
import { wordsOf } from "../reading/words";
import type { BriefReading, Sentence } from "../sentences";
import { isRecurring } from "../times";
import { thingKey } from "../wording";
import { alwaysParties, partyNouns } from "../words";
import { castOf } from "./cast";
import { phrasesOf } from "./phrases";
import { type Found, marksIn } from "./sentenceMarks";

/** A mark that might be made, with the reason a person decides by. */
export interface Suggestion extends Span {
  readonly kind: MarkKind;
  readonly passage: number;
  readonly text: string;
  readonly reason: string;
}

export interface KnownName {
  readonly kind: "role" | "system" | "document";
  readonly name: string;
}

/** What a refusal is remembered by. */
export const refusalOf = (kind: MarkKind, words: string): string => `${kind}\n${thingKey(words).slice(0, 300)}`;

/**
 * Marks a text might get, from its language alone: names of the directory, nouns by what they usually stand for, "when" and
 * "every" at the head of a paragraph, "whether" and "if", verbs with somebody who does them. Nothing is marked by itself.
 * What is marked already or was refused is left out, and things are offered where they are first named.
 * O(length of the text × names of the directory).
 */
export function suggestMarks(
  reading: BriefReading,
  names: readonly KnownName[],
  refused: readonly string[],
): Suggestion[] {
  const found: Suggestion[] = [];
  const no = new Set(refused);
  const firsts = new Set(reading.marks.filter((mark) => isThing(mark.kind)).map((mark) => thingKey(mark.text)));
  const taken: { passage: number; kind: MarkKind; from: number; to: number }[] = reading.marks.map((mark) => ({
    ...mark,
  }));
  const told = reading.sentences.filter((sentence) => !sentence.isAside);
  const triggers = triggersIn(told);
  const cast = castOf(told, (sentence, clause) => {
    const trigger = triggers.get(sentence.at);
    return (
      trigger !== undefined && clause.verb !== undefined && clause.verb.from < trigger.to && clause.to > trigger.from
    );
  });
  const asked: string[] = [];
  /** What was refused, as it came up. */
  const left: { readonly kind: MarkKind; readonly key: string }[] = [];
  for (const [order, sentence] of told.entries()) {
    const passage = told.filter((one) => one.passage === sentence.passage);
    const opening = passage.find((one) => triggers.has(one.at));
    const marks = marksIn(sentence, {
      cast,
      trigger: triggers.get(sentence.at),
      isBeforeTrigger: opening !== undefined && sentence.at < opening.at,
      isLast: told[order + 1]?.passage !== sentence.passage,
      asked,
    });
    for (const mark of marks)
      if (mark.kind === "decision") asked.push(statementOf(sentence.text.slice(mark.from, mark.to)).subject);
    const inOrder = [...namesIn(sentence, names), ...marks].sort((a, b) => a.from - b.from || b.to - a.to);
    for (const { reason, kind, from, to } of inOrder) {
      const text = sentence.text.slice(from, to);
      const span = { passage: sentence.passage, kind, from: sentence.from + from, to: sentence.from + to };
      const clashes = taken.some(
        (other) =>
          other.passage === span.passage &&
          other.from < span.to &&
          span.from < other.to &&
          !mayOverlap(other.kind, kind),
      );
      if (clashes) continue;
      const key = thingKey(text);
      if (no.has(refusalOf(kind, text))) {
        left.push({ kind, key });
        continue;
      }
      // "The desk" is the front desk that was refused before.
      if (isThing(kind) && left.some((one) => one.kind === kind && one.key.endsWith(` ${key}`))) continue;
      if (isThing(kind)) {
        if (firsts.has(key) || (kind !== "document" && [...firsts].some((first) => first.endsWith(` ${key}`))))
          continue;
        firsts.add(key);
      }
      taken.push(span);
      found.push({ ...span, text, reason });
    }
  }
  return found;
}

const isThing = (kind: MarkKind) => kind === "role" || kind === "party" || kind === "system" || kind === "document";
/** What somebody does may name a document; a trigger may name who sets it off. */
const mayOverlap = (a: MarkKind, b: MarkKind) =>
  isThing(a) !== isThing(b) || (a === "activity" && b === "decision") || (a === "decision" && b === "activity");

/** Names of the directory, where a sentence has them. */
function namesIn(sentence: Sentence, names: readonly KnownName[]): Found[] {
  const lower = sentence.text.toLowerCase();
  return names.flatMap(({ kind, name }) => {
    const at = placeOf(lower, name);
    return at ? [{ kind, ...at, reason: `"${name}" is in the directory.` }] : [];
  });
}

/** What sets work off, by the number of its sentence: the first "when" of a paragraph, a time that comes again, somebody who asks. */
function triggersIn(sentences: readonly Sentence[]): Map<number, Span & { reason: string }> {
  const found = new Map<number, Span & { reason: string }>();
  const passages = new Map<number, Sentence[]>();
  for (const sentence of sentences)
    passages.set(sentence.passage, [...(passages.get(sentence.passage) ?? []), sentence]);
  let isFirst = true;
  for (const [, passage] of passages) {
    const first = passage[0] as Sentence;
    const said = passage.flatMap((sentence) => {
      const beginning = beginningTold(sentence);
      return beginning ? [{ at: sentence.at, beginning }] : [];
    })[0];
    if (said) {
      found.set(said.at, said.beginning);
      isFirst = false;
      continue;
    }
    const opening = passage.slice(0, 2).find((one) => whenClause(one)) ?? first;
    const span =
      whenClause(opening) ?? recurringTime(first) ?? somethingCame(first, isFirst) ?? calledFor(first, isFirst);
    isFirst = false;
    if (span) found.set((whenClause(opening) ? opening : first).at, span);
  }
  return found;
}

/** "The process begins when a household hands in an application." */
function beginningTold({ text }: Sentence): (Span & { reason: string }) | undefined {
  const [head] =
    /^(?:(?:the|this|our|each|every)\s+)(?:\p{L}+\s+){0,2}(?:process|procedure|workflow|work|case)\s+(?:begins|starts|is\s+(?:started|triggered|initiated|set off))\s+(?:when(?:ever)?|as soon as|once|each time|if|with|by|upon|on)\s+/iu.exec(
      text,
    ) ?? [];
  if (!head) return undefined;
  const rest = /^[^.;]*/.exec(text.slice(head.length))?.[0] ?? "";
  const clauses = clausesOf(rest);
  const to = clauses.findLast(({ link }, at) => at === 0 || link === "and" || link === "or")?.to ?? rest.length;
  return { from: head.length, to: head.length + to, reason: "It says what the process begins with." };
}

function whenClause({ text }: Sentence): (Span & { reason: string }) | undefined {
  const when = /^(?:when(?:ever)?|as soon as|once|each time|every time|if)\s+/i.exec(text);
  const clauses = clausesOf(text);
  const [clause, next] = clauses;
  if (!when || !clause?.verb || clause.link !== "when" || !next) return undefined;
  // "As soon as both are finished" speaks of what was told before.
  const who = clause.subject ? text.slice(clause.subject.from, clause.subject.to) : "";
  if (/^(?:both|all|everything|these|those|this|that|it|they|he|she)$/i.test(who)) return undefined;
  // "Once the contract is signed and the deposit has been paid, …"
  let { to } = clause;
  for (const [at, one] of clauses.entries()) {
    if (at === 0) continue;
    if (one.link !== "and" || !one.verb || text.slice(to, one.from).includes(",") || !clauses[at + 1]) break;
    if (!/,/.test(text.slice(one.to, (clauses[at + 1] as Clause).from + 1))) break;
    to = one.to;
  }
  return {
    from: clause.begins,
    to,
    reason: `"${when[0].trim()}" at the head of a paragraph tells what sets the work off.`,
  };
}

function recurringTime({ text }: Sentence): (Span & { reason: string }) | undefined {
  const comma = text.indexOf(",");
  const head =
    /^(?:every|each|once (?:a|per|every))\s+(?:(?:first|second|third|last|other|working|two|three)\s+)?\S+?(?=[,\s])(?:\s+of\s+(?:the|each|every)\s+[a-z]+)?(?:\s+at\s+[\d:]+(?:\s+(?:am|pm|o'clock))?)?/i.exec(
      text,
    )?.[0];
  const clause = head ?? (comma > 0 ? text.slice(0, comma) : "");
  if (!clause || !isRecurring(clause) || clause.split(" ").length >= 9) return undefined;
  return { from: 0, to: clause.length, reason: "A time that comes again starts a process of its own." };
}

/** "Upon receipt of the invoice, …"; "after receiving the order, …" where a text begins. */
function somethingCame({ text }: Sentence, isFirst: boolean): (Span & { reason: string }) | undefined {
  const [head, lead = "", what = ""] =
    /^((?:up)?on|after|with)\s+((?:the\s+)?(?:(?:receipt|arrival|submission)\s+of|receiving|getting)\s+[^,]+),/i.exec(
      text,
    ) ?? [];
  if (!head || (!isFirst && !/on$/i.test(lead))) return undefined;
  const from = head.indexOf(what);
  return { from, to: from + what.length, reason: "Something comes, and that sets the work off." };
}

/** "The nursery orders seeds.": the first thing that is told is done by somebody outside. */
function calledFor({ text }: Sentence, isFirst: boolean): (Span & { reason: string }) | undefined {
  const [clause] = clausesOf(text);
  const { subject, verb } = clause ?? ({} as Clause);
  if (!subject || !verb || verb.isPassive || verb.isState || clause?.link) return undefined;
  const phrase = phrasesOf(text, wordsOf(text)).find((one) => one.from >= subject.from && one.to <= subject.to + 1);
  const isOutside = phrase && (alwaysParties.has(phrase.head) || partyNouns.has(phrase.head));
  // "A patient arrives" begins something new wherever it stands; "the patient signs" goes on.
  if (!isFirst && !/^an?$/.test(phrase?.article ?? "")) return undefined;
  if (
    !isOutside ||
    !/^(?:apply|arrive|come|call|ask|book|bring|claim|fill|hand|inform|order|register|report|request|send|submit|suggest|write)/.test(
      verb.base,
    )
  )
    return undefined;
  // "… fills in a form and sends it to the desk": all that they do to ask for it.
  const others = clausesOf(text).slice(1);
  const more = others.slice(0, others.findIndex((one) => one.link !== "and" || !one.sharesSubject) >>> 0);
  return {
    from: subject.from,
    to: more.at(-1)?.to ?? clause?.to ?? verb.to,
    reason: "Somebody outside asks for something: that sets the work off.",
  };
}

/** Where a name stands as words of its own, also in the plural. */
export function placeOf(lowerText: string, name: string): Span | undefined {
  const wanted = name.toLowerCase();
  for (let at = lowerText.indexOf(wanted); at >= 0; at = lowerText.indexOf(wanted, at + 1)) {
    const end = at + wanted.length;
    const plural = /^(?:e?s)?(?![\p{L}\p{N}])/u.exec(lowerText.slice(end));
    if (!/[\p{L}\p{N}]$/u.test(lowerText.slice(0, at)) && plural) return { from: at, to: end + plural[0].length };
  }
  return undefined;
}

/** The mark a suggestion becomes. */
export const markOf = (suggestion: Suggestion, id: string): Mark => {
  const { reason: _, ...mark } = suggestion;
  return { ...mark, id };
};
