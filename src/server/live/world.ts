import { eq } from "drizzle-orm";
import { decisionModels } from "@/core/decisions";
import { runWorld } from "@/core/live";
import { type Model, trustStored } from "@/core/model";
import { modelsOf, type World } from "@/core/tokens";
import { runs } from "@/data/schema";
import type { Transaction } from "../kernel/act";
import { notFound } from "../kernel/useCase";

export type RunRecord = typeof runs.$inferSelect;

/** What a run runs, opened once for as long as this process lasts: it never changes. */
export interface OpenedRun {
  readonly world: World;
  readonly model: Model;
  readonly models: readonly Model[];
}
const shared = globalThis as unknown as { laneRuns?: Map<string, OpenedRun> };
const mostOpen = 50;

/** A run's record without what it runs, which is asked for where it is not known yet. */
export const runColumns = {
  id: runs.id,
  version: runs.version,
  name: runs.name,
  revision: runs.revision,
  process: runs.process,
  clock: runs.clock,
  standIns: runs.standIns,
  seed: runs.seed,
  cases: runs.cases,
  endedAt: runs.endedAt,
  member: runs.member,
  at: runs.at,
};
export type RunHead = Pick<RunRecord, keyof typeof runColumns>;

export async function runOf(db: Transaction, version: string, run: string): Promise<RunHead> {
  const [row] = await db.select(runColumns).from(runs).where(eq(runs.id, run));
  if (!row || row.version !== version) throw notFound("This run");
  return row;
}

export async function openedRun(db: Transaction, { id: run, at }: Pick<RunHead, "id" | "at">): Promise<OpenedRun> {
  shared.laneRuns ??= new Map();
  // Another workspace, or one that was restored, may have a run of the same name.
  const key = `${run} ${at}`;
  const known = shared.laneRuns.get(key);
  if (known) return known;
  const [row] = await db
    .select({ model: runs.model, called: runs.called, decisions: runs.decisions })
    .from(runs)
    .where(eq(runs.id, run));
  if (!row) throw notFound("This run");
  const model = trustStored(row.model);
  const called = new Map(row.called.map((one) => [one.calls, trustStored(one.model)]));
  const world = runWorld(model, called, decisionModels(row.decisions));
  const opened = { world, model, models: modelsOf(world) };
  shared.laneRuns.set(key, opened);
  if (shared.laneRuns.size > mostOpen) shared.laneRuns.delete([...shared.laneRuns.keys()][0] as string);
  return opened;
}
