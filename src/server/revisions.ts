import { and, desc, eq } from "drizzle-orm";
import { z } from "zod";
import { fromStored, type Model, toStored } from "@/core/model";
import { heads, members, revisions } from "@/data/schema";
import { DamagedVersion, loadHead, replaceHead, tryHead } from "./heads";
import { lock } from "./kernel/act";
import { id, revisionNumber } from "./kernel/inputs";
import { type Context, notFound, query, UseCaseError, useCase } from "./useCase";

const restMilliseconds = 10 * 60 * 1000;

export interface RevisionRow {
  readonly number: number;
  readonly reason: string;
  readonly at: string;
  readonly member: string;
  readonly sequence: number;
}

/**
 * Keeps the head as a revision, in the act that has read it: what is kept is what the act saw. After rest, only what has changed since
 * the last one. Gives the number that holds the head's state.
 */
export async function keepRevision(context: Context, version: string, reason: string): Promise<number> {
  await lock(context.db, "version", [version]);
  const head = await loadHead(context.db, version);
  const last = await lastRevision(context, version);
  if (last && last.sequence === head.sequence && reason === "rest") return last.number;
  const number = (last?.number ?? 0) + 1;
  await context.db.insert(revisions).values({
    version,
    number,
    reason,
    sequence: head.sequence,
    model: toStored(head.model),
    member: context.member.id,
    at: context.now(),
  });
  return number;
}

/** Keeps what a version holds before something large is done to it, unless the last revision holds it already. */
export async function keepBefore(context: Context, version: string, what: string): Promise<void> {
  await lock(context.db, "version", [version]);
  const head = await tryHead(context.db, version);
  if (head instanceof DamagedVersion) return;
  const last = await lastRevision(context, version);
  if (!last || last.sequence < head.sequence) await keepRevision(context, version, `before ${what}`);
}

async function lastRevision(context: Context, version: string) {
  const [last] = await context.db
    .select({ number: revisions.number, sequence: revisions.sequence })
    .from(revisions)
    .where(eq(revisions.version, version))
    .orderBy(desc(revisions.number))
    .limit(1);
  return last;
}

/** After ten minutes of rest, what was there becomes a revision before the next change comes. */
export async function keepRestedRevision(context: Context, version: string): Promise<void> {
  await lock(context.db, "version", [version]);
  if ((await tryHead(context.db, version)) instanceof DamagedVersion) return;
  const [head] = await context.db
    .select({ sequence: heads.sequence, changedAt: heads.changedAt })
    .from(heads)
    .where(eq(heads.version, version));
  if (!head || head.sequence === 0) return;
  if (Date.parse(context.now()) - Date.parse(head.changedAt) < restMilliseconds) return;
  const last = await lastRevision(context, version);
  if (!last || last.sequence < head.sequence) await keepRevision(context, version, "rest");
}

export const listRevisions = useCase(
  z.object({ version: id }),
  async (context, { version }): Promise<{ revisions: RevisionRow[]; changedSince: boolean }> => {
    await keepRestedRevision(context, version);
    const rows = await context.db
      .select({
        number: revisions.number,
        reason: revisions.reason,
        at: revisions.at,
        member: members.name,
        sequence: revisions.sequence,
      })
      .from(revisions)
      .leftJoin(members, eq(members.id, revisions.member))
      .where(eq(revisions.version, version))
      .orderBy(desc(revisions.number));
    const [head] = await context.db.select({ sequence: heads.sequence }).from(heads).where(eq(heads.version, version));
    return {
      revisions: rows.map((row) => ({ ...row, member: row.member ?? "" })),
      changedSince: (head?.sequence ?? 0) > (rows[0]?.sequence ?? -1),
    };
  },
);

export const nameRevision = useCase(
  z.object({ version: id, reason: z.string().trim().min(1).max(200) }),
  async (context, { version, reason }) => ({ number: await keepRevision(context, version, reason) }),
);

/** Gives a kept state another name. */
export const labelRevision = useCase(
  z.object({ version: id, number: revisionNumber, reason: z.string().trim().min(1).max(200) }),
  async ({ db }, { version, number, reason }) => {
    const changed = await db
      .update(revisions)
      .set({ reason })
      .where(and(eq(revisions.version, version), eq(revisions.number, number)))
      .returning({ number: revisions.number });
    if (changed.length === 0) throw notFound(`Revision ${number}`);
    return {};
  },
);

export async function loadRevision(context: Context, version: string, number: number): Promise<Model> {
  const [row] = await context.db
    .select({ model: revisions.model })
    .from(revisions)
    .where(and(eq(revisions.version, version), eq(revisions.number, number)));
  if (!row) throw notFound(`Revision ${number}`);
  const opened = fromStored(row.model);
  if (!opened.ok)
    throw new UseCaseError(
      "damaged",
      `Revision ${number} cannot be read (${opened.problems[0]?.message}). Choose an older one, or restore a backup.`,
      422,
    );
  return opened.value;
}

export const openRevision = query(
  z.object({ version: id, number: revisionNumber }),
  async (context, { version, number }) => ({
    number,
    model: toStored(await loadRevision(context, version, number)),
  }),
);

/** Puts a kept state back. What was there until now is kept as a revision first, and the restored state is a new one. */
export const restoreRevision = useCase(
  z.object({ version: id, number: revisionNumber }),
  async (context, { version, number }) => {
    const wanted = await loadRevision(context, version, number);
    await keepBefore(context, version, `restoring revision ${number}`);
    await replaceHead(context, version, wanted, `restore revision ${number}`);
    return { number: await keepRevision(context, version, `revision ${number} restored`) };
  },
);
