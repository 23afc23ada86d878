/** The kinds of values a process handles. */
export const fieldKinds = [
  "text",
  "number",
  "amount",
  "yesNo",
  "date",
  "dateTime",
  "duration",
  "choice",
  "record",
] as const;
export type FieldKind = (typeof fieldKinds)[number];

/** A piece of data: what it is called, of which kind, what it may be; a record has pieces of its own. */
export interface DataField {
  readonly name: string;
  readonly kind: FieldKind;
  /** Several of it. */
  readonly isList: boolean;
  readonly isRequired: boolean;
  readonly description: string;
  /** Of an amount: ISO 4217. */
  readonly currency?: string;
  /** Of a choice. */
  readonly choices?: readonly string[];
  /** Limits: of a number its value, of a text its length. */
  readonly least?: number;
  readonly most?: number;
  /** What it is where nobody says it. */
  readonly usual?: unknown;
  readonly fields?: readonly DataField[];
  /** What a schema says besides, which is kept. */
  readonly more?: JsonObject;
}
export type JsonObject = { readonly [key: string]: unknown };

export const newField = (name: string, kind: FieldKind = "text"): DataField => ({
  name,
  kind,
  isList: false,
  isRequired: false,
  description: "",
});

/** The kind of value a name promises, as far as it does: "day of the visit" a date, "rated power" a number. */
export function kindByName(name: string): FieldKind {
  if (/\b(?:date|day|birthday)\b/i.test(name)) return "date";
  if (/\b(?:fee|price|cost|costs|tariff|amount)\b/i.test(name)) return "amount";
  if (
    /\b(?:power|length|height|width|weight|distance|load|limit|size|count|number of|quantity|deviation)\b/i.test(name)
  )
    return "number";
  return "text";
}

const isObject = (value: unknown): value is JsonObject =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** Fields nested deeper than this are taken for text. */
const deepest = 20;

/**
 * A field as JSON Schema (draft 2020-12). Of the vocabulary are used: `type` (string, number, boolean, array, object), `format` (date,
 * date-time, duration), `enum`, `minimum`, `maximum`, `minLength`, `maxLength`, `items`, `properties`, `required`, `default`,
 * `description`; the currency of an amount stands in `x-currency`, which others take for an annotation.
 * Source: JSON Schema Core and Validation, 2020-12 (from memory). O(fields).
 */
export function schemaOf(field: DataField): JsonObject {
  const one = valueSchema(field);
  const described = {
    ...(field.description && { description: field.description }),
    ...(field.usual !== undefined && { default: field.usual }),
  };
  return field.isList ? { type: "array", items: one, ...described } : { ...one, ...described };
}

function valueSchema({ kind, currency, choices, least, most, fields = [], more }: DataField): JsonObject {
  const within = (low: string, high: string) => ({
    ...(least !== undefined && { [low]: least }),
    ...(most !== undefined && { [high]: most }),
  });
  switch (kind) {
    case "text":
      return { type: "string", ...within("minLength", "maxLength"), ...more };
    case "number":
      return { type: "number", ...within("minimum", "maximum"), ...more };
    case "amount":
      return { type: "number", "x-currency": currency ?? "", ...within("minimum", "maximum"), ...more };
    case "yesNo":
      return { type: "boolean", ...more };
    case "date":
      return { type: "string", format: "date", ...more };
    case "dateTime":
      return { type: "string", format: "date-time", ...more };
    case "duration":
      return { type: "string", format: "duration", ...more };
    case "choice":
      return { type: "string", enum: [...(choices ?? [])], ...more };
    case "record":
      return recordSchema(fields, more);
  }
}

/** The schema of a record with some fields, in their order. */
export function recordSchema(fields: readonly DataField[], more: JsonObject = {}): JsonObject {
  const required = fields.filter(({ isRequired }) => isRequired).map(({ name }) => name);
  return {
    type: "object",
    properties: Object.fromEntries(fields.map((field) => [field.name, schemaOf(field)])),
    ...(required.length > 0 && { required }),
    ...more,
  };
}

const formats: { readonly [format: string]: FieldKind } = {
  date: "date",
  "date-time": "dateTime",
  duration: "duration",
};
const ours = new Set([
  "type",
  "format",
  "enum",
  "minimum",
  "maximum",
  "minLength",
  "maxLength",
  "items",
  "properties",
  "required",
  "default",
  "description",
  "x-currency",
]);

/** A schema as a field; what it says besides stays with it. O(schema). */
export function fieldOf(name: string, schema: unknown, isRequired = false, depth = 0): DataField {
  if (!isObject(schema) || depth > deepest) return { ...newField(name), isRequired };
  const head = {
    name,
    isRequired,
    description: typeof schema.description === "string" ? schema.description : "",
    ...(schema.default !== undefined && { usual: schema.default }),
  };
  const types = [schema.type].flat();
  if (types.includes("array")) {
    const item = fieldOf(name, schema.items, false, depth + 1);
    const more = moreOf(schema);
    const rest = { ...item, ...head, description: head.description || item.description };
    return { ...rest, isList: true, ...(Object.keys(more).length > 0 && { more: { ...item.more, ...more } }) };
  }
  const more = moreOf(schema);
  const limits = (low: unknown, high: unknown) => ({
    ...(typeof low === "number" && { least: low }),
    ...(typeof high === "number" && { most: high }),
  });
  const kept = { isList: false, ...(Object.keys(more).length > 0 && { more }) };
  if (isObject(schema.properties) || types.includes("object")) {
    const properties = isObject(schema.properties) ? schema.properties : {};
    const required = new Set(Array.isArray(schema.required) ? schema.required : []);
    const fields = Object.entries(properties).map(([inner, one]) =>
      fieldOf(inner, one, required.has(inner), depth + 1),
    );
    return { ...head, ...kept, kind: "record", fields };
  }
  if (Array.isArray(schema.enum))
    return {
      ...head,
      ...kept,
      kind: "choice",
      choices: schema.enum.flatMap((one) => (one === null ? [] : [String(one)])),
    };
  if (types.includes("boolean")) return { ...head, ...kept, kind: "yesNo" };
  if (types.includes("number") || types.includes("integer")) {
    const currency = schema["x-currency"];
    const figure = { ...head, ...kept, ...limits(schema.minimum, schema.maximum) };
    return typeof currency === "string" ? { ...figure, kind: "amount", currency } : { ...figure, kind: "number" };
  }
  const format = formats[String(schema.format)];
  if (format) return { ...head, ...kept, kind: format };
  return { ...head, ...kept, kind: "text", ...limits(schema.minLength, schema.maxLength) };
}

const moreOf = (schema: JsonObject): JsonObject =>
  Object.fromEntries(
    Object.entries(schema).filter(
      ([key, value]) =>
        !ours.has(key) || (key === "type" && value === "integer") || (key === "format" && !(String(value) in formats)),
    ),
  );
