import { clausesOf } from "../../reading/clauses";
import { relationOf, statementOf } from "../../reading/polarity";
import { infinitiveOf, pastOf, stepName, uncapitalised } from "../../wording";
import type { Course, OpenDecision } from "../course";
import type { Part } from "../part";
import { markIn } from "../part";
import { stepOf } from "../step";
import { objectOf } from "../thing";
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
    {
      text: "The [role: inspector] [activity: visits the site] and either [activity: accepts] or [activity: rejects the roof].",
      reads: [
        "Visit site",
        "Accept or reject roof?",
        "  accept roof",
        "    Accept roof",
        "  reject roof",
        "    Reject roof",
      ],
    },
    {
      text: "Depending on [decision: the damage], the [role: crew] [activity: repairs the line], [activity: replaces the pole], or [activity: calls the patrol].",
      reads: [
        "Damage?",
        "  repair line",
        "    Repair line",
        "  replace pole",
        "    Replace pole",
        "  call patrol",
        "    Call patrol",
      ],
    },
    {
      text: "The [role: head] [activity: approves] or [activity: rejects the correction]. If [decision: it is rejected], the [role: clerk] [activity: revises it].",
      reads: ["Approve or reject correction", "Correction rejected?", "  yes", "    Revise correction", "  no"],
    },
  ],
  read: ({ part, course, everybody, shared }) => {
    const mark = markIn(part, "activity");
    const last = course.told.at(-1);
    const isOr =
      part.clause.link === "or" ||
      (part.clause.sharesSubject &&
        part.clause.link !== "relative" &&
        part.clause.link !== "and" &&
        !/\beither\b/i.test(part.words) &&
        last?.part.clause.subject?.from === part.clause.subject?.from &&
        isFollowedByOr(part.all, part));
    if (!mark || !isOr || last?.node.kind !== "step" || /^(?:or\s+)?else\b/i.test(part.lead)) return false;
    const step = last.node;
    const thing = objectOf(part, mark);
    const isEither = /\beither\b|^depending on\b/i.test(part.sentence.text);
    const { decision: chosen, path } = course.here;
    const isOneMore = chosen !== undefined && path?.answer === uncapitalised(step.name) && path.items.at(-1) === step;
    const goAlong = (decision: OpenDecision) => {
      course.follow(decision, uncapitalised(stepName(mark.text)));
      if (ending.read({ part, course, everybody, shared })) return true;
      course.add(stepOf(part, mark, course, everybody, shared), part);
      if (thing) course.lastThing = thing;
      return true;
    };
    if (isEither && isOneMore) return goAlong(chosen);
    if (isEither && !isAskedLater(course, part, [...step.name.split(" ").slice(0, 1), part.clause.verb?.base ?? ""])) {
      const first = course.here.items.pop();
      course.steps.pop();
      course.told.pop();
      if (!first) return false;
      const open = course.answerable();
      const second = stepName(mark.text);
      // "Accepts or rejects the claim": the claim is accepted as well.
      if (!step.name.includes(" ") && second.includes(" "))
        Object.assign(step, { name: step.name + second.slice(second.indexOf(" ")) });
      const decision =
        open?.onlyAsked && open.place.items.at(-1) === open
          ? open
          : course.ask(part, {
              mark: `${step.mark}:if`,
              words: second,
              question: `${eitherOf(step.name, uncapitalised(second))}?`,
              role: step.role,
              onlyAsked: false,
            });
      course.follow(decision, uncapitalised(step.name));
      course.add(first, last.part);
      return goAlong(decision);
    }
    const other = step.awaits ? pastName(mark.text) : uncapitalised(stepOf(part, mark, course, everybody, shared).name);
    Object.assign(step, { name: eitherOf(step.name, other), alsoMarks: [...step.alsoMarks, mark.id] });
    if (thing) course.lastThing = thing;
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
