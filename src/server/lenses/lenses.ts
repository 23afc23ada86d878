import { and, asc, count, eq, isNull } from "drizzle-orm";
import { lenses as terms } from "@/contract";
import { type LensRow, mostLenses } from "@/contract/lenses";
import { lensSchema } from "@/core/lens";
import { lenses, members } from "@/data/schema";
import { lock } from "../kernel/act";
import { notFound, query, UseCaseError, useCase } from "../kernel/useCase";

const isThere = isNull(lenses.deletedAt);

export const listLenses = query(terms.listLenses, async ({ db }) => {
  const rows = await db
    .select({ row: lenses, member: members.name })
    .from(lenses)
    .leftJoin(members, eq(members.id, lenses.member))
    .where(isThere)
    .orderBy(asc(lenses.at), asc(lenses.id));
  return {
    lenses: rows.flatMap(({ row, member }): LensRow[] => {
      const lens = lensSchema.safeParse(row.content);
      return lens.success ? [{ id: row.id, lens: lens.data, revision: row.revision, member: member ?? "" }] : [];
    }),
  };
});

export const saveLens = useCase(terms.saveLens, async ({ db, member, asked }, { id, lens, revision }) => {
  await lock(db, "home");
  const [known] = await db.select().from(lenses).where(eq(lenses.id, id));
  // The same once more, after an answer that was lost.
  if (
    known &&
    known.revision === revision + 1 &&
    JSON.stringify(lensSchema.parse(known.content)) === JSON.stringify(lens)
  )
    return { revision: known.revision };
  if ((known?.revision ?? 0) !== revision)
    throw new UseCaseError(
      "changed-elsewhere",
      "Somebody has changed this lens since. Look at it as it is now, then change it again.",
      409,
    );
  if (!known) await needsRoom(db);
  const set = { content: lens, revision: revision + 1, deletedAt: null };
  await db
    .insert(lenses)
    .values({ id, ...set, member: member.id, at: asked })
    .onConflictDoUpdate({ target: lenses.id, set });
  return { revision: revision + 1 };
});

async function needsRoom(db: Parameters<typeof lock>[0]): Promise<void> {
  const [{ kept } = { kept: 0 }] = await db.select({ kept: count() }).from(lenses).where(isThere);
  if (kept >= mostLenses)
    throw new UseCaseError("too-many", `There are ${mostLenses} lenses. Delete one that is not used any more.`, 409);
}

export const deleteLens = useCase(terms.deleteLens, async ({ db, now }, { id }) => {
  const gone = await db
    .update(lenses)
    .set({ deletedAt: now() })
    .where(and(eq(lenses.id, id), isThere))
    .returning({ id: lenses.id });
  if (gone.length === 0) throw notFound("This lens");
  return {};
});

export const restoreLens = useCase(terms.restoreLens, async ({ db }, { id }) => {
  await lock(db, "home");
  const [known] = await db.select({ id: lenses.id, deletedAt: lenses.deletedAt }).from(lenses).where(eq(lenses.id, id));
  if (!known) throw notFound("This lens");
  if (known.deletedAt === null) return {};
  await needsRoom(db);
  await db.update(lenses).set({ deletedAt: null }).where(eq(lenses.id, id));
  return {};
});
