import { getTableColumns, getTableName, type SQL, sql } from "drizzle-orm";
import type { PgTable } from "drizzle-orm/pg-core";
import type { Transaction } from "./act";

type Row = object;

/**
 * Rows as the table's own, from one parameter: a statement that names each value would take longer to be written than the database
 * takes to do it. So many at once that the text is made in a moment.
 */
function* recordsOf(table: PgTable, rows: readonly Row[]): Iterable<{ records: SQL; columns: readonly string[] }> {
  const [first] = rows;
  if (!first) return;
  const columns = Object.entries(getTableColumns(table)).filter(([name]) => name in first);
  for (let at = 0; at < rows.length; at += 1_000) {
    const named = rows
      .slice(at, at + 1_000)
      .map((row) =>
        Object.fromEntries(
          columns.map(([name, column]) => [column.name, (row as { readonly [name: string]: unknown })[name] ?? null]),
        ),
      );
    yield {
      records: sql`jsonb_populate_recordset(null::${table}, ${JSON.stringify(named)}::jsonb)`,
      columns: columns.map(([, column]) => column.name),
    };
  }
}

/** Inserts rows, all with the same columns. */
export async function insertRows(db: Transaction, table: PgTable, rows: readonly Row[]): Promise<void> {
  for (const { records, columns } of recordsOf(table, rows)) {
    const names = sql.join(
      columns.map((name) => sql.identifier(name)),
      sql`, `,
    );
    await db.execute(sql`insert into ${table} (${names}) select ${names} from ${records}`);
  }
}

/** Deletes the rows that have the same values in these columns. */
export async function deleteRows(db: Transaction, table: PgTable, keys: readonly Row[]): Promise<void> {
  const own = sql.identifier(getTableName(table));
  for (const { records, columns } of recordsOf(table, keys)) {
    const same = columns.map((name) => sql`${own}.${sql.identifier(name)} = gone.${sql.identifier(name)}`);
    await db.execute(sql`delete from ${table} using ${records} as gone where ${sql.join(same, sql` and `)}`);
  }
}
