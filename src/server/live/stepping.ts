import { and, eq, getTableColumns, inArray, ne, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import { roleOfLane } from "@/core/directory";
import {
  answerOf,
  byData,
  Chance,
  Engine,
  type LiveCase,
  type LiveEvent,
  latencyOf,
  pauseBefore,
  roleOf,
  type StandIn,
  sampleValues,
  usualStandIn,
  type Wait,
} from "@/core/live";
import { type Id, laneOf, type Model, nameOf, targetsOf } from "@/core/model";
import { liveCases, liveEvents, liveSignals, liveWaits, runs } from "@/data/schema";
import type { Transaction } from "../kernel/act";
import { inserted, insertRows, upserted } from "../kernel/manyRows";
import { type Context, notFound, UseCaseError } from "../kernel/useCase";
import { shownAt } from "./clock";
import { type OpenedRun, openedRun, type RunHead, runColumns, runOf } from "./world";

export type CaseRecord = typeof liveCases.$inferSelect;
export type WaitRecord = typeof liveWaits.$inferSelect;

/** What a person did to a case, as its audit has it. */
export interface Deed {
  readonly kind: string;
  readonly act: string;
  readonly element?: Id | undefined;
  readonly wait?: number;
  readonly reason?: string;
  readonly data?: { readonly [name: string]: unknown };
}

/** A case that is being stepped, with all that is around it. */
export interface Stepped {
  readonly run: RunHead;
  readonly opened: OpenedRun;
  readonly row: CaseRecord;
  readonly waits: ReadonlyMap<number, WaitRecord>;
  readonly engine: Engine;
}

const zone = "UTC";

/**
 * One step of a case, which is one transaction: nobody else steps the same case meanwhile; what is asked for by a name that was asked for
 * before is done already. What happens by itself behind it belongs to the step.
 */
export async function stepCase(
  context: Context,
  at: { readonly version: string; readonly run: string; readonly number: number },
  deed: Deed | undefined,
  act: (stepped: Stepped) => void,
): Promise<void> {
  const { db } = context;
  const { run, row } = await lockedCase(db, at);
  const isTold = deed !== undefined && endsWait.has(deed.kind);
  if (deed && !isTold && (await isDone(db, at, deed.act))) return;
  const waits = await waitsOf(db, at);
  if (run.endedAt) {
    if (deed && isTold && (await isDone(db, at, deed.act))) return;
    throw new UseCaseError("run-ended", "This run has ended. Nothing more is done in it.", 409);
  }
  const opened = await openedRun(db, run, row.edition);
  const running = { world: opened.world, choosing: byData, zone, now: shownAt(run.clock) };
  const engine = Engine.load(running, row.content);
  try {
    act({ run, opened, row, waits, engine });
  } catch (error) {
    if (deed && isTold && (await isDone(db, at, deed.act))) return;
    if (error instanceof RangeError) throw new UseCaseError("not-possible", error.message, 409);
    throw error;
  }
  await keepCase(context, run, opened, row, waits, engine, deed);
}

interface AtCase {
  readonly version: string;
  readonly run: string;
  readonly number: number;
}

/** A case with its run, as nobody else steps it until the act ends. */
async function lockedCase(
  db: Transaction,
  { version, run, number }: AtCase,
): Promise<{ run: RunHead; row: CaseRecord }> {
  const [found] = await db
    .select({ run: runColumns, row: getTableColumns(liveCases) })
    .from(liveCases)
    .innerJoin(runs, eq(runs.id, liveCases.run))
    .where(and(eq(liveCases.run, run), eq(liveCases.number, number)))
    .for("update", { of: liveCases });
  if (found?.run.version === version) return found;
  await runOf(db, version, run);
  throw notFound("This case");
}

/** Deeds that end what is waited for: asked once more, it is gone, so that whether it was done has to be looked for only then. */
const endsWait: ReadonlySet<string> = new Set(["completed work", "skipped", "happened", "moved", "led on"]);

/** Whether what is asked for by a name was done before. Asked once the case is locked, so that nothing is missed. */
async function isDone(db: Transaction, { run, number }: AtCase, act: string): Promise<boolean> {
  const [known] = await db
    .select({ sequence: liveEvents.sequence })
    .from(liveEvents)
    .where(and(eq(liveEvents.run, run), eq(liveEvents.number, number), eq(liveEvents.act, act)))
    .limit(1);
  return known !== undefined;
}

async function waitsOf(db: Transaction, { run, number }: AtCase): Promise<ReadonlyMap<number, WaitRecord>> {
  const rows = await db
    .select()
    .from(liveWaits)
    .where(and(eq(liveWaits.run, run), eq(liveWaits.number, number)));
  return new Map(rows.map((one) => [one.wait, one]));
}

/** The wait of a number, which is still waited for. */
export const openWait = ({ engine }: Stepped, wait: number): Wait => waitIn(engine, wait);

export function waitIn(engine: Engine, wait: number): Wait {
  const found = engine.wait(wait);
  if (!found)
    throw new UseCaseError("gone", "This is not waited for any more: it was done, or the case has gone on.", 409);
  return found;
}

export const standInOf = (run: RunHead, element: Id): StandIn => run.standIns[element] ?? usualStandIn;

/** Chance of what is asked of a case for the n-th time. */
export const chanceOf = (run: RunHead, number: number, nth: number): Chance =>
  new Chance(run.seed + nth * 7919, number);

/** What a machine does at once: a script, a decision, a message that goes out, something empty inside. */
function atOnce(engine: Engine, opened: OpenedRun): boolean {
  for (const wait of engine.waits) {
    if (wait.kind !== "service") continue;
    const known = engine.elementOf(wait);
    if (!known || hasStandIn(opened, known.element.id)) continue;
    engine.complete(wait.id);
    return true;
  }
  return false;
}

/** Goes on with all that machines do at once. */
export function settled(engine: Engine, opened: OpenedRun): void {
  while (engine.state === "open" && atOnce(engine, opened));
}

/** Whether a step is answered by a stand-in: a service that is asked. */
export function hasStandIn({ models }: OpenedRun, element: Id): boolean {
  const type = models.find((one) => one.elements.has(element))?.elements.get(element)?.type;
  return type === "serviceTask" || type === "callActivity";
}

/** Writes a case as it stands after a step: itself, what it waits for, what has happened. */
export async function keepCase(
  context: Context,
  run: RunHead,
  opened: OpenedRun,
  row: Pick<CaseRecord, "run" | "number" | "version" | "events" | "isSuspended" | "ended">,
  known: ReadonlyMap<number, WaitRecord>,
  engine: Engine,
  deed?: Deed,
): Promise<void> {
  const { db, member } = context;
  settled(engine, opened);
  const content = engine.saved();
  const waits = waitRows(run, opened, row.number, content, engine.now, known);
  const gone = [...known.keys()].filter((id) => !waits.some(({ wait }) => wait === id));
  const changed = waits.filter((one) => JSON.stringify(one) !== JSON.stringify(known.get(one.wait)));
  const events = eventRows(row, engine.events, row.events, member.id, deed, engine.now);
  const dues = waits.flatMap(({ due }) => due ?? []);
  const isOver = content.state !== "open";
  const next = {
    state: content.state,
    isSuspended: row.isSuspended,
    content,
    dueAt: isOver || row.isSuspended || dues.length === 0 ? null : Math.min(...dues),
    ended: isOver ? (row.ended ?? engine.now) : null,
    events: row.events + events.length,
  };
  const ofCase = and(eq(liveWaits.run, row.run), eq(liveWaits.number, row.number));
  const parts = [
    ...(gone.length > 0 ? [sql`delete from ${liveWaits} where ${and(ofCase, inArray(liveWaits.wait, gone))}`] : []),
    ...(changed.length > 0 ? [upserted(liveWaits, changed)] : []),
    ...(events.length > 0 ? [inserted(liveEvents, events)] : []),
  ].map((part, at) => sql`${sql.identifier(`part${at}`)} as (${part})`);
  const update = db
    .update(liveCases)
    .set(next)
    .where(and(eq(liveCases.run, row.run), eq(liveCases.number, row.number)))
    .getSQL();
  // One statement for all of it: what a step costs is mostly the way to the database and back.
  await db.execute(parts.length === 0 ? update : sql`with ${sql.join(parts, sql`, `)} ${update}`);
  await keepSignals(db, row, engine);
}

/** What was thrown is heard by the other cases of the run that wait for it now; a little later, each in a step of its own. */
async function keepSignals(
  db: Transaction,
  { run, version, number }: Pick<CaseRecord, "run" | "number" | "version">,
  engine: Engine,
): Promise<void> {
  if (engine.thrown.length === 0) return;
  for (const name of engine.thrown) {
    const hearers = await db
      .selectDistinct({ number: liveWaits.number })
      .from(liveWaits)
      .where(
        and(
          eq(liveWaits.run, run),
          eq(liveWaits.kind, "signal"),
          eq(liveWaits.awaited, name),
          ne(liveWaits.number, number),
        ),
      );
    const id = nanoid();
    const rows = hearers.map((hearer) => ({ id, number: hearer.number, run, version, name, at: engine.now }));
    await insertRows(db, liveSignals, rows);
  }
}

export function eventRows(
  row: { readonly run: string; readonly number: number; readonly version: string },
  events: readonly LiveEvent[],
  from: number,
  member: string | null,
  deed: Deed | undefined,
  now: number,
): (typeof liveEvents.$inferInsert)[] {
  const base = { run: row.run, number: row.number, version: row.version };
  const own = deed
    ? [
        {
          ...base,
          sequence: from,
          kind: deed.kind,
          at: now,
          element: deed.element ?? null,
          wait: deed.wait ?? null,
          instance: null,
          member,
          reason: deed.reason || null,
          act: deed.act,
          data: deed.data ?? null,
        },
      ]
    : [];
  const isOfDeed = ({ kind, wait }: LiveEvent) => (kind === "complete" || kind === "start") && wait === deed?.wait;
  return [
    ...own,
    ...events.map((event, at) => ({
      ...base,
      sequence: from + own.length + at,
      kind: event.kind,
      at: event.at,
      element: event.element ?? null,
      wait: event.wait ?? null,
      instance: event.instance ?? null,
      member: deed && isOfDeed(event) ? member : null,
      reason: event.reason ?? null,
      act: null,
      data: event.data ?? null,
    })),
  ];
}

/** What a case waits for, as rows; what people have said of one that is still there stays. */
export function waitRows(
  run: RunHead,
  opened: OpenedRun,
  number: number,
  content: LiveCase,
  now: number,
  known: ReadonlyMap<number, WaitRecord>,
): WaitRecord[] {
  if (content.state !== "open") return [];
  return content.waits.map((wait) => {
    const before = known.get(wait.id);
    const element = wait.event ?? wait.node;
    const model = opened.models.find((one) => one.elements.has(element)) ?? opened.model;
    const lane = laneOf(model, element);
    const isService = wait.kind === "service" && hasStandIn(opened, element);
    const due =
      wait.kind === "timer"
        ? (wait.due ?? null)
        : isService
          ? before?.kind === "service" && before.due !== null
            ? before.due
            : now + latencyOf(standInOf(run, element), chanceOf(run, number, wait.id), element) * 1000
          : null;
    return {
      run: run.id,
      number,
      wait: wait.id,
      version: run.version,
      kind: wait.kind,
      element,
      label: nameOf(model, element) || element,
      role: (lane && roleOfLane(model, lane)?.entry) ?? null,
      roleName: roleOf(model, element),
      member: wait.kind === "work" ? (before?.member ?? null) : null,
      since: wait.since,
      due,
      awaited: wait.name ?? null,
      dueBy: wait.kind === "work" ? (before?.dueBy ?? dueBy(model, element, wait.since)) : null,
      tried: before?.tried ?? 0,
      draft: before?.draft ?? null,
      reason: wait.reason ?? null,
    };
  });
}

/** Until when work should be done that has come to a step: as the step's first target of time says; null where none does. */
function dueBy(model: Model, element: Id, since: number): number | null {
  const step = model.elements.get(element);
  const target = step && targetsOf(step).find(({ what }) => what === "duration" || what === "waiting");
  return target ? since + target.seconds * 1000 : null;
}

/** What comes of its own accord up to now: timers go off, stand-ins answer or fail. */
export async function letTimePass(
  context: Context,
  at: { readonly version: string; readonly run: string; readonly number: number },
): Promise<void> {
  const tried: { readonly wait: number; readonly tried: number; readonly due: number }[] = [];
  await stepCase(context, at, undefined, (stepped) => {
    const { engine, waits, row } = stepped;
    if (row.isSuspended) return;
    const now = engine.now;
    const due = [...waits.values()]
      .filter((one) => one.due !== null && one.due <= now)
      .sort((a, b) => (a.due ?? 0) - (b.due ?? 0) || a.wait - b.wait);
    for (const one of due) {
      const wait = engine.wait(one.wait);
      if (!wait) continue;
      // What comes later than it was due came when it was due, as far as the case can tell.
      engine.now = Math.max(wait.since, one.due ?? now);
      if (wait.kind === "timer") engine.happen(wait.id);
      else if (wait.kind === "service") answerFor(stepped, one, tried);
    }
    engine.now = now;
  });
  for (const { wait, tried: count, due } of tried)
    await context.db
      .update(liveWaits)
      .set({ tried: count, due })
      .where(and(eq(liveWaits.run, at.run), eq(liveWaits.number, at.number), eq(liveWaits.wait, wait)));
  if (tried.length > 0)
    await context.db
      .update(liveCases)
      .set({
        dueAt: sql`(select min(${liveWaits.due}) from ${liveWaits} where ${liveWaits.run} = ${at.run} and ${liveWaits.number} = ${at.number})`,
      })
      .where(and(eq(liveCases.run, at.run), eq(liveCases.number, at.number)));
}

function answerFor(
  { engine, run, row }: Stepped,
  record: WaitRecord,
  again: { readonly wait: number; readonly tried: number; readonly due: number }[],
): void {
  const wait = engine.wait(record.wait);
  const known = wait && engine.elementOf(wait);
  if (!wait || !known) return;
  const standIn = standInOf(run, known.element.id);
  const count = record.tried + 1;
  const chance = chanceOf(run, row.number, wait.id * 131 + count);
  const answer = answerOf(standIn, chance, known.element.id, engine.dataAt(wait));
  if (answer.is === "answer") {
    const stream = chance.of(known.element.id, "sample");
    const sample = () =>
      sampleValues(known.model, known.element.id, engine.dataAt(wait), () => stream.next(), engine.now);
    engine.complete(wait.id, answer.values ?? sample());
    return;
  }
  if (standIn.error !== "" && engine.fail(wait.id, standIn.error)) return;
  const pause = pauseBefore(standIn, count);
  if (pause === undefined)
    engine.incident(
      wait.id,
      standIn.error ? `the service answered with the error ${standIn.error}` : "the service failed",
    );
  else again.push({ wait: wait.id, tried: count, due: engine.now + pause * 1000 });
}
