import { and, asc, count, desc, eq, exists, inArray, isNull, lte, or, sql } from "drizzle-orm";
import { live as terms } from "@/contract";
import type { ElementStanding, OpenRun, RunRow } from "@/contract/live";
import { openPackage } from "@/core/handoff";
import { firstProcess, type StandIn } from "@/core/live";
import { type Id, type Model, nameOf, toStored } from "@/core/model";
import { handoffs, liveAlerts, liveCases, liveEvents, liveWaits, members, renewals, runs } from "@/data/schema";
import { waiversOf } from "../check/waivers";
import { needsNoOpenError } from "../handoff/handoffs";
import { lock, type Transaction } from "../kernel/act";
import { loadHead } from "../kernel/heads";
import { needsFreeId } from "../kernel/takenIds";
import { type Context, followedQuery, query, UseCaseError, useCase } from "../kernel/useCase";
import { decisionsOf, modelsCalled } from "../walk/walks";
import { setTo, shownAt, shownInRow } from "./clock";
import { startsFrom } from "./starts";
import { hasStandIn } from "./stepping";
import { openedRun, type RunHead, runColumns, runOf } from "./world";

async function rowsOf(db: Transaction, version: string, run?: string): Promise<RunRow[]> {
  const found = await db
    .select({
      ...runColumns,
      revision: sql<number>`coalesce(${renewals.revision}, ${runs.revision})`,
      memberName: members.name,
    })
    .from(runs)
    .leftJoin(members, eq(members.id, runs.member))
    .leftJoin(renewals, and(eq(renewals.run, runs.id), eq(renewals.edition, runs.edition)))
    .where(and(eq(runs.version, version), run === undefined ? undefined : eq(runs.id, run)))
    .orderBy(desc(runs.at));
  const ids = found.map(({ id }) => id);
  if (ids.length === 0) return [];
  const open = await db
    .select({ run: liveCases.run, count: count() })
    .from(liveCases)
    .where(and(inArray(liveCases.run, ids), eq(liveCases.state, "open")))
    .groupBy(liveCases.run);
  const incidents = await db
    .select({ run: liveWaits.run, count: count() })
    .from(liveWaits)
    .where(and(inArray(liveWaits.run, ids), eq(liveWaits.kind, "incident")))
    .groupBy(liveWaits.run);
  const of = (rows: readonly { run: string; count: number }[], id: string) =>
    rows.find((row) => row.run === id)?.count ?? 0;
  return found.map((row) => ({
    id: row.id,
    name: row.name,
    version: row.version,
    revision: row.revision,
    edition: row.edition,
    open: of(open, row.id),
    cases: row.cases,
    incidents: of(incidents, row.id),
    isEnded: row.endedAt !== null,
    member: row.memberName ?? "",
    at: row.at,
  }));
}

export const listRuns = followedQuery(terms.listRuns, async ({ db }, { version }) => {
  const head = await loadHead(db, version);
  return { runs: await rowsOf(db, version), mayStart: firstProcess(head.model) !== undefined };
});

/** What was handed off last; where nothing was yet, what the version holds, as long as no error is open in it. */
export async function toRun(context: Context, version: string) {
  const { db } = context;
  const [package_] = await db
    .select({ bytes: handoffs.package, revision: handoffs.revision })
    .from(handoffs)
    .where(eq(handoffs.version, version))
    .orderBy(desc(handoffs.revision))
    .limit(1);
  if (package_) {
    const opened = openPackage(new Uint8Array(package_.bytes));
    if (!opened.ok)
      throw new UseCaseError("bad-package", "The package that was handed off cannot be read. Hand off once more.", 409);
    return { model: opened.value.model, revision: package_.revision };
  }
  const head = await loadHead(db, version);
  await needsNoOpenError(context, head, await waiversOf(db, version), "start up");
  return { model: head.model, revision: 0 };
}

export const startRun = useCase(terms.startRun, async (context, { version, run: id, name, pace }) => {
  const { db } = context;
  await lock(db, "version", [version]);
  const [known] = await db.select({ version: runs.version }).from(runs).where(eq(runs.id, id));
  // Asked once more after the answer was lost.
  if (known?.version === version) return { run: id };
  await needsFreeId(db, runs, id);
  await keepRun(context, { id, version, name, pace, ...(await toRun(context, version)) });
  return { run: id };
});

/** A model with what it calls and decides by as it is now, as a run keeps it. */
export async function packedFor(db: Transaction, model: Model) {
  const process = firstProcess(model);
  if (process === undefined)
    throw new UseCaseError("nothing-to-run", "There is no process with steps in this version.", 409);
  const called = await modelsCalled(db, model);
  const decisions = await decisionsOf(db, [model, ...called.map(({ head }) => head.model)]);
  return {
    process,
    model: toStored(model),
    called: called.map(({ calls, head }) => ({ calls, model: toStored(head.model) })),
    decisions: decisions.map(({ id, content }) => ({ id, content })),
  };
}

export type Packed = Awaited<ReturnType<typeof packedFor>>;

/** A run of a model, with what that calls and decides by as it is now. */
export async function keepRun(
  { db, member, asked }: Context,
  run: {
    readonly id: string;
    readonly version: string;
    readonly name: string;
    readonly pace: number;
    readonly model: Model;
    readonly revision: number;
  },
): Promise<void> {
  const { model, pace, ...said } = run;
  const packed = await packedFor(db, model);
  const now = Date.parse(asked);
  await db.insert(runs).values({
    ...said,
    ...packed,
    ...startsFrom(model, packed.process, now),
    clock: { real: now, shows: now, pace },
    standIns: {},
    seed: 1,
    member: member.id,
    at: asked,
  });
}

export const endRun = useCase(terms.endRun, async ({ db, now }, { version, run }) => {
  await runOf(db, version, run);
  await lock(db, "run", [run]);
  await db.update(runs).set({ endedAt: now() }).where(eq(runs.id, run));
  return {};
});

const dayStart = (now: number): number => Math.floor(now / 86_400_000) * 86_400_000;

/** What waits at each element, how long, and what went through it today. One query a kind, whatever the number of cases. */
async function standingOf(db: Transaction, run: string, now: number): Promise<ElementStanding[]> {
  const waiting = await db
    .select({
      element: liveWaits.element,
      waiting: sql<number>`count(*) filter (where ${liveWaits.kind} <> 'incident')::int`,
      incidents: sql<number>`count(*) filter (where ${liveWaits.kind} = 'incident')::int`,
      median: sql<number>`percentile_cont(0.5) within group (order by ${liveWaits.since})`,
      oldest: sql<number>`min(${liveWaits.since})`,
    })
    .from(liveWaits)
    .where(eq(liveWaits.run, run))
    .groupBy(liveWaits.element);
  const done = await db
    .select({ element: liveEvents.element, count: count() })
    .from(liveEvents)
    .where(and(eq(liveEvents.run, run), eq(liveEvents.kind, "leave"), sql`${liveEvents.at} >= ${dayStart(now)}`))
    .groupBy(liveEvents.element);
  const of = new Map<Id, ElementStanding>();
  for (const row of waiting)
    of.set(row.element, {
      element: row.element,
      waiting: row.waiting,
      incidents: row.incidents,
      median: Math.max(0, now - row.median),
      oldest: Math.max(0, now - row.oldest),
      doneToday: 0,
    });
  for (const { element, count: doneToday } of done) {
    if (element === null) continue;
    const known = of.get(element) ?? { element, waiting: 0, incidents: 0, median: 0, oldest: 0, doneToday: 0 };
    of.set(element, { ...known, doneToday });
  }
  return [...of.values()];
}

/** What waits where in the run of a version that goes on, the newest; undefined where none does. */
export async function standingIn(db: Transaction, version: string): Promise<readonly ElementStanding[] | undefined> {
  const rows = await rowsOf(db, version);
  const going = rows.find(({ isEnded }) => !isEnded);
  return going && standingOf(db, going.id, shownAt((await runOf(db, version, going.id)).clock));
}

export const openRun = followedQuery(terms.openRun, async ({ db }, { version, run: id }): Promise<OpenRun> => {
  const run = await runOf(db, version, id);
  const opened = await openedRun(db, run);
  const [row] = await rowsOf(db, version, id);
  const now = shownAt(run.clock);
  return {
    run: row as RunRow,
    process: opened.process,
    now,
    pace: run.endedAt ? 0 : run.clock.pace,
    next: await nextIn(db, run),
    standing: await standingOf(db, id, now),
    alerts: await alertsOf(db, id),
    standIns: run.standIns,
    services: servicesOf(opened.models, (element) => hasStandIn(opened, element)),
  };
});

async function alertsOf(db: Transaction, run: string): Promise<Id[]> {
  const open = await db
    .select({ element: liveAlerts.element })
    .from(liveAlerts)
    .where(and(eq(liveAlerts.run, run), isNull(liveAlerts.member)));
  return open.map(({ element }) => element);
}

/** When something comes of its own accord in a run: in one of its cases, or that one begins. */
async function nextIn(db: Transaction, run: RunHead): Promise<number | null> {
  const [next] = await db
    .select({ at: sql<number | null>`min(${liveCases.dueAt})` })
    .from(liveCases)
    .where(and(eq(liveCases.run, run.id), eq(liveCases.isSuspended, false)));
  const moments = [next?.at ?? null, run.startsAt].filter((one) => one !== null);
  return moments.length === 0 ? null : Math.min(...moments);
}

const servicesOf = (models: readonly Model[], isService: (element: Id) => boolean) =>
  models.flatMap((model) =>
    [...model.elements]
      .filter(({ id, type }) => type === "serviceTask" && isService(id))
      .map(({ id }) => ({ element: id, name: nameOf(model, id) || id })),
  );

export const runModel = query(terms.runModel, async ({ db }, { version, run: id }) => {
  const opened = await openedRun(db, await runOf(db, version, id));
  return { model: toStored(opened.model) };
});

export const setClock = useCase(terms.setClock, async ({ db }, { version, run: id, pace, to }) => {
  await runOf(db, version, id);
  await lock(db, "run", [id]);
  const run = await runOf(db, version, id);
  if (run.endedAt) throw new UseCaseError("run-ended", "This run has ended. Its clock stands.", 409);
  const now = shownAt(run.clock);
  let shows = now;
  if (to === "next") {
    const next = await nextIn(db, run);
    if (next === null)
      throw new UseCaseError(
        "nothing-next",
        "Nothing comes by itself: every case waits for somebody, or is over.",
        409,
      );
    shows = Math.max(now, next);
  } else if (to !== undefined) {
    if (to < now)
      throw new UseCaseError("back-in-time", "A run's clock does not go back: what has happened has happened.", 409);
    shows = to;
  }
  await db
    .update(runs)
    .set({ clock: setTo(run.clock, pace ?? run.clock.pace, shows) })
    .where(eq(runs.id, id));
  return {};
});

export const setStandIn = useCase(terms.setStandIn, async ({ db }, { version, run: id, element, standIn }) => {
  await runOf(db, version, id);
  await lock(db, "run", [id]);
  const run = await runOf(db, version, id);
  const { standIns } = run;
  const opened = await openedRun(db, run);
  if (!hasStandIn(opened, element)) throw new UseCaseError("no-service", "No service answers this step.", 409);
  const { [element]: _, ...rest } = standIns;
  const next: { readonly [element: string]: StandIn } = standIn ? { ...rest, [element]: standIn } : rest;
  await db.update(runs).set({ standIns: next }).where(eq(runs.id, id));
  return {};
});

/** Runs that go on by themselves, for whoever lets time pass in them. */
const schedule = { id: runs.id, version: runs.version, clock: runs.clock, startsAt: runs.startsAt };

export const runsUnderWay = (db: Transaction) =>
  db.select(schedule).from(runs).where(isNull(runs.endedAt)).orderBy(asc(runs.at));

/** Runs under way in which something has come due at a real moment (milliseconds since 1970). */
export const runsDue = (db: Transaction, now: number) => {
  const shows = shownInRow(runs.clock, now);
  const dueCase = db
    .select({ number: liveCases.number })
    .from(liveCases)
    .where(and(eq(liveCases.run, runs.id), eq(liveCases.isSuspended, false), lte(liveCases.dueAt, shows)));
  return db
    .select(schedule)
    .from(runs)
    .where(and(isNull(runs.endedAt), or(lte(runs.startsAt, shows), exists(dueCase))))
    .orderBy(asc(runs.at));
};
