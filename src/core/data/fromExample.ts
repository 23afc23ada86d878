import { type Said, say } from "../messages";
import { failure, ok, type Result } from "../model";
import { readTable } from "../table";
import { type DataField, type FieldKind, newField } from "./fields";

/** More of a list than this tells nothing new. */
const mostLooked = 1_000;
const mostChoices = 6;

/**
 * Fields from an example: JSON, or the lines of a spreadsheet with headings. What an example has several of is looked at in all of them: a
 * field that one lacks is not required, texts that come again and again are a choice.
 * @returns why it cannot be read. O(length)
 */
export function fieldsFromExample(text: string): Result<DataField[]> {
  const trimmed = text.trim();
  if (trimmed === "")
    return refused(say`There is nothing in the example. Paste JSON, or lines of a spreadsheet with headings.`);
  if (/^[[{]/.test(trimmed)) {
    let value: unknown;
    try {
      value = JSON.parse(trimmed);
    } catch (error) {
      return refused(say`This begins like JSON and cannot be read as such: ${(error as Error).message}.`);
    }
    const rows = (Array.isArray(value) ? value : [value]).slice(0, mostLooked);
    if (!rows.every(isRecord)) return refused(say`An example is a record with named values, or a list of such.`);
    return ok(fieldsOfRecords(rows));
  }
  const table = readTable(trimmed);
  if (!table.ok) return table;
  const [heads = [], ...lines] = table.value.slice(0, mostLooked);
  if (lines.length === 0)
    return refused(say`The first line holds the headings, and at least one line of values follows.`);
  const rows = lines.map((line) =>
    Object.fromEntries(heads.map((name, at) => [name.trim(), cellValue(line[at] ?? "")])),
  );
  return ok(fieldsOfRecords(rows).filter(({ name }) => name !== ""));
}

const refused = (message: Said): Result<never> => failure({ code: "no-example", message });
type Row = { readonly [name: string]: unknown };
const isRecord = (value: unknown): value is Row => typeof value === "object" && value !== null && !Array.isArray(value);

function fieldsOfRecords(rows: readonly Row[], depth = 0): DataField[] {
  const names = [...new Set(rows.flatMap((row) => Object.keys(row)))].slice(0, 500);
  return names.map((name) => {
    const values = rows
      .map((row) => row[name])
      .filter((value) => value !== undefined && value !== null && value !== "");
    const field = {
      ...fieldOfValues(name, values, depth),
      isRequired: values.length === rows.length && rows.length > 0,
    };
    return field;
  });
}

function fieldOfValues(name: string, values: readonly unknown[], depth: number): DataField {
  const field = newField(name);
  if (values.length === 0 || depth > 15) return field;
  if (values.every(Array.isArray)) {
    const items = (values as unknown[][]).flat().slice(0, mostLooked);
    return { ...fieldOfValues(name, items, depth + 1), isList: true };
  }
  if (values.every(isRecord)) return { ...field, kind: "record", fields: fieldsOfRecords(values as Row[], depth + 1) };
  const kind = kindOf(values);
  if (kind !== "text") return { ...field, kind };
  const texts = values.map(String);
  const choices = [...new Set(texts)];
  // A few words that come again and again, none of them long, are a choice.
  const isChoice =
    choices.length > 1 &&
    choices.length <= mostChoices &&
    texts.length >= choices.length * 3 &&
    choices.every((one) => one.length <= 40);
  return isChoice ? { ...field, kind: "choice", choices: choices.sort() } : field;
}

const shapes: readonly (readonly [FieldKind, RegExp])[] = [
  ["date", /^\d{4}-\d\d-\d\d$/],
  ["dateTime", /^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:?\d\d)?$/],
  ["duration", /^-?P(?=.)(\d+Y)?(\d+M)?(\d+W)?(\d+D)?(T(?=.)(\d+H)?(\d+M)?(\d+(\.\d+)?S)?)?$/],
];
function kindOf(values: readonly unknown[]): FieldKind {
  if (values.every((value) => typeof value === "boolean")) return "yesNo";
  if (values.every((value) => typeof value === "number")) return "number";
  if (!values.every((value) => typeof value === "string")) return "text";
  return shapes.find(([, shape]) => values.every((value) => shape.test(value as string)))?.[0] ?? "text";
}

/** The cell of a spreadsheet as a value. */
function cellValue(cell: string): unknown {
  const words = cell.trim();
  if (/^-?\d+([.,]\d+)?$/.test(words) && !/^0\d/.test(words)) return Number(words.replace(",", "."));
  if (/^(yes|true)$/i.test(words)) return true;
  if (/^(no|false)$/i.test(words)) return false;
  return words;
}
