import { and, asc, eq, isNull } from "drizzle-orm";
import { nanoid } from "nanoid";
import { home } from "@/contract";
import { emptyModel, type Model } from "@/core/model";
import { areas, processes, versions } from "@/data/schema";
import { lock } from "../kernel/act";
import { copyHanging } from "../kernel/hanging";
import { createHead, loadHead } from "../kernel/heads";
import { needsFreeId } from "../kernel/takenIds";
import { type Context, notFound, UseCaseError, useCase } from "../kernel/useCase";
import { needsArea } from "./areas";

const liveProcess = (process: string) => and(eq(processes.id, process), isNull(processes.deletedAt));

export const deleteProcess = useCase(home.deleteProcess, async ({ db, now }, input) => {
  await lock(db, "home");
  const at = now();
  const gone = await db.update(processes).set({ deletedAt: at }).where(liveProcess(input.id)).returning();
  if (gone.length === 0) throw notFound("This process");
  return { at };
});

/** A to-be goes; the as-is goes only with its process. */
export const deleteVersion = useCase(home.deleteVersion, async ({ db, now }, input) => {
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
export const undelete = useCase(home.undelete, async ({ db }, { at }) => {
  await lock(db, "home");
  await db.update(areas).set({ deletedAt: null }).where(eq(areas.deletedAt, at));
  await db.update(processes).set({ deletedAt: null }).where(eq(processes.deletedAt, at));
  await db.update(versions).set({ deletedAt: null }).where(eq(versions.deletedAt, at));
  return {};
});

export const renameProcess = useCase(home.renameProcess, async ({ db }, input) => {
  const found = await db.update(processes).set({ name: input.name }).where(liveProcess(input.id)).returning();
  if (found.length === 0) throw notFound("This process");
  return {};
});

export const moveProcess = useCase(home.moveProcess, async ({ db }, input) => {
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

export const createProcess = useCase(home.createProcess, async (context, input) => {
  await lock(context.db, "home");
  const key = nanoid(8).replace(/[^A-Za-z0-9]/g, "x");
  const model = emptyModel(
    { definitions: `definitions-${key}`, process: input.bpmnId ?? `process-${key}`, diagram: `page-${key}` },
    input.name,
  );
  return addProcess(context, input, model);
});

/** A copy of a process with the head of each of its versions. */
export const copyProcess = useCase(home.copyProcess, async (context, input) => {
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
  for (const [place, row] of rows.entries()) {
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
      // In the order of those they are copies of.
      createdAt: new Date(Date.parse(at) + place).toISOString(),
    });
    await createHead(context, version, model);
  }
  await copyHanging(db, "intoCopy", ids);
  return { process, version: ids.get(rows[0]?.id as string) as string };
});
