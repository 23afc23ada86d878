import { and, desc, eq, gt, lte, sql } from "drizzle-orm";
import { inVersion } from "@/contract";
import type { HistoryRow } from "@/contract/version";
import { log, members } from "@/data/schema";
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
