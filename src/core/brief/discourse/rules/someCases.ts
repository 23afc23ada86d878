import { relationOf, statementOf } from "../../reading/polarity";
import { question } from "../../reading/states";
import { singularOf } from "../../wording";
import { subjectWords } from "../actor";
import type { Course } from "../course";
import { markIn, type Part } from "../part";
import { roleOf } from "../step";
import { otherAnswer } from "./answer";
import type { TurnOfPhrase } from "./rule";

const inCases =
  /^in\s+((?:\p{L}+\s+){0,2}?(?!all\b|any\b|each\b|every\b|either\b|both\b|other\b)\p{L}+)\s+(?:cases?)\b/iu;
const those = /^(?:the\s+)?(\p{L}+s)\s+((?:with|without|below|above|under|over|of|from|that|which|who)\s+.+)$/iu;

/** "Incomplete forms": what something may be, and is not always. */
const faulty =
  /^((?:in|un|il|ir|im)(?:complete|correct|valid|accurate|sufficient|signed|paid|legible|readable|clear|regular|proper|plausible|eligible|consistent|suitable|known)|faulty|defective|damaged|broken|wrong|missing|late|overdue|urgent|doubtful|rejected|refused|cancelled)\s+(\p{L}+s)$/iu;

/** Those of which it was not told what is done with them. */
const theOthers = /^(?:all (?:the )?others?|(?:all )?(?:the )?other \p{L}+s|the others|others|the rest)$/iu;

/** "Urgent letters are read at once, all others the next day." */
function followOthers(course: Course): boolean {
  const open = course.answerable();
  if (!open?.isOfSome || open.paths.length > 1) return false;
  course.follow(open, otherAnswer(open.paths));
  return true;
}

/** "If anything is missing, …. Complete forms go to …": those of which the opposite was told. */
function followThose(part: Part, course: Course): boolean {
  const [, how, what] = /^(\p{L}+)\s+(\p{L}+s)$/iu.exec(subjectWords(part)) ?? [];
  const open = course.answerable();
  if (!how || !what || open?.paths.length !== 1 || part.clause.link !== undefined) return false;
  if (relationOf(statementOf(`the ${singularOf(what)} is ${how}`), open.says) !== -1) return false;
  course.follow(open, otherAnswer(open.paths));
  return true;
}

/** "For the solar tariff, …": of one kind, where a sentence soon tells of the others. */
function kindLeading(part: Part, course: Course): string | undefined {
  const { all, sentence } = part;
  const before = all.slice(0, all.indexOf(part));
  // "…, a second meter is needed and a technician is sent": what is done stands in a clause behind.
  const { lead } = before[0] && before.every(({ marks }) => marks.length === 0) ? before[0] : part;
  const kind = /^for\s+(?:(?:the|an?|all|any)\s+)?((?:\p{L}+\s+){0,3}\p{L}+),$/iu.exec(lead)?.[1];
  const isContrasted = course.sentences.some(
    ({ at, text }) => at > sentence.at && at <= sentence.at + 3 && /^for\s+(?:all|any|the)?\s*other\b/i.test(text),
  );
  return kind && isContrasted && !/\bother\b/i.test(kind) ? kind : undefined;
}

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
    {
      text: "The [role: desk] [activity: checks the forms]. Incomplete forms [activity: are returned]. The desk [activity: files the rest].",
      reads: ["Check forms", "Form incomplete?", "  yes", "    Return incomplete forms", "  no", "File rest"],
    },
    {
      text: "If [decision: the value is plausible], the [role: desk] [activity: prints the bill]. Implausible values [activity: are read by a colleague].",
      reads: ["Value plausible?", "  yes", "    Print bill", "  no", "    Read implausible values"],
    },
    {
      text: "If [decision: anything is missing], the [role: desk] [activity: sends it back]. Complete forms go to the [role: engineer], who [activity: signs them].",
      reads: ["Anything missing?", "  yes", "    Send anything back", "  no", "    Sign complete forms"],
    },
    {
      text: "Members who do not reply [activity: are called] by the [role: coordinator].",
      reads: ["Members reply?", "  yes", "  no", "    Call members"],
    },
    {
      text: "Letters with a red stamp [activity: are opened at once] by the [role: guard], all others [activity: are sorted]. The guard [activity: locks the box].",
      reads: [
        "With red stamp?",
        "  yes",
        "    Open letters with red stamp at once",
        "  no",
        "    Sort others",
        "Lock box",
      ],
    },
    {
      text: "For the solar tariff, a [role: technician] [activity: brings a meter]. For all other tariffs, the [role: desk] [activity: prints the contract]. The desk [activity: files the contract].",
      reads: ["Solar tariff?", "  yes", "    Bring meter", "  no", "    Print contract", "File contract"],
    },
  ],
  read: ({ part, course }) => {
    if (theOthers.test(subjectWords(part)) && followOthers(course)) return false;
    if (followThose(part, course)) return false;
    const mark = markIn(part, "activity", "result");
    if (!mark || part.clause.link === "if") return false;
    const cases = inCases.exec(part.lead)?.[1] ?? kindLeading(part, course);
    const told = part.clause.verb?.isPassive ? those.exec(subjectWords(part))?.[2] : undefined;
    const noun = those.exec(subjectWords(part))?.[1];
    // "Deviations of more than 5 percent".
    const some = told && /^of\b/i.test(told) ? `${noun} ${told}` : told;
    // "Invoices that are wrong": whether the invoice is wrong.
    const which = some && /^(?:that|which|who)\s+(?:is|are|has|have)\s+(.+)$/i.exec(some)?.[1];
    const [, how, what] = (part.clause.verb?.isPassive && faulty.exec(subjectWords(part))) || [];
    const so = how && what ? `${singularOf(what)} ${how.toLowerCase()}` : undefined;
    // "Members who do not reply are called": whether they reply.
    const doing =
      some && noun ? /^(?:that|which|who)\s+(do not\s+|don't\s+)?(?!is\b|are\b|has\b|have\b)(.+)$/i.exec(some) : null;
    const words =
      (doing ? `the ${noun} ${doing[2]}` : cases) ?? (which && noun ? `${singularOf(noun)} ${which}` : (some ?? so));
    if (!words || /^(?:that|this|such|which|all|any|each|every|either|both)\b/i.test(words)) return false;
    const decision = course.ask(part, {
      mark: markIn(part, "decision")?.id ?? `${mark.id}:if`,
      words,
      question: question(words),
      role: roleOf(course.lastRole),
      onlyAsked: false,
    });
    Object.assign(decision, { says: statementOf(words), isOfSome: true });
    course.follow(decision, doing?.[1] ? "no" : "yes");
    return false;
  },
};
