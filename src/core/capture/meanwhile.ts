import type { Kind } from "../commands";
import { type EventTrigger, type Id, readTimer } from "../model";
import { addPath } from "./addRows";
import type { Draft } from "./draft";

/** What can happen while a step is under way, as the event at its edge that says so. */
export interface Happening {
  readonly trigger: Exclude<EventTrigger, "none">;
  /** The step goes on beside what follows; otherwise it is broken off. */
  readonly goesOn: boolean;
}

/** In the order they are offered; an error always breaks off, so it stands only among those. */
const breakingOff = ["messageEventDefinition", "errorEventDefinition", "escalationEventDefinition"] as const;
const rarer = ["signalEventDefinition", "conditionalEventDefinition"] as const;
const aTrouble = /\b(?:error|fail\w*|wrong|broken|crash\w*|cannot|impossible|refused|rejected)\b/i;

/**
 * What typed words may mean as something that happens meanwhile, the likeliest first: a time is a timer, trouble is an error,
 * anything else a message.
 * @param today the day repeated times are counted from, "2026-11-28"
 */
export function happeningsFor(typed: string, today: string): readonly Happening[] {
  const isTime = readTimer(typed, today) !== undefined;
  const timer = "timerEventDefinition" as const;
  const usual = aTrouble.test(typed)
    ? (["errorEventDefinition", "messageEventDefinition", "escalationEventDefinition"] as const)
    : breakingOff;
  const all = isTime ? [timer, ...usual, ...rarer] : [...usual, ...rarer];
  const off = all.map((trigger) => ({ trigger, goesOn: false }));
  const on = all.filter((trigger) => trigger !== "errorEventDefinition").map((trigger) => ({ trigger, goesOn: true }));
  return isTime ? [...off.slice(0, 1), ...on.slice(0, 1), ...off.slice(1), ...on.slice(1)] : [...off, ...on];
}

/** Puts an event at the edge of a step, with a path of its own that ends until it goes on. Gives the event. */
export function addMeanwhile(
  draft: Draft,
  step: Id,
  { trigger, goesOn }: Happening,
  words: { readonly typed: string; readonly today: string },
): Id {
  const id = draft.newId("boundaryEvent");
  const kind: Kind = { type: "boundaryEvent", trigger, ...(goesOn && { cancelActivity: false }) };
  draft.do({ type: "attach", diagram: draft.pageOf(step), host: step, id, kind });
  if (trigger === "timerEventDefinition")
    draft.do({ type: "sayTimer", event: id, text: words.typed, today: words.today });
  if (words.typed) draft.do({ type: "rename", id, name: words.typed });
  addPath(draft, id, "");
  return id;
}
