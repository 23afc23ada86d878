import type { Course } from "../course";
import { markIn, type Part } from "../part";
import type { TurnOfPhrase } from "./rule";

const otherwise =
  /^(?:or\s+)?(?:otherwise|else|or else)\b|^(?:in|for|with) (?:all |any |every )?(?:the )?other \p{L}+/iu;
const so = /^(?:in that case|in this case|in such a case|in which case|then only)\b/i;

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
  // Beside "below 500 euros" there is no "no".
  if (paths.length > 0 && paths.every(({ answer }) => answer !== "yes" && answer !== "no")) return "otherwise";
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

/** "In that case …": what was said last holds. */
export const meansWhatWasSaid = (part: Part): boolean => so.test(part.lead);

/** Goes along the answer that leads a clause in: "otherwise", "in that case". */
function followLead(course: Course, part: Part): void {
  const meant = meansWhatWasSaid(part) ? course.answerable() : undefined;
  const given = bareAnswer(part);
  if (meant) course.follow(meant, meant.stated);
  else if (given) follow(course, part, given);
}

/**
 * "Otherwise she files it, unless the box is full": the condition behind is read before what hangs on it, and it stands on the way that
 * "otherwise" leads along.
 */
export function followLeadBefore(course: Course, part: Part): void {
  const behind = part.all.slice(part.all.indexOf(part) + 1);
  const led = behind.find(
    (one) => one.clause.to <= part.clause.from && (meansWhatWasSaid(one) || bareAnswer(one) === "other"),
  );
  if (!led || course.ledBy === led || course.lateBy === led) return;
  followLead(course, led);
  course.ledBy = led;
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
      text: "If [decision: the limit is exceeded], the [role: desk] [activity: calls the bank]. Otherwise the desk [activity: confirms the order], unless [decision: the item is out of stock]. In that case it [activity: offers another]. The desk [activity: files the order].",
      reads: [
        "Limit exceeded?",
        "  yes",
        "    Call bank",
        "  no",
        "    Item out of stock?",
        "      no",
        "        Confirm order",
        "      yes",
        "        Offer another",
        "File order",
      ],
    },
    {
      text: "The [role: desk] [activity: checks [decision: whether the form is complete]]. If it is, the desk [activity: files the form]; otherwise it [activity: sends a letter].",
      reads: ["Check whether form is complete", "Form complete?", "  yes", "    File form", "  no", "    Send letter"],
    },
  ],
  read: ({ part, course }) => {
    if (course.ledBy === part) return false;
    if (meansWhatWasSaid(part) && course.answerable()) {
      followLead(course, part);
      return false;
    }
    const given = bareAnswer(part);
    if (!given || course.lateBy === part || !follow(course, part, given)) return false;
    return part.clause.link === "if" && part.marks.every((mark) => mark.kind === "decision");
  },
};
