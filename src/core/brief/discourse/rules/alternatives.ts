import { clausesOf } from "../../reading/clauses";
import { relationOf, statementOf } from "../../reading/polarity";
import { infinitiveOf, pastOf, stepName, uncapitalised } from "../../wording";
import type { Course } from "../course";
import type { Part } from "../part";
import { markIn } from "../part";
import { stepOf } from "../step";
import { ending } from "./ending";
import type { TurnOfPhrase } from "./rule";

/** "Approves or rejects": one thing that is decided; or two ways, where nothing later asks for the outcome. */
export const alternatives: TurnOfPhrase = {
  name: "one thing or another",
  examples: [
    {
      text: "The [role: leader] [activity: approves the claim] or [activity: rejects it]. If [decision: it is rejected], the leader [activity: writes a letter].",
      reads: ["Approve or reject claim", "Claim rejected?", "  yes", "    Write letter", "  no"],
    },
    {
      text: "Depending on [decision: the report], the [role: head] either [activity: issues a warning] or [activity: writes a letter].",
      reads: ["Report?", "  issue warning", "    Issue warning", "  write letter", "    Write letter"],
    },
  ],
  read: ({ part, course, everybody, shared }) => {
    const mark = markIn(part, "activity");
    const last = course.told.at(-1);
    const isOr =
      part.clause.link === "or" ||
      (part.clause.sharesSubject &&
        part.clause.link !== "relative" &&
        !/\beither\b/i.test(part.words) &&
        last?.part.clause.subject?.from === part.clause.subject?.from &&
        isFollowedByOr(part.all, part));
    if (!mark || !isOr || last?.node.kind !== "step" || /^(?:or\s+)?else\b/i.test(part.lead)) return false;
    const step = last.node;
    const isEither = /\beither\b|^depending on\b/i.test(part.sentence.text);
    if (isEither && !isAskedLater(course, part, [...step.name.split(" ").slice(0, 1), part.clause.verb?.base ?? ""])) {
      const first = course.here.items.pop();
      course.steps.pop();
      course.told.pop();
      if (!first) return false;
      const open = course.answerable();
      const decision =
        open?.onlyAsked && open.place.items.at(-1) === open
          ? open
          : course.ask(part, {
              mark: `${step.mark}:if`,
              words: `${stepName(part.words)}`,
              role: step.role,
              onlyAsked: false,
            });
      course.follow(decision, uncapitalised(step.name));
      course.add(first, last.part);
      course.follow(decision, uncapitalised(stepName(mark.text)));
      if (ending.read({ part, course, everybody, shared })) return true;
      course.add(stepOf(part, mark, course, everybody, shared), part);
      return true;
    }
    const other = step.awaits ? pastName(mark.text) : uncapitalised(stepOf(part, mark, course, everybody, shared).name);
    Object.assign(step, { name: eitherOf(step.name, other), alsoMarks: [...step.alsoMarks, mark.id] });
    return true;
  },
};

/** "Approve claim" and "reject claim" are "Approve or reject claim". */
function eitherOf(one: string, other: string): string {
  const rest = one.slice(one.indexOf(" "));
  const isShared = one.includes(" ") && other.endsWith(rest) && !other.slice(0, -rest.length).includes(" ");
  return isShared ? `${one.slice(0, -rest.length)} or ${other}` : `${one} or ${other}`;
}

/** "Withdraws" and "refuses it" as what was done: "withdrawn", "refused". */
const pastName = (words: string) => {
  const verb = words.split(/\s+/)[0] ?? "";
  const isStrong = /^(?:withdraw|know|draw|show|give|take|choose)s?$/i.test(verb);
  return isStrong ? `${infinitiveOf(verb).replace(/e$/, "")}n` : pastOf(verb);
};

const isFollowedByOr = (all: readonly Part[], part: Part) => {
  const at = all.indexOf(part);
  return (
    all.slice(at + 1).some((one) => one.clause.link === "or") &&
    all.slice(at + 1).every((one) => one.clause.link !== "and")
  );
};

/** Whether one of the next sentences asks which of them it was. */
function isAskedLater(course: Course, part: Part, verbs: readonly string[]): boolean {
  return course.sentences.some((later) => {
    if (later.at <= part.sentence.at || later.at > part.sentence.at + 2) return false;
    const [first] = clausesOf(later.text);
    if (first?.link !== "if" || !first.verb) return false;
    const says = statementOf(later.text.slice(first.from, first.to));
    return verbs.some(
      (verb) =>
        relationOf(says, statementOf(`it is ${verb.toLowerCase()}`)) !== 0 || says.words.has(verb.toLowerCase()),
    );
  });
}
