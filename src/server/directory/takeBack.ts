import { and, eq, inArray, isNull } from "drizzle-orm";
import { nanoid } from "nanoid";
import { directory as terms } from "@/contract";
import { type Command, perform, undoOf } from "@/core/commands";
import { type DirectoryEntry, isWithin } from "@/core/directory";
import type { Edit } from "@/core/model";
import { directory, log } from "@/data/schema";
import { lock } from "../kernel/act";
import { loadHead, writeBatch } from "../kernel/heads";
import { type Context, UseCaseError, useCase } from "../kernel/useCase";
import { needsUnused } from "../kernel/usesOf";

/**
 * Takes a merge or an import of the directory back: what went comes back, what was made goes, what was changed is as it was, and what
 * was written into versions is undone on what they hold now. All of it or nothing.
 */
export const takeBackDirectory = useCase(terms.takeBackDirectory, async (context, { gone, made, changed, batches }) => {
  const { db, now } = context;
  await lock(db, "directory");
  if (made.length > 0) await needsUnused(db, made);
  await lock(db, "version", batches.map(({ version }) => version).sort());
  for (const one of batches) await undoBatch(context, one);
  if (gone.length > 0) await db.update(directory).set({ deletedAt: null }).where(inArray(directory.id, gone));
  if (made.length > 0) await db.update(directory).set({ deletedAt: now() }).where(inArray(directory.id, made));
  for (const { id, fields } of changed)
    if (Object.keys(fields).length > 0) await db.update(directory).set(fields).where(eq(directory.id, id));
  const all = (await db.select().from(directory).where(isNull(directory.deletedAt))) as DirectoryEntry[];
  if (changed.some(({ id, fields }) => fields.unit != null && isWithin(all, fields.unit, id)))
    throw new UseCaseError("unit-in-itself", "A unit cannot be part of itself, or of a unit that is part of it.");
  return {};
});

async function undoBatch(context: Context, { version, batch }: { version: string; batch: string }): Promise<void> {
  const { db } = context;
  const [row] = await db
    .select({ edits: log.edits, label: log.label, commands: log.commands })
    .from(log)
    .where(and(eq(log.version, version), eq(log.batch, batch)));
  if (!row) throw new UseCaseError("too-old", "This was done too long ago to be taken back.", 409);
  // What else was done in a version is undone there, by who may change it.
  const [first] = row.commands as readonly { readonly type?: string }[];
  if (first?.type !== "mergeEntry") throw new UseCaseError("no-merge", "This was no merge of the directory.", 422);
  const head = await loadHead(db, version);
  const command = undoOf({ edits: row.edits as readonly Edit[], label: row.label }) as Command;
  const done = perform(head.model, command);
  if (!done.ok) throw new UseCaseError("refused", done.problems[0]?.said ?? "This cannot be taken back.", 409);
  if (done.value.edits.length === 0) return;
  await writeBatch(context, head, { ...done.value, batch: nanoid(), commands: [command] });
}
