import { and, eq, isNull } from "drizzle-orm";
import { nanoid } from "nanoid";
import { compare } from "@/contract";
import { startToBe, withoutLinks } from "@/core/compare";
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
  const source = await versionRow(context, input.source);
  const head = await loadHead(db, input.source);
  const version = input.versionId ?? nanoid(12);
  await needsFreeId(db, versions, version);
  await db.insert(versions).values({
    id: version,
    process: source.process,
    kind: "to-be",
    name: input.name,
    aim: input.aim,
    source: source.id,
    createdAt: context.now(),
  });
  await createHead(context, version, startToBe(head.model));
  await copyHanging(db, "intoToBe", new Map([[source.id, version]]));
  return { version };
});

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
