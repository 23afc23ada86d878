import { z } from "zod";
import { say } from "../../messages";
import {
  attributesOf,
  called,
  childrenOf,
  derivedId,
  type Element,
  elementsOfType,
  eventDefinitionsOf,
  type Id,
  isActivity,
  type Model,
  nameOf,
  readTimer,
  referrersOf,
  withAttributes,
  withCounterparts,
} from "../../model";
import { type Change, refuse } from "../kernel/change";
import { setTimer } from "./properties";

const id = z.string().min(1).max(200);
const words = z.string().max(2000);

export const nameReferenceSchema = z.object({ type: z.literal("nameReference"), id, name: z.string().max(200) });
/** The same element in another version: several where it stands for several, none where there is none, `null` to let its id decide. */
export const setCounterpartsSchema = z.object({
  type: z.literal("setCounterparts"),
  id: z.string().min(1),
  counterparts: z.array(z.string().min(1).max(500)).max(100).nullable(),
});
export const setAttributeSchema = z.object({
  type: z.literal("setAttribute"),
  id,
  name: z.string().trim().min(1).max(200),
  value: words.nullable(),
});
export const sayTimerSchema = z.object({
  type: z.literal("sayTimer"),
  event: id,
  text: words,
  /** The day from which repetition is counted. */
  today: z.iso.date(),
});
export const setRepetitionDetailSchema = z.object({
  type: z.literal("setRepetitionDetail"),
  activity: id,
  field: z.enum(["loopCondition", "loopMaximum", "loopCardinality", "completionCondition"]),
  text: words,
});

type NamedRoot = "message" | "signal" | "error" | "escalation";
/** What an event, or a sending or receiving task, is about: the field that names it, and what it names. */
const references: { readonly [type: string]: readonly [field: string, root: NamedRoot] } = {
  messageEventDefinition: ["messageRef", "message"],
  signalEventDefinition: ["signalRef", "signal"],
  errorEventDefinition: ["errorRef", "error"],
  escalationEventDefinition: ["escalationRef", "escalation"],
  sendTask: ["messageRef", "message"],
  receiveTask: ["messageRef", "message"],
};

/** The message, signal, error or escalation that an element is about, by the one of its parts that can name one. */
export function referenceOf(
  model: Model,
  element: Element,
): { readonly holder: Id; readonly field: string; readonly kind: NamedRoot; readonly name: string } | undefined {
  const holder = [element, ...eventDefinitionsOf(model, element.id)].find((part) => references[part.type]);
  const known = holder && references[holder.type];
  if (!known) return undefined;
  const [field, kind] = known;
  const named = holder[field];
  return { holder: holder.id, field, kind, name: typeof named === "string" ? nameOf(model, named) : "" };
}

/** Says which message, signal, error or escalation it is, by name: one that the model has, or a new one. */
export function nameReference(change: Change, { id: elementId, name }: z.infer<typeof nameReferenceSchema>): void {
  const element = change.element(elementId);
  const reference = referenceOf(change.model, element);
  if (!reference) {
    refuse("no-reference", say`${called(change.model, element)} names no message, signal, error or escalation.`, [
      elementId,
    ]);
    return;
  }
  const { holder, field, kind } = reference;
  const before = change.element(holder)[field] as Id | undefined;
  const wanted = name.trim();
  const known = elementsOfType(change.model, kind).find((one) => one.name === wanted);
  const target = wanted === "" ? undefined : (known?.id ?? newRoot(change, kind, elementId, wanted));
  change.set("elements", holder, field, target);
  // What nobody names any longer is of no use.
  if (
    before &&
    before !== target &&
    change.model.elements.has(before) &&
    referrersOf(change.model, before).length === 0
  )
    change.remove("elements", before);
}

function newRoot(change: Change, kind: NamedRoot, of: Id, name: string): Id {
  return change.insert(kind, derivedId(change.isTaken, of, kind), change.model.root, { name }).id;
}

export function setCounterparts(
  change: Change,
  { id: elementId, counterparts }: z.infer<typeof setCounterpartsSchema>,
): void {
  const next = withCounterparts(change.element(elementId), counterparts);
  change.set("elements", elementId, "extension", next);
}

export function setAttribute(change: Change, { id: elementId, name, value }: z.infer<typeof setAttributeSchema>): void {
  const element = change.element(elementId);
  const known = attributesOf(element);
  const next =
    value === null
      ? known.filter((one) => one.name !== name)
      : known.some((one) => one.name === name)
        ? known.map((one) => (one.name === name ? { name, value } : one))
        : [...known, { name, value }];
  change.set("elements", elementId, "extension", withAttributes(element, next));
}

/** Sets a timer as it is said; the standard's field follows from the words. */
export function sayTimer(change: Change, { event, text, today }: z.infer<typeof sayTimerSchema>): void {
  const typed = text.trim();
  const read = typed === "" ? undefined : readTimer(typed, today);
  if (typed !== "" && !read)
    refuse(
      "no-time",
      say`“${typed}” is no time. Write a duration (3 days, 10 working days), a date (1 March 2027 at 9:00) or how often (every night at 2:00), or ISO 8601.`,
      [event],
    );
  if (read?.remark) change.remarks.push(read.remark);
  setTimer(change, { type: "setTimer", event, kind: read?.field ?? "timeDuration", text: read?.iso ?? "" });
}

/** How a repeated activity goes on or stops: until when, how often, for how many, and when enough are done. */
export function setRepetitionDetail(
  change: Change,
  { activity, field, text }: z.infer<typeof setRepetitionDetailSchema>,
): void {
  const element = change.element(activity);
  const loop = childrenOf(change.model, activity, "loopCharacteristics")[0];
  const fits =
    loop?.type === "standardLoopCharacteristics"
      ? field === "loopCondition" || field === "loopMaximum"
      : field === "loopCardinality" || field === "completionCondition";
  if (!isActivity(element.type) || !loop || !fits) {
    refuse("no-repetition", say`${called(change.model, element)} is not repeated in this way.`, [activity]);
    return;
  }
  const typed = text.trim();
  if (field === "loopMaximum") {
    const most = Number(typed);
    if (typed !== "" && !(Number.isInteger(most) && most > 0))
      refuse("no-number", say`“${typed}” is no number of times. Write a whole number from 1.`, [activity]);
    change.set("elements", loop.id, field, typed === "" ? undefined : most);
    return;
  }
  change.set("elements", loop.id, field, typed === "" ? undefined : { text: typed, typeName: "tFormalExpression" });
}
