import { eq, inArray } from "drizzle-orm";
import { members, signInUsers } from "@/data/schema";
import type { Transaction } from "../kernel/act";
import type { Context } from "../kernel/useCase";

type Row = typeof members.$inferSelect;

/** Members who can sign in, before a backup takes the place of everything. */
export async function membersWithAccess(db: Transaction): Promise<readonly Row[]> {
  const ids = (await db.select({ id: signInUsers.id }).from(signInUsers)).map(({ id }) => id);
  return ids.length === 0 ? [] : db.select().from(members).where(inArray(members.id, ids));
}

/**
 * Who may sign in belongs to the installation: a member whom the backup does not know is a member still, and whoever restores it owns the
 * workspace afterwards, whatever the backup says; nobody is locked out by an old one.
 */
export async function keepAccess({ db, member }: Context, before: readonly Row[]): Promise<void> {
  for (const row of before) {
    await db
      .insert(members)
      .values(row)
      .onConflictDoUpdate({ target: members.id, set: { removedAt: row.removedAt } });
  }
  await db.update(members).set({ seat: "owner" }).where(eq(members.id, member.id));
}
