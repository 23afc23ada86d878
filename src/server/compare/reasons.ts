import { and, eq } from "drizzle-orm";
import { compare } from "@/contract";
import type { ReasonRow } from "@/contract/compare";
import { changeReasons, members } from "@/data/schema";
import { query, useCase } from "../kernel/useCase";

/** Why the changes from one version to another are made. */
export const listReasons = query(
  compare.listReasons,
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
export const giveReason = useCase(compare.giveReason, async ({ db, member, now }, { reason, ...row }) => {
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
});
