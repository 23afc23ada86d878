import { say } from "../../../messages";
import { infinitiveOf, meaningOf } from "../../wording";
import { subjectWords } from "../actor";
import type { Course, OpenStep } from "../course";
import { markIn, type Part } from "../part";
import { asDrawn } from "../questions";
import { verbOf } from "../step";
import type { TurnOfPhrase } from "./rule";

const again =
  /\b(?:again|anew|once more|another time|a second time|repeat(?:s|ed)?|starts? over|goes back to|go back to|returns? to|is resumed|begins? from)\b/i;

/** The earlier step a clause goes back to, if it says that something is done again. */
export function repeated(part: Part, course: Course): OpenStep | undefined {
  if (!again.test(part.words) || part.clause.link === "if") return undefined;
  const mark = markIn(part, "activity");
  const text = part.words.replace(/\bgoes back to|go back to|returns? to\b/i, " ");
  const verbs = new Set(
    [mark && verbOf(part, mark), part.clause.verb?.base.split(" ")[0], ...gerunds(text)].flatMap((verb) =>
      verb ? [verb] : [],
    ),
  );
  for (const little of ["repeat", "go", "return", "start", "begin", "be"]) verbs.delete(little);
  const words = meaningOf(`${subjectWords(part)} ${text}`);
  const steps = course.steps.map(({ step }) => step);
  const byVerb = steps.filter((step) => verbs.has(firstVerb(step)));
  const best = (from: readonly OpenStep[]) =>
    [...from].sort((a, b) => shared(words, b) - shared(words, a) || steps.indexOf(b) - steps.indexOf(a))[0];
  if (byVerb.length > 0) return best(byVerb);
  // "The check is repeated", "starts the copy again": what is named is what was done.
  const named = steps.filter(
    (step) =>
      words.has(firstVerb(step)) ||
      [...meaningOf(step.name)].filter((word) => words.has(word)).length > 1 ||
      (shared(words, step) > 0 && verbs.size === 0),
  );
  return best(named.filter((step) => words.has(firstVerb(step)))) ?? best(named);
}

const gerunds = (text: string) =>
  [...text.matchAll(/\b(\p{L}{3,}ing)\b/giu)].map((found) => infinitiveOf(found[1] as string).toLowerCase());
const firstVerb = (step: OpenStep) => {
  const words = step.name.toLowerCase().split(" ");
  return step.awaits ? infinitiveOf(words.at(-1) ?? "") : (words[0] ?? "");
};
const shared = (words: ReadonlySet<string>, step: OpenStep) =>
  [...meaningOf(step.name)].filter((word) => words.has(word)).length;

/** "Is checked again": back to where it was done. */
export const repeat: TurnOfPhrase = {
  name: "what is done again",
  examples: [
    {
      text: "The [role: desk] [activity: checks the form]. If [decision: it has faults], the desk [activity: corrects the form] and the check [activity: is repeated].",
      reads: ["Check form", "Form has faults?", "  yes ↺ Check form", "    Correct form", "  no"],
    },
  ],
  read: ({ part, course }) => {
    const target = repeated(part, course);
    const mark = markIn(part, "activity");
    if (!target) {
      if (mark && again.test(part.words) && part.clause.link !== "if")
        course.wonder({
          id: `again:${mark.id}`,
          sentence: part.sentence,
          question: say`What is done again here, and from where does it go on?`,
          marks: [mark.id],
          choices: [asDrawn],
        });
      return false;
    }
    const path = course.here.path;
    if (!path || path.ends) {
      if (mark)
        course.wonder({
          id: `again:${mark.id}`,
          sentence: part.sentence,
          question: say`On which answer is "${target.name}" done again?`,
          marks: [mark.id],
          choices: [asDrawn],
        });
      return false;
    }
    path.back = { to: target.mark, mark: mark?.id };
    return true;
  },
};
