import { getTableColumns, getTableName, type SQL, sql } from "drizzle-orm";
import { getTableConfig, type PgTable } from "drizzle-orm/pg-core";
import type { Transaction } from "./act";

type Row = object;
interface Records {
  readonly records: SQL;
  readonly columns: readonly string[];
}
const mostAtOnce = 1_000;

/**
 * Rows as the table's own, from one parameter: a statement that names each value would take longer to be written than the database
 * takes to do it. So many at once that the text is made in a moment.
 */
function* recordsOf(table: PgTable, rows: readonly Row[]): Iterable<Records> {
  const [first] = rows;
  if (!first) return;
  const columns = Object.entries(getTableColumns(table)).filter(([name]) => name in first);
  for (let at = 0; at < rows.length; at += mostAtOnce) {
    const named = rows
      .slice(at, at + mostAtOnce)
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

const listed = (names: readonly string[]) =>
  sql.join(
    names.map((name) => sql.identifier(name)),
    sql`, `,
  );

const insertOf = (table: PgTable, { records, columns }: Records): SQL =>
  sql`insert into ${table} (${listed(columns)}) select ${listed(columns)} from ${records}`;

/** Inserts rows, all with the same columns. */
export async function insertRows(db: Transaction, table: PgTable, rows: readonly Row[]): Promise<void> {
  for (const records of recordsOf(table, rows)) await db.execute(insertOf(table, records));
}

/** The statement that inserts a few rows, to be a part of another. */
export function inserted(table: PgTable, rows: readonly Row[]): SQL {
  const [records] = recordsOf(table, rows);
  if (!records || rows.length > mostAtOnce) throw new Error("A statement inserts from one row to a thousand.");
  return insertOf(table, records);
}

/** The same; rows that are there already, by the table's key, become these. */
export function upserted(table: PgTable, rows: readonly Row[]): SQL {
  const [records] = recordsOf(table, rows);
  const key = getTableConfig(table).primaryKeys.flatMap(({ columns }) => columns.map(({ name }) => name));
  if (!records) throw new Error("A statement inserts from one row to a thousand.");
  const set = records.columns.map((name) => sql`${sql.identifier(name)} = excluded.${sql.identifier(name)}`);
  return sql`${inserted(table, rows)} on conflict (${listed(key)}) do update set ${sql.join(set, sql`, `)}`;
}

/** Deletes the rows that have the same values in these columns. */
export async function deleteRows(db: Transaction, table: PgTable, keys: readonly Row[]): Promise<void> {
  const own = sql.identifier(getTableName(table));
  for (const { records, columns } of recordsOf(table, keys)) {
    const same = columns.map((name) => sql`${own}.${sql.identifier(name)} = gone.${sql.identifier(name)}`);
    await db.execute(sql`delete from ${table} using ${records} as gone where ${sql.join(same, sql` and `)}`);
  }
}
