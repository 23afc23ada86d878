import { and, asc, desc, eq, isNotNull, isNull, or, sql } from "drizzle-orm";
import { live as terms } from "@/contract";
import type { DoneWork, WorkItem } from "@/contract/live";
import { formProblems, shownItems } from "@/core/data";
import { say } from "@/core/messages";
import { formOf, nameOf, toStored } from "@/core/model";
import { liveCases, liveEvents, liveWaits, members, processes, runs, versions } from "@/data/schema";
import type { Transaction } from "../kernel/act";
import { type Context, notFound, query, UseCaseError, useCase } from "../kernel/useCase";
import { shownAt } from "./clock";
import { onWait } from "./interfering";
import { openWait, stepCase } from "./stepping";
import { openedRun, runOf } from "./world";

const itemColumns = {
  run: liveWaits.run,
  version: liveWaits.version,
  number: liveWaits.number,
  wait: liveWaits.wait,
  kind: liveWaits.kind,
  element: liveWaits.element,
  label: liveWaits.label,
  role: liveWaits.role,
  roleName: liveWaits.roleName,
  member: liveWaits.member,
  memberName: members.name,
  since: liveWaits.since,
  due: liveWaits.due,
  dueBy: liveWaits.dueBy,
  reason: liveWaits.reason,
  tried: liveWaits.tried,
  process: processes.name,
  runName: runs.name,
  clock: runs.clock,
  /** How many there are, however few are asked for. */
  total: sql<number>`count(*) over ()::int`,
};

/** Work, with the case, the run and the process around it. */
const items = (db: Transaction) =>
  db
    .select(itemColumns)
    .from(liveWaits)
    .innerJoin(runs, eq(runs.id, liveWaits.run))
    .innerJoin(liveCases, and(eq(liveCases.run, liveWaits.run), eq(liveCases.number, liveWaits.number)))
    .innerJoin(versions, eq(versions.id, liveWaits.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .leftJoin(members, eq(members.id, liveWaits.member));

/** Work that can be done now: of a run that goes on, in a process that is not in the bin. */
const isThere = and(
  eq(liveWaits.kind, "work"),
  eq(liveCases.isSuspended, false),
  isNull(runs.endedAt),
  isNull(versions.deletedAt),
  isNull(processes.deletedAt),
);

type Found = Awaited<ReturnType<typeof items>>[number];
const told = ({ clock, role: _, total: __, ...row }: Found): WorkItem => ({ ...row, now: shownAt(clock) });

async function rolesOf({ db, member }: Context): Promise<readonly string[]> {
  const [row] = await db.select({ roles: members.roles }).from(members).where(eq(members.id, member.id));
  return row?.roles ?? [];
}

/** Work of a day is listed, and no more of it. */
const mostDone = 100;

export const listWork = query(terms.listWork, async (context, { whose, run: only, count }) => {
  const { db, member } = context;
  const roles = await rolesOf(context);
  const ofRoles =
    roles.length === 0
      ? undefined
      : or(isNull(liveWaits.role), sql`${liveWaits.role} = any(${sql.param([...roles])}::text[])`);
  const where = and(
    isThere,
    only === undefined ? undefined : eq(liveWaits.run, only),
    whose === "mine" ? eq(liveWaits.member, member.id) : undefined,
    whose === "open" ? and(isNull(liveWaits.member), ofRoles) : undefined,
    whose === "all" ? or(eq(liveWaits.member, member.id), and(isNull(liveWaits.member), ofRoles)) : undefined,
  );
  // What is due first, then what has waited longest; of what came at once, the case that began first.
  const rows = await items(db)
    .where(where)
    .orderBy(sql`${liveWaits.dueBy} asc nulls last`, asc(liveWaits.since), asc(liveWaits.number), asc(liveWaits.wait))
    .limit(count);
  return { items: rows.map(told), total: rows[0]?.total ?? 0, done: await doneToday(context) };
});

/** What a member has done in the last day of each run's clock, the latest first. */
async function doneToday({ db, member }: Context): Promise<DoneWork[]> {
  const rows = await db
    .select({
      version: liveEvents.version,
      run: liveEvents.run,
      number: liveEvents.number,
      element: liveEvents.element,
      at: liveEvents.at,
      note: liveEvents.reason,
      process: processes.name,
      clock: runs.clock,
      edition: liveCases.edition,
    })
    .from(liveEvents)
    .innerJoin(runs, eq(runs.id, liveEvents.run))
    .innerJoin(liveCases, and(eq(liveCases.run, liveEvents.run), eq(liveCases.number, liveEvents.number)))
    .innerJoin(versions, eq(versions.id, liveEvents.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(and(eq(liveEvents.member, member.id), eq(liveEvents.kind, "completed work")))
    .orderBy(desc(liveEvents.at))
    .limit(mostDone);
  const done: DoneWork[] = [];
  for (const { clock, edition, element, ...row } of rows) {
    if (row.at < shownAt(clock) - 86_400_000) continue;
    const opened = await openedRun(db, await runOf(db, row.version, row.run), edition);
    const model = opened.models.find((one) => element !== null && one.elements.has(element));
    done.push({ ...row, label: (model && element !== null && nameOf(model, element)) || (element ?? "") });
  }
  return done;
}

export const remindWork = query(terms.remindWork, async ({ db, member }) => {
  const rows = await items(db).where(and(isThere, eq(liveWaits.member, member.id), isNotNull(liveWaits.dueBy)));
  const left = rows.map(({ dueBy, clock }) => (dueBy ?? 0) - shownAt(clock));
  return {
    overdue: left.filter((one) => one < 0).length,
    soon: left.filter((one) => one >= 0 && one < 3_600_000).length,
  };
});

export const setDue = useCase(terms.setDue, async (context, { dueBy, ...input }) => {
  const deed = { kind: "due date set", act: input.act, wait: input.wait, data: { dueBy } };
  await stepCase(context, input, { ...deed, element: undefined }, (stepped) => {
    if (openWait(stepped, input.wait).kind !== "work")
      throw new UseCaseError("not-work", "Only work has a date until which it should be done.", 409);
  });
  await context.db
    .update(liveWaits)
    .set({ dueBy })
    .where(and(eq(liveWaits.run, input.run), eq(liveWaits.number, input.number), eq(liveWaits.wait, input.wait)));
  return {};
});

export const openWork = query(terms.openWork, async ({ db }, { run, number, wait, version }) => {
  const [row] = await items(db).where(
    and(eq(liveWaits.run, run), eq(liveWaits.number, number), eq(liveWaits.wait, wait), eq(liveWaits.version, version)),
  );
  if (!row) throw notFound("This work");
  const [held] = await db
    .select({ content: liveCases.content, edition: liveCases.edition, draft: liveWaits.draft })
    .from(liveWaits)
    .innerJoin(liveCases, and(eq(liveCases.run, liveWaits.run), eq(liveCases.number, liveWaits.number)))
    .where(and(eq(liveWaits.run, run), eq(liveWaits.number, number), eq(liveWaits.wait, wait)));
  const opened = await openedRun(db, await runOf(db, version, run), held?.edition);
  const own = held?.content.waits.find(({ id }) => id === wait)?.own ?? {};
  const model = opened.models.find((one) => one.elements.has(row.element)) ?? opened.model;
  return {
    item: told(row),
    model: toStored(model),
    data: { ...held?.content.data, ...own },
    draft: held?.draft ?? null,
  };
});

/** Work that somebody else has taken on is theirs. */
function mine(context: Context, by: string | null | undefined): void {
  if (by != null && by !== context.member.id)
    throw new UseCaseError("taken", "Somebody else has taken this on. Ask them to hand it over.", 409);
}

export const assignWork = useCase(terms.assignWork, async (context, input) => {
  const { to } = input;
  if (to !== null) {
    const [known] = await context.db.select({ id: members.id }).from(members).where(eq(members.id, to));
    if (!known) throw notFound("This member");
  }
  const kind = to === null ? "given back" : to === context.member.id ? "taken on" : "handed over";
  const { act, reason, wait: of } = input;
  const deed = { kind, act, wait: of, reason, element: undefined as string | undefined, data: { to } };
  await stepCase(context, input, deed, (stepped) => {
    const wait = openWait(stepped, input.wait);
    deed.element = wait.node;
    const record = stepped.waits.get(input.wait);
    // Two who take the same on at once: the second is told.
    if (to === context.member.id) mine(context, record?.member);
    if (to === null) stepped.engine.giveBack(input.wait);
    else stepped.engine.beginWork(input.wait);
  });
  await context.db
    .update(liveWaits)
    .set({ member: to })
    .where(and(eq(liveWaits.run, input.run), eq(liveWaits.number, input.number), eq(liveWaits.wait, input.wait)));
  return {};
});

export const saveWork = useCase(terms.saveWork, async (context, input) => {
  await stepCase(context, input, undefined, (stepped) => {
    openWait(stepped, input.wait);
    mine(context, stepped.waits.get(input.wait)?.member);
  });
  await context.db
    .update(liveWaits)
    .set({ draft: input.values })
    .where(and(eq(liveWaits.run, input.run), eq(liveWaits.number, input.number), eq(liveWaits.wait, input.wait)));
  return {};
});

export const completeWork = useCase(terms.completeWork, (context, { note, ...input }) =>
  onWait(context, { ...input, reason: note }, "completed work", (stepped) => {
    const { engine, waits, row } = stepped;
    if (row.isSuspended) throw new UseCaseError("suspended", "This case is suspended. Nothing is done in it now.", 409);
    mine(context, waits.get(input.wait)?.member);
    const wait = openWait(stepped, input.wait);
    if (wait.kind !== "work")
      throw new UseCaseError(
        "not-work",
        "This is not work any more: it is an incident that a supervisor has to clear up.",
        409,
      );
    const known = engine.elementOf(wait);
    const form = known && formOf(known.element);
    if (known && form) {
      const shown = shownItems(known.model, known.element.id, form);
      const [problem] = formProblems(shown, { ...engine.dataAt(wait), ...input.values });
      if (problem) {
        const label = shown[problem[0]]?.label ?? "";
        throw new UseCaseError("bad-form", say`${label}: ${problem[1]}`, 409);
      }
    }
    engine.complete(input.wait, input.values);
  }),
);
