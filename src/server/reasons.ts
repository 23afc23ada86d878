import { and, eq } from "drizzle-orm";
import { z } from "zod";
import { type Reason, reasonSchema } from "@/core/compare";
import { changeReasons, members } from "@/data/schema";
import type { Transaction } from "./kernel/act";
import { query, useCase } from "./useCase";

const id = z.string().min(1).max(200);

export interface ReasonRow {
  readonly change: string;
  readonly words: string;
  readonly reason: Reason;
  readonly member: string;
  readonly at: string;
}

/** Why the changes from one version to another are made. */
export const listReasons = query(
  z.object({ version: id, against: id }),
  async ({ db }, { version, against }): Promise<{ reasons: ReasonRow[] }> => {
    const rows = await db
      .select({
        change: changeReasons.change,
        words: changeReasons.words,
        reason: changeReasons.content,
        member: members.name,
        at: changeReasons.at,
      })
      .from(changeReasons)
      .leftJoin(members, eq(members.id, changeReasons.member))
      .where(and(eq(changeReasons.version, version), eq(changeReasons.against, against)));
    return { reasons: rows.map((row) => ({ ...row, member: row.member ?? "" })) };
  },
);

/** Gives a change its reason, or another one; `null` takes it back. */
export const giveReason = useCase(
  z.object({
    version: id,
    against: id,
    change: z.string().min(1).max(500),
    words: z.string().max(2_000),
    reason: reasonSchema.nullable(),
  }),
  async ({ db, member, now }, { reason, ...row }) => {
    const key = [changeReasons.version, changeReasons.against, changeReasons.change];
    if (reason === null)
      await db
        .delete(changeReasons)
        .where(
          and(
            eq(changeReasons.version, row.version),
            eq(changeReasons.against, row.against),
            eq(changeReasons.change, row.change),
          ),
        );
    else {
      const written = { words: row.words, content: reason, member: member.id, at: now() };
      await db
        .insert(changeReasons)
        .values({ ...row, ...written })
        .onConflictDoUpdate({ target: key, set: written });
    }
    return {};
  },
);

/** What was said of the changes of a version goes along where it and what it was compared with are copied. `ids`: the copies by their sources. */
export async function copyReasons(db: Transaction, version: string, ids: ReadonlyMap<string, string>): Promise<void> {
  const rows = await db.select().from(changeReasons).where(eq(changeReasons.version, version));
  const copies = rows.flatMap((row) => {
    const [copy, against] = [ids.get(version), ids.get(row.against)];
    return copy && against ? [{ ...row, version: copy, against }] : [];
  });
  if (copies.length > 0) await db.insert(changeReasons).values(copies);
}
