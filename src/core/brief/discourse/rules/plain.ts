import { say } from "../../../messages";
import { readTime } from "../../times";
import { capitalised } from "../../wording";
import { refusingVerbs } from "../../words";
import { asDrawn } from "../questions";
import { stepOf, verbOf } from "../step";
import { objectOf } from "../thing";
import { isWaitOfItsOwn } from "../wait";
import type { TurnOfPhrase } from "./rule";

/** What is simply done, or waited for. */
export const plain: TurnOfPhrase = {
  name: "what is done",
  examples: [
    {
      text: "The [role: desk] [activity: opens the letter] and [activity: files it].",
      reads: ["Open letter", "File letter"],
    },
    { text: "The [role: desk] [activity: waits another week].", reads: ["wait: Another week"] },
  ],
  read: ({ part, course, everybody, shared }) => {
    for (const mark of part.marks) {
      if (mark.kind === "activity") {
        const time = /^waits?\b/i.test(mark.text) ? readTime(mark.text) : undefined;
        if (time?.kind === "duration") {
          const name = capitalised(mark.text.replace(/^waits?\s+(?:for\s+)?/i, ""));
          course.add({ kind: "wait", mark: mark.id, name, trigger: "timer", duration: time.iso }, part);
          continue;
        }
        const step = stepOf(part, mark, course, everybody, shared);
        const thing = objectOf(part, mark);
        course.add(step, part);
        if (step.awaits && /\bat any (?:time|point|stage)\b/i.test(part.words))
          course.wonder({
            id: `anytime:${mark.id}`,
            sentence: part.sentence,
            question: say`"${step.name}" can come at any time: what becomes of the work that is under way then?`,
            marks: [mark.id],
            choices: [asDrawn],
          });
        if (thing) course.lastThing = thing;
        if (refusingVerbs.has(verbOf(part, mark)) && course.here.path)
          course.refused.push({ path: course.here.path, step, part });
      } else if (mark.kind === "time" && isWaitOfItsOwn(part, mark.text)) {
        const time = readTime(mark.text);
        const duration = time?.kind === "duration" ? time.iso : undefined;
        course.add({ kind: "wait", mark: mark.id, name: capitalised(mark.text), trigger: "timer", duration }, part);
      }
    }
    return true;
  },
};
