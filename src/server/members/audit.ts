import { and, count, desc, eq, inArray } from "drizzle-orm";
import { type Thing, membership as terms } from "@/contract";
import { type AuditRow, auditPage } from "@/contract/members";
import { areas, audit, members, processes, versions } from "@/data/schema";
import type { Transaction } from "../kernel/act";
import { query } from "../kernel/useCase";

export const listAudit = query(terms.listAudit, async ({ db }, { member, from }) => {
  const which = member === null ? undefined : eq(audit.member, member);
  const [{ total } = { total: 0 }] = await db.select({ total: count() }).from(audit).where(which);
  const rows = await db
    .select({ row: audit, memberName: members.name })
    .from(audit)
    .leftJoin(members, eq(members.id, audit.member))
    .where(which)
    .orderBy(desc(audit.id))
    .limit(auditPage)
    .offset(from);
  const named = await namesOf(
    db,
    rows.flatMap(({ row }) => row.things),
  );
  return {
    total,
    rows: rows.map(
      ({ row, memberName }): AuditRow => ({
        ...{ id: row.id, at: row.at, member: row.member, memberName: memberName ?? "", act: row.act },
        isRefused: row.isRefused,
        about: [
          ...new Set([
            row.about,
            ...row.things.map((thing) => ("id" in thing ? (named.get(thing.id) ?? thing.id) : "")),
          ]),
        ]
          .filter((one) => one !== "")
          .join(", "),
      }),
    ),
  };
});

/** What areas, processes and versions are called. */
async function namesOf(db: Transaction, things: readonly Thing[]): Promise<ReadonlyMap<string, string>> {
  const ids = (kind: Thing["kind"]) =>
    things.flatMap((thing) => ("id" in thing && thing.kind === kind ? [thing.id] : []));
  const names = new Map<string, string>();
  const [ofAreas, ofProcesses, ofVersions] = [ids("area"), ids("process"), ids("version")];
  if (ofAreas.length > 0)
    for (const { id, name } of await db.select().from(areas).where(inArray(areas.id, ofAreas))) names.set(id, name);
  if (ofProcesses.length > 0)
    for (const { id, name } of await db.select().from(processes).where(inArray(processes.id, ofProcesses)))
      names.set(id, name);
  if (ofVersions.length > 0)
    for (const row of await db
      .select({ id: versions.id, name: versions.name, process: processes.name })
      .from(versions)
      .innerJoin(processes, and(eq(processes.id, versions.process)))
      .where(inArray(versions.id, ofVersions)))
      names.set(row.id, `${row.process}, ${row.name}`);
  return names;
}
