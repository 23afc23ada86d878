import { asc, eq } from "drizzle-orm";
import { live as terms } from "@/contract";
import { roleOfLane } from "@/core/directory";
import { Stream } from "@/core/forecast";
import { isByMachine } from "@/core/live";
import { laneOf } from "@/core/model";
import { liveCases, liveEvents, liveWaits, members, runs } from "@/data/schema";
import { calledName } from "@/jobs/called";
import { lock, type Transaction } from "../kernel/act";
import { insertRows } from "../kernel/manyRows";
import { UseCaseError, useCase } from "../kernel/useCase";
import { workedOut } from "../kernel/workedOut";
import { shownAt } from "./clock";
import { eventRows, waitRows } from "./stepping";
import { type OpenedRun, openedRun, runOf } from "./world";

const millisecondsADay = 86_400_000;

/** Who of the members does a simulated piece of work: one of those who fill the role of its step, each as often as the others. */
async function staffOf(db: Transaction, { models }: OpenedRun) {
  const people = await db.select({ id: members.id, roles: members.roles }).from(members).orderBy(asc(members.id));
  const byStep = new Map<string, readonly string[]>();
  const whoDoes = (step: string): readonly string[] => {
    const known = byStep.get(step);
    if (known) return known;
    const model = models.find((one) => one.elements.has(step));
    const element = model?.elements.get(step);
    const lane = model && element && !isByMachine(element) ? laneOf(model, step) : undefined;
    const role = model && lane && roleOfLane(model, lane)?.entry;
    const found = role ? people.filter(({ roles }) => roles.includes(role)).map(({ id }) => id) : [];
    byStep.set(step, found);
    return found;
  };
  return ({ kind, element, wait }: typeof liveEvents.$inferInsert, seed: string): string | null => {
    if ((kind !== "start" && kind !== "complete") || !element) return null;
    const who = whoDoes(element);
    const at = new Stream(1, `${seed} ${wait}`).next() * who.length;
    return who[Math.floor(at)] ?? null;
  };
}

/** Simulated members work some days up to now: what they finish is finished, what they have begun is open. */
export const runStaff = useCase(terms.runStaff, async (context, { version, run: id, days, most }) => {
  const { db, asked } = context;
  await runOf(db, version, id);
  await lock(db, "run", [id]);
  const run = await runOf(db, version, id);
  if (run.endedAt) throw new UseCaseError("run-ended", "This run has ended. Nobody works in it any more.", 409);
  const opened = await openedRun(db, run);
  const { model, called, process, decisions, edition } = opened;
  const until = shownAt(run.clock, Date.parse(asked));
  const seed = run.seed + run.cases;
  const request = { process, decisions, seed, from: until - days * millisecondsADay, until, most };
  const models = { model, ...Object.fromEntries([...called].map(([calls, one]) => [calledName(calls), one])) };
  const worked = await workedOut(context, "workedCases", [id, run.at, edition], models, request);
  const byWhom = await staffOf(db, opened);
  const cases: (typeof liveCases.$inferInsert)[] = [];
  const waits: (typeof liveWaits.$inferInsert)[] = [];
  const events: (typeof liveEvents.$inferInsert)[] = [];
  for (const [at, { began, content, events: happened }] of worked.entries()) {
    const number = run.cases + at + 1;
    const own = eventRows({ run: id, number, version }, happened, 0, null, undefined, until).map((event) => ({
      ...event,
      member: byWhom(event, `${seed} ${number}`),
    }));
    const open = waitRows(run, opened, number, content, until, new Map());
    const dues = open.flatMap(({ due }) => due ?? []);
    cases.push({
      run: id,
      number,
      version,
      edition,
      state: content.state,
      content,
      began,
      ended: content.state === "open" ? null : (happened.at(-1)?.at ?? until),
      dueAt: dues.length > 0 ? Math.min(...dues) : null,
      events: own.length,
    });
    waits.push(...open);
    events.push(...own);
  }
  await insertRows(db, liveCases, cases);
  await insertRows(db, liveWaits, waits);
  await insertRows(db, liveEvents, events);
  await db
    .update(runs)
    .set({ cases: run.cases + cases.length })
    .where(eq(runs.id, id));
  return { cases: cases.length };
});
