import { type Json, sameJson, type XmlNode } from "../model";
import { type MergedContent, mergeAttributes, mergeNodes, mergeTexts, type Side } from "./mergeContent";

export interface Plain {
  readonly id: string;
  readonly [field: string]: unknown;
}

export interface FieldConflict {
  readonly field: string;
  readonly base: Json;
  readonly ours: Json;
  readonly theirs: Json;
  /** What the field becomes if it is decided for a side: of content, only the clashing parts are that side's. */
  readonly decided: { readonly [side in Side]: Json };
}

/** Lists without an order of their own: what either side added is in, what either took out is out. */
const setFields = new Set(["flowNodeRef", "incoming", "outgoing", "categoryValueRef"]);

type Merging = (base: unknown, ours: unknown, theirs: unknown, prefer: Side) => MergedContent<unknown>;
const listed = (value: unknown) => (Array.isArray(value) ? value : []) as never[];

/** Fields that hold content of their own, which is merged inside. */
const contentFields: { readonly [field: string]: Merging } = {
  extension: (base, ours, theirs, prefer) =>
    mergeNodes(listed(base), listed(ours), listed(theirs) as readonly XmlNode[], prefer),
  extensionAttributes: (base, ours, theirs, prefer) =>
    mergeAttributes(listed(base), listed(ours), listed(theirs), prefer),
  foreignAttributes: (base, ours, theirs, prefer) =>
    mergeAttributes(listed(base), listed(ours), listed(theirs), prefer),
  documentation: (base, ours, theirs, prefer) => mergeTexts(listed(base), listed(ours), listed(theirs), prefer),
};

/**
 * One record from three: each field from the side that changed it. Where both did, differently, the field is a conflict, and stays
 * as ours.
 */
export function mergeRecord(base: Plain, ours: Plain, theirs: Plain): { record: Plain; conflicts: FieldConflict[] } {
  if (ours === theirs || theirs === base) return { record: ours, conflicts: [] };
  if (ours === base) return { record: theirs, conflicts: [] };
  const record: { [field: string]: unknown } = { ...ours };
  const conflicts: FieldConflict[] = [];
  for (const field of new Set([...Object.keys(ours), ...Object.keys(theirs), ...Object.keys(base)])) {
    const [before, mine, other] = [base[field], ours[field], theirs[field]];
    if (sameJson(mine, other) || sameJson(other, before)) continue;
    if (sameJson(mine, before)) put(record, field, other);
    else if (setFields.has(field)) put(record, field, mergeSet(before, mine, other));
    else if (contentFields[field]) mergeInside(record, conflicts, field, [before, mine, other]);
    else {
      const [ours, theirs] = [(mine ?? null) as Json, (other ?? null) as Json];
      conflicts.push({ field, base: (before ?? null) as Json, ours, theirs, decided: { ours, theirs } });
    }
  }
  return { record: record as Plain, conflicts };
}

/** Content that both sides changed is one conflict, of what clashes in it. */
function mergeInside(
  record: { [field: string]: unknown },
  conflicts: FieldConflict[],
  field: string,
  [base, ours, theirs]: readonly [unknown, unknown, unknown],
): void {
  const merge = contentFields[field] as Merging;
  const sides = { ours: merge(base, ours, theirs, "ours"), theirs: merge(base, ours, theirs, "theirs") };
  const value = (side: Side) => (sides[side].items.length > 0 ? (sides[side].items as Json) : null);
  put(record, field, value("ours"));
  if (sides.ours.clashes.length === 0) return;
  const told = (side: Side) => sides.ours.clashes.map((clash) => clash[side]).join("; ");
  conflicts.push({
    field,
    base: (base ?? null) as Json,
    ours: told("ours"),
    theirs: told("theirs"),
    decided: { ours: value("ours"), theirs: value("theirs") },
  });
}

function put(record: { [field: string]: unknown }, field: string, value: unknown): void {
  if (value === undefined || value === null) delete record[field];
  else record[field] = value;
}

function mergeSet(base: unknown, ours: unknown, theirs: unknown): unknown[] | undefined {
  const list = (value: unknown) => (Array.isArray(value) ? (value as unknown[]) : []);
  const has = (all: readonly unknown[], one: unknown) => all.some((other) => sameJson(other, one));
  const [before, mine, other] = [list(base), list(ours), list(theirs)];
  const kept = mine.filter((one) => has(other, one) || !has(before, one));
  const added = other.filter((one) => !has(before, one) && !has(mine, one));
  const merged = [...kept, ...added];
  return merged.length > 0 ? merged : undefined;
}
