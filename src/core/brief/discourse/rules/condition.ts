import { say } from "../../../messages";
import { relationOf, type Statement, sharesSubject, statementOf } from "../../reading/polarity";
import { question } from "../../reading/states";
import type { Mention } from "../../subjects";
import { doneName, thirdPersonOf, uncapitalised } from "../../wording";
import { actorOf, subjectWords } from "../actor";
import type { Course, OpenDecision } from "../course";
import type { Part } from "../part";
import { markIn } from "../part";
import { anotherAnswer, no, yes } from "../questions";
import { roleOf } from "../step";
import { objectOf } from "../thing";
import { followLeadBefore } from "./answer";
import { followRange } from "./ranges";
import type { TurnOfPhrase } from "./rule";

const link =
  /^(?:and\s+|but\s+|then\s+)*(?:only if|even if|if|unless|when|where|in case|provided that|provided|whenever|once|as soon as)\s+/i;

/** A condition without its "if", and with the name of what "it" is. */
export function conditionWords(part: Part, course: Course): string {
  const mark = markIn(part, "decision");
  const words = (
    mark
      ? saidPlainly(part, mark.text, mark.from - part.sentence.from)
      : saidPlainly(part, part.words, part.clause.from)
  )
    .replace(link, "")
    .replace(
      /\s*,?\s*(?:within|after|by)\s+(?:\d+|an?|\p{L}+)\s+(?:working\s+)?(?:minutes?|hours?|days?|weeks?|months?)$/iu,
      "",
    );
  // "If she approves it": what she approves is asked.
  const object = /^(?:he|she|they)\s+(?:(?:can|could|may|must|will)(?:n't|not)?\s+|can't\s+)?\S+\s+(it|them)$/i.exec(
    words,
  )?.[1];
  const thing = course.lastThing;
  if (object && thing && (object === "them") === thing.isPlural)
    return words.replace(/\S+$/, () => `the ${thing.text}`);
  const person = personMeant(part, words, course);
  if (person) return words.replace(/^(?:it|they)\b/i, () => `the ${uncapitalised(person.name)}`);
  const clear = named(words, thingBefore(part) ?? course.lastThing);
  if (clear !== words) return clear;
  const subject = mark && mark.from - part.sentence.from > (part.clause.subject?.from ?? 0) ? subjectWords(part) : "";
  return subject && !words.toLowerCase().includes(subject.toLowerCase()) ? `${subject} ${words}` : words;
}

/**
 * "If the form is missing or the plan is old, …": the clauses that are asked together with a condition, none of which says what is done;
 * with a mark over all of them they are in its words.
 */
function tiedTo(part: Part): { readonly words: string; readonly clauses: number } {
  const behind = part.all
    .filter((one) => one.clause.from > part.clause.from)
    .sort((a, b) => a.clause.from - b.clause.from);
  const tied: Part[] = [];
  for (const one of behind) {
    const { link, verb } = one.clause;
    if ((link !== "and" && link !== "or") || !verb || markIn(one, "activity", "result")) break;
    tied.push(one);
  }
  const last = tied.at(-1);
  const end = markIn(part, "decision")?.to ?? 0;
  const isOwn = last !== undefined && end - part.sentence.from < last.clause.from;
  return {
    words: last && isOwn ? ` ${part.sentence.text.slice(tied[0]?.clause.from ?? 0, last.clause.to)}` : "",
    clauses: tied.length,
  };
}

/** What only somebody does: "if it does not pay" is said of the household, and of no bill. */
const ofPersons =
  /^(?:pay|answer|reply|respond|agree|accept|refuse|decline|object|appeal|decide|wish|insist|withdraw)$/;

/** "Should the value exceed it": whether it exceeds it. `from`: where the words stand in the sentence. */
function saidPlainly({ clause, words }: Part, told: string, from: number): string {
  const { main } = clause.verb ?? {};
  if (!/^should\b/i.test(words) || !main || main.from < from || main.to > from + told.length) return told;
  const [begin, end] = [main.from - from, main.to - from];
  const verb = told.slice(begin, end);
  const finite = verb === "be" ? "is" : thirdPersonOf(verb);
  return `${told.slice(0, begin)}${finite}${told.slice(end)}`.replace(/^should\s+/i, "");
}

/** Whom "it" or "they" means before such a verb. */
function personMeant({ clause }: Part, words: string, { lastSubject, lastParty }: Course): Mention | undefined {
  const { verb } = clause;
  if (!verb || verb.isPassive || verb.isState || !/^(?:it|they)\b/i.test(words)) return undefined;
  if (!ofPersons.test(verb.base.split(" ")[0] ?? "")) return undefined;
  return lastSubject?.kind === "party" ? lastSubject : (lastParty ?? lastSubject);
}

/** "It is right" with the name of what "it" is. */
function named(words: string, thing: Course["lastThing"]): string {
  const pronoun = /^(?:[Ii]t|[Tt]hey)\b/.exec(words)?.[0].toLowerCase();
  // "It is the third reminder" names what it is.
  if (/^it (?:is|was) (?:the|an?)\b/i.test(words)) return words;
  if (!pronoun || !thing || (pronoun === "they") !== thing.isPlural) return words;
  return words.replace(/^(?:it|they)\b/i, () => `the ${thing.text}`);
}

/** "Pays the bill if it is right": what the clause before works on, though it is read after its condition. */
function thingBefore(part: Part): Course["lastThing"] {
  const before = part.all.find((one) => one !== part && one.clause.to <= part.clause.from && markIn(one, "activity"));
  const mark = before && markIn(before, "activity");
  return before && mark ? objectOf(before, mark) : undefined;
}

/** Asks what a clause makes the work hang on, or answers what was asked before. */
export const condition: TurnOfPhrase = {
  name: "a condition",
  examples: [
    {
      text: "The [role: desk] [activity: checks [decision: whether the pieces are free]]. If [decision: pieces are missing], it [activity: offers a later date].",
      reads: ["Check whether pieces are free", "Pieces free?", "  yes", "  no", "    Offer later date"],
    },
    {
      text: "If [decision: the form is right], the [role: desk] [activity: files the form]. If [decision: it is wrong], the desk [activity: sends a letter].",
      reads: ["Form right?", "  yes", "    File form", "  no", "    Send letter"],
    },
    {
      text: "If [decision: the test fails twice], the [role: crew] [activity: replaces the meter]. If [decision: it passes], it [activity: signs the record].",
      reads: ["Test fails twice?", "  yes", "    Replace meter", "  no", "    Sign record"],
    },
    {
      text: "The [role: crew] [activity: confirms the date]. If they cannot, the [role: desk] [activity: looks for another crew].",
      reads: ["Confirm date", "Date confirmed?", "  yes", "  no", "    Look for another crew"],
    },
    {
      text: "[activity: Check the form]. If [decision: it is incomplete], [activity: return it]. [activity: Print the permit].",
      reads: ["Check form", "Form incomplete?", "  yes", "    Return form", "  no", "Print permit"],
    },
    {
      text: "If [decision: several quotes are received], the [role: buyer] [activity: compares them]. If [decision: only one quote is received], the buyer [activity: takes it].",
      reads: ["Several quotes received?", "  yes", "    Compare several quotes", "  no", "    Take it"],
    },
    {
      text: "Should [decision: the value exceed the limit], the [role: lab] [activity: alerts the inspector]. Otherwise the lab [activity: files the value].",
      reads: ["Value exceeds limit?", "  yes", "    Alert inspector", "  no", "    File value"],
    },
    {
      text: "The [role: head] [activity: reads the request]. If [decision: approved], it [activity: is sent to the buyer]; if [decision: rejected], the [role: clerk] [activity: writes a letter].",
      reads: ["Read request", "Approved?", "  yes", "    Send request to buyer", "  no", "    Write letter"],
    },
    {
      text: "The [role: buyer] [activity: orders the goods] unless [decision: they are in stock], in which case the [role: store] [activity: delivers them].",
      reads: ["Goods in stock?", "  no", "    Order goods", "  yes", "    Deliver goods"],
    },
    {
      text: "The [party: household] [activity: receives a bill]. If [decision: it does not pay], the [role: desk] [activity: sends a letter].",
      reads: ["Bill received", "Household pays?", "  yes", "  no", "    Send letter"],
    },
    {
      text: "The [role: desk] [activity: pays the bill] if [decision: it is right].",
      reads: ["Bill right?", "  yes", "    Pay bill", "  no"],
    },
    {
      text: "Unless [decision: the house is empty], the [role: crew] [activity: rings the bell].",
      reads: ["House empty?", "  yes", "  no", "    Ring bell"],
    },
    {
      text: "If [decision: the form is missing or the plan is out of date], the [role: desk] [activity: asks for new papers].",
      reads: ["Form missing or plan out of date?", "  yes", "    Ask for new papers", "  no"],
    },
    {
      text: "The [role: desk] [activity: pays the bill] if [decision: it is right] and the goods are not broken.",
      reads: ["Bill right and goods not broken?", "  yes", "    Pay bill", "  no"],
    },
  ],
  read: (moment) => {
    const { part, course } = moment;
    const mark = markIn(part, "decision");
    const kind = part.clause.link;
    const ofCase = /^in (?:the )?case of\s+(?:an?\s+|any\s+)?(.+?),?$/i.exec(part.lead)?.[1];
    const isCondition =
      kind === "if" ||
      kind === "unless" ||
      (kind === "when" && (mark !== undefined || answersByWhen(part, course))) ||
      ofCase !== undefined;
    if (
      kind === "whether" ||
      (mark &&
        !isCondition &&
        /\b(?:whether|if|for|depending on)\s*$/i.test(part.sentence.text.slice(0, mark.from - part.sentence.from)))
    ) {
      if (!mark) return false;
      const role = roleOf(actorOf(part, moment.everybody, course) ?? course.lastSubject);
      const words = named(mark.text.replace(/^(?:for|whether|if)\s+/i, ""), course.lastThing);
      const decision = course.ask(part, { mark: mark.id, words, role, onlyAsked: true });
      if (kind !== "whether" && /^(?:the|an?)\s+\p{L}+$/iu.test(words)) decision.question = question(words);
      return kind === "whether";
    }
    if (!isCondition) return false;
    followLeadBefore(course, part);
    const words =
      ofCase === undefined ? (wordsOfAble(part, course) ?? conditionWords(part, course)) : `there are ${ofCase}`;
    const open = course.answerable();
    // "If the test fails, … If it passes, …": it is the test, whatever was worked on in between.
    const bare = statementOf(part.words);
    const says = open && bare.isPronoun && isTrial(bare) && isTrial(open.says) ? bare : statementOf(words);
    if (open && kind !== "unless" && !says.isNegated && followRange(course, open, words, mark?.id)) return true;
    const given = open && answerTo(open, says, part);
    if (open && given) {
      const isPlain = given === "yes" || given === "no";
      const said = isPlain
        ? undefined
        : course.wonder({
            id: `which:${open.mark}:${given}`,
            sentence: part.sentence,
            question: say`Which answer to "${open.question}" is "${given}"?`,
            marks: [open.mark],
            choices: [yes, no, anotherAnswer],
          });
      const answer = said === "yes" || said === "no" ? said : given;
      course.follow(open, kind === "unless" ? opposite(answer) : answer, mark?.id);
      open.stated = answer;
      return ofCase === undefined;
    }
    const key = mark?.id ?? derivedKey(part, ofCase !== undefined);
    if (!key) return false;
    const role = roleOf(course.lastSubject?.kind === "role" ? course.lastSubject : course.lastRole);
    // "If it is not paid" asks whether it is paid; of several conditions together each is asked as it stands.
    const tied = tiedTo(part);
    const isDenied = says.isNegated && tied.clauses === 0;
    const asked = isDenied ? affirmed(words, course) : words;
    const isYes = (kind === "unless") === isDenied;
    const decision = course.ask(part, {
      mark: key,
      words: asked,
      ...(tied.words ? { question: question(`${words}${tied.words}`) } : {}),
      role,
      onlyAsked: false,
    });
    course.follow(decision, isYes ? "yes" : "no");
    decision.stated = isDenied ? "no" : "yes";
    return ofCase === undefined;
  },
};

/** "When the test succeeds" after "if the test fails": the other answer, and no event. */
export function answersByWhen(part: Part, course: Course): boolean {
  const open = course.answerable();
  if (open?.paths.length !== 1 || !part.clause.verb) return false;
  return relationOf(statementOf(conditionWords(part, course)), open.says) === -1;
}

/** A denied condition without what denies it; "none is free" is "the pump is free". */
function affirmed(words: string, course: Course): string {
  const head = course.lastThing?.text.split(" ").at(-1);
  return words
    .replace(/^(?:none|no one)\b(?:\s+of\s+\S+)?/i, () => (head ? `the ${head}` : "one"))
    .replace(/^there (?:is|are) (?:no|not any)\s+/i, "there is ")
    .replace(/^no\s+/i, "")
    .replace(/\bstill\s+(?=(?:does|do|did|is|are|has|have)\b.*\bnot\b)/i, "")
    .replace(/\b(?:does not|doesn't)\s+(\p{L}+)/iu, (_, verb: string) => thirdPersonOf(verb))
    .replace(/\b(?:do|did|has|have) not\s+|\s*\bnot\b|\b(?:doesn't|don't|hasn't|haven't)\s+/i, " ")
    .replace(/\bcan't\b|\bcannot\b/i, "can")
    .replace(/\bwon't\b/i, "will")
    .replace(/\b(\p{L}+)n't\b/iu, "$1")
    .replace(/\s{2,}/g, " ")
    .trim();
}

const opposite = (answer: string) => (answer === "yes" ? "no" : answer === "no" ? "yes" : answer);

/** "The crew must confirm the date. If they cannot, …": whether the date is confirmed. */
function wordsOfAble({ clause, words }: Part, course: Course): string | undefined {
  const step = course.told.at(-1)?.node ?? course.toldBefore.at(-1)?.node;
  const isAbout = /\b(?:he|she|it|they)\s+(?:can|could|may|do|does|did)(?:not|n't|\s+not)?\s*,?$/i.test(words);
  if (!clause.verb?.isBare || !isAbout || step?.kind !== "step" || step.awaits) return undefined;
  if (!step.name.includes(" ")) return `they ${clause.verb.isNegated ? "do not " : ""}${step.name.toLowerCase()}`;
  return `the ${uncapitalised(doneName(uncapitalised(step.name)))}${clause.verb.isNegated ? " not" : ""}`.replace(
    /^(.+) (\S+) not$/,
    "$1 is not $2",
  );
}

/** Whether something is said to pass or to fail. */
const isTrial = ({ predicate }: Statement) => ["pass", "succeed", "fail"].some((verb) => predicate.has(verb));

/** A condition nobody marked stands by what depends on it. */
function derivedKey(part: Part, isOwn: boolean): string | undefined {
  const next = part.all
    .slice(part.all.indexOf(part) + (isOwn ? 0 : 1))
    .flatMap((one) => one.marks)
    .find((mark) => mark.kind === "activity" || mark.kind === "result");
  return next && `${next.id}:if`;
}

/** Which answer to an open question a condition is, if it is one: yes, no, or its own words. */
export function answerTo(open: OpenDecision, says: ReturnType<typeof statementOf>, part: Part): string | undefined {
  const relation = relationOf(says, open.says);
  // "Is asked whether … If the customer agrees": who is asked answers.
  const answered = open.onlyAsked && relation === 0 ? consent(part) : undefined;
  if (answered) return answered;
  const isNear = part.sentence.at - open.sentence.at <= (open.onlyAsked ? 1 : 4);
  const isAbout = says.isPronoun || sharesSubject(says, open.says);
  if (relation !== 0 && (isAbout || open.onlyAsked)) {
    const answer = relation === 1 ? "yes" : "no";
    // The same said again is another question, asked later.
    if (open.paths.some((path) => path.answer === answer) && !open.onlyAsked)
      return relation === 1 ? undefined : answer;
    return answer;
  }
  if (!isNear) return undefined;
  if (open.onlyAsked && isAbout)
    return question([...says.words].length > 0 ? part.words.replace(link, "") : "no")
      .slice(0, -1)
      .toLowerCase();
  return undefined;
}

/** Yes or no, where somebody is said to agree or not. */
function consent(part: Part): "yes" | "no" | undefined {
  const base = part.clause.verb?.base.split(" ")[0] ?? "";
  const isYes = /^(?:agree|accept|want|like|approve|consent|confirm|wish)$/.test(base);
  if (!isYes && !/^(?:decline|refuse|disagree|reject|object)$/.test(base)) return undefined;
  return isYes === !part.clause.verb?.isNegated ? "yes" : "no";
}
