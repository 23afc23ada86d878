import { and, eq } from "drizzle-orm";
import { decisionModels } from "@/core/decisions";
import { runWorld } from "@/core/live";
import { type Id, type Model, trustStored } from "@/core/model";
import { modelsOf, type World } from "@/core/tokens";
import { renewals, runs } from "@/data/schema";
import type { Transaction } from "../kernel/act";
import { notFound } from "../kernel/useCase";

export type RunRecord = typeof runs.$inferSelect;

/** One edition of what a run runs, opened once for as long as this process lasts: it never changes. */
export interface OpenedRun {
  readonly edition: number;
  readonly process: Id;
  readonly revision: number;
  readonly world: World;
  readonly model: Model;
  readonly models: readonly Model[];
  /** What goes to a thread with the model: what it calls, by the name it calls it, and what it decides by. */
  readonly called: ReadonlyMap<string, Model>;
  readonly decisions: RunRecord["decisions"];
}
const shared = globalThis as unknown as { laneRuns?: Map<string, OpenedRun> };
const mostOpen = 50;

/** A run's record without what it runs, which is asked for where it is not known yet. */
export const runColumns = {
  id: runs.id,
  version: runs.version,
  name: runs.name,
  clock: runs.clock,
  standIns: runs.standIns,
  seed: runs.seed,
  cases: runs.cases,
  edition: runs.edition,
  starts: runs.starts,
  startsAt: runs.startsAt,
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

const packed = {
  runs: {
    process: runs.process,
    revision: runs.revision,
    model: runs.model,
    called: runs.called,
    decisions: runs.decisions,
  },
  renewals: {
    process: renewals.process,
    revision: renewals.revision,
    model: renewals.model,
    called: renewals.called,
    decisions: renewals.decisions,
  },
};

/** An edition as it is kept. */
export async function packedOf(db: Transaction, { id: run, edition }: Pick<RunHead, "id" | "edition">) {
  const [row] =
    edition === 1
      ? await db.select(packed.runs).from(runs).where(eq(runs.id, run))
      : await db
          .select(packed.renewals)
          .from(renewals)
          .where(and(eq(renewals.run, run), eq(renewals.edition, edition)));
  if (!row) throw notFound("This run");
  return row;
}

/** What a run runs: the newest edition, or the one that a case runs by. */
export async function openedRun(
  db: Transaction,
  { id: run, at, edition: newest }: Pick<RunHead, "id" | "at" | "edition">,
  edition = newest,
): Promise<OpenedRun> {
  shared.laneRuns ??= new Map();
  // Another workspace, or one that was restored, may have a run of the same name.
  const key = `${run} ${at} ${edition}`;
  const known = shared.laneRuns.get(key);
  if (known) return known;
  const row = await packedOf(db, { id: run, edition });
  const model = trustStored(row.model);
  const called = new Map(row.called.map((one) => [one.calls, trustStored(one.model)]));
  const world = runWorld(model, called, decisionModels(row.decisions));
  const { process, revision, decisions } = row;
  const opened = { edition, process, revision, world, model, models: modelsOf(world), called, decisions };
  shared.laneRuns.set(key, opened);
  if (shared.laneRuns.size > mostOpen) shared.laneRuns.delete([...shared.laneRuns.keys()][0] as string);
  return opened;
}

/** Every edition of a run, the newest first: what cases under way run by. */
export async function allEditions(db: Transaction, run: Pick<RunHead, "id" | "at" | "edition">): Promise<OpenedRun[]> {
  const found: OpenedRun[] = [];
  for (let edition = run.edition; edition >= 1; edition--) found.push(await openedRun(db, run, edition));
  return found;
}
