import { and, eq } from "drizzle-orm";
import { live as terms } from "@/contract";
import { begunWith, byData, Engine, nameOfAwaited, startAgain, startsSet, type TimerSet } from "@/core/live";
import { say } from "@/core/messages";
import { type Element, flowNodesIn, type Id, type Model, triggerOf } from "@/core/model";
import { liveCases, liveEvents, runs } from "@/data/schema";
import { lock, type Transaction } from "../kernel/act";
import { type Context, UseCaseError, useCase } from "../kernel/useCase";
import { shownAt } from "./clock";
import { keepCase } from "./stepping";
import { type OpenedRun, openedRun, type RunHead, runOf } from "./world";

const zone = "UTC";

/** When the start events of a process that a timer sets off do so first. */
export function startsFrom(model: Model, process: Id, now: number) {
  const starts = startsSet(model, process, now, zone);
  return { starts, startsAt: firstOf(starts) };
}

const firstOf = (starts: { readonly [start: Id]: TimerSet }): number | null => {
  const moments = Object.values(starts).map(({ due }) => due);
  return moments.length === 0 ? null : Math.min(...moments);
};

interface Beginning {
  readonly kind: string;
  readonly act: string;
  readonly values: { readonly [name: string]: unknown };
  readonly start: Id | undefined;
  readonly now: number;
}

/** A case of a run begins, in a run that is locked; the same asked again is not done again. */
async function begun(
  context: Context,
  run: RunHead,
  opened: OpenedRun,
  { kind, act, values, start, now }: Beginning,
): Promise<number> {
  const { db } = context;
  const { id, version } = run;
  const [known] = await db
    .select({ number: liveEvents.number })
    .from(liveEvents)
    .where(and(eq(liveEvents.run, id), eq(liveEvents.act, act)));
  if (known) return known.number;
  const { cases } = await countOf(db, id);
  const number = cases + 1;
  const running = { world: opened.world, choosing: byData, zone, now };
  const engine = Engine.begin(running, opened.process, values, start, begunWith(opened.model, opened.process));
  const row = { run: id, number, version, events: 0, isSuspended: false, ended: null };
  await db.update(runs).set({ cases: number }).where(eq(runs.id, id));
  await db
    .insert(liveCases)
    .values({ ...row, edition: opened.edition, state: "open", content: engine.saved(), began: now });
  await keepCase(context, run, opened, row, new Map(), engine, { kind, act, element: start, data: values });
  return number;
}

async function countOf(db: Transaction, run: string): Promise<{ readonly cases: number }> {
  const [row] = await db.select({ cases: runs.cases }).from(runs).where(eq(runs.id, run));
  return row ?? { cases: 0 };
}

/** Start events of the process that a run runs. */
const startEventsOf = ({ model, process }: OpenedRun): Element[] =>
  flowNodesIn(model, process).filter(({ type }) => type === "startEvent");

/** The start event that a message of a name sets off. */
const startFor = (opened: OpenedRun, message: string): Element | undefined =>
  startEventsOf(opened).find(
    (start) =>
      triggerOf(opened.model, start) === "messageEventDefinition" && nameOfAwaited(opened.model, start) === message,
  );

/** Begins a case of a run, with what was filled in. */
export const beginLiveCase = useCase(terms.beginLiveCase, async (context, { version, run: id, act, values, ...by }) => {
  const { db } = context;
  await runOf(db, version, id);
  await lock(db, "run", [id]);
  const run = await runOf(db, version, id);
  if (run.endedAt) throw new UseCaseError("run-ended", "This run has ended. No case begins in it any more.", 409);
  const opened = await openedRun(db, run);
  const start = by.message === undefined ? by.start : startFor(opened, by.message)?.id;
  if (by.message !== undefined && start === undefined)
    throw new UseCaseError("nothing-waits", say`No case waits for “${by.message}”, and none begins with it.`, 409);
  if (start !== undefined && !startEventsOf(opened).some((one) => one.id === start))
    throw new UseCaseError("not-a-start", "The process does not begin there. Choose one of its start events.", 409);
  return { number: await begun(context, run, opened, { kind: "began", act, values, start, now: shownAt(run.clock) }) };
});

/** So many cases begin by a timer in one act; what is still due comes in the next one. */
const mostAtOnce = 100;

/** Cases that timers begin up to now, each at the time it was due. */
export async function letStart(
  context: Context,
  at: { readonly version: string; readonly run: string },
): Promise<void> {
  const { db } = context;
  await lock(db, "run", [at.run]);
  const run = await runOf(db, at.version, at.run);
  if (run.endedAt) return;
  const opened = await openedRun(db, run);
  const now = shownAt(run.clock);
  const starts: { [start: Id]: TimerSet } = { ...run.starts };
  for (let count = 0; count < mostAtOnce; count++) {
    const [next] = Object.entries(starts).sort(([, a], [, b]) => a.due - b.due);
    if (!next || next[1].due > now) break;
    const [start, set] = next;
    const element = opened.model.elements.get(start);
    const act = `timer ${start} ${set.due}`.slice(-100);
    if (element) await begun(context, run, opened, { kind: "began by time", act, values: {}, start, now: set.due });
    const again = element && startAgain(opened.model, element, set, zone);
    if (again) starts[start] = again;
    else delete starts[start];
  }
  await db
    .update(runs)
    .set({ starts, startsAt: firstOf(starts) })
    .where(eq(runs.id, at.run));
}
