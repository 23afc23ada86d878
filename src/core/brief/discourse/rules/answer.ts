import type { Course } from "../course";
import { markIn, type Part } from "../part";
import type { TurnOfPhrase } from "./rule";

const otherwise = /^(?:or\s+)?(?:otherwise|else|or else)\b|^(?:in|for) (?:all|any|every) other cases?\b/i;
const so = /^(?:in that case|in this case|in such a case|then only)\b/i;

/** What a clause answers to the question before it by itself: "if so", "if it is not", "otherwise". */
export function bareAnswer(part: Part): "yes" | "no" | "other" | undefined {
  const { clause, words, lead } = part;
  if (otherwise.test(lead) || otherwise.test(words.replace(/^(?:and|but)\s+/i, ""))) return "other";
  if (so.test(lead)) return undefined;
  if (clause.link !== "if" && clause.link !== "unless") return undefined;
  const said = words.replace(/^(?:and\s+|but\s+)?(?:if|unless|in case|provided that|provided)\s+/i, "").trim();
  if (/^(?:so|yes|one (?:is|does|can|has)|they are|there (?:is|are))$/i.test(said)) return "yes";
  if (/^(?:not|no|there (?:is|are) (?:none|no one|nobody|not)|none (?:is|are|does|do))$/i.test(said)) return "no";
  if (/^(?:she|he|it|they|\p{L}+) decides? (?:against|for|in favour)/iu.test(said))
    return /against/i.test(said) ? "no" : "yes";
  if (!clause.verb?.isBare || /\b(?:there|here)$/.test(said)) return undefined;
  return clause.verb.isNegated ? "no" : "yes";
}

/** The path of a decision that is not gone yet. */
export function otherAnswer(paths: readonly { readonly answer: string }[]): string {
  return paths.some((path) => path.answer === "no") && !paths.some((path) => path.answer === "yes") ? "yes" : "no";
}

/** Goes on along the answer a clause gives by itself. */
export function follow(course: Course, part: Part, answer: "yes" | "no" | "other"): boolean {
  const mark = markIn(part, "decision");
  const decision = course.answerable();
  if (!decision) return false;
  const isUnless = part.clause.link === "unless";
  const given =
    answer === "other" ? otherAnswer(decision.paths) : isUnless ? (answer === "yes" ? "no" : "yes") : answer;
  course.follow(decision, given, mark?.id);
  return true;
}

export const answer: TurnOfPhrase = {
  name: "an answer to the question before",
  examples: [
    {
      text: "The [role: desk] [activity: checks [decision: whether the form is complete]]. If so, it [activity: files the form]. If not, it [activity: sends a letter].",
      reads: ["Check whether form is complete", "Form complete?", "  yes", "    File form", "  no", "    Send letter"],
    },
    {
      text: "The [role: clerk] [activity: counts the coins] unless [decision: the box is empty]. In that case he [activity: calls the office].",
      reads: ["Box empty?", "  no", "    Count coins", "  yes", "    Call office"],
    },
    {
      text: "The [role: desk] [activity: checks [decision: whether the form is complete]]. If it is, the desk [activity: files the form]; otherwise it [activity: sends a letter].",
      reads: ["Check whether form is complete", "Form complete?", "  yes", "    File form", "  no", "    Send letter"],
    },
  ],
  read: ({ part, course }) => {
    const meant = so.test(part.lead) ? course.answerable() : undefined;
    if (meant) {
      course.follow(meant, meant.stated);
      return false;
    }
    const given = bareAnswer(part);
    if (!given || course.lateBy === part || !follow(course, part, given)) return false;
    return part.clause.link === "if" && part.marks.every((mark) => mark.kind === "decision");
  },
};
