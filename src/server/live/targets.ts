import { and, asc, eq, gte, inArray, isNull } from "drizzle-orm";
import { nanoid } from "nanoid";
import { live as terms } from "@/contract";
import type { TargetRow } from "@/contract/live";
import { type Measured, measured } from "@/core/live";
import { type LiveTarget, type Model, nameOf, targetsOf } from "@/core/model";
import { liveAlerts, liveCases, liveEvents } from "@/data/schema";
import { lock, type Transaction } from "../kernel/act";
import { loadHead } from "../kernel/heads";
import { type Context, notFound, query, useCase } from "../kernel/useCase";
import { shownAt } from "./clock";
import { type RunHead, runOf } from "./world";

const millisecondsADay = 86_400_000;
/** So many events are looked at; of more the last ones. */
const mostLooked = 100_000;

interface Meant {
  readonly element: string;
  readonly name: string;
  readonly target: LiveTarget;
}

const meantIn = (model: Model): Meant[] =>
  [...model.elements].flatMap((element) =>
    targetsOf(element).map((target) => ({
      element: element.id,
      name: nameOf(model, element.id) || element.id,
      target,
    })),
  );

async function valuesOf(db: Transaction, run: RunHead, { element, target }: Meant, now: number): Promise<number[]> {
  const since = now - target.days * millisecondsADay;
  if (element === run.process) {
    const rows = await db
      .select({ began: liveCases.began, ended: liveCases.ended })
      .from(liveCases)
      .where(and(eq(liveCases.run, run.id), eq(liveCases.state, "completed"), gte(liveCases.ended, since)))
      .limit(mostLooked);
    return rows.map(({ began, ended }) => ((ended ?? now) - began) / 1000);
  }
  const rows = await db
    .select({ number: liveEvents.number, kind: liveEvents.kind, at: liveEvents.at })
    .from(liveEvents)
    .where(
      and(
        eq(liveEvents.run, run.id),
        eq(liveEvents.element, element),
        inArray(liveEvents.kind, ["enter", "start", "leave"]),
        gte(liveEvents.at, since),
      ),
    )
    .orderBy(asc(liveEvents.number), asc(liveEvents.sequence))
    .limit(mostLooked);
  const times = new Map<number, number>();
  const spans: number[] = [];
  const came = new Map<number, number[]>();
  const until = target.what === "waiting" ? "start" : "leave";
  for (const { number, kind, at } of rows) {
    if (kind === "enter") {
      times.set(number, (times.get(number) ?? 0) + 1);
      came.set(number, [...(came.get(number) ?? []), at]);
    } else if (kind === until) {
      const from = came.get(number)?.shift();
      if (from !== undefined) spans.push((at - from) / 1000);
    }
  }
  return target.what === "rework" ? [...times.values()] : spans;
}

async function measuredIn(db: Transaction, run: RunHead): Promise<(Meant & { readonly measured: Measured })[]> {
  const { model } = await loadHead(db, run.version);
  const now = shownAt(run.clock);
  const found = [];
  for (const meant of meantIn(model))
    found.push({ ...meant, measured: measured(meant.target, await valuesOf(db, run, meant, now)) });
  return found;
}

const isSame = (a: LiveTarget, b: LiveTarget): boolean =>
  a.what === b.what && a.seconds === b.seconds && a.share === b.share && a.days === b.days;

const openAlerts = (db: Transaction, run: string) =>
  db
    .select()
    .from(liveAlerts)
    .where(and(eq(liveAlerts.run, run), isNull(liveAlerts.member)));

export const listTargets = query(terms.listTargets, async ({ db }, { version, run: id }) => {
  const run = await runOf(db, version, id);
  const alerts = await openAlerts(db, id);
  const targets = (await measuredIn(db, run)).map((one): TargetRow => {
    const alert = alerts.find(({ element, target }) => element === one.element && isSame(target, one.target));
    return { ...one, alert: alert ? { id: alert.id, at: alert.at } : null };
  });
  return { targets, alerts: alerts.length };
});

export const acknowledgeAlert = useCase(
  terms.acknowledgeAlert,
  async ({ db, member }, { version, run, alert, reason }) => {
    await runOf(db, version, run);
    const changed = await db
      .update(liveAlerts)
      .set({ member: member.id, reason })
      .where(and(eq(liveAlerts.id, alert), eq(liveAlerts.run, run), isNull(liveAlerts.member)))
      .returning({ id: liveAlerts.id });
    if (changed.length === 0) {
      const [known] = await db.select({ id: liveAlerts.id }).from(liveAlerts).where(eq(liveAlerts.id, alert));
      // Somebody else has said so already: that is what was wanted.
      if (!known) throw notFound("This alert");
    }
    return {};
  },
);

/** A target that broke, for whoever is told of it outside. */
export interface Broken {
  readonly run: string;
  readonly element: string;
  readonly name: string;
  readonly target: LiveTarget;
  readonly share: number;
}

/** Targets of a run that are not kept any more, and of which nobody was told yet. */
export async function brokenIn(
  db: Transaction,
  at: { readonly version: string; readonly run: string },
): Promise<Broken[]> {
  const run = await runOf(db, at.version, at.run);
  const alerts = await openAlerts(db, at.run);
  return (await measuredIn(db, run))
    .filter(({ measured: now }) => !now.isKept)
    .filter(({ element, target }) => !alerts.some((one) => one.element === element && isSame(one.target, target)))
    .map(({ element, name, target, measured: now }) => ({ run: run.name, element, name, target, share: now.share }));
}

/** What is not kept any more is an alert, once until somebody has seen it. */
export async function keepAlerts(
  { db }: Context,
  at: { readonly version: string; readonly run: string },
): Promise<Broken[]> {
  await lock(db, "run", [at.run]);
  const run = await runOf(db, at.version, at.run);
  const broken = await brokenIn(db, at);
  for (const { element, target, share } of broken)
    await db.insert(liveAlerts).values({
      id: nanoid(12),
      run: at.run,
      version: at.version,
      element,
      target,
      share,
      at: shownAt(run.clock),
    });
  return broken;
}
