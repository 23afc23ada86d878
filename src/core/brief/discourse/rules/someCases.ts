import { statementOf } from "../../reading/polarity";
import { question } from "../../reading/states";
import { singularOf } from "../../wording";
import { subjectWords } from "../actor";
import { markIn } from "../part";
import { roleOf } from "../step";
import type { TurnOfPhrase } from "./rule";

const inCases =
  /^in\s+((?:\p{L}+\s+){0,2}?(?!all\b|any\b|each\b|every\b|either\b|both\b|other\b)\p{L}+)\s+(?:cases?)\b/iu;
const those = /^(?:the\s+)?(\p{L}+s)\s+((?:with|without|below|above|under|over|of|from|that|which|who)\s+.+)$/iu;

/** "In urgent cases", "applications without a certificate": what is done with some cases only. */
export const someCases: TurnOfPhrase = {
  name: "what is done in some cases",
  examples: [
    {
      text: "In urgent cases the [role: desk] [activity: calls the patrol].",
      reads: ["Urgent?", "  yes", "    Call patrol", "  no"],
    },
    {
      text: "The [role: desk] [activity: reads the letters]. Letters without a name [activity: are returned].",
      reads: ["Read letters", "Without name?", "  yes", "    Return letters without name", "  no"],
    },
  ],
  read: ({ part, course }) => {
    const mark = markIn(part, "activity", "result");
    if (!mark || part.clause.link === "if") return false;
    const cases = inCases.exec(part.lead)?.[1];
    const some = part.clause.verb?.isPassive ? those.exec(subjectWords(part))?.[2] : undefined;
    const noun = those.exec(subjectWords(part))?.[1];
    // "Invoices that are wrong": whether the invoice is wrong.
    const which = some && /^(?:that|which|who)\s+(?:is|are|has|have)\s+(.+)$/i.exec(some)?.[1];
    const words = cases ?? (which && noun ? `${singularOf(noun)} ${which}` : some);
    if (!words || /^(?:that|this|such|all|any|each|every|either|both)\b/i.test(words)) return false;
    const decision = course.ask(part, {
      mark: markIn(part, "decision")?.id ?? `${mark.id}:if`,
      words,
      question: question(words),
      role: roleOf(course.lastRole),
      onlyAsked: false,
    });
    Object.assign(decision, { says: statementOf(words) });
    course.follow(decision, "yes");
    return false;
  },
};
