import { stateName } from "../../reading/states";
import { caseNouns, closingVerbs } from "../../words";
import { markIn } from "../part";
import { verbOf } from "../step";
import type { TurnOfPhrase } from "./rule";

/** "… and closes the case": on a path, that is where it ends. */
export const ending: TurnOfPhrase = {
  name: "an end",
  examples: [
    {
      text: "If [decision: the form is wrong], the [role: desk] [activity: rejects it] and [activity: closes the case]. The desk [activity: files the form].",
      reads: ["Form wrong?", "  yes → Case closed", "    Reject form", "  no", "File form"],
    },
    {
      text: "If [decision: the form is wrong], [result: the case is closed]. The [role: desk] [activity: files the form].",
      reads: ["Form wrong?", "  yes → Case closed", "  no", "File form"],
    },
  ],
  read: ({ part, course }) => {
    const { path } = course.here;
    const result = markIn(part, "result");
    if (result) {
      const words = /^(?:close|end|drop|settle|stop)/i.test(result.text)
        ? closedName(result.text)
        : stateName(result.text);
      if (path) path.ends = { mark: result.id, name: words };
      else course.reach(result, words);
      return part.marks.every((mark) => mark.kind === "result");
    }
    const activity = markIn(part, "activity");
    if (!activity || !path || !closingVerbs.has(verbOf(part, activity))) return false;
    const words = activity.text.toLowerCase().split(/[^\p{L}]+/u);
    if (!words.some((word) => caseNouns.has(word))) return false;
    path.ends = { mark: activity.id, name: closedName(activity.text) };
    return true;
  },
};

/** "Closes the case" as what is reached by it: "Case closed". */
function closedName(words: string): string {
  const verb = words.split(/\s+/)[0] ?? "";
  const rest = words.slice(verb.length).trim();
  return rest === "" ? stateName(words) : stateName(`${rest} is ${pastOf(verb)}`);
}
const pastOf = (verb: string) => {
  const base = verb.toLowerCase().replace(/s$/, "");
  return base === "drop" || base === "stop" ? `${base}ped` : /e$/.test(base) ? `${base}d` : `${base}ed`;
};
