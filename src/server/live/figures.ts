import { and, asc, desc, eq, gte, inArray, isNotNull, lt, sql } from "drizzle-orm";
import { live as terms } from "@/contract";
import type { DayFigures, RunFigures, StepFigures } from "@/contract/live";
import { type CaseHistory, type LiveEvent, type MeasuredRun, measuredRun, roleOf, spreadOf } from "@/core/live";
import { type Id, type Model, nameOf, outgoingOf } from "@/core/model";
import { liveCases, liveEvents, members } from "@/data/schema";
import type { Transaction } from "../kernel/act";
import { query } from "../kernel/useCase";
import { shownAt } from "./clock";
import { allEditions, runOf } from "./world";

const day = 86_400_000;
/** Steps are measured in so many cases, the last ones; so many ended and open ones are given one by one. */
const mostMeasured = 500;
const mostListed = 500;
const mostIntervals = 2_000;

const dayOf = (column: typeof liveCases.began | typeof liveCases.ended) =>
  sql<number>`(floor(${column} / ${sql.raw(String(day))}))::int`;
const counted = sql<number>`count(*)::int`;

/** Cases that began and ended, day by day, and how many were open at each day's end. A few queries, whatever the number of cases. */
async function daysOf(db: Transaction, run: string, from: number, now: number): Promise<DayFigures[]> {
  const ofRun = eq(liveCases.run, run);
  const began = await db
    .select({ day: dayOf(liveCases.began), count: counted })
    .from(liveCases)
    .where(and(ofRun, gte(liveCases.began, from)))
    .groupBy(dayOf(liveCases.began));
  const ended = await db
    .select({ day: dayOf(liveCases.ended), count: counted })
    .from(liveCases)
    .where(and(ofRun, isNotNull(liveCases.ended), gte(liveCases.ended, from)))
    .groupBy(dayOf(liveCases.ended));
  const [before] = await db
    .select({ count: counted })
    .from(liveCases)
    .where(and(ofRun, lt(liveCases.began, from), sql`(${liveCases.ended} is null or ${liveCases.ended} >= ${from})`));
  const of = (rows: readonly { day: number; count: number }[], at: number) =>
    rows.find((row) => row.day === at)?.count ?? 0;
  const days: DayFigures[] = [];
  let open = before?.count ?? 0;
  for (let at = Math.floor(from / day); at <= Math.floor(now / day); at++) {
    const one = { began: of(began, at), ended: of(ended, at) };
    open += one.began - one.ended;
    days.push({ day: at * day, ...one, open });
  }
  return days;
}

const caseColumns = { number: liveCases.number, began: liveCases.began, ended: liveCases.ended };

/** The last cases that came to their end, with what happened in them. */
async function historiesOf(db: Transaction, run: string, from: number): Promise<CaseHistory[]> {
  const cases = await db
    .select(caseColumns)
    .from(liveCases)
    .where(and(eq(liveCases.run, run), eq(liveCases.state, "completed"), gte(liveCases.ended, from)))
    .orderBy(desc(liveCases.ended))
    .limit(mostMeasured);
  return withEvents(db, run, cases);
}

/** The same, with the last ones that are under way still. */
export async function historiesSince(db: Transaction, run: string, from: number): Promise<CaseHistory[]> {
  const open = await db
    .select(caseColumns)
    .from(liveCases)
    .where(and(eq(liveCases.run, run), eq(liveCases.state, "open")))
    .orderBy(desc(liveCases.number))
    .limit(mostMeasured);
  return [...(await historiesOf(db, run, from)), ...(await withEvents(db, run, open))];
}

async function withEvents(
  db: Transaction,
  run: string,
  cases: readonly { readonly number: number; readonly began: number; readonly ended: number | null }[],
): Promise<CaseHistory[]> {
  if (cases.length === 0) return [];
  const events = await db
    .select({
      number: liveEvents.number,
      kind: liveEvents.kind,
      at: liveEvents.at,
      element: liveEvents.element,
      wait: liveEvents.wait,
    })
    .from(liveEvents)
    .where(
      and(
        eq(liveEvents.run, run),
        inArray(
          liveEvents.number,
          cases.map(({ number }) => number),
        ),
        inArray(liveEvents.kind, ["enter", "leave", "start", "complete"]),
      ),
    )
    .orderBy(asc(liveEvents.number), asc(liveEvents.sequence));
  const own = new Map<number, CaseHistory["events"][number][]>();
  for (const { number, kind, at, element, wait } of events) {
    const list = own.get(number) ?? [];
    const said = { ...(element !== null && { element }), ...(wait !== null && { wait }) };
    list.push({ kind: kind as LiveEvent["kind"], at, ...said });
    own.set(number, list);
  }
  return cases.map(({ number, began, ended }) => ({ began, ended, events: own.get(number) ?? [] }));
}

/** Seconds from each beginning to the next one, of all cases, whatever became of them: the last so many. */
async function intervalsOf(db: Transaction, run: string, from: number): Promise<number[]> {
  const began = await db
    .select({ at: liveCases.began })
    .from(liveCases)
    .where(and(eq(liveCases.run, run), gte(liveCases.began, from)))
    .orderBy(desc(liveCases.began))
    .limit(mostIntervals);
  return began.slice(1).map(({ at }, before) => ((began[before] as { at: number }).at - at) / 1000);
}

async function peopleIn(db: Transaction, run: string, from: number): Promise<RunFigures["people"]> {
  const done = db
    .select({ member: liveEvents.member, number: liveEvents.number, wait: liveEvents.wait, at: liveEvents.at })
    .from(liveEvents)
    .where(
      and(
        eq(liveEvents.run, run),
        eq(liveEvents.kind, "complete"),
        isNotNull(liveEvents.member),
        gte(liveEvents.at, from),
      ),
    )
    .as("done");
  return db
    .select({
      name: sql<string>`coalesce(${members.name}, '')`,
      done: counted,
      workingMean: sql<number>`coalesce(avg(${done.at} - ${liveEvents.at}), 0)::float8 / 1000`,
    })
    .from(done)
    .leftJoin(members, eq(members.id, done.member))
    .leftJoin(
      liveEvents,
      and(
        eq(liveEvents.run, run),
        eq(liveEvents.number, done.number),
        eq(liveEvents.wait, done.wait),
        eq(liveEvents.kind, "start"),
      ),
    )
    .groupBy(members.name)
    .orderBy(desc(counted));
}

const mean = (values: readonly number[]): number =>
  values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;

const stepsOf = ({ steps }: MeasuredRun, models: readonly Model[]): StepFigures[] =>
  [...steps].map(([element, { waiting, working }]) => {
    const model = models.find((one) => one.elements.has(element)) as Model;
    return {
      element,
      name: nameOf(model, element) || element,
      role: roleOf(model, element),
      count: Math.max(waiting.length, working.length),
      waitingMean: mean(waiting),
      workingMean: mean(working),
      waiting: spreadOf(waiting) ?? null,
      working: spreadOf(working) ?? null,
    };
  });

function waysOf({ ways }: MeasuredRun, models: readonly Model[]): RunFigures["ways"] {
  const gateways = new Map<Id, number>();
  const found = [...ways].flatMap(([flow, count]) => {
    const model = models.find((one) => one.elements.has(flow));
    const gateway = String(model?.elements.get(flow)?.sourceRef ?? "");
    if (!model || outgoingOf(model, gateway).length < 2) return [];
    gateways.set(gateway, (gateways.get(gateway) ?? 0) + count);
    const to = String(model.elements.get(flow)?.targetRef ?? "");
    const name = `${nameOf(model, gateway) || gateway}: ${nameOf(model, flow) || nameOf(model, to) || flow}`;
    return [{ flow, gateway, name, count }];
  });
  return found.map(({ count, ...one }) => ({ ...one, share: count / (gateways.get(one.gateway) ?? count) }));
}

export const runFigures = query(terms.runFigures, async ({ db }, { version, run: id, days }): Promise<RunFigures> => {
  const run = await runOf(db, version, id);
  const models = (await allEditions(db, run)).flatMap((opened) => opened.models);
  const now = shownAt(run.clock);
  const from = (Math.floor(now / day) - days + 1) * day;
  const open = await db
    .select({ began: liveCases.began })
    .from(liveCases)
    .where(and(eq(liveCases.run, id), eq(liveCases.state, "open")))
    .orderBy(asc(liveCases.began))
    .limit(mostListed);
  const ended = await db
    .select({ number: liveCases.number, began: liveCases.began, at: liveCases.ended })
    .from(liveCases)
    .where(and(eq(liveCases.run, id), eq(liveCases.state, "completed"), gte(liveCases.ended, from)))
    .orderBy(desc(liveCases.ended), desc(liveCases.number))
    .limit(mostListed);
  const measured = measuredRun(await historiesOf(db, id, from), models);
  return {
    now,
    days: await daysOf(db, id, from, now),
    ages: open.map(({ began }) => Math.max(0, now - began) / 1000),
    ended: ended
      .reverse()
      .map(({ number, began, at }) => ({ number, at: at ?? now, seconds: ((at ?? now) - began) / 1000 })),
    people: await peopleIn(db, id, from),
    measured: measured.cases,
    interval: spreadOf(await intervalsOf(db, id, from)) ?? null,
    steps: stepsOf(measured, models),
    ways: waysOf(measured, models),
  };
});
