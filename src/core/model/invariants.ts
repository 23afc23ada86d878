import type { Element } from "./element";
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
  for (const shape of model.shapes) {
    if (!model.elements.has(shape.element)) broken.push(`shape ${shape.id} draws ${shape.element}, which is not there`);
    if (!model.diagrams.has(shape.diagram)) broken.push(`shape ${shape.id} is on no page`);
    if (![shape.bounds.x, shape.bounds.y, shape.bounds.width, shape.bounds.height].every(Number.isFinite))
      broken.push(`shape ${shape.id} has no real bounds`);
  }
  for (const edge of model.edges) {
    if (!model.elements.has(edge.element)) broken.push(`edge ${edge.id} draws ${edge.element}, which is not there`);
    if (!model.diagrams.has(edge.diagram)) broken.push(`edge ${edge.id} is on no page`);
    if (edge.waypoints.length < 2) broken.push(`edge ${edge.id} has fewer than two waypoints`);
  }
  for (const diagram of model.diagrams) {
    if (diagram.element !== undefined && !model.elements.has(diagram.element))
      broken.push(`page ${diagram.id} shows ${diagram.element}, which is not there`);
  }
  return broken;
}

function brokenBy(model: Model, element: Element): string[] {
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
