import type { DataType } from "../feel";
import type { DecisionModel } from "./model";

/** The simple types of DMN as the kinds that data of a case is typed in. */
const kinds: { readonly [type: string]: DataType } = {
  number: "number",
  string: "text",
  boolean: "yesNo",
  date: "date",
  time: "time",
  "date and time": "dateAndTime",
  dateTime: "dateAndTime",
  "days and time duration": "duration",
  "years and months duration": "duration",
};

/** What kind of value is asked for by a type; undefined for lists, structures and what nobody said. */
export function dataTypeOf(model: DecisionModel, type: string | undefined, depth = 0): DataType | undefined {
  const item = depth < 20 ? model.types.get(type ?? "") : undefined;
  if (!item) return kinds[type ?? ""];
  return item.isCollection || item.parts.length > 0 ? undefined : dataTypeOf(model, item.base, depth + 1);
}
