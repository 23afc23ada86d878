import { stateName } from "../../reading/states";
import { readTime } from "../../times";
import { thirdPersonOf } from "../../wording";
import { subjectOf } from "../actor";
import { type Course, capitalisedTime, type OpenStep } from "../course";
import type { Part } from "../part";
import { bareAnswer } from "./answer";
import type { Moment, TurnOfPhrase } from "./rule";

const noAnswer =
  /\b(?:without (?:an? |any )?(?:answer|reply|response|reaction|payment|objection)|no (?:answer|reply|response|reaction|payment|objection)\b|nothing (?:comes|arrives|is heard)|in time\b|by then\b)/i;

/** The step that waits for somebody, with a time that is said of it and has no consequence yet. */
function waiting(course: Course): { step: OpenStep; place: Course["here"] } | undefined {
  const last = course.lastStep();
  if (!last || last.step.deadline) return undefined;
  return last.step.awaits || last.step.times.some((time) => readTime(time.name)?.kind === "duration")
    ? last
    : undefined;
}

function limitOf(step: OpenStep) {
  const time = step.times.find((one) => readTime(one.name)?.kind === "duration");
  const read = time && readTime(time.name);
  return time && read?.kind === "duration"
    ? { mark: time.marks[0] as string, words: time.name, iso: read.iso, time }
    : undefined;
}

/** Goes on along what happens when a step is not done in time. */
function late(
  { part, course, everybody }: Moment,
  said: { mark: string; words: string; iso: string } | undefined,
): boolean {
  const last = waiting(course);
  const own = last && limitOf(last.step);
  const limit = said ?? own;
  if (!limit) return false;
  const isAwaited = last?.step.awaits !== undefined || (own !== undefined && !said);
  const target = isAwaited && last ? last : implicitWait({ part, course, everybody, shared: new Set() }, limit);
  if (!target) return false;
  course.here = target.place;
  course.lateBy = part;
  if (own && target === last) {
    const { step } = target;
    Object.assign(step, { times: step.times.filter((one) => one !== own.time) });
  }
  course.late.push({ step: target.step, part });
  course.beLate(target.step, target.place, {
    mark: limit.mark,
    name: capitalisedTime(limit.words),
    duration: limit.iso,
  });
  return true;
}

/** "If it is not paid within 30 days": what is waited for, where no sentence said that it is waited for. */
function implicitWait(
  { part, course, everybody }: Moment,
  limit: { mark: string },
): { step: OpenStep; place: Course["here"] } | undefined {
  const before = course.lastStep();
  if (!before) return undefined;
  const party = subjectOf(part, everybody);
  const awaits = party?.kind === "party" ? party : (before.step.sendsTo as Course["lastParty"]);
  const told = part.words
    .replace(/^(?:and\s+|but\s+)?(?:if|when|in case)\s+/i, "")
    .replace(/\s*\b(?:within|after|by|for|in)\b.*$/i, "")
    .replace(/\b(?:cannot|can't|can not|does not)\s+(\p{L}+)/iu, (_, verb: string) => thirdPersonOf(verb))
    .replace(/\s+(?:does|do|did|has|have) not\s+/i, " ")
    .replace(/\s+not\b|\bno\s+/i, "");
  const isSaid =
    part.clause.verb !== undefined && !/\b(?:answer|reply|response|there is|there are|without)\b/i.test(told);
  const { lastThing } = course;
  const named = isSaid
    ? stateName(
        lastThing ? told.replace(/^it\b/i, () => `the ${lastThing.text}`) : told.replace(/^(?:it|they)\b/i, ""),
      ) || "Answer received"
    : "Answer received";
  const step: OpenStep = {
    ...before.step,
    mark: `${limit.mark}:wait`,
    alsoMarks: [],
    name: named,
    role: awaits ? undefined : party?.kind === "role" ? party : before.step.role,
    bySystem: false,
    awaits,
    isWait: !awaits,
    sendsTo: undefined,
    systems: [],
    documents: [],
    times: [],
    deadline: undefined,
    isForEach: false,
    isForAll: false,
    calls: undefined,
  };
  course.here = before.place;
  course.here.items.push(step);
  course.steps.push({ step, place: course.here, part });
  return { step, place: course.here };
}

export const notInTime: TurnOfPhrase = {
  name: "what happens without an answer in time",
  examples: [
    {
      text: "The [role: desk] [activity: asks the [party: customer]]. The customer [activity: answers] [time: within ten days]. If there is no answer by then, the desk [activity: closes the letter box].",
      reads: ["Ask customer", "Answered", "  late: Ten days", "    Close letter box"],
    },
    {
      text: "The [party: customer] [activity: signs the form] [time: within a week], or else the [role: desk] [activity: calls her].",
      reads: ["Form signed", "  late: A week", "    Call customer"],
    },
    {
      text: "The [role: desk] [activity: sends the [document: bill]]. If [decision: it is not paid] [time: within 30 days], the desk [activity: writes a letter].",
      reads: ["Send bill", "Bill paid", "  late: 30 days", "    Write letter"],
    },
  ],
  read: (moment) => {
    const { part, course } = moment;
    const answered = bareAnswer(part);
    const mark = part.marks.find((one) => one.kind === "time");
    const time = mark && readTime(mark.text);
    const said = mark && time?.kind === "duration" ? { mark: mark.id, words: mark.text, iso: time.iso } : undefined;
    // "Otherwise" behind what somebody has to do in time.
    if (answered === "other" || (answered === "no" && part.clause.link !== "unless")) {
      const last = waiting(course);
      const isNear = last && course.answerable() !== last.place.items.at(-1) && last.place.items.at(-1) === last.step;
      if (!last || !isNear || (!limitOf(last.step) && answered === "other")) return false;
      if (!limitOf(last.step)) return false;
      const isDone = late(moment, undefined);
      return isDone && part.clause.link === "if" && part.marks.length === 0;
    }
    if (
      noAnswer.test(part.words) &&
      (part.clause.link === "if" || /^without\b/i.test(part.lead) || /^without\b/i.test(part.words))
    ) {
      const isDone = late(moment, said);
      return isDone && part.clause.link === "if";
    }
    const isCondition = part.clause.link === "if" || part.clause.link === "when";
    if (isCondition && said && part.clause.verb?.isNegated && !repeats(course, part)) return late(moment, said);
    return false;
  },
};

/** Whether a condition only gives the other answer to what was asked. */
function repeats(course: Course, part: Part): boolean {
  const decision = course.answerable();
  return (
    decision !== undefined &&
    decision.paths.length > 0 &&
    [...decision.says.predicate].some((word) => part.clause.verb?.base === word)
  );
}
