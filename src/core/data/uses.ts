import { childrenOf, dataOfProcess, type Element, flowNodesIn, type Id, isSubProcess, type Model } from "../model";
import type { DataField } from "./fields";
import { fieldsOfProcess } from "./ofProcess";

export type DataUse = "none" | "reads" | "creates" | "changes";

/** What the steps of a process do with its data, by step and data. */
export interface DataMatrix {
  readonly steps: readonly Element[];
  readonly data: readonly { readonly id: Id; readonly name: string }[];
  readonly useOf: (step: Id, data: Id) => DataUse;
}

/** What a node reads and writes, by the data itself, however it is drawn. */
export function nodeUses(
  model: Model,
  node: Id,
  placeOf: ReadonlyMap<Id, Id>,
): { readonly reads: Set<Id>; readonly writes: Set<Id> } {
  const [reads, writes] = [new Set<Id>(), new Set<Id>()];
  for (const one of childrenOf(model, node)) {
    const sources = one.type === "dataInputAssociation" ? [one.sourceRef as Id | readonly Id[]].flat() : [];
    for (const source of sources) if (placeOf.has(source)) reads.add(placeOf.get(source) as Id);
    const target = one.type === "dataOutputAssociation" ? (one.targetRef as Id | undefined) : undefined;
    if (target !== undefined && placeOf.has(target)) writes.add(placeOf.get(target) as Id);
  }
  return { reads, writes };
}

/** Which data each object, property and reference stands for. */
export const placesOf = (model: Model, process: Id): ReadonlyMap<Id, Id> =>
  new Map(
    dataOfProcess(model, process).flatMap(({ id, references }) =>
      [id, ...references].map((place) => [place, id] as const),
    ),
  );

/** The matrix of a process: its steps in the order of the file, its data, and what each does with which. O(steps × associations). */
export function dataMatrix(model: Model, process: Id): DataMatrix {
  const places = placesOf(model, process);
  const steps = nodesIn(model, process).filter(({ type }) => !type.endsWith("Gateway"));
  const uses = new Map(steps.map(({ id }) => [id, nodeUses(model, id, places)]));
  return {
    steps,
    data: dataOfProcess(model, process).map(({ id, name }) => ({ id, name })),
    useOf: (step, data) => {
      const own = uses.get(step);
      const [reads, writes] = [own?.reads.has(data) ?? false, own?.writes.has(data) ?? false];
      return reads ? (writes ? "changes" : "reads") : writes ? "creates" : "none";
    },
  };
}

/** A piece of data that can be said in one word, by its path: "Connection application.rated power". */
export interface PieceOfData {
  readonly path: string;
  readonly field: DataField;
}

/** The single values of a process: of its records the parts, without what there may be several of. O(fields). */
export function piecesOfProcess(model: Model, process: Id): PieceOfData[] {
  const pieces = (field: DataField, path: readonly string[]): PieceOfData[] => {
    if (field.isList) return [];
    const inside = field.kind === "record" ? (field.fields ?? []) : undefined;
    if (!inside) return [{ path: path.join("."), field }];
    return inside.flatMap((part) => pieces(part, [...path, part.name]));
  };
  return fieldsOfProcess(model, process).flatMap((field) => pieces(field, [field.name]));
}

function nodesIn(model: Model, scope: Id): Element[] {
  return flowNodesIn(model, scope).flatMap((node) => [
    node,
    ...(isSubProcess(node.type) ? nodesIn(model, node.id) : []),
  ]);
}
