import { applyEdits, type Edit, type Json, type Model, withCounterparts } from "../model";
import { isCompared } from "./compared";

/** A copy of a model whose elements remember the ones they were copied from: the beginning of a to-be. O(elements). */
export function startToBe(model: Model): Model {
  const edits: Edit[] = [];
  for (const element of model.elements) {
    if (!isCompared(element)) continue;
    const next = withCounterparts(element, [element.id]);
    edits.push({
      kind: "set",
      table: "elements",
      id: element.id,
      field: "extension",
      from: (element.extension ?? null) as Json,
      to: (next ?? null) as Json,
    });
  }
  const applied = applyEdits(model, edits);
  if (!applied.ok) throw new Error(`A copy could not be linked to its original: ${applied.problems[0]?.message}`);
  return applied.value;
}
