import { and, desc, eq, gt, inArray, lte, sql } from "drizzle-orm";
import { inVersion } from "@/contract";
import type { HistoryRow } from "@/contract/version";
import { log, members, versions } from "@/data/schema";
import { query } from "../kernel/useCase";

const row = { sequence: log.sequence, label: log.label, member: members.name, at: log.at };
const told = (rows: readonly { sequence: number; label: string; member: string | null; at: string }[]): HistoryRow[] =>
  rows.map((one) => ({ ...one, member: one.member ?? "" }));

/** What was done to a version after one of its states and up to another, the newest first. */
export const listHistory = query(inVersion.listHistory, async ({ db }, { version, after, upTo }) => {
  const rows = await db
    .select(row)
    .from(log)
    .leftJoin(members, eq(members.id, log.member))
    .where(and(eq(log.version, version), gt(log.sequence, after), lte(log.sequence, upTo)))
    .orderBy(desc(log.sequence))
    .limit(200);
  return { changes: told(rows) };
});

/** Who changed an element last, and how; the newest first. What only moved its shape is left out. */
export const elementHistory = query(inVersion.elementHistory, async ({ db }, { version, element }) => {
  const touched = JSON.stringify([{ table: "elements", id: element }]);
  const inserted = JSON.stringify([{ table: "elements", record: { id: element } }]);
  const listed = JSON.stringify([{ table: "elements", record: { parent: element } }]);
  const rows = await db
    .select(row)
    .from(log)
    .leftJoin(members, eq(members.id, log.member))
    .where(
      and(
        eq(log.version, version),
        sql`(${log.edits} @> ${touched}::jsonb or ${log.edits} @> ${inserted}::jsonb or ${log.edits} @> ${listed}::jsonb)`,
      ),
    )
    .orderBy(desc(log.sequence))
    .limit(20);
  return { changes: told(rows) };
});

const millisecondsADay = 86_400_000;

/** Days on which elements were changed, by group; a day counts once however much was done on it. O(edits of both logs). */
export const changeDays = query(inVersion.changeDays, async ({ db, asked }, { version, groups }) => {
  const [source] = await db.select({ source: versions.source }).from(versions).where(eq(versions.id, version));
  const both = [version, ...(source?.source ? [source.source] : [])];
  const ids = [...new Set(Object.values(groups).flat())];
  const [first] = await db
    .select({ at: sql<string | null>`min(${log.at})` })
    .from(log)
    .where(inArray(log.version, both));
  const over = first?.at ? (Date.parse(asked) - Date.parse(first.at)) / millisecondsADay : 0;
  const touched = await db
    .selectDistinct({
      element: sql<string>`coalesce(edit.value ->> 'id', edit.value -> 'record' ->> 'id')`,
      kind: sql<string>`edit.value ->> 'kind'`,
      day: sql<string>`left(${log.at}::text, 10)`,
    })
    .from(sql`${log} cross join lateral jsonb_array_elements(${log.edits}) as edit(value)`)
    .where(
      and(
        inArray(log.version, both),
        sql`edit.value ->> 'table' = 'elements'`,
        inArray(sql`coalesce(edit.value ->> 'id', edit.value -> 'record' ->> 'id')`, ids.length > 0 ? ids : [""]),
      ),
    );
  const drawn = new Set(touched.flatMap(({ element, kind, day }) => (kind === "insert" ? [`${element} ${day}`] : [])));
  const days = Object.entries(groups).map(([group, members]) => {
    const own = new Set(members);
    const changed = touched.filter(
      ({ element, kind, day }) => kind === "set" && own.has(element) && !drawn.has(`${element} ${day}`),
    );
    return [group, new Set(changed.map(({ day }) => day)).size] as const;
  });
  return { days: Object.fromEntries(days), over };
});
