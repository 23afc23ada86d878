import { partsOf } from "../discourse/part";
import { bareAnswer } from "../discourse/rules/answer";
import { isOverAgain, overAgainIn } from "../discourse/rules/overAgain";
import type { MarkKind, Span } from "../document";
import type { Clause } from "../reading/clauses";
import { statementOf } from "../reading/polarity";
import { type Word, wordsOf } from "../reading/words";
import type { Sentence } from "../sentences";
import { isRecurring, readTime, timePattern } from "../times";
import { caseNouns, casePapers, closingVerbs, documentNouns, givingVerbs, stateVerbs, systemNouns } from "../words";
import type { CastKind } from "./cast";
import { type Phrase, phrasesOf } from "./phrases";

export interface Found extends Span {
  readonly kind: MarkKind;
  readonly reason: string;
}

/** What is known of the text around a sentence. */
export interface Surroundings {
  readonly cast: ReadonlyMap<string, CastKind>;
  readonly trigger: (Span & { readonly reason: string }) | undefined;
  /** Before what sets the work off nothing is done yet. */
  readonly isBeforeTrigger: boolean;
  /** Whether it is the last of its paragraph. */
  readonly isLast: boolean;
  /** What conditions before it were about. */
  readonly asked: readonly string[];
}

/** The marks one sentence might get. Places are those in it. */
export function marksIn(sentence: Sentence, around: Surroundings): Found[] {
  const { text } = sentence;
  const words = wordsOf(text);
  const found: Found[] = [];
  const add = (kind: MarkKind, from: number, to: number, reason: string) => {
    const [start, end] = trimmed(text, from, to);
    if (end - start > 1) found.push({ kind, from: start, to: end, reason });
  };
  const overlaps = (span: Span, ...kinds: readonly MarkKind[]) =>
    found.some((one) => kinds.includes(one.kind) && one.from < span.to && span.from < one.to);
  const { trigger } = around;
  if (trigger) add("trigger", trigger.from, trigger.to, trigger.reason);
  for (const match of text.matchAll(timePattern)) {
    const span = { from: match.index, to: match.index + match[0].length };
    if (readTime(match[0]) && !overlaps(span, "trigger"))
      add(
        "time",
        span.from,
        span.to,
        isRecurring(match[0]) ? "A time that comes again." : "How long something takes or waits.",
      );
  }
  const parts = partsOf(sentence, []);
  const depending = /^depending on\s+([^,]+),/i.exec(text);
  if (depending)
    add(
      "decision",
      depending[0].indexOf(depending[1] as string),
      depending[0].length - 1,
      '"Depending on" asks a question that the work goes on by.',
    );
  for (const part of parts) {
    const { clause } = part;
    if (overlaps({ from: clause.begins, to: clause.to }, "trigger") && clause.to <= (trigger?.to ?? 0) + 1) continue;
    const asked = questionIn(part, around);
    if (asked) {
      const to = endOfCondition(
        text,
        clause,
        parts.map((one) => one.clause),
      );
      const end = found
        .filter((one) => one.kind === "time" && one.from > asked.from && one.from < to)
        .map((one) => one.from);
      add("decision", asked.from, Math.min(to, ...end), `"${asked.word}" asks a question that the work goes on by.`);
    }
  }
  for (const part of parts) {
    const { clause } = part;
    if (
      around.isBeforeTrigger ||
      !clause.verb ||
      isAsking(clause) ||
      overlaps({ from: clause.verb.from, to: clause.verb.to }, "trigger", "decision")
    )
      continue;
    const reached = resultIn(text, clause, parts.length === 1 && around.isLast);
    if (reached) add("result", reached.from, reached.to, "It says what has been reached when the work ends.");
    else {
      const work = workIn(
        text,
        words,
        clause,
        parts.map((one) => one.clause),
        around,
      );
      const { verb } = clause;
      const doing = found.filter((one) => one.kind === "time" && work && one.from > verb.main.to && one.from < work.to);
      // "Waits another week": the time is what is done.
      const isWait = clause.verb.base.startsWith("wait");
      if (work) {
        const end = isWait ? work.to : Math.min(work.to, ...doing.map((one) => one.from));
        for (const time of isWait ? doing : []) found.splice(found.indexOf(time), 1);
        add(
          "activity",
          work.from,
          end,
          `"${text.slice(clause.verb.main.from, clause.verb.main.to)}" is something that is done.`,
        );
      }
    }
  }
  for (const phrase of phrasesOf(text, words)) {
    if (overlaps(phrase, "time")) continue;
    const kind = thingIn(text, words, phrase, around);
    if (kind) add(kind, phrase.from, phrase.to, reasons[kind]);
  }
  return found.sort((a, b) => a.from - b.from || b.to - a.to);
}

const isAsking = (clause: Clause) =>
  ["if", "unless", "whether", "when", "until", "after", "because"].includes(clause.link ?? "");

/** "If the form is missing or the plan is old, …": a condition goes on over clauses that are tied to it and come before what is done. */
function endOfCondition(text: string, condition: Clause, all: readonly Clause[]): number {
  if (condition.link !== "if" && condition.link !== "unless") return condition.to;
  const behind = all.filter((one) => one.from > condition.from).sort((a, b) => a.from - b.from);
  let end = condition.to;
  for (const [at, { link, verb, from, to }] of behind.entries()) {
    if ((link !== "and" && link !== "or") || !verb || text.slice(end, from).includes(",")) break;
    const next = behind[at + 1];
    const isBeforeWork = next !== undefined && /,/.test(text.slice(to, next.from + 1));
    const saysHowItIs = verb.isState || stateVerbs.has(verb.base.split(" ")[0] ?? "");
    if (!isBeforeWork && !saysHowItIs) break;
    end = to;
  }
  return end;
}

/** The words of a condition, without the link. */
function questionIn(
  part: ReturnType<typeof partsOf>[number],
  around: Surroundings,
): (Span & { word: string }) | undefined {
  const { clause } = part;
  const span = { from: clause.begins, to: clause.to };
  const word =
    part.words
      .slice(0, Math.max(0, clause.begins - clause.from))
      .trim()
      .split(/\s+/)
      .at(-1) ?? "";
  if (clause.link === "whether") return { ...span, word: "whether" };
  if (clause.link === "if" || clause.link === "unless") {
    const isBare =
      bareAnswer(part) !== undefined ||
      /^(?:possible|necessary|needed|required|applicable)$/i.test(part.words.slice(clause.begins - clause.from));
    const isAbsence =
      /\b(?:there (?:is|are) no|no) (?:answer|reply|response|reaction)\b/i.test(part.words) ||
      /\bin time\b|\bby then\b/i.test(part.words);
    return isBare || isAbsence ? undefined : { ...span, word };
  }
  if (clause.link === "until" && (clause.verb || overAgainIn(part))) return { ...span, word: "until" };
  if (clause.link === "when" && clause.verb?.isState && clause.verb.base === "be") {
    const { subject } = statementOf(part.words);
    if (subject !== "" && around.asked.includes(subject)) return { ...span, word };
  }
  return undefined;
}

/** "The case is closed", "the application lapses", "nothing further happens". */
function resultIn(text: string, clause: Clause, isAlone: boolean): Span | undefined {
  const { subject, verb } = clause;
  if (!subject || !verb || clause.sharesSubject) return undefined;
  const name = text.slice(subject.from, subject.to).toLowerCase();
  const [base = ""] = verb.base.split(" ");
  const span = { from: subject.from, to: verb.to };
  if (name.startsWith("nothing") && base === "happen")
    return { from: subject.from, to: Math.max(verb.to, text.indexOf("happens") + 7) };
  const noun = name.split(/\s+/).at(-1) ?? "";
  const isCase = caseNouns.has(noun) || documentNouns.has(noun) || casePapers.has(noun);
  const isPast =
    verb.isPassive &&
    (closingVerbs.has(base) || /^(?:reject|refuse|decline|cancel|withdraw|conclude|complete|connect)$/.test(base));
  if (isCase && (isPast || (!verb.isState && closingVerbs.has(base)))) return span;
  if (/^(?:lapse|expire)$/.test(base)) return span;
  const state =
    verb.isState && /^(?:closed|finished|completed|settled|over|concluded)\b/.test(text.slice(verb.to).trim());
  if (isCase && state) return { from: subject.from, to: clause.to };
  // "The poster is printed.": the last word of a paragraph, by nobody.
  const isBare = clause.begins === subject.from && /^[\s.!]*$/.test(text.slice(verb.to));
  return isAlone &&
    isBare &&
    verb.isPassive &&
    !/\bby\b|\bagain\b/.test(text) &&
    /^(?:the|an?)\s/i.test(text.slice(subject.from))
    ? span
    : undefined;
}

/** What is done, to the end of what it is done to. */
function workIn(
  text: string,
  words: readonly Word[],
  clause: Clause,
  all: readonly Clause[],
  around: Surroundings,
): Span | undefined {
  const { verb, subject } = clause;
  if (isOverAgain(text, clause)) return undefined;
  // What is not done, or cannot be, is no work.
  if (!verb || verb.isState || verb.isBare || verb.isNegated) return undefined;
  // "Before the meter can be replaced, …": that comes later, and is told where it does.
  if (clause.link === "before" && /\b(?:can|could|may)\b/i.test(text.slice(verb.from, verb.to))) return undefined;
  const [base = ""] = verb.base.split(" ");
  const opensObject = /^\s+(?:the|an?|his|her|its|their|each|every)\b/i.test(text.slice(verb.main.to));
  // "Starts the machine" is done by somebody; "the shift starts" is not.
  const isDeed = base === "wait" || (/^(?:start|begin|include|cover)$/.test(base) && opensObject && !verb.isPassive);
  if (stateVerbs.has(base) && !isDeed) return undefined;
  if (/^(?:go on|continue|proceed|carry on)/.test(verb.base) && clause.link === "before") return undefined;
  if (
    /^takes?\s+(?:place|part|\d|an?\s+(?:day|week|month|year|hour)|about|up to|approx)/i.test(
      text.slice(verb.main.from),
    )
  )
    return undefined;
  const name = subject ? text.slice(subject.from, subject.to) : "";
  // "Nobody checks it", "no report is sent".
  if (/^(?:no|nobody|none|neither|no-one|nothing)\b/i.test(name)) return undefined;
  // "The purpose of this process is to connect roofs": that is what the text is about.
  if (!verb.isPassive && aboutTheText.test(name)) return undefined;
  // "It takes three calls" says how long.
  if (base === "take" && /^(?:it|this|that)$/i.test(name)) return undefined;
  if (/^(?:both|these|all|everything|nothing)$/i.test(name) && /^(?:go|happen|take|run)$/.test(base)) return undefined;
  // "The papers arrive": things that come do nothing.
  const isThing = subject && !clause.sharesSubject && !/^(?:he|she|it|they|who|which|one)$/i.test(name);
  if (/^(?:arrive|come|happen|occur|go)$/.test(base) && isThing && !isSomebody(text, words, subject, around))
    return undefined;
  const whether = all[all.indexOf(clause) + 1];
  const isAsked = whether?.link === "whether" && whether.from - clause.to < 3;
  const from =
    verb.isPassive && subject && !clause.sharesSubject ? subject.from : verb.isPassive ? verb.from : verb.main.from;
  return { from, to: isAsked ? whether.to : endOfWork(text, words, clause) };
}

/** The process itself, and no process owner. */
const aboutTheText =
  /^(?:(?:the|this|its|our|an?)\s+)?(?:\p{L}+\s+)?(?:purpose|aim|goal|objective|scope|process|procedure|workflow|description|section|chapter|policy|guideline)s?(?:\s+(?:of|for|in)\s.*)?$/iu;

const isSomebody = (text: string, words: readonly Word[], subject: Span, around: Surroundings) =>
  phrasesOf(text, words).some(
    (one) => one.from >= subject.from && one.to <= subject.to + 1 && around.cast.has(one.key),
  );

function endOfWork(text: string, words: readonly Word[], clause: Clause): number {
  const start = clause.verb?.to ?? clause.from;
  let to = clause.to;
  const rest = text.slice(start, to);
  const stop =
    /[;:.]|\s+(?:by\s+(?:the|an?|our)\s|(?:at the same time|in parallel|simultaneously|together with|at once|immediately)\b|(?:within|after|for)\s+(?:\d|an?\s+(?:week|day|month)|one|two|three|four|five|six|seven|ten)\b|in (?:that|this|either|any) case)/iu.exec(
      rest,
    );
  if (stop && stop.index > 0) to = start + stop.index;
  // The system somebody works in is told apart from what is done.
  for (const phrase of phrasesOf(text, words)) {
    if (phrase.from < start || phrase.to > to || !isSystem(phrase)) continue;
    const lead = /\s+(?:in|into|on|onto|from|with|via|through|using)\s+(?:the\s+|an?\s+|our\s+|its\s+)?$/i.exec(
      text.slice(start, phrase.from),
    );
    if (lead && lead.index > 0) to = Math.min(to, start + lead.index);
  }
  return to;
}

const isSystem = (phrase: Phrase) =>
  systemNouns.has(phrase.head) &&
  phrase.preposition !== undefined &&
  /^(?:in|into|on|onto|from|with|via|through|by|using)$/.test(phrase.preposition);

function thingIn(
  text: string,
  words: readonly Word[],
  phrase: Phrase,
  around: Surroundings,
): "role" | "party" | "system" | "document" | undefined {
  const cast = around.cast.get(phrase.key);
  if (cast) return cast;
  // "Upon receipt of the invoice": that it came, and no paper.
  if (phrase.head === "receipt" && phrase.preposition !== undefined && /^\s+of\b/i.test(text.slice(phrase.to)))
    return undefined;
  if (isSystem(phrase) && (phrase.text.includes(" ") || phrase.article === "the")) return "system";
  const verb = words.findLast(
    (word) => word.to <= phrase.from && (word.class === "verb" || word.class === "infinitive"),
  );
  const base = verb?.lower.replace(/(?:ies)$/, "y").replace(/(?<=ch|sh|ss|x)es$|s$/, "") ?? "";
  if (
    systemNouns.has(phrase.head) &&
    /^(?:search|consult|open|check|query|update)$/.test(base) &&
    phrase.text.includes(" ")
  )
    return "system";
  const isByWay = phrase.preposition === "by" || phrase.preposition === "on" || phrase.article === "";
  if (documentNouns.has(phrase.head)) return phrase.preposition === "by" ? undefined : "document";
  const arrives = /^\s*(?:arrives?|comes? in|is received)\b/i.test(text.slice(phrase.to));
  if (casePapers.has(phrase.head) && arrives && around.trigger) return "document";
  if (!casePapers.has(phrase.head) || isByWay) return undefined;
  const isHandled =
    givingVerbs.has(base) || /^(?:check|read|examine|scan|sign|file|record|complete|fill|study|approve)$/.test(base);
  return isHandled && phrase.preposition === undefined ? "document" : undefined;
}

function trimmed(text: string, from: number, to: number): [number, number] {
  const part = text.slice(from, to);
  const start = from + (part.length - part.replace(/^[\s,;:.]+/, "").length);
  // "Informs her at least two days before": the time stands apart.
  return [
    start,
    from +
      part.replace(
        /(?:[\s,;:.]|\s(?:at least|at most|at the latest|no later than|every|each|about|approximately|up to))+$/i,
        "",
      ).length,
  ];
}

const reasons = {
  role: "Somebody of the organisation who does something.",
  party: "Such people are usually outside the organisation: a pool of their own.",
  system: "Work is done in it.",
  document: "Something that is written, handed over or read.",
} as const;
