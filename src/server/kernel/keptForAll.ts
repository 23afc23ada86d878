import { and, count, eq, isNull } from "drizzle-orm";
import type { z } from "zod";
import { say, term } from "@/core/messages";
import type { KeptByAll } from "@/data/schema";
import { lock, type Transaction } from "./act";
import { type Context, notFound, UseCaseError } from "./useCase";

interface Kept<Content> {
  /** A table of the columns that all such contents have. */
  readonly table: KeptByAll<Content>;
  readonly schema: z.ZodType<Content>;
  readonly most: number;
  /** What one is called, and several. */
  readonly one: string;
  readonly several: string;
}

/**
 * Contents that everybody shares (lenses, templates): saved on the revision they were seen at, so that of two who change one the later is
 * told; asked once more after a lost answer, saved once; deleted and brought back.
 */
export function keptForAll<Content>({ table, schema, most, one, several }: Kept<Content>) {
  const isThere = isNull(table.deletedAt);
  const needsRoom = async (db: Transaction): Promise<void> => {
    const [{ kept } = { kept: 0 }] = await db.select({ kept: count() }).from(table).where(isThere);
    if (kept >= most)
      throw new UseCaseError(
        "too-many",
        say`There are ${most} ${term(several)}. Delete one that is not used any more.`,
        409,
      );
  };
  return {
    isThere,
    async save(
      { db, member, asked }: Context,
      { id, content, revision }: { readonly id: string; readonly content: Content; readonly revision: number },
    ): Promise<{ revision: number }> {
      await lock(db, "home");
      const [known] = await db.select().from(table).where(eq(table.id, id));
      // The same once more, after an answer that was lost.
      if (known?.revision === revision + 1 && JSON.stringify(schema.parse(known.content)) === JSON.stringify(content))
        return { revision: known.revision };
      if ((known?.revision ?? 0) !== revision)
        throw new UseCaseError(
          "changed-elsewhere",
          say`Somebody has changed this ${term(one)} since. Look at it as it is now, then change it again.`,
          409,
        );
      if (!known) await needsRoom(db);
      const set = { content, revision: revision + 1, deletedAt: null };
      await db
        .insert(table)
        .values({ id, ...set, member: member.id, at: asked })
        .onConflictDoUpdate({ target: table.id, set });
      return { revision: revision + 1 };
    },
    async remove({ db, now }: Context, id: string): Promise<Record<never, never>> {
      const gone = await db
        .update(table)
        .set({ deletedAt: now() })
        .where(and(eq(table.id, id), isThere))
        .returning({ id: table.id });
      if (gone.length === 0) throw notFound(say`This ${term(one)}`);
      return {};
    },
    async restore({ db }: Context, id: string): Promise<Record<never, never>> {
      await lock(db, "home");
      const [known] = await db.select({ deletedAt: table.deletedAt }).from(table).where(eq(table.id, id));
      if (!known) throw notFound(say`This ${term(one)}`);
      if (known.deletedAt === null) return {};
      await needsRoom(db);
      await db.update(table).set({ deletedAt: null }).where(eq(table.id, id));
      return {};
    },
  };
}
