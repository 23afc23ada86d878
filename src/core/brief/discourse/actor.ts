import type { Mention } from "../subjects";
import type { Course } from "./course";
import type { Part } from "./part";

const isDoer = (mention: Mention) => mention.kind !== "document";

/**
 * Who does what a clause says: who stands before its verb, behind "by" where something is done to the subject, or who was spoken of
 * last where it says "she", "they", "who". What is done to a thing, by nobody named, is done by whoever did something last.
 */
export function actorOf(part: Part, everybody: readonly Mention[], course: Course): Mention | undefined {
  const { clause, sentence } = part;
  const by = part.mentions.find(
    (mention) => isDoer(mention) && /\bby\s+(?:(?:the|an?|our|its)\s+)?$/i.test(sentence.text.slice(0, mention.from)),
  );
  if (clause.verb?.isPassive) return by ?? course.lastRole;
  const { subject } = clause;
  if (clause.link === "relative" || /^(?:who|which)$/i.test(subjectWords(part)))
    return everybody.findLast((mention) => isDoer(mention) && mention.to <= clause.from) ?? course.lastSubject;
  const named = subjectOf(part, everybody);
  if (named) return named;
  if (!subject) return by ?? everybody.find((mention) => mention.kind === "role" && mention.to <= clause.from);
  const words = subjectWords(part).toLowerCase();
  const before = [...everybody].filter((mention) => mention.to <= (clause.verb?.from ?? clause.to));
  if (/^(?:he|she)$/.test(words))
    return (
      course.lastPerson ??
      course.lastRole ??
      before.findLast((mention) => mention.kind === "role") ??
      course.lastSubject
    );
  if (/^(?:it|they|both|all|these|those)$/.test(words)) {
    const spoken = course.lastSubject;
    return spoken?.kind === "party" && words === "it" ? (course.lastRole ?? spoken) : spoken;
  }
  // "The place goes to another child": a thing does nothing by itself.
  return isThing(words) ? course.lastRole : undefined;
}

export const subjectWords = ({ clause, sentence }: Part): string =>
  clause.subject ? sentence.text.slice(clause.subject.from, clause.subject.to) : "";

/** Who is named as the subject of a clause. */
export function subjectOf(part: Part, everybody: readonly Mention[]): Mention | undefined {
  const { subject } = part.clause;
  if (!subject) return undefined;
  return everybody.findLast(
    (mention) =>
      isDoer(mention) &&
      mention.from >= subject.from &&
      mention.to <= subject.to + 1 &&
      // "The report of the engineer" is no engineer.
      !/\b(?:of|for|with|without|from|to)\s+(?:(?:the|an?|our|its)\s+)?$/i.test(
        part.sentence.text.slice(subject.from, mention.from),
      ),
  );
}

const isThing = (words: string) =>
  /\b(?:place|check|review|lesson|payment|case|matter|copy|rest|following|money)$/.test(words);
