import { isNull } from "drizzle-orm";
import type { NamedRow } from "@/core/directory";
import { directory } from "@/data/schema";
import { lock, type Transaction } from "../kernel/act";
import { insertRows } from "../kernel/manyRows";

/** What names mean in the directory now: what files and texts are read with. */
export const namesIn = (db: Transaction): Promise<NamedRow[]> =>
  db
    .select({ id: directory.id, kind: directory.kind, name: directory.name, hue: directory.hue })
    .from(directory)
    .where(isNull(directory.deletedAt));

/** Enters what a file or text named that was not there yet. */
export async function enterNames(db: Transaction, made: readonly NamedRow[]): Promise<void> {
  if (made.length === 0) return;
  await lock(db, "directory");
  await insertRows(db, directory, made);
}
