import type { Element, Id } from "./element";
import { slotFor, typeInfo } from "./metamodel/lookup";
import type { Model } from "./model";
import { referencesOf } from "./modelIndex";

/**
 * What holds of every model that commands have made. A file may break some of it; the check then says so. Used by tests, and
 * wherever edits come from outside.
 * @returns a sentence for each thing that does not hold
 */
export function brokenInvariants(model: Model): string[] {
  const broken: string[] = [];
  for (const element of model.elements) {
    broken.push(...brokenBy(model, element));
  }
  for (const table of ["diagrams", "shapes", "edges"] as const)
    for (const { id } of model[table]) broken.push(...brokenDrawing(model, table, id));
  return broken;
}

/** What does not hold of one record of a drawing; nothing where it is not there. */
export function brokenDrawing(model: Model, table: "diagrams" | "shapes" | "edges", id: Id): string[] {
  const broken: string[] = [];
  if (table === "diagrams") {
    const diagram = model.diagrams.get(id);
    if (diagram?.element !== undefined && !model.elements.has(diagram.element))
      broken.push(`page ${id} shows ${diagram.element}, which is not there`);
    return broken;
  }
  const drawn = model[table].get(id);
  if (!drawn) return broken;
  const what = `${table === "shapes" ? "shape" : "edge"} ${id}`;
  if (!model.elements.has(drawn.element)) broken.push(`${what} draws ${drawn.element}, which is not there`);
  if (!model.diagrams.has(drawn.diagram)) broken.push(`${what} is on no page`);
  if ("bounds" in drawn) {
    const { x, y, width, height } = drawn.bounds;
    if (![x, y, width, height].every(Number.isFinite)) broken.push(`${what} has no real bounds`);
    if (width < 0 || height < 0) broken.push(`${what} is smaller than nothing`);
  } else if (drawn.waypoints.length < 2) broken.push(`${what} has fewer than two waypoints`);
  return broken;
}

/** What does not hold of one element. */
export function brokenBy(model: Model, element: Element): string[] {
  const broken: string[] = [];
  if (element.parent === null) {
    if (element.id !== model.root) broken.push(`${element.id} stands in nothing`);
    return broken;
  }
  const parent = model.elements.get(element.parent);
  if (!parent) broken.push(`${element.id} stands in ${element.parent}, which is not there`);
  else {
    const content = typeInfo(parent.type).content.get(element.slot);
    if (content?.kind !== "children" || !content.types.includes(element.type)) {
      broken.push(
        `a ${element.type} (${element.id}) stands in the ${element.slot} of a ${parent.type}; it belongs into its ${slotFor(parent.type, element.type) ?? "nothing"}`,
      );
    }
  }
  for (const [target, field] of referencesOf(element)) {
    if (field === "calledElement" || target.includes(":")) continue;
    if (!model.elements.has(target)) broken.push(`${element.id} names ${target} as its ${field}, which is not there`);
  }
  return broken;
}
