import { isNull } from "drizzle-orm";
import { nanoid } from "nanoid";
import type { Resolve } from "@/core/capture";
import { foldedName, roleHues } from "@/core/directory";
import { directory } from "@/data/schema";
import type { Transaction } from "./kernel/act";

/**
 * Finds names of a file in the directory. What is new gets an id at once and is entered with `save`, so that a file that
 * cannot be read leaves nothing behind.
 */
export async function directoryNames(
  db: Transaction,
): Promise<{ resolve: Resolve; save: (db: Transaction) => Promise<void> }> {
  const rows = await db.select().from(directory).where(isNull(directory.deletedAt));
  const key = (kind: string, name: string) => `${kind}\n${foldedName(name)}`;
  const known = new Map(rows.map((row) => [key(row.kind, row.name), { entry: row.id, name: row.name }]));
  const made: (typeof directory.$inferInsert)[] = [];
  let roles = rows.filter((row) => row.kind === "role").length;
  return {
    resolve: (kind, name) => {
      const found = known.get(key(kind, name));
      if (found) return found;
      const entry = { entry: `${kind}-${nanoid(8)}`, name };
      const hue = kind === "role" ? (roleHues[roles++ % roleHues.length] as string) : null;
      made.push({ id: entry.entry, kind, name, description: "", unit: null, hue });
      known.set(key(kind, name), entry);
      return entry;
    },
    save: async (db) => {
      for (let at = 0; at < made.length; at += 500) await db.insert(directory).values(made.slice(at, at + 500));
    },
  };
}
