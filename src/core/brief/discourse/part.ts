import type { Mark } from "../document";
import { type Clause, clausesOf } from "../reading/clauses";
import type { Sentence } from "../sentences";
import type { Mention } from "../subjects";

/** A clause of a sentence with what is marked in it. Places are those in the sentence. */
export interface Part {
  readonly sentence: Sentence;
  readonly clause: Clause;
  readonly words: string;
  /** What stands before its subject: "otherwise", "after the talk". */
  readonly lead: string;
  readonly marks: readonly Mark[];
  readonly mentions: readonly Mention[];
  /** The parts of its sentence, in the order in which they are read. */
  readonly all: readonly Part[];
}

const findsOut = /^(?:check|test|verify|inspect|measure|examine|review|assess|evaluate|compare)\b/;

/**
 * The clauses of a sentence in the order in which the work goes: a condition comes before what depends on it, wherever it stands in
 * the sentence. Marks belong to the clause in which they begin.
 */
export function partsOf(sentence: Sentence, mentions: readonly Mention[]): readonly Part[] {
  const clauses = clausesOf(sentence.text);
  const parts: Part[] = [];
  for (const [at, clause] of clauses.entries()) {
    const end = clauses[at + 1]?.from ?? sentence.text.length;
    const from = at === 0 ? 0 : clause.from;
    const inside = (place: number) => place >= from && place < end;
    const { subject, sharesSubject, verb } = clause;
    const leadEnd = subject && !sharesSubject ? subject.from : (verb?.from ?? clause.to);
    parts.push({
      sentence,
      clause,
      words: sentence.text.slice(clause.from, clause.to),
      lead: sentence.text.slice(clause.begins, Math.max(clause.begins, leadEnd)).trim(),
      marks: sentence.marks
        .filter((mark) => inside(mark.from - sentence.from))
        .sort((a, b) => a.from - b.from || b.to - a.to),
      mentions: mentions.filter((mention) => inside(mention.from)),
      all: parts,
    });
  }
  for (let at = 1; at < parts.length; at++) {
    const part = parts[at] as Part;
    if (!isTied(part) || isTied(parts[at - 1] as Part)) continue;
    // "Pays the bill if it is right": what depends on it stands before, unless something behind follows from it.
    if (followsDirectly(sentence, parts, at)) continue;
    let first = at - 1;
    while (first > 0 && parts[first]?.clause.sharesSubject && parts[first]?.clause.link === "and") {
      // "Tests the seal and replaces it if it leaks": the test shows whether it does.
      if (findsOut.test(parts[first - 1]?.clause.verb?.base ?? "")) break;
      first--;
    }
    parts.splice(at, 1);
    parts.splice(first, 0, part);
  }
  // "Until she is content, the plan is revised": what is done comes first, then what is asked.
  const [head, ...rest] = parts;
  if (head?.clause.link === "until" && rest.length > 0) {
    const next = rest.findIndex((part) => part.clause.link === "then" || isTied(part));
    parts.splice(next < 0 ? parts.length : next + 1, 0, head);
    parts.shift();
  }
  return parts;
}

const isTied = (part: Part) => part.clause.link === "if" || part.clause.link === "unless";

/** "…; if it is right, she pays it": a comma behind the condition, and something that is done. */
function followsDirectly(sentence: Sentence, parts: readonly Part[], at: number): boolean {
  const [part, next] = [parts[at] as Part, parts[at + 1]];
  if (!next?.clause.verb || next.clause.link === "relative" || /^in which case\b/i.test(next.lead)) return false;
  return (
    /^\s*,\s*(?:then\s+)?$/.test(sentence.text.slice(part.clause.to, next.clause.from)) && next.clause.link !== "and"
  );
}

/** The first mark of a kind in a part. */
export const markIn = (part: Part, ...kinds: readonly Mark["kind"][]): Mark | undefined =>
  part.marks.find((mark) => kinds.includes(mark.kind));
