import { stateName } from "../../reading/states";
import { markIn } from "../part";
import { conditionWords } from "./condition";
import { overAgainIn } from "./overAgain";
import type { TurnOfPhrase } from "./rule";

/** "… until it runs well": what was done before is done again as long as it does not. */
export const until: TurnOfPhrase = {
  name: "until",
  examples: [
    {
      text: "The [role: mechanic] [activity: repairs the bicycle] and [activity: tests it] until [decision: it runs well].",
      reads: ["Repair bicycle", "Test bicycle", "Bicycle runs well?", "  no ↺ Repair bicycle", "  yes"],
    },
    {
      text: "The [role: desk] [activity: waits] until [decision: a pump comes back].",
      reads: ["wait: Pump came back"],
    },
  ],
  read: ({ part, course }) => {
    if (part.clause.link !== "until" || !part.clause.verb) return false;
    if (overAgainIn(part)) return true;
    const last = course.told.at(-1);
    if (last?.node.kind !== "step") return false;
    const words = conditionWords(part, course).replace(/^(?:until|till)\s+/i, "");
    if (/^wait/i.test(last.node.name)) {
      const wait = {
        kind: "wait" as const,
        mark: last.node.mark,
        name: stateName(words),
        trigger: "condition" as const,
        duration: undefined,
      };
      last.place.items.splice(last.place.items.indexOf(last.node), 1, wait);
      course.steps.splice(
        course.steps.findIndex(({ step }) => step === last.node),
        1,
      );
      return true;
    }
    const subject = last.part.clause.subject?.from;
    const first = course.told.find(
      (one) => one.node.kind === "step" && one.place === last.place && one.part.clause.subject?.from === subject,
    );
    course.here = last.place;
    const decision = course.ask(part, {
      mark: markIn(part, "decision")?.id ?? `${last.node.mark}:until`,
      words,
      role: last.node.role,
      onlyAsked: false,
    });
    const back = first?.node.kind === "step" ? first.node.mark : last.node.mark;
    decision.paths.push({
      answer: "no",
      mark: undefined,
      items: [],
      ends: undefined,
      back: { to: back, mark: undefined },
    });
    decision.paths.push({ answer: "yes", mark: undefined, items: [], ends: undefined, back: undefined });
    return true;
  },
};
