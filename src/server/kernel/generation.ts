import { eq } from "drizzle-orm";
import { workspace } from "@/data/schema";
import type { Transaction } from "./act";
import { UseCaseError } from "./useCase";

const generationKey = "generation";

/**
 * How often the workspace was replaced by a backup. Sequences of before and after a restore count two different pasts, so whoever
 * builds on a state says of which generation it is.
 */
export async function generationOf(db: Transaction): Promise<number> {
  const [row] = await db.select({ value: workspace.value }).from(workspace).where(eq(workspace.key, generationKey));
  return Number(row?.value ?? 0);
}

export async function setGeneration(db: Transaction, generation: number): Promise<void> {
  const value = String(generation);
  await db
    .insert(workspace)
    .values({ key: generationKey, value })
    .onConflictDoUpdate({ target: workspace.key, set: { value } });
}

/** Refuses what was built on a state of before a restore. */
export async function needsGeneration(db: Transaction, generation: number | undefined): Promise<void> {
  if (generation !== undefined && generation !== (await generationOf(db)))
    throw new UseCaseError(
      "restored",
      "The workspace was replaced by a backup since this window opened it. What you see is from before; it is opened anew.",
      409,
    );
}

export const isOwnKey = (key: string): boolean => key === generationKey;
