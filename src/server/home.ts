import { and, asc, desc, eq, inArray, isNull } from "drizzle-orm";
import { nanoid } from "nanoid";
import { z } from "zod";
import { emptyModel, type Model, toStored } from "@/core/model";
import { areas, handoffs, heads, processes, revisions, versions } from "@/data/schema";
import { briefSummary } from "./briefLinks";
import { generationOf } from "./generation";
import { createHead, DamagedVersion, loadHead, tryHead } from "./heads";
import { lock } from "./kernel/act";
import { id, name } from "./kernel/inputs";
import { copyReasons } from "./reasons";
import { noSummary, summaryOf } from "./summary";
import { needsFreeId } from "./takenIds";
import { type Context, notFound, query, UseCaseError, useCase } from "./useCase";
import { copyWalkTests } from "./walks";

/** The whole of Home: areas, processes with their versions, and the state of each stage. */
export const openHome = query(z.object({}), async ({ db }) => {
  const areaRows = await db
    .select()
    .from(areas)
    .where(isNull(areas.deletedAt))
    .orderBy(asc(areas.rank), asc(areas.name));
  const processRows = await db
    .select()
    .from(processes)
    .where(isNull(processes.deletedAt))
    .orderBy(asc(processes.rank), asc(processes.name));
  const versionRows = await db
    .select({
      id: versions.id,
      process: versions.process,
      kind: versions.kind,
      name: versions.name,
      source: versions.source,
      changedAt: heads.changedAt,
      sequence: heads.sequence,
    })
    .from(versions)
    .innerJoin(heads, eq(heads.version, versions.id))
    .where(isNull(versions.deletedAt))
    .orderBy(asc(versions.createdAt));
  const revisionRows = await db
    .select({ version: revisions.version, number: revisions.number })
    .from(revisions)
    .orderBy(desc(revisions.number));
  const handoffRows = await db.select({ version: handoffs.version }).from(handoffs);
  const listed = [];
  for (const version of versionRows) {
    const head = await tryHead(db, version.id);
    const isDamaged = head instanceof DamagedVersion;
    listed.push({
      ...version,
      revision: revisionRows.find((row) => row.version === version.id)?.number ?? 0,
      handedOff: handoffRows.filter((row) => row.version === version.id).length,
      /** Why it cannot be opened; null where it can. */
      damaged: isDamaged ? head.message : null,
      summary: isDamaged ? noSummary : await summaryOf(db, head.model, version.id),
    });
  }
  const summaries = new Map<string, Awaited<ReturnType<typeof briefSummary>>>();
  for (const { brief } of processRows)
    if (brief !== null && !summaries.has(brief)) summaries.set(brief, await briefSummary(db, brief));
  return {
    areas: areaRows.map(({ id, name, parent }) => ({ id, name, parent })),
    processes: processRows.map(({ id, name, area, brief }) => ({
      id,
      name,
      area,
      brief: brief === null ? null : (summaries.get(brief) ?? null),
    })),
    versions: listed,
  };
});
export type HomeData = Awaited<ReturnType<(typeof openHome)["run"]>>;

/** Refuses an area that is not there, or no longer. */
async function needsArea(db: Context["db"], id: string): Promise<void> {
  const [area] = await db
    .select({ id: areas.id })
    .from(areas)
    .where(and(eq(areas.id, id), isNull(areas.deletedAt)));
  if (!area) throw notFound("This area");
}

export const createArea = useCase(z.object({ id, name, parent: id.nullable() }), async ({ db }, input) => {
  await lock(db, "home");
  if (input.parent !== null) await needsArea(db, input.parent);
  await needsFreeId(db, areas, input.id);
  await db.insert(areas).values({ ...input, rank: 0 });
  return {};
});

export const renameArea = useCase(z.object({ id, name }), async ({ db }, input) => {
  await lock(db, "home");
  await needsArea(db, input.id);
  await db.update(areas).set({ name: input.name }).where(eq(areas.id, input.id));
  return {};
});

export const moveArea = useCase(z.object({ id, parent: id.nullable() }), async ({ db }, input) => {
  await lock(db, "home");
  await needsArea(db, input.id);
  if (input.parent !== null) await needsArea(db, input.parent);
  // An area cannot go into itself or what it holds.
  const rows = await db.select({ id: areas.id, parent: areas.parent }).from(areas);
  for (let at = input.parent; at !== null; at = rows.find((row) => row.id === at)?.parent ?? null) {
    if (at === input.id)
      throw new UseCaseError("area-in-itself", "An area cannot be moved into itself or into an area it holds.");
  }
  await db.update(areas).set({ parent: input.parent }).where(eq(areas.id, input.id));
  return {};
});

/** Deleting marks; what was in the area goes with it, and comes back with it. */
export const deleteArea = useCase(z.object({ id }), async ({ db, now }, input) => {
  await lock(db, "home");
  await needsArea(db, input.id);
  const rows = await db.select({ id: areas.id, parent: areas.parent }).from(areas).where(isNull(areas.deletedAt));
  const doomed = [input.id];
  for (let at = 0; at < doomed.length; at++)
    doomed.push(...rows.filter((row) => row.parent === doomed[at]).map((row) => row.id));
  const at = now();
  await db.update(areas).set({ deletedAt: at }).where(inArray(areas.id, doomed));
  await db
    .update(processes)
    .set({ deletedAt: at })
    .where(and(inArray(processes.area, doomed), isNull(processes.deletedAt)));
  return { at };
});

const liveProcess = (process: string) => and(eq(processes.id, process), isNull(processes.deletedAt));

export const deleteProcess = useCase(z.object({ id }), async ({ db, now }, input) => {
  await lock(db, "home");
  const at = now();
  const gone = await db.update(processes).set({ deletedAt: at }).where(liveProcess(input.id)).returning();
  if (gone.length === 0) throw notFound("This process");
  return { at };
});

/** A to-be goes; the as-is goes only with its process. */
export const deleteVersion = useCase(z.object({ id }), async ({ db, now }, input) => {
  await lock(db, "home");
  const [row] = await db
    .select({ kind: versions.kind })
    .from(versions)
    .where(and(eq(versions.id, input.id), isNull(versions.deletedAt)));
  if (!row) throw notFound("This version");
  if (row.kind === "as-is")
    throw new UseCaseError(
      "as-is-stays",
      "A process has one as-is. Delete the process, or adopt a to-be in its place.",
      409,
    );
  const at = now();
  await db.update(versions).set({ deletedAt: at }).where(eq(versions.id, input.id));
  return { at };
});

/** Undo of a deletion: everything that went at one moment comes back. */
export const undelete = useCase(z.object({ at: z.iso.datetime({ offset: true }) }), async ({ db }, { at }) => {
  await lock(db, "home");
  await db.update(areas).set({ deletedAt: null }).where(eq(areas.deletedAt, at));
  await db.update(processes).set({ deletedAt: null }).where(eq(processes.deletedAt, at));
  await db.update(versions).set({ deletedAt: null }).where(eq(versions.deletedAt, at));
  return {};
});

export const renameProcess = useCase(z.object({ id, name }), async ({ db }, input) => {
  const found = await db.update(processes).set({ name: input.name }).where(liveProcess(input.id)).returning();
  if (found.length === 0) throw notFound("This process");
  return {};
});

export const moveProcess = useCase(z.object({ id, area: id }), async ({ db }, input) => {
  await lock(db, "home");
  await needsArea(db, input.area);
  const found = await db.update(processes).set({ area: input.area }).where(liveProcess(input.id)).returning();
  if (found.length === 0) throw notFound("This process");
  return {};
});

/** A process with its as-is. The caller holds Home. */
export async function addProcess(
  context: Context,
  input: { name: string; area: string; processId?: string | undefined; versionId?: string | undefined },
  model: Model,
): Promise<{ process: string; version: string }> {
  const { db } = context;
  await needsArea(db, input.area);
  const process = input.processId ?? nanoid(12);
  const version = input.versionId ?? nanoid(12);
  await needsFreeId(db, processes, process);
  await needsFreeId(db, versions, version);
  const at = context.now();
  await db.insert(processes).values({ id: process, name: input.name, area: input.area, createdAt: at });
  await db.insert(versions).values({ id: version, process, kind: "as-is", name: "As-is", createdAt: at });
  await createHead(context, version, model);
  return { process, version };
}

export const createProcess = useCase(
  z.object({ name, area: id, processId: id.optional(), versionId: id.optional(), bpmnId: id.optional() }),
  async (context, input) => {
    await lock(context.db, "home");
    const key = nanoid(8).replace(/[^A-Za-z0-9]/g, "x");
    const model = emptyModel(
      { definitions: `definitions-${key}`, process: input.bpmnId ?? `process-${key}`, diagram: `page-${key}` },
      input.name,
    );
    return addProcess(context, input, model);
  },
);

/** A copy of a process with the head of each of its versions. */
export const copyProcess = useCase(z.object({ id, name, area: id }), async (context, input) => {
  const { db } = context;
  await lock(db, "home");
  await needsArea(db, input.area);
  const rows = await db
    .select()
    .from(versions)
    .where(and(eq(versions.process, input.id), isNull(versions.deletedAt)))
    .orderBy(asc(versions.createdAt));
  if (rows.length === 0) throw notFound("This process");
  await lock(
    db,
    "version",
    rows.map((row) => row.id),
    "in common",
  );
  const process = nanoid(12);
  const at = context.now();
  const ids = new Map(rows.map((row) => [row.id, nanoid(12)]));
  const [{ brief = null } = {}] = await db
    .select({ brief: processes.brief })
    .from(processes)
    .where(eq(processes.id, input.id));
  await db.insert(processes).values({ id: process, name: input.name, area: input.area, brief, createdAt: at });
  for (const row of rows) {
    const version = ids.get(row.id) as string;
    const { model } = await loadHead(db, row.id);
    await db.insert(versions).values({
      id: version,
      process,
      kind: row.kind,
      name: row.name,
      source: row.source ? (ids.get(row.source) ?? null) : null,
      aim: row.aim,
      profile: row.profile,
      adoptedAt: row.adoptedAt,
      createdAt: at,
    });
    await createHead(context, version, model);
    await copyWalkTests(db, row.id, version);
    await copyReasons(db, row.id, ids);
  }
  return { process, version: ids.get(rows[0]?.id as string) as string };
});

/** Everything the stages of one version need. */
export const openVersion = query(z.object({ version: id }), async (context, input) => {
  const { db } = context;
  const generation = await generationOf(db);
  const [row] = await db
    .select({
      version: versions,
      processName: processes.name,
      area: processes.area,
      brief: processes.brief,
      deletedAt: processes.deletedAt,
    })
    .from(versions)
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(eq(versions.id, input.version));
  if (!row || row.deletedAt || row.version.deletedAt) throw notFound("This version");
  const head = await loadHead(db, input.version);
  const siblings = await db
    .select({
      id: versions.id,
      name: versions.name,
      kind: versions.kind,
      source: versions.source,
      aim: versions.aim,
      adoptedAt: versions.adoptedAt,
    })
    .from(versions)
    .where(and(eq(versions.process, row.version.process), isNull(versions.deletedAt)))
    .orderBy(asc(versions.createdAt));
  const areaRows = await db.select().from(areas);
  const trail: string[] = [];
  for (let at: string | null = row.area; at !== null; at = areaRows.find((area) => area.id === at)?.parent ?? null)
    trail.unshift(areaRows.find((area) => area.id === at)?.name ?? "");
  const handed = await db.select({ id: handoffs.id }).from(handoffs).where(eq(handoffs.version, input.version));
  return {
    version: {
      id: row.version.id,
      name: row.version.name,
      kind: row.version.kind,
      source: row.version.source,
      aim: row.version.aim,
      adoptedAt: row.version.adoptedAt,
    },
    process: { id: row.version.process, name: row.processName },
    trail,
    siblings,
    sequence: head.sequence,
    generation,
    handedOff: handed.length,
    brief: await briefSummary(db, row.brief),
    model: toStored(head.model),
  };
});
export type VersionData = Awaited<ReturnType<(typeof openVersion)["run"]>>;
