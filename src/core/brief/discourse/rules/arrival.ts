import { stateName } from "../../reading/states";
import { meaningOf } from "../../wording";
import { subjectOf } from "../actor";
import type { Course } from "../course";
import { answersByWhen, conditionWords } from "./condition";
import type { Moment, TurnOfPhrase } from "./rule";
import { putTogether } from "./together";

const finished =
  /\b(?:both|all|these|they|everything)\b.*\b(?:done|finish(?:ed)?|ready|there|complete|completed|over|in)\b/i;

/** "When the papers arrive", in the middle of the work: what is waited for. */
export const arrival: TurnOfPhrase = {
  name: "what is waited for",
  examples: [
    {
      text: "The [role: desk] [activity: enters the name]. As soon as a plot is free, the [role: steward] [activity: shows the plot].",
      reads: ["Enter name", "wait: Plot free", "Show plot"],
    },
    {
      text: "The [role: desk] [activity: sends the bill]. After the [party: household] has paid, the desk [activity: files the bill].",
      reads: ["Send bill", "wait: Household paid", "File bill"],
    },
  ],
  read: (moment) => {
    const { part, course, everybody } = moment;
    const { clause } = part;
    if (
      (clause.link !== "when" && !isAfterSomebody(moment)) ||
      part.marks.some((mark) => mark.kind !== "role" && mark.kind !== "document" && mark.kind !== "party")
    )
      return false;
    if (answersByWhen(part, course)) return false;
    const last = course.lastStep();
    // Work that goes on side by side is over when both are; what was waited for with a deadline is there.
    const before = course.root.items.at(-1);
    // "Once this is done" waits for nothing but what was told.
    if (/\b(?:this|that|it) (?:is|was|has been) (?:done|over|finished|completed?|through)$/i.test(part.words.trim()))
      return true;
    // "As soon as both have finished": what two people did before went on side by side.
    if (finished.test(part.words) && /\bboth\b|\ball\b/i.test(part.words)) putTogether(byDoer(course.toldBefore));
    if (finished.test(part.words) || before?.kind === "parallel") return true;
    if (last?.step.deadline || (last?.step.awaits && last.place.items.at(-1) === last.step)) {
      course.here = last.place;
      return true;
    }
    const mark = part.all
      .slice(part.all.indexOf(part) + 1)
      .flatMap((one) => one.marks)
      .find((one) => one.kind === "activity");
    if (!mark || course.steps.length === 0) return true;
    const isMessage =
      subjectOf(part, everybody)?.kind === "party" || /\b(?:arrive|come|reach|receive)/i.test(clause.verb?.base ?? "");
    course.add(
      {
        kind: "wait",
        mark: `${mark.id}:when`,
        name: stateName(conditionWords(part, course)),
        trigger: isMessage ? "message" : "condition",
        duration: undefined,
      },
      part,
    );
    return true;
  },
};

/** "After the household has paid, …", where nothing told of it before. */
function isAfterSomebody({ part, course, everybody }: Moment): boolean {
  const { verb, link } = part.clause;
  const who = subjectOf(part, everybody);
  if (link !== "after" || who?.kind !== "party" || !verb || verb.isPassive || verb.isState) return false;
  const base = verb.base.split(" ")[0] as string;
  return !course.steps.some(({ step }) => step.awaits?.name === who.name && meaningOf(step.name).has(base));
}

/** What was told, by who does it; nothing where one does all. */
function byDoer(told: Course["told"]): Course["told"][] {
  const branches = new Map<string, Course["told"]>();
  for (const one of told) {
    if (one.node.kind !== "step") return [];
    const doer = one.node.role?.name ?? one.node.awaits?.name ?? "";
    branches.set(doer, [...(branches.get(doer) ?? []), one]);
  }
  return [...branches.values()];
}
