import { and, asc, desc, eq, inArray, isNull } from "drizzle-orm";
import { countsAt, fieldsOf, type LensField, lensSchema } from "@/core/lens";
import type { Id, Model } from "@/core/model";
import { directory, lenses, logs, threads, versions } from "@/data/schema";
import type { LensedInput } from "@/jobs/lenses";
import type { Transaction } from "../kernel/act";
import { standingIn } from "../live/runs";
import { decisionsOf } from "../walk/walks";

/**
 * What some lenses are to find out about a version, for a thread to tell what they mark there: only what they ask for is read. Lenses that
 * are there no more are passed over; undefined where none is left.
 */
export async function lensedInput(
  db: Transaction,
  version: string,
  model: Model,
  ids: readonly string[],
): Promise<LensedInput | undefined> {
  if (ids.length === 0) return undefined;
  const rows = await db
    .select()
    .from(lenses)
    .where(and(inArray(lenses.id, [...ids]), isNull(lenses.deletedAt)))
    .orderBy(asc(lenses.at), asc(lenses.id));
  const wanted = rows.flatMap(({ content }) => lensSchema.safeParse(content).data ?? []);
  if (wanted.length === 0) return undefined;
  const fields = new Set<LensField>(wanted.flatMap((lens) => [...fieldsOf(lens)]));
  const asks = (...some: readonly LensField[]) => some.some((field) => fields.has(field));
  const isForeseen = asks("takes", "waits", "costs", "busy");
  const roles = isForeseen
    ? await db
        .select()
        .from(directory)
        .where(and(eq(directory.kind, "role"), isNull(directory.deletedAt)))
        .orderBy(asc(directory.id))
    : [];
  const standing = asks("cases", "incidents") ? await standingIn(db, version) : undefined;
  const log = asks("deviates") ? await newestLog(db, version) : undefined;
  return {
    lenses: wanted,
    roles,
    decisions: isForeseen ? (await decisionsOf(db, [model])).map(({ id, content }) => ({ id, content })) : [],
    ...(asks("comments") && { comments: await openComments(db, version) }),
    ...(standing && {
      cases: standing.map(({ element, waiting }) => [element, waiting] as const),
      incidents: standing.map(({ element, incidents }) => [element, incidents] as const),
    }),
    ...(log && { log }),
  };
}

async function openComments(db: Transaction, version: string): Promise<(readonly [Id, number])[]> {
  const open = await db
    .select({ about: threads.about })
    .from(threads)
    .where(and(eq(threads.version, version), isNull(threads.deletedAt), isNull(threads.resolvedAt)));
  return [...countsAt(open.flatMap(({ about }) => (about.kind === "element" ? [about.key] : [])))];
}

/** The newest log of the process that a version belongs to, as it is held against it. */
async function newestLog(db: Transaction, version: string) {
  const process = db.select({ process: versions.process }).from(versions).where(eq(versions.id, version));
  const siblings = db
    .select({ id: versions.id })
    .from(versions)
    .where(and(inArray(versions.process, process), isNull(versions.deletedAt)));
  const [row] = await db
    .select({ id: logs.id, content: logs.content, steps: logs.steps })
    .from(logs)
    .where(and(inArray(logs.version, siblings), isNull(logs.deletedAt)))
    .orderBy(desc(logs.at), desc(logs.id))
    .limit(1);
  return row && { log: row.id, packed: new Uint8Array(row.content), filters: [], steps: row.steps };
}
