import { type Json, sameJson } from "../model";

export interface Plain {
  readonly id: string;
  readonly [field: string]: unknown;
}

export interface FieldConflict {
  readonly field: string;
  readonly base: Json;
  readonly ours: Json;
  readonly theirs: Json;
}

/** Lists without an order of their own: what either side added is in, what either took out is out. */
const setFields = new Set([
  "flowNodeRef",
  "incoming",
  "outgoing",
  "extension",
  "foreignAttributes",
  "categoryValueRef",
]);

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
    else
      conflicts.push({
        field,
        base: (before ?? null) as Json,
        ours: (mine ?? null) as Json,
        theirs: (other ?? null) as Json,
      });
  }
  return { record: record as Plain, conflicts };
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
