import { dataOfProcess, type Id, type Model } from "../model";
import { type DataField, fieldOf } from "./fields";

/** The data of a process as fields, by name: what has a schema, and what has none as text. O(data). */
export function fieldsOfProcess(model: Model, process: Id): DataField[] {
  return dataOfProcess(model, process).map(({ name, schema }) => fieldOf(name, parsed(schema), false));
}
function parsed(schema: string | undefined): unknown {
  try {
    return schema === undefined ? undefined : JSON.parse(schema);
  } catch {
    return undefined;
  }
}
