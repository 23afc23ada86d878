import { and, asc, desc, eq, exists, gt, ilike, inArray, isNotNull, ne, or, sql } from "drizzle-orm";
import { live as terms } from "@/contract";
import type { AuditRow, CaseRow, OpenCase, WaitRow } from "@/contract/live";
import { nameOf } from "@/core/model";
import { liveCases, liveEvents, liveWaits, members } from "@/data/schema";
import type { Transaction } from "../kernel/act";
import { followedQuery, notFound, query } from "../kernel/useCase";
import { shownAt } from "./clock";
import { openedRun, runOf } from "./world";

const waitColumns = {
  run: liveWaits.run,
  version: liveWaits.version,
  number: liveWaits.number,
  wait: liveWaits.wait,
  kind: liveWaits.kind,
  element: liveWaits.element,
  label: liveWaits.label,
  roleName: liveWaits.roleName,
  member: liveWaits.member,
  memberName: members.name,
  since: liveWaits.since,
  due: liveWaits.due,
  reason: liveWaits.reason,
  tried: liveWaits.tried,
};

async function caseRows(
  db: Transaction,
  run: string,
  rows: readonly (typeof liveCases.$inferSelect)[],
): Promise<CaseRow[]> {
  const numbers = rows.map(({ number }) => number);
  const waits =
    numbers.length === 0
      ? []
      : await db
          .select({ number: liveWaits.number, label: liveWaits.label, kind: liveWaits.kind })
          .from(liveWaits)
          .where(and(eq(liveWaits.run, run), inArray(liveWaits.number, numbers)))
          .orderBy(asc(liveWaits.wait));
  return rows.map(({ number, edition, state, isSuspended, began, ended }) => {
    const own = waits.filter((one) => one.number === number);
    return {
      number,
      edition,
      state,
      isSuspended,
      began,
      ended,
      at: [...new Set(own.map(({ label }) => label))],
      incidents: own.filter(({ kind }) => kind === "incident").length,
    };
  });
}

export const listCases = followedQuery(terms.listCases, async ({ db }, { version, run, state, text, from, count }) => {
  await runOf(db, version, run);
  const hasIncident = exists(
    db
      .select({ one: sql`1` })
      .from(liveWaits)
      .where(
        and(eq(liveWaits.run, liveCases.run), eq(liveWaits.number, liveCases.number), eq(liveWaits.kind, "incident")),
      ),
  );
  const pattern = `%${text.trim().replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;
  const where = and(
    eq(liveCases.run, run),
    state === "open" ? eq(liveCases.state, "open") : undefined,
    state === "over" ? ne(liveCases.state, "open") : undefined,
    state === "incident" ? hasIncident : undefined,
    text.trim() === ""
      ? undefined
      : or(ilike(sql`${liveCases.content} ->> 'data'`, pattern), eq(sql`${liveCases.number}::text`, text.trim())),
  );
  const rows = await db.select().from(liveCases).where(where).orderBy(desc(liveCases.number)).limit(count).offset(from);
  const [{ total } = { total: 0 }] = await db
    .select({ total: sql<number>`count(*)::int` })
    .from(liveCases)
    .where(where);
  return { cases: await caseRows(db, run, rows), total };
});

const mostAudited = 2_000;

export const openCase = query(terms.openCase, async ({ db }, { version, run, number }): Promise<OpenCase> => {
  const head = await runOf(db, version, run);
  const [row] = await db
    .select()
    .from(liveCases)
    .where(and(eq(liveCases.run, run), eq(liveCases.number, number)));
  if (!row) throw notFound("This case");
  const opened = await openedRun(db, head, row.edition);
  const waits: WaitRow[] = await db
    .select(waitColumns)
    .from(liveWaits)
    .leftJoin(members, eq(members.id, liveWaits.member))
    .where(and(eq(liveWaits.run, run), eq(liveWaits.number, number)))
    .orderBy(asc(liveWaits.wait));
  const events = await db
    .select({
      sequence: liveEvents.sequence,
      kind: liveEvents.kind,
      at: liveEvents.at,
      element: liveEvents.element,
      member: members.name,
      reason: liveEvents.reason,
      data: liveEvents.data,
    })
    .from(liveEvents)
    .leftJoin(members, eq(members.id, liveEvents.member))
    .where(and(eq(liveEvents.run, run), eq(liveEvents.number, number)))
    .orderBy(asc(liveEvents.sequence))
    .limit(mostAudited);
  const named = (element: string | null) => {
    const model = element === null ? undefined : opened.models.find((one) => one.elements.has(element));
    return element === null || !model ? "" : nameOf(model, element) || element;
  };
  const times = new Map<string, number>();
  for (const { kind, element } of events)
    if (kind === "enter" && element !== null) times.set(element, (times.get(element) ?? 0) + 1);
  const [told] = await caseRows(db, run, [row]);
  return {
    row: told as CaseRow,
    data: row.content.data as { readonly [name: string]: unknown },
    waits,
    audit: events.map((event): AuditRow => ({ ...event, name: named(event.element) })),
    path: [...times].map(([element, count]) => ({ element, times: count })),
  };
});

export const listWaits = followedQuery(terms.listWaits, async ({ db }, { version, run: id, kinds, named }) => {
  const run = await runOf(db, version, id);
  const waits: WaitRow[] = await db
    .select(waitColumns)
    .from(liveWaits)
    .leftJoin(members, eq(members.id, liveWaits.member))
    .where(
      and(
        eq(liveWaits.run, id),
        inArray(liveWaits.kind, kinds.length > 0 ? kinds : ["incident"]),
        named === undefined ? undefined : or(eq(liveWaits.awaited, named), eq(liveWaits.label, named)),
      ),
    )
    .orderBy(asc(liveWaits.since))
    .limit(500);
  return { waits, now: shownAt(run.clock) };
});

/** Cases of a run in which something has come due, the first of them first. */
export const dueCases = (db: Transaction, run: string, now: number, most: number) =>
  db
    .select({ run: liveCases.run, number: liveCases.number, version: liveCases.version })
    .from(liveCases)
    .where(
      and(
        eq(liveCases.run, run),
        eq(liveCases.isSuspended, false),
        isNotNull(liveCases.dueAt),
        sql`${liveCases.dueAt} <= ${now}`,
        gt(liveCases.number, 0),
      ),
    )
    .orderBy(asc(liveCases.dueAt))
    .limit(most);
