import { and, desc, eq } from "drizzle-orm";
import { inVersion } from "@/contract";
import type { RevisionRow } from "@/contract/version";
import { say } from "@/core/messages";
import { toStored } from "@/core/model";
import { heads, members, revisions } from "@/data/schema";
import { replaceHead } from "../kernel/heads";
import { keepBefore, keepRestedRevision, keepRevision, loadRevision } from "../kernel/revisions";
import { notFound, query, useCase } from "../kernel/useCase";

export const listRevisions = useCase(
  inVersion.listRevisions,
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

export const nameRevision = useCase(inVersion.nameRevision, async (context, { version, reason }) => ({
  number: await keepRevision(context, version, reason),
}));

/** Gives a kept state another name. */
export const labelRevision = useCase(inVersion.labelRevision, async ({ db }, { version, number, reason }) => {
  const changed = await db
    .update(revisions)
    .set({ reason })
    .where(and(eq(revisions.version, version), eq(revisions.number, number)))
    .returning({ number: revisions.number });
  if (changed.length === 0) throw notFound(say`Revision ${number}`);
  return {};
});

export const openRevision = query(inVersion.openRevision, async (context, { version, number }) => ({
  number,
  model: toStored(await loadRevision(context, version, number)),
}));

/** Puts a kept state back. What was there until now is kept as a revision first, and the restored state is a new one. */
export const restoreRevision = useCase(inVersion.restoreRevision, async (context, { version, number }) => {
  const wanted = await loadRevision(context, version, number);
  await keepBefore(context, version, `restoring revision ${number}`);
  await replaceHead(context, version, wanted, `restore revision ${number}`);
  return { number: await keepRevision(context, version, `revision ${number} restored`) };
});
