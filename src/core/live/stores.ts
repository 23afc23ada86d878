import { type CaseData, valueFor } from "../feel";
import { childrenOf, fieldUsesOf, type Id, type Model, nameOf, systemsOf } from "../model";

const known = new WeakMap<Model, Map<Id, readonly string[]>>();

/**
 * What a step writes into: data stores that it gives data to in the drawing, and IT systems that it is said to write. A stand-in of each
 * keeps what is written, a row each time. Looked up once for each step of a model.
 */
export function storesOf(model: Model, step: Id): readonly string[] {
  const ofModel = known.get(model) ?? new Map<Id, readonly string[]>();
  known.set(model, ofModel);
  const found = ofModel.get(step) ?? foundStores(model, step);
  ofModel.set(step, found);
  return found;
}

function foundStores(model: Model, step: Id): readonly string[] {
  const element = model.elements.get(step);
  if (!element) return [];
  const drawn = childrenOf(model, step)
    .filter(({ type }) => type === "dataOutputAssociation")
    .flatMap(({ targetRef }) => {
      const target = model.elements.get(String(targetRef ?? ""));
      return target?.type === "dataStoreReference" ? [nameOf(model, target.id) || target.id] : [];
    });
  const said = systemsOf(element)
    .filter(({ use }) => use === "writes")
    .map(({ name }) => name);
  return [...new Set([...drawn, ...said])];
}

/** What a step writes: the fields it hands over, as they are mapped; where none are, the data of the case as it is. */
export function writtenBy(model: Model, step: Id, data: CaseData): CaseData {
  const element = model.elements.get(step);
  const mapped = element ? fieldUsesOf(element).filter(({ direction }) => direction === "in") : [];
  if (mapped.length === 0) return data;
  return Object.fromEntries(mapped.map(({ field, is }) => [field, valueFor(is, data) ?? null]));
}
