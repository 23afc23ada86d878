import { foldedName, roleHues } from "./entry";

/** What a name means in the directory. */
export interface NamedRow {
  readonly id: string;
  readonly kind: string;
  readonly name: string;
  readonly hue: string | null;
}

/**
 * Finds names of a file or a text in the directory. What is new gets an id at once and is listed in `made`, for who enters it once the
 * rest of the work is done. Roles get hues in turn. A look-up costs O(1).
 */
export function namedEntries(
  rows: readonly NamedRow[],
  newId: (kind: string) => string,
): { resolve: (kind: string, name: string) => { entry: string; name: string }; made: readonly NamedRow[] } {
  const key = (kind: string, name: string) => `${kind}\n${foldedName(name)}`;
  const known = new Map(rows.map((row) => [key(row.kind, row.name), { entry: row.id, name: row.name }]));
  const made: NamedRow[] = [];
  let roles = rows.filter((row) => row.kind === "role").length;
  return {
    made,
    resolve: (kind, name) => {
      const found = known.get(key(kind, name));
      if (found) return found;
      const entry = { entry: newId(kind), name };
      const hue = kind === "role" ? (roleHues[roles++ % roleHues.length] as string) : null;
      made.push({ id: entry.entry, kind, name, hue });
      known.set(key(kind, name), entry);
      return entry;
    },
  };
}
