import { and, asc, desc, eq, exists, gt, ilike, inArray, isNotNull, ne, or, sql } from "drizzle-orm";
import { live as terms } from "@/contract";
import type { AuditRow, CaseRow, OpenCase, WaitRow } from "@/contract/live";
import { begunWith, byData, Engine } from "@/core/live";
import { nameOf } from "@/core/model";
import { liveCases, liveEvents, liveWaits, members, runs } from "@/data/schema";
import { lock, type Transaction } from "../kernel/act";
import { type Context, notFound, query, UseCaseError, useCase } from "../kernel/useCase";
import { shownAt } from "./clock";
import { keepCase, openWait, type Stepped, stepCase } from "./stepping";
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
  return rows.map(({ number, state, isSuspended, began, ended }) => {
    const own = waits.filter((one) => one.number === number);
    return {
      number,
      state,
      isSuspended,
      began,
      ended,
      at: [...new Set(own.map(({ label }) => label))],
      incidents: own.filter(({ kind }) => kind === "incident").length,
    };
  });
}

export const listCases = query(terms.listCases, async ({ db }, { version, run, state, text, from, count }) => {
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
  const opened = await openedRun(db, head);
  const [row] = await db
    .select()
    .from(liveCases)
    .where(and(eq(liveCases.run, run), eq(liveCases.number, number)));
  if (!row) throw notFound("This case");
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

/** Begins a case of a run, with what was filled in. */
export const beginLiveCase = useCase(terms.beginLiveCase, async (context, { version, run: id, act, values, start }) => {
  const { db } = context;
  await runOf(db, version, id);
  await lock(db, "run", [id]);
  const run = await runOf(db, version, id);
  if (run.endedAt) throw new UseCaseError("run-ended", "This run has ended. No case begins in it any more.", 409);
  const [known] = await db
    .select({ number: liveEvents.number })
    .from(liveEvents)
    .where(and(eq(liveEvents.run, id), eq(liveEvents.act, act)));
  if (known) return { number: known.number };
  const opened = await openedRun(db, run);
  const number = run.cases + 1;
  const running = { world: opened.world, choosing: byData, zone: "UTC", now: shownAt(run.clock) };
  const engine = Engine.begin(running, run.process, values, start, begunWith(opened.model, run.process));
  const row = { run: id, number, version, events: 0, isSuspended: false, ended: null };
  await db.update(runs).set({ cases: number }).where(eq(runs.id, id));
  await db.insert(liveCases).values({ ...row, state: "open", content: engine.saved(), began: running.now });
  const deed = { kind: "began", act, data: values };
  await keepCase(context, run, opened, row, new Map(), engine, deed);
  return { number };
});

export const listWaits = query(terms.listWaits, async ({ db }, { version, run: id, kinds }) => {
  const run = await runOf(db, version, id);
  const waits: WaitRow[] = await db
    .select(waitColumns)
    .from(liveWaits)
    .leftJoin(members, eq(members.id, liveWaits.member))
    .where(and(eq(liveWaits.run, id), inArray(liveWaits.kind, kinds.length > 0 ? kinds : ["incident"])))
    .orderBy(asc(liveWaits.since))
    .limit(500);
  return { waits, now: shownAt(run.clock) };
});

interface OnWait {
  readonly version: string;
  readonly run: string;
  readonly number: number;
  readonly wait: number;
  readonly act: string;
  readonly reason?: string;
  readonly values?: { readonly [name: string]: unknown };
}

/** Something a person does to what a case waits for, written into its audit. */
export async function onWait(
  context: Context,
  input: OnWait,
  kind: string,
  run: (stepped: Stepped) => void,
): Promise<Record<string, never>> {
  const deed = {
    kind,
    act: input.act,
    wait: input.wait,
    ...(input.reason !== undefined && { reason: input.reason }),
    ...(input.values && { data: input.values }),
    element: undefined as string | undefined,
  };
  await stepCase(context, input, deed, (stepped) => {
    const wait = openWait(stepped, input.wait);
    deed.element = wait.event ?? wait.node;
    run(stepped);
  });
  return {};
}

export const letHappen = useCase(terms.letHappen, (context, input) =>
  onWait(context, input, "happened", ({ engine }) => {
    const wait = engine.wait(input.wait);
    if (wait && !["message", "signal", "timer", "condition"].includes(wait.kind))
      throw new UseCaseError("not-an-event", "This is no event: it is work, which is completed in the worklist.", 409);
    engine.happen(input.wait, input.values);
  }),
);

export const retryIncident = useCase(terms.retryIncident, (context, input) =>
  onWait(context, input, "retried", ({ engine }) => engine.retry(input.wait)),
);

export const skipStep = useCase(terms.skipStep, (context, input) =>
  onWait(context, input, "skipped", ({ engine }) => {
    const wait = engine.wait(input.wait);
    if (wait?.kind === "incident" && !wait.isWork)
      throw new UseCaseError("not-a-step", "Only a step can be left out. Lead this one on, or mend its data.", 409);
    engine.complete(input.wait, input.values);
  }),
);

export const moveToken = useCase(terms.moveToken, (context, input) =>
  onWait(context, input, "moved", ({ engine }) => engine.move(input.wait, input.to)),
);

export const leadOn = useCase(terms.leadOn, (context, input) =>
  onWait(context, input, "led on", ({ engine }) => engine.lead(input.wait, input.flows)),
);

export const setCaseData = useCase(terms.setCaseData, async (context, { values, reason, act, ...at }) => {
  await stepCase(context, at, { kind: "data changed", act, reason, data: values }, ({ engine }) =>
    engine.setData(values),
  );
  return {};
});

export const suspendCase = useCase(terms.suspendCase, async (context, { isSuspended, reason, act, ...at }) => {
  const kind = isSuspended ? "suspended" : "resumed";
  await stepCase(context, at, { kind, act, reason }, ({ engine, row }) => {
    if (engine.state !== "open") throw new UseCaseError("over", "This case is over.", 409);
    row.isSuspended = isSuspended;
  });
  return {};
});

export const cancelCase = useCase(terms.cancelCase, async (context, { reason, act, ...at }) => {
  await stepCase(context, at, { kind: "cancelled", act, reason }, ({ engine }) => {
    if (engine.state !== "open") throw new UseCaseError("over", "This case is over already.", 409);
    engine.cancel();
  });
  return {};
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
