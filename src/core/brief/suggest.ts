import type { Mark, MarkKind, Span } from "./document";
import type { BriefReading, Sentence } from "./sentences";
import { isRecurring, readTime } from "./times";
import { infinitiveOf, singularOf, type Term, termsOf, thingKey } from "./wording";
import { documentNouns, partyNouns, roleNouns, stateVerbs, systemNouns, thingsLikePeople } from "./words";

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
  for (const sentence of reading.sentences) {
    if (sentence.isAside) continue;
    const isHead = reading.sentences[sentence.at - 1]?.passage !== sentence.passage;
    for (const { reason, kind, from, to } of new SentenceReader(sentence, names, isHead).all()) {
      const text = sentence.text.slice(from, to);
      const span = { passage: sentence.passage, kind, from: sentence.from + from, to: sentence.from + to };
      const clashes = taken.some(
        (other) =>
          other.passage === span.passage &&
          other.from < span.to &&
          span.from < other.to &&
          !mayOverlap(other.kind, kind),
      );
      if (clashes || no.has(refusalOf(kind, text))) continue;
      if (isThing(kind)) {
        const key = thingKey(text);
        if (firsts.has(key) || (kind !== "document" && [...firsts].some((first) => first.endsWith(` ${key}`))))
          continue;
        firsts.add(thingKey(text));
      }
      taken.push(span);
      found.push({ ...span, text, reason });
    }
  }
  return found;
}

const isThing = (kind: MarkKind) => kind === "role" || kind === "party" || kind === "system" || kind === "document";
/** What somebody does may name a document; a trigger may name who sets it off. */
const mayOverlap = (a: MarkKind, b: MarkKind) => isThing(a) !== isThing(b) || (a === "activity" && b === "decision");

interface Found extends Span {
  readonly kind: MarkKind;
  readonly reason: string;
}

/** Reads one sentence; places are those in its own text. */
class SentenceReader {
  readonly #text: string;
  readonly #terms: readonly Term[];
  readonly #found: Found[] = [];
  #known: Phrase[] | undefined;

  constructor(
    sentence: Sentence,
    readonly names: readonly KnownName[],
    readonly isHead: boolean,
  ) {
    this.#text = sentence.text;
    this.#terms = termsOf(sentence.text);
  }

  all(): Found[] {
    this.#knownNames();
    this.#trigger();
    this.#results();
    this.#decisions();
    this.#times();
    this.#things();
    this.#activities();
    return this.#found.sort((a, b) => a.from - b.from || b.to - a.to);
  }

  #add(kind: MarkKind, from: number, to: number, reason: string): void {
    const [start, end] = trimmed(this.#text, from, to);
    if (end - start > 1) this.#found.push({ kind, from: start, to: end, reason });
  }

  #isTaken(from: number, to: number, ...kinds: readonly MarkKind[]): boolean {
    return this.#found.some((found) => kinds.includes(found.kind) && found.from < to && from < found.to);
  }

  #knownNames(): void {
    const lower = this.#text.toLowerCase();
    for (const { kind, name } of this.names) {
      const at = placeOf(lower, name);
      if (at) this.#add(kind, at.from, at.to, `"${name}" is in the directory.`);
    }
  }

  #trigger(): void {
    if (!this.isHead) return;
    const when = /^(?:when(?:ever)?|as soon as|once|each time|every time)\s+/i.exec(this.#text);
    const comma = this.#text.indexOf(",");
    if (when && comma > 0) {
      this.#add(
        "trigger",
        when[0].length,
        comma,
        `"${when[0].trim()}" at the head of a paragraph tells what sets the work off.`,
      );
      return;
    }
    const clause =
      comma > 0
        ? this.#text.slice(0, comma)
        : (/^(?:every|each|once a)\s+\S+(?:\s+at\s+\S+(?:\s+(?:am|pm))?)?/i.exec(this.#text)?.[0] ?? "");
    if (clause && isRecurring(clause) && clause.split(" ").length < 9)
      this.#add("trigger", 0, clause.length, "A time that comes again starts a process of its own.");
  }

  #results(): void {
    const pattern =
      /(?:(?<=^|[,;]\s*(?:and|then)?\s*|\b(?:and|then|otherwise|so|until|,)\s+))(?:[\p{L}\-'’]+\s+){1,5}?(?:(?:is|are|has been|have been|is then|counts as)\s+(?:closed|finished|completed|concluded|settled|rejected|refused|declined|cancelled|withdrawn|connected|lapsed)|lapses|ends|expires)\b/giu;
    for (const match of this.#text.matchAll(pattern)) {
      const words = match[0].replace(/^(?:and|then|otherwise|so|until)\s+/i, "");
      const from = match.index + match[0].length - words.length;
      this.#add("result", from, match.index + match[0].length, "It says what has been reached when the work ends.");
    }
  }

  #decisions(): void {
    const pattern =
      /\b(whether|if|unless|in case|depending on)\s+(?!so\b|not\b|yes\b|no\b|possible\b|necessary\b|(?:it|they|he|she|this|that)\s+(?:is|are|can|does|do|has|have)(?:\s+not)?\s*[,.;:])([^,;.:]+)/gi;
    for (const match of this.#text.matchAll(pattern)) {
      const from = match.index + match[0].length - (match[2] as string).length;
      const cut = /\s+(?:and then|then|they|she|he|the \p{L}+ (?:desk|crew|engineer|team)\s)/iu.exec(
        match[2] as string,
      );
      const to =
        cut && (match[1] as string).toLowerCase() !== "whether" ? from + cut.index : match.index + match[0].length;
      if (!this.#isTaken(from, to, "trigger"))
        this.#add("decision", from, to, `"${match[1]}" asks a question that the work goes on by.`);
    }
  }

  #times(): void {
    const pattern =
      /\b(?:(?:within|after|for|no later than|at the latest)\s+)?(?:\d+|an?|one|two|three|four|five|six|seven|eight|nine|ten)\s+(?:working\s+|business\s+)?(?:minute|hour|day|week|month|year)s?\b|\b(?:every|each|once (?:a|per))\s+(?:working\s+)?(?:hour|day|night|morning|evening|week|month|quarter|year|monday|tuesday|wednesday|thursday|friday|saturday|sunday)\b|\b(?:hourly|daily|nightly|weekly|monthly|quarterly|yearly)\b/gi;
    for (const match of this.#text.matchAll(pattern)) {
      const to = match.index + match[0].length;
      if (readTime(match[0]) && !this.#isTaken(match.index, to, "trigger"))
        this.#add(
          "time",
          match.index,
          to,
          isRecurring(match[0]) ? "A time that comes again." : "How long something takes or waits.",
        );
    }
  }

  /** Noun phrases, by what their last noun usually stands for. */
  #things(): void {
    for (const phrase of this.#phrases()) {
      const head = singular(phrase.head.text);
      const kind = this.#kindOf(head, phrase);
      if (!kind || this.#isTaken(phrase.from, phrase.to, "role", "party", "system", "document")) continue;
      this.#add(kind, phrase.from, phrase.to, reasons[kind]);
    }
  }

  #kindOf(head: string, phrase: Phrase): "role" | "party" | "system" | "document" | undefined {
    if (
      systemNouns.has(head) &&
      /\b(?:in|into|on|onto|from|with|via|through|by|using|of|the)\s*$/i.test(this.#text.slice(0, phrase.from))
    )
      return "system";
    if (partyNouns.has(head)) return "party";
    if (roleNouns.has(head)) return "role";
    if (documentNouns.has(head)) return "document";
    const looksLikePeople = /(?:er|or|ist|ian)$/.test(head) && !thingsLikePeople.has(head);
    return looksLikePeople && this.#verbRightAfter(phrase) ? "role" : undefined;
  }

  #verbRightAfter(phrase: Phrase): boolean {
    return this.#terms[phrase.last + 1]?.tags.has("Verb") === true;
  }

  #phrases(): Phrase[] {
    this.#known ??= this.#findPhrases();
    return this.#known;
  }

  #findPhrases(): Phrase[] {
    const phrases: Phrase[] = [];
    let first = -1;
    const close = (end: number) => {
      if (first < 0) return;
      let start = first;
      while (start < end && !isPartOfName(this.#terms[start] as Term)) start++;
      const head = this.#terms[end - 1];
      if (head && (head.tags.has("Noun") || roleNouns.has(head.text.toLowerCase())) && start < end)
        phrases.push({ from: (this.#terms[start] as Term).from, to: head.to, head, last: end - 1 });
      first = -1;
    };
    this.#terms.forEach((term, at) => {
      const goesOn = term.tags.has("Determiner") || (isPartOfName(term) && !(first >= 0 && this.#isVerb(at)));
      const broken = at > 0 && /[,;:.]/.test(this.#text.slice((this.#terms[at - 1] as Term).to, term.from));
      if (first >= 0 && (!goesOn || broken || (term.tags.has("Determiner") && at > first))) close(at);
      if (goesOn && first < 0) first = at;
    });
    close(this.#terms.length);
    return phrases;
  }

  /** Verbs with somebody or something before them, to the end of what they are done to. */
  #activities(): void {
    this.#terms.forEach((term, at) => {
      if (!this.#isVerb(at) || ["Modal", "Auxiliary", "Copula", "Gerund"].some((tag) => term.tags.has(tag))) return;
      if (this.#isTaken(term.from, term.to, "trigger", "decision", "result", "time", "activity")) return;
      const infinitive = infinitiveOf(term.text);
      if (stateVerbs.has(infinitive.toLowerCase())) return;
      const before = this.#terms[at - 1];
      // "to send": what somebody is there for or wants; only where nothing else is done is it work of its own.
      if (
        before?.text.toLowerCase() === "to" &&
        !/\b(?:has|have|needs?)\s+to\s*$/i.test(this.#text.slice(0, term.from))
      )
        return;
      // "We have worked like this": what was, not what is done.
      if (/^(?:have|has|had)$/i.test(before?.text ?? "")) return;
      const isPassive = before?.tags.has("Auxiliary") === true || before?.tags.has("Copula") === true;
      const subject = isPassive ? this.#subjectBefore(at) : undefined;
      if (!isPassive && at === 0) return;
      if (!isPassive && term.tags.has("PastTense") && !this.#isSubject(before)) return;
      const from = subject?.from ?? term.from;
      const to = this.#endOfWork(at);
      this.#add("activity", from, to, `"${term.text}" is something that is done.`);
    });
  }

  /** "…, changes the meter": in a row of things done, what the tagger takes for a plural is the next of them. */
  #isVerb(at: number): boolean {
    const term = this.#terms[at] as Term;
    if (term.tags.has("Verb")) return true;
    const before = this.#terms[at - 1];
    const isPerson =
      before !== undefined && (roleNouns.has(before.text.toLowerCase()) || partyNouns.has(before.text.toLowerCase()));
    if (isPerson && this.#mayBeVerb(at)) return true;
    const inRow =
      before !== undefined && (/,\s*$/.test(this.#text.slice(0, term.from)) || /^(?:and|then)$/i.test(before.text));
    return (
      inRow && term.tags.has("Noun") && /s$/.test(term.text) && this.#terms[at + 1]?.tags.has("Determiner") === true
    );
  }

  /** "The engineer looks whether …": taken for a plural, but nothing else in reach is done. */
  #mayBeVerb(at: number): boolean {
    const [term, next] = [this.#terms[at] as Term, this.#terms[at + 1]];
    return term.tags.has("Noun") && /[^s]s$/.test(term.text) && !next?.tags.has("Verb");
  }

  #isSubject(term: Term | undefined): boolean {
    return term !== undefined && (term.tags.has("Noun") || term.tags.has("Pronoun") || term.tags.has("Adverb"));
  }

  #subjectBefore(at: number): Phrase | undefined {
    return this.#phrases().findLast((phrase) => phrase.last < at && at - phrase.last <= 4);
  }

  #endOfWork(at: number): number {
    const start = (this.#terms[at] as Term).to;
    const rest = this.#text.slice(start);
    const stop =
      /[,;:.]|\s+(?:if|unless|when|until|before|because|so that|who|which|within|by|after|for\s+(?:\d|an?\s+(?:week|day|month)))\b|\s+and\s+(?=(?:then\s+|also\s+)?(?:\p{L}+(?:s|ed)\s+(?:the|an?|it|them|his|her|their|up|back|whether)\b|is\b|are\b|the\s))/iu.exec(
        rest,
      );
    let to = start + (stop ? stop.index : rest.length);
    // The system somebody works in is told apart from what is done.
    for (const system of this.#found) {
      if (system.kind !== "system" || system.from < start || system.to > to) continue;
      const preposition = /\s+(?:in|into|on|onto|from|with|via|through|using)\s+(?:the\s+|an?\s+|our\s+)?$/i.exec(
        this.#text.slice(start, system.from),
      );
      // "looks in the network map": without the place nothing would be said.
      if (preposition && preposition.index > 0) to = Math.min(to, start + preposition.index);
    }
    return to;
  }
}

interface Phrase extends Span {
  readonly head: Term;
  /** The place of the head among the terms. */
  readonly last: number;
}

/** "Billing reads" begins with a department, whatever its ending looks like. */
const isPartOfName = (term: Term) =>
  roleNouns.has(term.text.toLowerCase()) ||
  (!term.tags.has("Pronoun") &&
    !term.tags.has("Verb") &&
    (term.tags.has("Noun") || term.tags.has("Adjective") || term.tags.has("Hyphenated")));

const singular = (word: string) => {
  const lower = word.toLowerCase();
  return /[^s]s$/.test(lower) && !/(?:us|is)$/.test(lower) ? singularOf(lower).toLowerCase() : lower;
};

function trimmed(text: string, from: number, to: number): [number, number] {
  const part = text.slice(from, to);
  const start = from + (part.length - part.replace(/^[\s,;:.]+/, "").length);
  return [start, from + part.replace(/[\s,;:.]+$/, "").length];
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

const reasons = {
  role: "Somebody of the organisation who does something.",
  party: "Such people are usually outside the organisation: a pool of their own.",
  system: "Work is done in it.",
  document: "Something that is written, handed over or read.",
} as const;

/** The mark a suggestion becomes. */
export const markOf = (suggestion: Suggestion, id: string): Mark => {
  const { reason: _, ...mark } = suggestion;
  return { ...mark, id };
};
