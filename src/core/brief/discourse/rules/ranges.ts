import { uncapitalised } from "../../wording";
import type { Course, OpenDecision } from "../course";
import { markIn, type Part } from "../part";
import { roleOf } from "../step";
import type { TurnOfPhrase } from "./rule";

/** "Below 500 euros", "between 500 and 5,000 kWh"; times of day and durations are no such ranges. */
const range =
  /\b(?:between|above|below|over|under|up to|beyond|more than|less than|fewer than|at least|at most)\s+[^,;?]*\d[^;?]*$/i;
const isTime = /\b(?:o'clock|am|pm|seconds?|minutes?|hours?|days?|weeks?|months?|years?)\b|\d:\d\d/i;

interface InRange {
  /** What is in the range: "the amount is", or nothing. */
  readonly what: string;
  readonly words: string;
}

function rangeIn(text: string): InRange | undefined {
  const bare = text.replace(/[\s,?]+$/, "");
  const found = range.exec(bare);
  if (!found || isTime.test(found[0])) return undefined;
  return { what: bare.slice(0, found.index).trim(), words: found[0] };
}

const numbersIn = (words: string) => (words.match(/\d[\d.,]*/g) ?? []).join(" ");

/** Whether a question is answered by ranges, or asks of one. */
export const isByRange = ({ question, paths }: OpenDecision): boolean =>
  rangeIn(question) !== undefined || paths.some((path) => rangeIn(path.answer));

/**
 * Goes along the answer for a range, where the question is already by range: "below 500 euros" was asked, and this is "between 500 and
 * 5,000". Yes and no would not tell three ranges apart; below and above one number they do.
 */
export function followRange(course: Course, open: OpenDecision, said: string, mark?: string): boolean {
  const given = rangeIn(said);
  if (!given || !isByRange(open)) return false;
  const asked = rangeIn(open.question);
  if (asked && open.paths.every((path) => !rangeIn(path.answer))) {
    const [first, ...others] = open.paths;
    if (numbersIn(asked.words) === numbersIn(given.words)) return false;
    if (first?.answer !== "yes" || others.length > 0) return false;
    first.answer = uncapitalised(asked.words);
    open.question = asked.what === "" ? "How much?" : `${asked.what.replace(/\s+(?:is|are|was|were)$/i, "")}?`;
  }
  course.follow(open, uncapitalised(given.words), mark);
  return true;
}

/** The range that leads a clause in: "Above 5,000 euros, …", "For amounts between 500 and 5,000 euros …". */
export const rangeLeading = ({ lead }: Part): string | undefined => {
  const found = rangeIn(lead);
  return found && /^(?:and|but|for(?:\s+\p{L}+){0,3})?$/iu.test(found.what) ? found.words : undefined;
};

export const ranges: TurnOfPhrase = {
  name: "a range of a number",
  examples: [
    {
      text: "If [decision: the amount is below 500 euros], the [role: clerk] [activity: pays the bill]. Between 500 and 5000 euros, the [role: head] [activity: signs the bill]. Above 5000 euros, the [role: board] [activity: talks about it]. The [role: clerk] [activity: files the bill].",
      reads: [
        "Amount?",
        "  below 500 euros",
        "    Pay bill",
        "  between 500 and 5000 euros",
        "    Sign bill",
        "  above 5000 euros",
        "    Talk about bill",
        "File bill",
      ],
    },
    {
      text: "For amounts above 5000 euros the [role: head] [activity: signs the bill].",
      reads: ["Above 5000 euros?", "  yes", "    Sign bill", "  no"],
    },
    {
      text: "For amounts below 500 euros, the [role: clerk] [activity: signs the bill]. Between 500 and 5000 euros, the [role: head] [activity: signs it]. Above 5000 euros, the [role: board] [activity: signs it].",
      reads: [
        "How much?",
        "  below 500 euros",
        "    Sign bill",
        "  between 500 and 5000 euros",
        "    Sign bill",
        "  above 5000 euros",
        "    Sign bill",
      ],
    },
    {
      text: "If [decision: the amount is below 500 euros], the [role: clerk] [activity: pays the bill]. If [decision: it is between 500 and 5000 euros], the [role: head] [activity: signs the bill]. Otherwise the [role: board] [activity: talks about it].",
      reads: [
        "Amount?",
        "  below 500 euros",
        "    Pay bill",
        "  between 500 and 5000 euros",
        "    Sign bill",
        "  otherwise",
        "    Talk about bill",
      ],
    },
  ],
  read: ({ part, course }) => {
    const words = rangeLeading(part);
    const mark = markIn(part, "activity", "result");
    if (words === undefined || !mark) return false;
    const open = course.answerable();
    if (open && followRange(course, open, words)) return false;
    const decision = course.ask(part, {
      mark: markIn(part, "decision")?.id ?? `${mark.id}:if`,
      words,
      role: roleOf(course.lastRole),
      onlyAsked: false,
    });
    course.follow(decision, "yes");
    return false;
  },
};
