import { type Edit, type Json, type Model, sameJson, type TableName, tableNames } from "../model";

/**
 * The edits that turn one model into another of the same origin: what is gone is removed, what is new inserted, what differs
 * set field by field. apply(replacementEdits(a, b), a) holds what b holds. O(size of both).
 */
export function replacementEdits(from: Model, to: Model): Edit[] {
  const edits: Edit[] = [];
  for (const table of tableNames) {
    const before = from[table] as Iterable<{ readonly id: string }> & {
      get(id: string): { readonly id: string } | undefined;
    };
    const after = to[table] as typeof before;
    for (const record of before) {
      const next = after.get(record.id);
      if (!next || typeOf(next) !== typeOf(record)) edits.push({ kind: "remove", table, record: record as never });
    }
    for (const record of after) {
      const last = before.get(record.id);
      if (last === record) continue;
      if (!last || typeOf(last) !== typeOf(record)) edits.push({ kind: "insert", table, record: record as never });
      else edits.push(...fieldEdits(table, last, record));
    }
  }
  return edits;
}

const typeOf = (record: object) => (record as { type?: string }).type;

function fieldEdits(table: TableName, before: object, after: object): Edit[] {
  const first = before as { readonly [field: string]: Json | undefined };
  const second = after as { readonly [field: string]: Json | undefined };
  const fields = new Set([...Object.keys(first), ...Object.keys(second)]);
  const edits: Edit[] = [];
  for (const field of fields) {
    if (sameJson(first[field], second[field])) continue;
    edits.push({
      kind: "set",
      table,
      id: (before as { id: string }).id,
      field,
      from: first[field] ?? null,
      to: second[field] ?? null,
    });
  }
  return edits;
}
