import { say } from "../../../messages";
import type { Clause } from "../../reading/clauses";
import { markIn, type Part } from "../part";
import { asDrawn, backTo } from "../questions";
import { conditionWords } from "./condition";
import type { Moment, TurnOfPhrase } from "./rule";

const all =
  /^(?:this|that|these|those|(?:(?:this|that|these|those|the|all|whole|entire|same)\s+)+(?:steps?|process|procedure|cycle|loop|round|tasks|activities))$/i;

/** "This is repeated": no work of its own, but that what was told is done once more. */
export function isOverAgain(text: string, { begins, verb }: Clause): boolean {
  return verb?.base === "repeat" && all.test(text.slice(begins, verb.from).trim());
}

/** The clause that says so in a sentence. */
export const overAgainIn = (part: Part): Part | undefined =>
  part.all.find((one) => isOverAgain(one.sentence.text, one.clause));

/**
 * On an answer of a question what leads to the question is done again, and what it is done until is its other answer. Without a question,
 * what the sentence before told is done again as long as what it is done until is not so.
 */
export const overAgain: TurnOfPhrase = {
  name: "all of it over again",
  examples: [
    {
      text: "The [role: crew] [activity: tests the seal]. If [decision: the seal leaks], the crew [activity: replaces the seal]. This is repeated until [decision: the seal holds]. Then the crew [activity: signs the record].",
      reads: ["Test seal", "Seal leaks?", "  yes ↺ Test seal", "    Replace seal", "  no", "Sign record"],
    },
    {
      text: "The [role: planner] [activity: drafts the plan]. The [role: manager] [activity: comments on the plan] and the planner [activity: changes it]. These steps are repeated until [decision: the manager agrees].",
      reads: ["Draft plan", "Comment on plan", "Change plan", "Manager agrees?", "  no ↺ Comment on plan", "  yes"],
    },
  ],
  read: (moment) => {
    const { part } = moment;
    if (overAgainIn(part) !== part || markIn(part, "activity")) return false;
    return backBeforeQuestion(moment) || backUntil(moment);
  },
};

function backBeforeQuestion({ part, course }: Moment): boolean {
  const { path, decision } = course.here;
  if (!path || !decision || path.ends) return false;
  const { items } = decision.place;
  const before = items.slice(0, items.indexOf(decision)).findLast((one) => one.kind === "step");
  const first = before ?? path.items.find((one) => one.kind === "step");
  if (!first) return false;
  path.back ??= { to: first.mark, mark: undefined };
  const until = part.all.find(({ clause }) => clause.link === "until");
  const mark = until && markIn(until, "decision");
  const other = { yes: "no", no: "yes" }[path.answer];
  const known = decision.paths.find(({ answer }) => answer === other);
  if (known) known.mark ??= mark?.id;
  else if (other) course.follow(decision, other, mark?.id);
  course.here = decision.place;
  return true;
}

function backUntil({ part, course }: Moment): boolean {
  const until = part.all.find(({ clause }) => clause.link === "until");
  const last = course.toldBefore.at(-1);
  if (!until || last?.node.kind !== "step") return false;
  const told = course.toldBefore.flatMap(({ node, place }) =>
    node.kind === "step" && place === last.place ? [node] : [],
  );
  const { items } = last.place;
  const first = told[0] ?? last.node;
  const earlier = items.slice(0, items.indexOf(first)).findLast((one) => one.kind === "step");
  // One step alone may be repeated together with what leads to it.
  const said =
    told.length === 1 && earlier
      ? course.wonder({
          id: `again:${last.node.mark}`,
          sentence: part.sentence,
          question: say`What is done again here, and from where does it go on?`,
          marks: [last.node.mark],
          choices: [backTo(earlier.name), asDrawn],
        })
      : undefined;
  const from = said === "again" && earlier ? earlier : first;
  course.here = last.place;
  const decision = course.ask(part, {
    mark: markIn(until, "decision")?.id ?? `${last.node.mark}:until`,
    words: conditionWords(until, course).replace(/^(?:until|till)\s+/i, ""),
    role: last.node.role,
    onlyAsked: false,
  });
  const back = { to: from.mark, mark: undefined };
  decision.paths.push({ answer: "no", mark: undefined, items: [], ends: undefined, back });
  decision.paths.push({ answer: "yes", mark: undefined, items: [], ends: undefined, back: undefined });
  return true;
}
