import { holds, readValue } from "../feel";
import { type Said, say } from "../messages";
import { type Form, type FormItem, type Id, type Model, processOf } from "../model";
import { type DataField, type JsonObject, recordSchema } from "./fields";
import { fieldsOfProcess } from "./ofProcess";
import { dataMatrix } from "./uses";

/** An item of a form with the field it fills in; undefined where the data has gone since. */
export interface ShownItem {
  readonly item: FormItem;
  readonly field: DataField | undefined;
  readonly label: string;
}

/** The field at a path. */
export function fieldAt(fields: readonly DataField[], [first, ...rest]: readonly string[]): DataField | undefined {
  const field = fields.find(({ name }) => name === first);
  return !field || rest.length === 0 ? field : fieldAt(field.fields ?? [], rest);
}

/** The items of a form with their fields, in order. */
export function shownItems(model: Model, step: Id, form: Form): ShownItem[] {
  const fields = fieldsOfProcess(model, processOf(model, step)?.id ?? "");
  return form.items.map((item) => {
    const field = fieldAt(fields, item.path);
    return { item, field, label: item.label || capital(item.path.at(-1) ?? "") };
  });
}
const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/**
 * A form made from the data in one gesture: what the step creates and changes is filled in, what it only reads is shown; where nobody said
 * what it does with the data, all of it. Records give their parts, under their name.
 */
export function formFromData(model: Model, step: Id): Form {
  const process = processOf(model, step)?.id ?? "";
  const { data, useOf } = dataMatrix(model, process);
  const used = data.filter(({ id }) => useOf(step, id) !== "none");
  const fields = fieldsOfProcess(model, process);
  const items = (used.length > 0 ? used : data).flatMap(({ id, name }) => {
    const field = fields.find((one) => one.name === name);
    return field ? itemsOf(field, [name], useOf(step, id) === "reads") : [];
  });
  return { items: items.slice(0, 500) };
}
function itemsOf(field: DataField, path: readonly string[], isReadOnly: boolean): FormItem[] {
  if (field.kind === "record" && !field.isList)
    return (field.fields ?? []).flatMap((part) =>
      itemsOf(part, [...path, part.name], isReadOnly).map((item) => ({ group: capital(path[0] as string), ...item })),
    );
  return [
    { path: [...path], ...(isReadOnly && { isReadOnly }), ...(field.description && { help: field.description }) },
  ];
}

/** Data of a case, as a form fills it in: nested by the paths of its items. */
export type FormData = { readonly [name: string]: unknown };

export const valueIn = (data: FormData, [first = "", ...rest]: readonly string[]): unknown => {
  const value = Object.hasOwn(data, first) ? data[first] : undefined;
  if (rest.length === 0) return value;
  return typeof value === "object" && value !== null && !Array.isArray(value)
    ? valueIn(value as FormData, rest)
    : undefined;
};
export function withValueIn(data: FormData, [first = "", ...rest]: readonly string[], value: unknown): FormData {
  const held = Object.hasOwn(data, first) ? data[first] : undefined;
  const inner = typeof held === "object" && held !== null && !Array.isArray(held) ? (held as FormData) : {};
  return { ...data, [first]: rest.length === 0 ? value : withValueIn(inner, rest, value) };
}

/** Whether an item is shown for some data: where its condition holds, or it has none. */
export const isShown = ({ shownWhen }: FormItem, data: FormData): boolean =>
  !shownWhen || holds(shownWhen, data) === true;

/** A value as a person typed it into a field; or why it is none. */
export type FieldValue = { readonly value: unknown } | { readonly problem: Said };

/** Reads what was typed into a field, and holds it against what the field may be. Nothing typed is nothing: undefined. */
export function readField(field: DataField, typed: string): FieldValue {
  const words = typed.trim();
  if (words === "") return field.isRequired ? { problem: say`This has to be filled in.` } : { value: undefined };
  if (field.isList || field.kind === "record") {
    const items =
      field.isList && field.kind !== "record" ? words.split(/\s*[;\n]\s*/).filter((one) => one !== "") : undefined;
    if (!items) return readJson(words, field.isList);
    const read = items.map((one) => readField({ ...field, isList: false }, one));
    const wrong = read.find((one) => "problem" in one);
    return wrong ?? { value: read.map((one) => ("value" in one ? one.value : undefined)) };
  }
  const { kind, least, most, choices = [] } = field;
  switch (kind) {
    case "number":
    case "amount": {
      const number = Number(words.replace(",", "."));
      if (!Number.isFinite(number)) return { problem: say`A number is asked for here, as 12 or 3.5.` };
      if (least !== undefined && number < least) return { problem: say`At least ${least} is asked for here.` };
      if (most !== undefined && number > most) return { problem: say`At most ${most} is asked for here.` };
      return { value: number };
    }
    case "yesNo":
      if (/^(yes|true)$/i.test(words)) return { value: true };
      return /^(no|false)$/i.test(words) ? { value: false } : { problem: say`Yes or no is asked for here.` };
    case "choice":
      return choices.includes(words)
        ? { value: words }
        : { problem: say`One of ${choices.join(", ")} is asked for here.` };
    case "text": {
      const length = [...typed].length;
      if (least !== undefined && length < least) return { problem: say`At least ${least} letters are asked for here.` };
      return most !== undefined && length > most
        ? { problem: say`At most ${most} letters are asked for here.` }
        : { value: words };
    }
    default: {
      const read = readValue(words, kind === "dateTime" ? "dateAndTime" : (kind as "date" | "duration"));
      return "reason" in read ? { problem: read.reason } : read;
    }
  }
}
function readJson(words: string, isList: boolean): FieldValue {
  try {
    const value: unknown = JSON.parse(words);
    if (Array.isArray(value) === isList && typeof value === "object" && value !== null) return { value };
  } catch {
    // Said below.
  }
  return {
    problem: isList
      ? say`A list as JSON is asked for here, as [{"name": 1}].`
      : say`A record as JSON is asked for here, as {"name": 1}.`,
  };
}

/** A value as it stands in a field. */
export function fieldWords(field: DataField | undefined, value: unknown): string {
  if (value === undefined || value === null) return "";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (Array.isArray(value) && field?.kind !== "record") return value.map(String).join("; ");
  return typeof value === "object" ? JSON.stringify(value) : String(value);
}

/** What is wrong with a form as it is filled in, by the place of the item; what is not shown is not asked. O(items). */
export function formProblems(items: readonly ShownItem[], data: FormData): ReadonlyMap<number, Said> {
  const found = new Map<number, Said>();
  for (const [at, { item, field }] of items.entries()) {
    if (!field || item.isReadOnly || !isShown(item, data)) continue;
    const read = readField(field, fieldWords(field, valueIn(data, item.path)));
    if ("problem" in read) found.set(at, read.problem);
    else if (item.check && holds(item.check, data) !== true)
      found.set(at, say`${item.checkWords || `This has to hold: ${item.check}`}`);
  }
  return found;
}

/** Made-up values for a form, so that one sees how it will look. */
export function exampleData(items: readonly ShownItem[]): FormData {
  return items.reduce<FormData>(
    (data, { item, field }) => (field ? withValueIn(data, item.path, exampleOf(field)) : data),
    {},
  );
}
function exampleOf(field: DataField): unknown {
  if (field.usual !== undefined) return field.usual;
  const { kind, least, most, choices = [], fields = [] } = field;
  const one = (): unknown => {
    switch (kind) {
      case "number":
      case "amount":
        return Math.min(most ?? 10, Math.max(least ?? 10, 10));
      case "yesNo":
        return true;
      case "date":
        return "2027-03-31";
      case "dateTime":
        return "2027-03-31T14:30";
      case "duration":
        return "P2D";
      case "choice":
        return choices[0] ?? "";
      case "record":
        return Object.fromEntries(fields.map((part) => [part.name, exampleOf(part)]));
      default:
        return capital(field.name);
    }
  };
  return field.isList ? [one()] : one();
}

/** A form as others read it: JSON Schema (2020-12) of what is filled in, and the order of the items with what is said of them. */
export function packedForm(model: Model, step: Id, form: Form): JsonObject {
  const items = shownItems(model, step, form);
  const tree: { [name: string]: DataField } = {};
  for (const { item, field } of items) if (field) put(tree, item.path, field);
  return {
    schema: { $schema: "https://json-schema.org/draft/2020-12/schema", ...recordSchema(Object.values(tree)) },
    order: form.items,
  };
}
function put(tree: { [name: string]: DataField }, [first = "", ...rest]: readonly string[], field: DataField): void {
  if (rest.length === 0) tree[first] = { ...field, name: first };
  else {
    const inner = Object.fromEntries((tree[first]?.fields ?? []).map((one) => [one.name, one]));
    put(inner, rest, field);
    tree[first] = {
      name: first,
      kind: "record",
      isList: false,
      isRequired: false,
      description: "",
      fields: Object.values(inner),
    };
  }
}
