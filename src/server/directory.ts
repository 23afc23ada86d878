import { and, asc, eq, isNull } from "drizzle-orm";
import { nanoid } from "nanoid";
import { z } from "zod";
import { perform } from "@/core/commands";
import { directoryEntrySchema, type entryKinds, foldedName, roleHues } from "@/core/directory";
import { directory, processes, uses, versions } from "@/data/schema";
import { loadHead, writeBatch } from "./heads";
import { notFound, UseCaseError, useCase } from "./useCase";

const id = z.string().min(1).max(200);

/** All entries, each with how often it is used. */
export const openDirectory = useCase(z.object({}), async ({ db }) => {
  const rows = await db.select().from(directory).where(isNull(directory.deletedAt)).orderBy(asc(directory.name));
  const used = await db
    .select({ entry: uses.entry, version: uses.version })
    .from(uses)
    .innerJoin(versions, eq(versions.id, uses.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(and(isNull(versions.deletedAt), isNull(processes.deletedAt)));
  const counts = new Map<string, number>();
  for (const { entry } of used) counts.set(entry, (counts.get(entry) ?? 0) + 1);
  return {
    entries: rows.map(({ deletedAt: _, kind, ...row }) => ({
      ...row,
      kind: kind as (typeof entryKinds)[number],
      uses: counts.get(row.id) ?? 0,
    })),
  };
});
export type DirectoryData = Awaited<ReturnType<(typeof openDirectory)["run"]>>;

export const createEntry = useCase(directoryEntrySchema.partial({ id: true }), async ({ db }, input) => {
  const same = await db
    .select()
    .from(directory)
    .where(and(eq(directory.kind, input.kind), isNull(directory.deletedAt)));
  const known = same.find((row) => foldedName(row.name) === foldedName(input.name));
  if (known) return { id: known.id, name: known.name, hue: known.hue, existed: true };
  const entry = {
    ...input,
    id: input.id ?? `${input.kind}-${nanoid(8)}`,
    hue: input.hue ?? (input.kind === "role" ? (roleHues[same.length % roleHues.length] as string) : null),
  };
  await db.insert(directory).values(entry);
  return { id: entry.id, name: entry.name, hue: entry.hue, existed: false };
});

/** Changes an entry. A new name is written into every head that uses it, in one transaction; kept revisions stay as they were. */
export const changeEntry = useCase(
  z.object({
    id,
    name: z.string().trim().min(1).max(200).optional(),
    description: z.string().max(10_000).optional(),
    unit: id.nullable().optional(),
    hue: z
      .string()
      .regex(/^#[0-9A-Fa-f]{6}$/)
      .optional(),
  }),
  async (context, { id: entryId, ...fields }) => {
    const { db } = context;
    const [before] = await db
      .select()
      .from(directory)
      .where(and(eq(directory.id, entryId), isNull(directory.deletedAt)));
    if (!before) throw notFound("This entry");
    if (fields.unit === entryId) throw new UseCaseError("unit-in-itself", "A unit cannot be part of itself.");
    const changedVersions: string[] = [];
    await db.transaction(async (transaction) => {
      await transaction.update(directory).set(fields).where(eq(directory.id, entryId));
      if (fields.name === undefined || fields.name === before.name) return;
      const found = await transaction
        .selectDistinct({ version: uses.version })
        .from(uses)
        .where(eq(uses.entry, entryId));
      for (const { version } of found) {
        const head = await loadHead(transaction, version);
        const command = { type: "renameEntry", entry: entryId, from: before.name, name: fields.name } as const;
        const done = perform(head.model, command);
        if (!done.ok)
          throw new UseCaseError("refused", done.problems[0]?.message ?? "The name could not be changed.", 409);
        if (done.value.edits.length === 0) continue;
        await writeBatch(transaction, context, version, {
          ...done.value,
          sequence: head.sequence + 1,
          batch: nanoid(),
          commands: [command],
        });
        changedVersions.push(version);
      }
    });
    return { versions: changedVersions };
  },
);

export const deleteEntry = useCase(z.object({ id }), async ({ db, now }, { id: entryId }) => {
  const used = await db
    .select({ element: uses.elementName, process: processes.name })
    .from(uses)
    .innerJoin(versions, eq(versions.id, uses.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(and(eq(uses.entry, entryId), isNull(versions.deletedAt), isNull(processes.deletedAt)));
  if (used.length > 0) {
    const some = used
      .slice(0, 3)
      .map((use) => `${use.element} (${use.process})`)
      .join(", ");
    throw new UseCaseError(
      "in-use",
      `This entry is used ${used.length} times: ${some}${used.length > 3 ? " and others" : ""}. Take it off there first.`,
      409,
    );
  }
  await db.update(directory).set({ deletedAt: now() }).where(eq(directory.id, entryId));
  return {};
});

export const restoreEntry = useCase(z.object({ id }), async ({ db }, { id: entryId }) => {
  await db.update(directory).set({ deletedAt: null }).where(eq(directory.id, entryId));
  return {};
});

export const whereUsed = useCase(z.object({ id }), async ({ db }, { id: entryId }) => ({
  uses: await db
    .select({
      version: uses.version,
      versionName: versions.name,
      process: processes.name,
      element: uses.element,
      elementName: uses.elementName,
      how: uses.how,
    })
    .from(uses)
    .innerJoin(versions, eq(versions.id, uses.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(and(eq(uses.entry, entryId), isNull(versions.deletedAt), isNull(processes.deletedAt)))
    .orderBy(asc(processes.name), asc(versions.createdAt), asc(uses.elementName)),
}));
