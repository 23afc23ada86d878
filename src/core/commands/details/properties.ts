import { z } from "zod";
import { say } from "../../messages";
import {
  called,
  childrenOf,
  type Element,
  type ElementType,
  elementTypes,
  eventDefinitionsOf,
  eventDefinitionTypes,
  eventTable,
  familyOf,
  holdsValue,
  type Id,
  isEvent,
  positionOf,
  referrersOf,
  shapesOf,
  termFor,
  textOfPlain,
  triggerOf,
  typeInfo,
  withDocumentation,
} from "../../model";
import { remove } from "../flow/remove";
import { type Change, refuse } from "../kernel/change";
import { lostBy, partsLostBy } from "../kinds/lostBy";
import { setTrigger } from "./trigger";

const id = z.string().min(1).max(200);
const longText = z.string().max(100_000);

export const renameSchema = z.object({ type: z.literal("rename"), id, name: z.string().max(2000) });
export const retypeSchema = z.object({
  type: z.literal("retype"),
  id,
  to: z.enum(elementTypes as [ElementType, ...ElementType[]]),
  trigger: z.enum(["none", ...eventDefinitionTypes, "multiple", "parallelMultiple"]).optional(),
});
export const setFieldSchema = z.object({
  type: z.literal("setField"),
  id,
  field: z.string().min(1).max(100),
  value: z.json(),
});
export const describeSchema = z.object({ type: z.literal("describe"), id, text: longText });
export const setConditionSchema = z.object({
  type: z.literal("setCondition"),
  flow: id,
  text: longText,
  /** Whether a machine can decide by it (FEEL), or it is words for people. */
  isExecutable: z.boolean().optional(),
});
export const setTimerSchema = z.object({
  type: z.literal("setTimer"),
  event: id,
  kind: z.enum(["timeDate", "timeDuration", "timeCycle"]),
  text: longText,
});
export const setRepetitionSchema = z.object({
  type: z.literal("setRepetition"),
  activity: id,
  id,
  repetition: z.enum(["once", "loop", "parallel", "sequential"]),
});

/** Names an element; a data object is named with all its references, a note gets its text. */
export function rename(change: Change, { id: elementId, name }: z.infer<typeof renameSchema>): void {
  const element = change.element(elementId);
  const clean = name.replace(/\r\n?/g, "\n").trim();
  if (element.type === "textAnnotation") {
    change.set("elements", elementId, "text", { text: clean });
    return;
  }
  if (!typeInfo(element.type).attributes.has("name"))
    refuse("no-name", say`A ${termFor(element.type)} has no name.`, [elementId]);
  change.set("elements", elementId, "name", clean === "" ? undefined : clean);
  if (element.type === "dataObjectReference" && typeof element.dataObjectRef === "string") {
    const object = change.model.elements.get(element.dataObjectRef);
    if (object && (object.name === undefined || object.name === element.name))
      change.set("elements", object.id, "name", clean || undefined);
  }
  // A process and the pool that shows nothing else share their name where they did so before.
  if (element.type === "process") {
    for (const diagram of change.model.diagrams) {
      if (diagram.element === elementId && diagram.name === element.name)
        change.set("diagrams", diagram.id, "name", clean || undefined);
    }
  }
}

/** Makes an element another of its family; name, flows and every property the new type has too are kept. */
export function retype(change: Change, { id: elementId, to, trigger }: z.infer<typeof retypeSchema>): void {
  const element = change.element(elementId);
  if (!familyOf(element.type).includes(to)) {
    refuse(
      "other-family",
      say`${called(change.model, element)} is a ${termFor(element.type)} and cannot become a ${termFor(to)}. Delete it and add the other.`,
      [elementId],
    );
  }
  if (to !== element.type) changeType(change, element, to);
  if (trigger !== undefined && isEvent(to)) setTrigger(change, elementId, trigger);
  const changed = change.element(elementId);
  if (isEvent(to)) {
    const held = triggerOf(change.model, changed);
    const position = positionOf(change.model, changed);
    if (!eventTable[held].includes(position)) {
      refuse(
        "event-position",
        say`The standard has no such event: ${held === "none" ? say`no trigger` : termFor(held)} ${position}.`,
        [elementId],
      );
    }
  }
}

/** The type is part of what an element is, so the old record goes and the new one comes, at the same place and id. */
export function changeType(change: Change, element: Element, to: ElementType): void {
  const from = typeInfo(element.type);
  const info = typeInfo(to);
  const next: { [field: string]: unknown } = { ...element, type: to };
  for (const field of ["incoming", "outgoing"]) delete next[field];
  for (const field of [...from.attributes.keys(), ...from.content.keys()]) {
    if (!info.attributes.has(field) && !info.content.has(field)) delete next[field];
  }
  const said = lostBy(change.model, element, to);
  if (said.length > 0)
    change.remarks.push(
      say`${called(change.model, element)} has no ${said.join(", ")} any more: a ${termFor(to)} has no place for it.`,
    );
  const lost = partsLostBy(change.model, element, to);
  if (lost.length > 0) remove(change, { type: "delete", ids: lost.map((child) => child.id) });
  for (const field of ["incoming", "outgoing"]) change.set("elements", element.id, field, undefined);
  change.remove("elements", element.id);
  change.apply([{ kind: "insert", table: "elements", record: next as unknown as Element }]);
  if (to === "exclusiveGateway") {
    for (const shape of shapesOf(change.model, element.id)) change.set("shapes", shape.id, "isMarkerVisible", true);
  }
  if (to !== "eventBasedGateway" && to !== "parallelGateway") return;
  // Neither has conditions: what they decided by is no longer asked.
  for (const flow of referrersOf(change.model, element.id, "sourceRef"))
    change.set("elements", flow.id, "conditionExpression", undefined);
}

/** Sets one field the metamodel gives the element's type, after checking that the value is of the field's kind. */
export function setField(change: Change, { id: elementId, field, value }: z.infer<typeof setFieldSchema>): void {
  const element = change.element(elementId);
  const info = typeInfo(element.type);
  const spec = info.attributes.get(field) ?? info.content.get(field);
  if (!spec) refuse("unknown-field", say`A ${termFor(element.type)} has no "${field}".`, [elementId]);
  // A called process stands in another file, so its id cannot be looked up here.
  if (
    value !== null &&
    !(field === "calledElement" && typeof value === "string") &&
    !fits(change, spec as NonNullable<typeof spec>, value)
  ) {
    refuse("bad-value", say`"${JSON.stringify(value)}" is no value for "${field}" of a ${termFor(element.type)}.`, [
      elementId,
    ]);
  }
  if (field === "default" && value !== null && change.element(value as Id).sourceRef !== elementId) {
    refuse("default-flow", say`The default must be a flow that leaves this very element.`, [elementId]);
  }
  change.set("elements", elementId, field, value ?? undefined);
}

/** Whether a field can hold a value, and everything that it names is there. */
function fits(change: Change, spec: Parameters<typeof holdsValue>[0], value: unknown): boolean {
  if (!holdsValue(spec, value)) return false;
  const isThere = (target: string) => change.model.elements.has(target);
  if (spec.kind === "reference") return isThere(value as string) || (value as string).includes(":");
  if (spec.kind === "references") return [value as string | string[]].flat().every(isThere);
  return true;
}

/** What an element's documentation says in the model's own language, as plain words; other languages stay. */
export function describe(change: Change, { id: elementId, text }: z.infer<typeof describeSchema>): void {
  const element = change.element(elementId);
  change.set("elements", elementId, "documentation", withDocumentation(element, undefined, textOfPlain(text)));
}

/** The name of the expression language of DMN 1.3, as its specification gives it (from memory). */
export const feelLanguage = "https://www.omg.org/spec/DMN/20191111/FEEL/";

/** Words for people are the standard's plain expression, what a machine can decide by is a formal one in FEEL. */
export function setCondition(
  change: Change,
  { flow, text, isExecutable = false }: z.infer<typeof setConditionSchema>,
): void {
  const element = change.element(flow);
  if (element.type !== "sequenceFlow") refuse("not-a-flow", say`Only a sequence flow has a condition.`, [flow]);
  const condition = isExecutable
    ? { text: text.trim(), typeName: "tFormalExpression", language: feelLanguage }
    : { text: text.trim() };
  change.set("elements", flow, "conditionExpression", text.trim() === "" ? undefined : condition);
}

/** A timer holds one of a date, a duration and a cycle. */
export function setTimer(change: Change, { event, kind, text }: z.infer<typeof setTimerSchema>): void {
  const timer = eventDefinitionsOf(change.model, event).find(
    (definition) => definition.type === "timerEventDefinition",
  );
  if (!timer) refuse("no-timer", say`${called(change.model, change.element(event))} has no timer.`, [event]);
  const definition = (timer as Element).id;
  for (const field of ["timeDate", "timeDuration", "timeCycle"] as const) {
    change.set(
      "elements",
      definition,
      field,
      field === kind && text.trim() !== "" ? { text: text.trim(), typeName: "tFormalExpression" } : undefined,
    );
  }
}

export function setRepetition(
  change: Change,
  { activity, id: newId, repetition }: z.infer<typeof setRepetitionSchema>,
): void {
  const current = childrenOf(change.model, activity, "loopCharacteristics")[0];
  const wantsMulti = repetition === "parallel" || repetition === "sequential";
  if (current?.type === "multiInstanceLoopCharacteristics" && wantsMulti) {
    change.set("elements", current.id, "isSequential", repetition === "sequential" ? true : undefined);
    return;
  }
  if (current) change.remove("elements", current.id);
  if (repetition === "loop") change.insert("standardLoopCharacteristics", newId, activity);
  else if (wantsMulti) {
    change.insert(
      "multiInstanceLoopCharacteristics",
      newId,
      activity,
      repetition === "sequential" ? { isSequential: true } : {},
    );
  }
}
