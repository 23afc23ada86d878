import { z } from "zod";
import { renamedIn } from "../../feel";
import { say } from "../../messages";
import {
  called,
  childrenOf,
  dataOfProcess,
  decidedBy,
  type Element,
  type FieldUse,
  fieldUsesOf,
  formOf,
  handlesData,
  type Id,
  itemOfData,
  processOf,
  schemaTextOf,
  withFieldUses,
  withForm,
  withSchemaText,
} from "../../model";
import { type Change, refuse } from "../kernel/change";
import { freeId, isUsed } from "../kernel/freeId";
import { addDataAssociation, removeDataAssociation } from "./dataAssociations";

const id = z.string().min(1).max(200);
const name = z.string().trim().min(1).max(500);
const schemaText = z
  .string()
  .max(500_000)
  .refine((text) => {
    try {
      const value: unknown = JSON.parse(text);
      return typeof value === "object" && value !== null && !Array.isArray(value);
    } catch {
      return false;
    }
  }, "A schema is a JSON object.");

/** Says what a piece of data holds; one that is not there yet becomes a property of the process (BPMN 2.0, 10.4.1). */
export const defineDataSchema = z.object({
  type: z.literal("defineData"),
  process: id,
  id,
  name,
  schema: schemaText.nullable(),
});

export function defineData(
  change: Change,
  { process, id: data, name: called, schema }: z.infer<typeof defineDataSchema>,
): void {
  const known = change.model.elements.get(data);
  if (known && !["property", "dataObject"].includes(known.type))
    refuse("no-data", say`“${data}” is no data of the process. Choose another id.`, [data]);
  if (!known) {
    const taken = dataOfProcess(change.model, process).some((one) => one.name === called);
    if (taken)
      refuse("name-taken", say`“${called}” is there already: a condition could not tell the two apart.`, [process]);
    change.insert("property", data, process, { name: called });
  }
  const before = itemOfData(change.model, change.element(data));
  if (schema === null) {
    if (!before) return;
    change.set("elements", before.id, "extension", withSchemaText(before, undefined));
    return;
  }
  const item = before?.id ?? freeId(change, `${data}.item`);
  if (!before) {
    change.insert("itemDefinition", item, change.model.root);
    change.set("elements", data, "itemSubjectRef", item);
  }
  change.set("elements", item, "extension", withSchemaText(change.element(item), schema));
}

/** Takes a property out, with its item definition where nothing else is of that. What is drawn goes with its drawing. */
export const dropDataSchema = z.object({ type: z.literal("dropData"), id });

export function dropData(change: Change, { id: data }: z.infer<typeof dropDataSchema>): void {
  const element = change.element(data);
  if (element.type !== "property")
    refuse("drawn", say`This data is drawn. Delete its shape in the diagram, and it goes with it.`, [data]);
  for (const one of [...change.model.elements])
    if (
      one.sourceRef === data ||
      one.targetRef === data ||
      (Array.isArray(one.sourceRef) && one.sourceRef.includes(data))
    )
      removeDataAssociation(change, one);
  const item = itemOfData(change.model, element);
  change.remove("elements", data);
  if (item && !isUsed(change, item.id)) change.remove("elements", item.id);
}

/** Another name for a piece of data or for a part of it, in all that names it: conditions, loops, mappings. */
export const renameDataSchema = z.object({
  type: z.literal("renameData"),
  id,
  /** The part, from the data down; none for the data itself. */
  path: z.array(name).max(30),
  to: name,
});

export function renameData(change: Change, { id: data, path, to }: z.infer<typeof renameDataSchema>): void {
  const element = change.element(data);
  const process = processOf(change.model, data)?.id ?? data;
  const own = dataOfProcess(change.model, process);
  const datum = own.find((one) => one.id === data);
  if (!datum) return refuse("no-data", say`This is no data of a process.`, [data]);
  if (path.length === 0) {
    if (own.some((one) => one.id !== data && one.name === to))
      refuse("name-taken", say`“${to}” is there already: a condition could not tell the two apart.`, [data]);
    for (const one of [data, ...datum.references]) change.set("elements", one, "name", to);
  } else {
    const item = itemOfData(change.model, element);
    const schema = item && schemaTextOf(item);
    if (!item || schema === undefined)
      return refuse("no-schema", say`Nobody has said yet what this data holds.`, [data]);
    const renamed = withRenamedPart(JSON.parse(schema), path, to);
    if (renamed === undefined) return refuse("name-taken", say`“${to}” is there already, or the part is gone.`, [data]);
    change.set("elements", item.id, "extension", withSchemaText(item, JSON.stringify(renamed)));
  }
  const newPath = [...(path.length === 0 ? [] : [datum.name, ...path.slice(0, -1)]), to];
  const names = own.flatMap((one) => [one.name, ...partNames(one.schema)]);
  const renamed = (text: string) => renamedIn(text, names, [datum.name, ...path], to);
  for (const one of [...change.model.elements]) {
    for (const field of ["conditionExpression", "loopCondition", "completionCondition"] as const) {
      const held = one[field] as { readonly text?: string } | undefined;
      if (held?.text === undefined) continue;
      const text = renamed(held.text);
      if (text !== held.text) change.set("elements", one.id, field, { ...held, text });
    }
    const form = formOf(one);
    if (form) {
      const items = form.items.map((item) => ({
        ...item,
        path: startsWith(item.path, [datum.name, ...path])
          ? item.path.map((part, at) => (at === path.length ? to : part))
          : item.path,
        ...(item.shownWhen && { shownWhen: renamed(item.shownWhen) }),
        ...(item.check && { check: renamed(item.check) }),
      }));
      if (JSON.stringify(items) !== JSON.stringify(form.items))
        change.set("elements", one.id, "extension", withForm(one, { items }));
    }
    const uses = fieldUsesOf(one);
    const named = path.at(-1) ?? datum.name;
    // What a decision found by its name is said from now on: the decision is shared, and keeps its name.
    const isNeeded =
      decidedBy(one)?.needs.includes(named) && !uses.some((use) => use.direction === "in" && use.field === named);
    const said: FieldUse[] = isNeeded ? [{ direction: "in", field: named, is: newPath.join(".") }] : [];
    const next = [...uses.map((use) => ({ ...use, is: renamed(use.is) })), ...said];
    if (next.length > uses.length || next.some((use, at) => use.is !== uses[at]?.is))
      change.set("elements", one.id, "extension", withFieldUses(change.element(one.id), next));
  }
}

const startsWith = (path: readonly string[], head: readonly string[]) => head.every((part, at) => path[at] === part);

interface Schema {
  readonly properties?: { readonly [name: string]: Schema };
  readonly required?: readonly string[];
  readonly items?: Schema;
}

/** A schema with one part named otherwise, in its place; undefined where it is not there, or the name is taken. */
function withRenamedPart(schema: Schema, path: readonly string[], to: string): Schema | undefined {
  if (schema.items) {
    const items = withRenamedPart(schema.items, path, to);
    return items && { ...schema, items };
  }
  const [first, ...rest] = path;
  const { properties } = schema;
  if (first === undefined || !properties || !(first in properties)) return undefined;
  if (rest.length === 0 && to !== first && to in properties) return undefined;
  const entries: [string, Schema][] = [];
  for (const [key, value] of Object.entries(properties)) {
    if (key !== first) entries.push([key, value]);
    else if (rest.length === 0) entries.push([to, value]);
    else {
      const inner = withRenamedPart(value, rest, to);
      if (!inner) return undefined;
      entries.push([key, inner]);
    }
  }
  const required = schema.required?.map((one) => (one === first && rest.length === 0 ? to : one));
  return { ...schema, properties: Object.fromEntries(entries), ...(required && { required }) };
}

/** The names of all parts of a schema. */
function partNames(text: string | undefined): string[] {
  const names: string[] = [];
  const visit = (schema: Schema | undefined, depth: number) => {
    if (!schema || depth > 20) return;
    visit(schema.items, depth + 1);
    for (const [key, value] of Object.entries(schema.properties ?? {})) {
      names.push(key);
      visit(value, depth + 1);
    }
  };
  try {
    visit(text === undefined ? undefined : JSON.parse(text), 0);
  } catch {
    // Written by hand, and no schema: it names nothing.
  }
  return names;
}

export const dataUses = ["none", "reads", "creates", "changes"] as const;
export type DataUse = (typeof dataUses)[number];

/** What a step does with a piece of data: reading is an input, creating an output, changing both (BPMN 2.0, 10.4.1 and 10.4.2). */
export const setDataUseSchema = z.object({ type: z.literal("setDataUse"), step: id, data: id, use: z.enum(dataUses) });

export function setDataUse(change: Change, { step, data, use }: z.infer<typeof setDataUseSchema>): void {
  const owner = change.element(step);
  const own = dataOfProcess(change.model, processOf(change.model, step)?.id ?? "").find((one) => one.id === data);
  if (!own) return refuse("no-data", say`This is no data of the process the step stands in.`, [step, data]);
  const places = [data, ...own.references];
  const held = childrenOf(change.model, owner.id);
  const reading = held.filter(
    (one) => one.type === "dataInputAssociation" && readsOf(one).some((source) => places.includes(source)),
  );
  const writing = held.filter((one) => one.type === "dataOutputAssociation" && places.includes(String(one.targetRef)));
  const [wantsIn, wantsOut] = [use === "reads" || use === "changes", use === "creates" || use === "changes"];
  for (const [wants, direction] of [
    [wantsIn, "in"],
    [wantsOut, "out"],
  ] as const)
    if (wants && !handlesData(owner.type, direction))
      refuse(
        "data-association-ends",
        direction === "in"
          ? say`${called(change.model, owner)} reads no data; activities do, and events that throw.`
          : say`${called(change.model, owner)} writes no data; activities do, and events that catch.`,
        [step],
      );
  // What is drawn is tied to its drawing; the rest has no line.
  const place = own.references[0] ?? data;
  if (wantsIn && reading.length === 0)
    addDataAssociation(change, "dataInputAssociation", freeId(change, `${step}.reads.${data}`), place, step);
  if (wantsOut && writing.length === 0)
    addDataAssociation(change, "dataOutputAssociation", freeId(change, `${step}.writes.${data}`), step, place);
  for (const one of [...(wantsIn ? [] : reading), ...(wantsOut ? [] : writing)]) {
    for (const edge of [...change.model.edges]) if (edge.element === one.id) change.remove("edges", edge.id);
    removeDataAssociation(change, one);
  }
}
const readsOf = (association: Element): readonly Id[] =>
  [(association.sourceRef as Id | readonly Id[] | undefined) ?? []].flat();
