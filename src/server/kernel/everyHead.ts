import { eq } from "drizzle-orm";
import { nanoid } from "nanoid";
import { type Command, perform } from "@/core/commands";
import { uses } from "@/data/schema";
import { lock } from "./act";
import { DamagedVersion, tryHead, writeBatch } from "./heads";
import type { Context } from "./useCase";
import { UseCaseError } from "./useCaseError";

/** A batch that was written into a version. */
interface Written {
  readonly version: string;
  readonly batch: string;
}

/**
 * Performs a command on every head that uses an entry; kept revisions stay as they were, and a version that cannot be read stays as it
 * is. The caller holds the directory, so that no edit uses the entry meanwhile. Gives the heads it changed.
 */
export async function inEveryHeadWith(context: Context, entry: string, command: Command): Promise<Written[]> {
  const { db } = context;
  const changed: Written[] = [];
  const found = await db.selectDistinct({ version: uses.version }).from(uses).where(eq(uses.entry, entry));
  const using = found.map(({ version }) => version).sort();
  await lock(db, "version", using);
  for (const version of using) {
    const head = await tryHead(db, version);
    if (head instanceof DamagedVersion) continue;
    const done = perform(head.model, command);
    if (!done.ok) throw new UseCaseError("refused", done.problems[0]?.said ?? "The entry could not be changed.", 409);
    if (done.value.edits.length === 0) continue;
    const batch = nanoid();
    await writeBatch(context, head, { ...done.value, batch, commands: [command] });
    changed.push({ version, batch });
  }
  return changed;
}
