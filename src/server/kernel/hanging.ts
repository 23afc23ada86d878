import { and, eq, inArray, type SQL } from "drizzle-orm";
import type { PgColumn, PgTable } from "drizzle-orm/pg-core";
import { nanoid } from "nanoid";
import { type Hangs, registered } from "@/data/register";
import type { Transaction } from "./act";
import { insertRows } from "./manyRows";

type Row = { readonly [column: string]: unknown };

const columnOf = (table: PgTable, name: string) => (table as unknown as { readonly [name: string]: PgColumn })[name];

/** A row as it hangs on other versions; undefined where it names one that is not among them. */
function moved(table: PgTable, row: Row, hangs: Hangs, ids: ReadonlyMap<string, string>): Row | undefined {
  const copy: { [column: string]: unknown } = { ...row };
  for (const column of [hangs.by, ...(hangs.alsoBy ?? [])]) {
    const there = ids.get(String(row[column]));
    if (there === undefined) return undefined;
    copy[column] = there;
  }
  if (columnOf(table, "id")) copy.id = nanoid(12);
  return copy;
}

/** What hangs on versions goes along into copies of them. `ids`: the copies, by what they are copies of. */
export async function copyHanging(
  db: Transaction,
  into: "intoToBe" | "intoCopy",
  ids: ReadonlyMap<string, string>,
): Promise<void> {
  for (const [, { table, hangs }] of registered) {
    if (!hangs?.[into]) continue;
    const by = columnOf(table, hangs.by) as PgColumn;
    const rows: Row[] = await db
      .select()
      .from(table)
      .where(inArray(by, [...ids.keys()]));
    const copies = rows.map((row) => moved(table, row, hangs, ids)).filter((row) => row !== undefined);
    await insertRows(db, table, copies);
  }
}

/** What hangs on a to-be that becomes the as-is goes along; what of the as-is it takes the place of is given up. */
export async function adoptHanging(db: Transaction, toBe: string, asIs: string): Promise<void> {
  for (const [, { table, hangs }] of registered) {
    if (!hangs || hangs.whenAdopted === "stays") continue;
    const by = columnOf(table, hangs.by) as PgColumn;
    const rows: Row[] = await db.select().from(table).where(eq(by, toBe));
    for (const row of rows) {
      const same: SQL[] = hangs.whenAdopted.replacesBy.map((name) => eq(columnOf(table, name) as PgColumn, row[name]));
      await db.delete(table).where(and(eq(by, asIs), ...same));
    }
    const copies = rows
      .map((row) => moved(table, row, hangs, new Map([[toBe, asIs]])))
      .filter((row) => row !== undefined);
    await insertRows(db, table, copies);
  }
}
