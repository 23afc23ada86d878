import { type Id, isFlowNode, typeInfo } from "../model";
import { spell, type Writable } from "./attributeValues";

/** What a file says of a node's flows. */
export interface FlowLists {
  readonly incoming: Id[];
  readonly outgoing: Id[];
}
const flowListFields = ["incoming", "outgoing"] as const;

/** What a reference means as an id; without its prefix, where that stands for the file's own namespace. */
type TargetOf = (raw: string) => Id;

/** Makes ids of an element's references. That can be done only when the target namespace is known and the whole file was read. */
export function resolveReferences(record: Writable, targetOf: TargetOf): void {
  for (const { field, many } of typeInfo(record.type).references) {
    const raw = record[field] as string | string[] | undefined;
    if (raw === undefined) continue;
    if (many) record[field] = resolved(record, field, raw as string[], targetOf);
    else {
      const target = targetOf(raw as string);
      record[field] = target;
      if (target !== raw) spell(record, field, raw as string);
    }
  }
}

const resolved = (record: Writable, field: string, raw: readonly string[], targetOf: TargetOf): Id[] =>
  raw.map((one, at) => {
    const target = targetOf(one);
    if (target !== one) spell(record, `${field}.${at}`, one);
    return target;
  });

/** `incoming` and `outgoing` repeat what the flows say; they are kept only where a file has them otherwise. O(elements). */
export function keepOddFlowLists(
  elements: ReadonlyMap<Id, Writable>,
  said: ReadonlyMap<Id, FlowLists>,
  targetOf: TargetOf,
): void {
  const derived = new Map<Id, FlowLists>();
  for (const record of elements.values()) {
    if (record.type !== "sequenceFlow") continue;
    if (record.sourceRef !== undefined) flowListsOf(derived, record.sourceRef as Id).outgoing.push(record.id);
    if (record.targetRef !== undefined) flowListsOf(derived, record.targetRef as Id).incoming.push(record.id);
  }
  for (const record of elements.values()) {
    if (!isFlowNode(record.type)) continue;
    for (const field of flowListFields) {
      const raw = said.get(record.id)?.[field] ?? [];
      const expected = derived.get(record.id)?.[field] ?? [];
      if (raw.length === expected.length && raw.every((id, at) => id === expected[at])) continue;
      record[field] = resolved(record, field, raw, targetOf);
    }
  }
}

/** The lists of a node, begun where there are none yet. */
export function flowListsOf(all: Map<Id, FlowLists>, node: Id): FlowLists {
  let lists = all.get(node);
  if (!lists) {
    lists = { incoming: [], outgoing: [] };
    all.set(node, lists);
  }
  return lists;
}
