import { stepName, uncapitalised } from "../../wording";
import { closingVerbs } from "../../words";
import { markIn } from "../part";
import { stepOf } from "../step";
import type { TurnOfPhrase } from "./rule";

/** "Approves or rejects": one thing that is decided; or two ways, where nothing later asks for the outcome. */
export const alternatives: TurnOfPhrase = {
  name: "one thing or another",
  examples: [
    {
      text: "The [role: leader] [activity: approves the claim] or [activity: rejects it]. If [decision: it is rejected], the leader [activity: writes a letter].",
      reads: ["Approve claim or reject it", "Claim rejected?", "  yes", "    Write letter", "  no"],
    },
    {
      text: "Depending on [decision: the report], the [role: head] either [activity: issues a warning] or [activity: writes a letter].",
      reads: ["Report?", "  issue warning", "    Issue warning", "  write letter", "    Write letter"],
    },
  ],
  read: ({ part, course, everybody, shared }) => {
    const mark = markIn(part, "activity");
    const last = course.told.at(-1);
    const isOr = part.clause.link === "or" || (part.clause.sharesSubject && isFollowedByOr(part.all, part));
    if (!mark || !isOr || last?.node.kind !== "step" || /^(?:or\s+)?else\b/i.test(part.lead)) return false;
    const step = last.node;
    const isEither = /\beither\b|^depending on\b/i.test(part.sentence.text);
    if (isEither) {
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
      if (closingVerbs.has(part.clause.verb?.base ?? "")) return false;
      course.add(stepOf(part, mark, course, everybody, shared), part);
      return true;
    }
    Object.assign(step, {
      name: `${step.name.replace(/ or .*$/, (rest) => rest)} or ${uncapitalised(step.awaits ? pastName(mark.text) : stepName(mark.text))}`,
      alsoMarks: [...step.alsoMarks, mark.id],
    });
    return true;
  },
};

const pastName = (words: string) =>
  words.replace(/s$/, "") && stepName(words).replace(/^(\p{L}+)/u, (verb) => `${verb.toLowerCase()}n`);

const isFollowedByOr = (all: readonly { clause: { link: unknown } }[], part: unknown) => {
  const at = all.indexOf(part as never);
  return (
    all.slice(at + 1).some((one) => one.clause.link === "or") &&
    all.slice(at + 1).every((one) => one.clause.link !== "and")
  );
};
