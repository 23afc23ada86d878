import { and, eq, isNull } from "drizzle-orm";
import { nanoid } from "nanoid";
import { compare } from "@/contract";
import { startToBe, withoutLinks } from "@/core/compare";
import type { Model } from "@/core/model";
import { versions } from "@/data/schema";
import { lock } from "../kernel/act";
import { adoptHanging, copyHanging } from "../kernel/hanging";
import { createHead, loadHead, replaceHead } from "../kernel/heads";
import { keepBefore, keepRevision } from "../kernel/revisions";
import { needsFreeId } from "../kernel/takenIds";
import { type Context, notFound, UseCaseError, useCase } from "../kernel/useCase";

async function versionRow({ db }: Context, version: string) {
  const [row] = await db
    .select()
    .from(versions)
    .where(and(eq(versions.id, version), isNull(versions.deletedAt)));
  if (!row) throw notFound("This version");
  return row;
}

/** A to-be begins as a copy of a version whose elements remember their counterparts. */
export const createToBe = useCase(compare.createToBe, async (context, input) => {
  const { db } = context;
  await lock(db, "home");
  await lock(db, "version", [input.source], "in common");
  const { model } = await loadHead(db, input.source);
  const version = await addToBe(context, input, startToBe(model));
  await copyHanging(db, "intoToBe", new Map([[input.source, version]]));
  return { version };
});

interface NewToBe {
  readonly source: string;
  readonly name: string;
  readonly aim?: string;
  readonly versionId?: string | undefined;
}

/** A to-be of the process that a version belongs to, with what it holds; gives its id. Home is locked by whoever asks. */
export async function addToBe(
  context: Context,
  { source, name, aim, versionId }: NewToBe,
  model: Model,
): Promise<string> {
  const { db } = context;
  const { process } = await versionRow(context, source);
  const version = versionId ?? nanoid(12);
  await needsFreeId(db, versions, version);
  const about = { id: version, process, kind: "to-be" as const, name, source, createdAt: context.now() };
  await db.insert(versions).values({ ...about, ...(aim !== undefined && { aim }) });
  await createHead(context, version, model);
  return version;
}

/** What a version is called, and what it is for. */
export const describeVersion = useCase(compare.describeVersion, async (context, input) => {
  const row = await versionRow(context, input.id);
  await context.db.update(versions).set({ name: input.name, aim: input.aim }).where(eq(versions.id, row.id));
  return {};
});

/**
 * Makes a to-be the as-is of its process. What the as-is was until now stays as a revision of it; other to-bes keep their links to it.
 */
export const adoptToBe = useCase(compare.adoptToBe, async (context, input) => {
  await lock(context.db, "home");
  const row = await versionRow(context, input.version);
  if (row.kind !== "to-be")
    throw new UseCaseError("not-a-to-be", "This version is the as-is already. Adopt one of its to-bes.", 409);
  const [asIs] = await context.db
    .select()
    .from(versions)
    .where(and(eq(versions.process, row.process), eq(versions.kind, "as-is"), isNull(versions.deletedAt)));
  if (!asIs) throw notFound("The as-is of this process");
  // Both are held, so that what is adopted is what the to-be holds, and what is kept is what it replaces.
  await lock(context.db, "version", [asIs.id, row.id]);
  await keepBefore(context, asIs.id, `adopting “${row.name}”`);
  const wanted = withoutLinks((await loadHead(context.db, row.id)).model);
  await replaceHead(context, asIs.id, wanted, `adopt “${row.name}”`);
  await adoptHanging(context.db, row.id, asIs.id);
  await context.db.update(versions).set({ adoptedAt: context.now() }).where(eq(versions.id, row.id));
  const number = await keepRevision(context, asIs.id, `“${row.name}” adopted`);
  return { version: asIs.id, number };
});
