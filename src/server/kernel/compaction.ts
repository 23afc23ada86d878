import { and, asc, eq, isNull, sql } from "drizzle-orm";
import { database } from "@/data/database";
import { log, revisions } from "@/data/schema";
import { lock, reading, type Transaction, writing } from "./act";
import { batchesOf } from "./storedModels";
import { hasThreads, inThread } from "./threads";

interface Row {
  readonly number: number;
  readonly sequence: number;
  readonly isWhole: boolean;
  /** Bytes of the model as it is stored; 0 where it is not. */
  readonly bytes: number;
}

/**
 * Revisions that the log can make anew are kept without their model. The newest of a version stays whole, and so does one in so many
 * that what is replayed onto it never takes more room than the model itself: whole revisions then cost no more than the log, and
 * opening one costs no more than reading it twice. Nothing is dropped before it was made anew and compared (decision 33).
 * Where nothing was built there are no threads, and nobody is kept waiting for what only saves room.
 */
export async function compact(version: string): Promise<void> {
  if (!hasThreads()) return;
  const { db } = await database();
  const rows: Row[] = await db
    .select({
      number: revisions.number,
      sequence: revisions.sequence,
      isWhole: sql<boolean>`${revisions.model} is not null`,
      bytes: sql<number>`coalesce(pg_column_size(${revisions.model}), 0)`,
    })
    .from(revisions)
    .where(eq(revisions.version, version))
    .orderBy(asc(revisions.number));
  let base: Row | undefined;
  for (const row of rows.slice(0, -1)) {
    if (!row.isWhole) continue;
    if (base && (await isWithin(db as unknown as Transaction, version, base, row))) {
      const isRebuilt = await reading(db, (part) => isMadeAnew(part, version, base as Row, row));
      if (isRebuilt) {
        await writing(db, (part) => leaveToLog(part, version, base as Row, row));
        continue;
      }
    }
    base = row;
  }
}

/** Whether what was logged in between takes no more room than the model. */
async function isWithin(db: Transaction, version: string, base: Row, row: Row): Promise<boolean> {
  const [{ bytes } = { bytes: 0 }] = await db
    .select({ bytes: sql<number>`coalesce(sum(pg_column_size(${log.edits})), 0)::int` })
    .from(log)
    .where(
      and(eq(log.version, version), sql`${log.sequence} > ${base.sequence} and ${log.sequence} <= ${row.sequence}`),
    );
  return bytes <= row.bytes;
}

async function isMadeAnew(db: Transaction, version: string, base: Row, row: Row): Promise<boolean> {
  const textOf = async ({ number }: Row) => {
    const [found] = await db
      .select({ model: sql<string | null>`${revisions.model}::text` })
      .from(revisions)
      .where(and(eq(revisions.version, version), eq(revisions.number, number)));
    return found?.model ?? undefined;
  };
  const [from, wanted] = [await textOf(base), await textOf(row)];
  if (from === undefined || wanted === undefined) return false;
  const edits = await batchesOf(db, version, base.sequence, row.sequence);
  return inThread("isRebuilt", {}, { base: from, edits: JSON.stringify(edits), wanted });
}

/**
 * Both still stand as they were looked at, since a backup may have been restored meanwhile, and nothing is built on what goes. With the
 * version locked, since of two processes one could otherwise leave to the log what the other is just building on.
 */
async function leaveToLog(db: Transaction, version: string, base: Row, row: Row): Promise<void> {
  await lock(db, "version", [version]);
  await db
    .update(revisions)
    .set({ model: null, builtOn: base.number })
    .where(
      and(
        eq(revisions.version, version),
        eq(revisions.number, row.number),
        eq(revisions.sequence, row.sequence),
        isNull(revisions.builtOn),
        sql`exists (select 1 from revisions as base where base.version = ${version} and base.number = ${base.number}
          and base.sequence = ${base.sequence} and base.model is not null)`,
        sql`not exists (select 1 from revisions as later where later.version = ${version} and later.built_on = ${row.number})`,
      ),
    );
}
