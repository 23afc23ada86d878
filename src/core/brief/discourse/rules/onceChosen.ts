import { infinitiveOf } from "../../wording";
import type { Course } from "../course";
import { markIn, type Part } from "../part";
import { roleOf } from "../step";
import type { TurnOfPhrase } from "./rule";

const once =
  /^(?:once|when|after|as soon as)\s+(?:being\s+|(?:it|they|the \p{L}+)\s+(?:is|are|was|were|has been|have been)\s+)?(\p{L}+)(?=,|$)/iu;

/** "Once accepted, …" behind "accepts or rejects it": what was chosen leads on, and nothing is waited for. */
export const onceChosen: TurnOfPhrase = {
  name: "what was chosen leads on",
  examples: [
    {
      text: "The [role: leader] either [activity: accepts the plan] or [activity: sends it back with comments]. Once accepted, the plan [activity: is published].",
      reads: [
        "Accept plan or send it back with comments?",
        "  accept plan",
        "    Accept plan",
        "    Publish plan",
        "  send it back with comments",
        "    Send plan back with comments",
      ],
    },
    {
      text: "The [role: manager] [activity: approves] or [activity: rejects the request]. When it is approved, the [role: buyer] [activity: orders the part].",
      reads: ["Approve or reject request", "Request approved?", "  yes", "    Order part", "  no"],
    },
    {
      text: "The [role: manager] [activity: approves the request]. Once approved, the [role: buyer] [activity: orders the part].",
      reads: ["Approve request", "Order part"],
    },
  ],
  read: ({ part, course }) => {
    const done = once.exec(part.words.trim())?.[1]?.toLowerCase();
    if (!done) return false;
    const verb = infinitiveOf(done).toLowerCase();
    if (!alongWay(course, part, verb) && !asAsked(course, part, done, verb)) return false;
    return part.marks.every((mark) => mark.kind === "decision");
  },
};

/** Goes on along the way of a decision on which this is done; what becomes of the others is asked. */
function alongWay(course: Course, part: Part, verb: string): boolean {
  const open = course.answerable();
  const way = open?.paths.find(({ answer }) => answer.split(" ")[0] === verb);
  if (!open || !way) return false;
  for (const path of open.paths) {
    const step = path.items.at(-1);
    if (path !== way && step?.kind === "step") course.refused.push({ path, step, part });
  }
  course.follow(open, way.answer);
  return true;
}

/** Asks whether it came out so, of a step that says two ways: "Approve or reject request". */
function asAsked(course: Course, part: Part, done: string, verb: string): boolean {
  const last = course.lastStep();
  const either = /^(\p{L}+) or (\p{L}+)\b/iu.exec(last?.step.name ?? "");
  const next = part.all.slice(part.all.indexOf(part)).find((one) => markIn(one, "activity", "result"));
  const key = next && markIn(next, "activity", "result")?.id;
  if (!last || !either?.slice(1).some((one) => one.toLowerCase() === verb) || !key) return false;
  course.here = last.place;
  const decision = course.ask(part, {
    mark: `${key}:if`,
    words: `the ${course.lastThing?.text ?? "case"} is ${done}`,
    role: last.step.role ?? roleOf(course.lastRole),
    onlyAsked: false,
  });
  course.follow(decision, "yes");
  return true;
}
