import { and, eq, gte, isNotNull, isNull } from "drizzle-orm";
import { nanoid } from "nanoid";
import { live as terms } from "@/contract";
import type { TargetRow } from "@/contract/live";
import { roleOfLane } from "@/core/directory";
import { type CaseHistory, type Measured, measured, targetValues } from "@/core/live";
import { type LiveTarget, laneOf, type Model, nameOf, targetsOf } from "@/core/model";
import { directory, liveAlerts, liveCases } from "@/data/schema";
import { lock, type Transaction } from "../kernel/act";
import { loadHead } from "../kernel/heads";
import { type Context, notFound, query, useCase } from "../kernel/useCase";
import { shownAt } from "./clock";
import { historiesSince } from "./figures";
import { allEditions, type RunHead, runOf } from "./world";

const millisecondsADay = 86_400_000;
/** Whole cases are looked at by the thousands; what happened within them in the last ones. */
const mostLooked = 100_000;

interface Meant {
  readonly element: string;
  readonly name: string;
  readonly target: LiveTarget;
  /** Of the process itself: whole cases are meant. */
  readonly isWhole: boolean;
}

const meantIn = (model: Model): Meant[] =>
  [...model.elements].flatMap((element) =>
    targetsOf(element).map((target) => ({
      element: element.id,
      name: nameOf(model, element.id) || element.id,
      target,
      isWhole: element.type === "process",
    })),
  );

/** What a second of work at a step costs: that of its role, as the directory has it. */
async function ratesOf(db: Transaction, models: readonly Model[]): Promise<(step: string) => number> {
  const entries = await db
    .select({ id: directory.id, costPerHour: directory.costPerHour })
    .from(directory)
    .where(isNotNull(directory.costPerHour));
  const costs = new Map(entries.map(({ id, costPerHour }) => [id, costPerHour ?? 0]));
  return (step) => {
    const model = models.find((one) => one.elements.has(step));
    const lane = model && laneOf(model, step);
    const role = model && lane && roleOfLane(model, lane)?.entry;
    return (role ? (costs.get(role) ?? 0) : 0) / 3600;
  };
}

async function durationsOf(db: Transaction, run: RunHead, since: number): Promise<number[]> {
  const rows = await db
    .select({ began: liveCases.began, ended: liveCases.ended })
    .from(liveCases)
    .where(and(eq(liveCases.run, run.id), eq(liveCases.state, "completed"), gte(liveCases.ended, since)))
    .limit(mostLooked);
  return rows.map(({ began, ended }) => ((ended ?? began) - began) / 1000);
}

async function measuredIn(db: Transaction, run: RunHead): Promise<(Meant & { readonly measured: Measured })[]> {
  const { model } = await loadHead(db, run.version);
  const meant = meantIn(model);
  if (meant.length === 0) return [];
  const now = shownAt(run.clock);
  const models = (await allEditions(db, run)).flatMap((opened) => opened.models);
  const rateOf = await ratesOf(db, models);
  const histories = new Map<number, readonly CaseHistory[]>();
  const found = [];
  for (const one of meant) {
    const { element, target, isWhole } = one;
    const since = now - target.days * millisecondsADay;
    let values: readonly number[];
    if (isWhole && target.what === "duration") values = await durationsOf(db, run, since);
    else {
      const cases = histories.get(target.days) ?? (await historiesSince(db, run.id, since));
      histories.set(target.days, cases);
      values = targetValues(target, cases, { element, models, rateOf });
    }
    found.push({ ...one, measured: measured(target, values) });
  }
  return found;
}

const isSame = (a: LiveTarget, b: LiveTarget): boolean =>
  a.what === b.what &&
  a.seconds === b.seconds &&
  a.amount === b.amount &&
  a.until === b.until &&
  a.share === b.share &&
  a.days === b.days;

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
