import type { AttributeField, Element, FileNote } from "../model";

/** An element while its file is read. */
export type Writable = { -readonly [Key in keyof Element]: Element[Key] } & { [field: string]: unknown };

/** Keeps how a file wrote a value where that is not how we would write it. */
export function spell(record: Writable, field: string, raw: string): void {
  record.spelling = { ...record.spelling, [field]: raw };
}

/**
 * Puts an attribute into its field, by the kind the metamodel gives it (XML Schema's lexical forms: "1" is true). What is no value of
 * that kind is noted and kept as it is written. References are names here; what they mean is found out when the whole file is read.
 */
export function readAttribute(
  record: Writable,
  field: string,
  spec: AttributeField,
  raw: string,
  note: (code: FileNote["code"], element: string, detail: string) => void,
): void {
  switch (spec.kind) {
    case "string":
      record[field] = raw;
      return;
    case "boolean": {
      const value = raw.trim();
      if (value === "true" || value === "1") record[field] = true;
      else if (value === "false" || value === "0") record[field] = false;
      else note("bad-value", record.id, `${field}="${raw}"`);
      if (value !== raw || (value !== "true" && value !== "false")) spell(record, field, raw);
      return;
    }
    case "integer": {
      const value = Number(raw.trim());
      if (Number.isInteger(value) && raw.trim() !== "") record[field] = value;
      else note("bad-value", record.id, `${field}="${raw}"`);
      if (String(record[field]) !== raw) spell(record, field, raw);
      return;
    }
    case "enum":
      if (spec.values.includes(raw)) record[field] = raw;
      else {
        note("bad-value", record.id, `${field}="${raw}"`);
        spell(record, field, raw);
      }
      return;
    case "reference":
      record[field] = raw;
      return;
  }
}
