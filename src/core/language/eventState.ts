import nlp from "compromise";
import type { Rule } from "../check";
import { say } from "../messages";
import { isEvent } from "../model";

/** Names judged before: reading one takes a tenth of a millisecond, and few change from check to check. */
const judged = new Map<string, boolean>();
const mostJudged = 5_000;

function readsAsOrder(name: string): boolean {
  const known = judged.get(name);
  if (known !== undefined) return known;
  if (judged.size >= mostJudged) judged.clear();
  const answer = isOrder(name);
  judged.set(name, answer);
  return answer;
}

/** Whether a name begins as an order does ("Close the case") and not as a state ("Case closed"), by the word classes of its words. */
function isOrder(name: string): boolean {
  if (name.split(/\s+/).length < 2) return false;
  const sentence = nlp(name);
  // What an order is done to follows the verb; "Plant ready to switch on" only begins with a word that can be one.
  return sentence.match("^(#Infinitive|#Imperative) (#Determiner|#Possessive|#Noun)").found;
}

/** Common practice: events are named by what has happened, steps by what is to be done. */
export const eventState: Rule = {
  id: "event-names-a-state",
  group: "names",
  severity: "advice",
  wants: say`An event is named by what has happened.`,
  find: (model) =>
    [...model.elements].flatMap((event) => {
      const name = event.name?.trim() ?? "";
      if (!isEvent(event.type) || name === "" || !readsAsOrder(name)) return [];
      return [
        {
          elements: [event.id],
          message: say`“${name}” reads like something to do, but an event is something that has happened. Say it so: “Application received” instead of “Receive application”.`,
        },
      ];
    }),
};
