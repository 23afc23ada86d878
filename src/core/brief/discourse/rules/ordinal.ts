import { say } from "../../../messages";
import { stateName } from "../../reading/states";
import { capitalised, singularOf } from "../../wording";
import type { Node, Place } from "../course";
import { markIn } from "../part";
import { ends, goesOn } from "../questions";
import type { TurnOfPhrase } from "./rule";

const counted =
  /^(?:only\s+)?(?:after|upon|on|with)\s+(?:the|an?)\s+(second|third|fourth|fifth|sixth|last|final)\s+((?:\p{L}+\s+){0,2}\p{L}+)/iu;

/** "After the third reminder": how often it was done before decides. */
export const ordinal: TurnOfPhrase = {
  name: "after so many times",
  examples: [
    {
      text: "The [role: desk] [activity: asks a question]. If [decision: the answer is wrong], the desk [activity: asks again]. After the third wrong answer the account [activity: is locked].",
      reads: [
        "Ask question",
        "Answer wrong?",
        "  yes",
        "    Third wrong answer?",
        "      yes → Account locked",
        "        Lock account",
        "      no ↺ Ask question",
        "  no",
      ],
    },
  ],
  read: ({ part, course }) => {
    const found = counted.exec(part.lead);
    const mark = markIn(part, "activity", "result");
    if (!found || !mark) return false;
    const thing = (found[2] as string).replace(/\s+(?:the|an?)\b.*$/i, "");
    const last = course.decisions.at(-1);
    const turning = last?.paths.find((path) => path.back !== undefined);
    const again = course.steps.at(-1);
    const isOfPath = again?.place.path !== undefined && speaks(again.step.name, thing);
    const place: Place | undefined =
      last && turning
        ? { items: turning.items as Node[], path: turning, decision: last, parent: last.place }
        : isOfPath
          ? again.place
          : undefined;
    if (place) course.here = place;
    const decision = course.ask(part, {
      mark: `${mark.id}:count`,
      words: `${found[1]} ${thing}`,
      question: `${capitalised(found[1] as string)} ${thing}?`,
      role: undefined,
      onlyAsked: false,
    });
    course.follow(decision, "yes");
    const path = decision.paths[0];
    if (path && turning) {
      const answer = course.wonder({
        id: `count:${mark.id}`,
        sentence: part.sentence,
        question: say`Does the case end after the ${found[1] as string} ${thing}?`,
        marks: [mark.id],
        choices: [goesOn, ends],
      });
      // Who is stopped does not go round again.
      if (answer !== "on")
        path.ends = { mark: `${mark.id}:end`, name: stateName(part.words.slice(part.lead.length).trim()) };
      decision.paths.push({ answer: "no", mark: undefined, items: [], ends: undefined, back: turning.back });
      turning.back = undefined;
    }
    return false;
  },
};

const speaks = (name: string, thing: string) =>
  thing.split(/\s+/).some((word) => name.toLowerCase().includes(singularOf(word).toLowerCase()));
