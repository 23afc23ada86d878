import { and, eq, inArray, isNull } from "drizzle-orm";
import { home } from "@/contract";
import { areas, processes } from "@/data/schema";
import { lock } from "../kernel/act";
import { needsFreeId } from "../kernel/takenIds";
import { type Context, notFound, UseCaseError, useCase } from "../kernel/useCase";

/** Refuses an area that is not there, or no longer. */
export async function needsArea(db: Context["db"], id: string): Promise<void> {
  const [area] = await db
    .select({ id: areas.id })
    .from(areas)
    .where(and(eq(areas.id, id), isNull(areas.deletedAt)));
  if (!area) throw notFound("This area");
}

export const createArea = useCase(home.createArea, async ({ db }, input) => {
  await lock(db, "home");
  if (input.parent !== null) await needsArea(db, input.parent);
  await needsFreeId(db, areas, input.id);
  await db.insert(areas).values({ ...input, rank: 0 });
  return {};
});

export const renameArea = useCase(home.renameArea, async ({ db }, input) => {
  await lock(db, "home");
  await needsArea(db, input.id);
  await db.update(areas).set({ name: input.name }).where(eq(areas.id, input.id));
  return {};
});

export const moveArea = useCase(home.moveArea, async ({ db }, input) => {
  await lock(db, "home");
  await needsArea(db, input.id);
  if (input.parent !== null) await needsArea(db, input.parent);
  // An area cannot go into itself or what it holds.
  const rows = await db.select({ id: areas.id, parent: areas.parent }).from(areas);
  for (let at = input.parent; at !== null; at = rows.find((row) => row.id === at)?.parent ?? null) {
    if (at === input.id)
      throw new UseCaseError("area-in-itself", "An area cannot be moved into itself or into an area it holds.");
  }
  await db.update(areas).set({ parent: input.parent }).where(eq(areas.id, input.id));
  return {};
});

/** Deleting marks; what was in the area goes with it, and comes back with it. */
export const deleteArea = useCase(home.deleteArea, async ({ db, now }, input) => {
  await lock(db, "home");
  await needsArea(db, input.id);
  const rows = await db.select({ id: areas.id, parent: areas.parent }).from(areas).where(isNull(areas.deletedAt));
  const doomed = [input.id];
  for (let at = 0; at < doomed.length; at++)
    doomed.push(...rows.filter((row) => row.parent === doomed[at]).map((row) => row.id));
  const at = now();
  await db.update(areas).set({ deletedAt: at }).where(inArray(areas.id, doomed));
  await db
    .update(processes)
    .set({ deletedAt: at })
    .where(and(inArray(processes.area, doomed), isNull(processes.deletedAt)));
  return { at };
});
