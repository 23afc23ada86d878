import {
  applyEdits,
  counterpartsOf,
  type Edit,
  type Element,
  type Id,
  isWithoutCounterpart,
  type Json,
  type Model,
  withCounterparts,
} from "../model";
import { isCompared } from "./compared";

/** A copy of a model whose elements remember the ones they were copied from: the beginning of a to-be. O(elements). */
export function startToBe(model: Model): Model {
  return linked(model, (element) => [element.id]);
}

/** A model whose elements remember nothing: a to-be that becomes the as-is. O(elements). */
export function withoutLinks(model: Model): Model {
  return linked(model, () => null);
}

function linked(model: Model, linksOf: (element: Element) => readonly Id[] | null): Model {
  const edits: Edit[] = [];
  for (const element of model.elements) {
    if (!isCompared(element)) continue;
    const next = withCounterparts(element, linksOf(element));
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
  if (!applied.ok) throw new Error(`Links could not be set: ${applied.problems[0]?.message}`);
  return applied.value;
}

/**
 * An element's counterparts in another model: those it names there, those that name it, and those that name the same third; else the
 * element of the same id, unless somebody has said that it has none. O(elements of the other).
 */
export function counterpartsIn(model: Model, id: Id, other: Model): Id[] {
  const element = model.elements.get(id);
  if (!element) return [];
  const links = counterpartsOf(element);
  const found = new Set(links.filter((link) => other.elements.has(link)));
  for (const candidate of other.elements) {
    const theirs = counterpartsOf(candidate);
    if (theirs.includes(id) || (links.length > 0 && theirs.some((link) => links.includes(link))))
      found.add(candidate.id);
  }
  const same = other.elements.get(id);
  if (found.size === 0 && same?.type && !isWithoutCounterpart(element) && !isWithoutCounterpart(same)) found.add(id);
  return [...found];
}
