import { asc, eq } from "drizzle-orm";
import { lenses as terms } from "@/contract";
import { type LensRow, mostLenses } from "@/contract/lenses";
import { lensSchema } from "@/core/lens";
import { lenses, members } from "@/data/schema";
import { keptForAll } from "../kernel/keptForAll";
import { query, useCase } from "../kernel/useCase";

const kept = keptForAll({ table: lenses, schema: lensSchema, most: mostLenses, one: "lens", several: "lenses" });

export const listLenses = query(terms.listLenses, async ({ db }) => {
  const rows = await db
    .select({ row: lenses, member: members.name })
    .from(lenses)
    .leftJoin(members, eq(members.id, lenses.member))
    .where(kept.isThere)
    .orderBy(asc(lenses.at), asc(lenses.id));
  return {
    lenses: rows.flatMap(({ row, member }): LensRow[] => {
      const lens = lensSchema.safeParse(row.content);
      return lens.success ? [{ id: row.id, lens: lens.data, revision: row.revision, member: member ?? "" }] : [];
    }),
  };
});

export const saveLens = useCase(terms.saveLens, (context, { id, lens, revision }) =>
  kept.save(context, { id, content: lens, revision }),
);
export const deleteLens = useCase(terms.deleteLens, (context, { id }) => kept.remove(context, id));
export const restoreLens = useCase(terms.restoreLens, (context, { id }) => kept.restore(context, id));
