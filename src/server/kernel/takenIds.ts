import { eq } from "drizzle-orm";
import type { AnyPgColumn, PgTable } from "drizzle-orm/pg-core";
import { say } from "@/core/messages";
import type { Transaction } from "./act";
import { UseCaseError } from "./useCase";

/** Refuses an id, given by who asks, that something has already, deleted things included: they may come back. */
export async function needsFreeId(
  db: Transaction,
  table: PgTable & { readonly id: AnyPgColumn },
  id: string,
): Promise<void> {
  const [taken] = await db.select({ id: table.id }).from(table).where(eq(table.id, id));
  if (taken) throw new UseCaseError("id-taken", say`The id ${id} is in use already. Choose another one.`, 409);
}
