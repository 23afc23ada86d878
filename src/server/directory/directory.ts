import { and, asc, eq, inArray, isNull } from "drizzle-orm";
import { nanoid } from "nanoid";
import { directory as terms } from "@/contract";
import type { UseRow } from "@/contract/directory";
import { type DirectoryEntry, type entryKinds, foldedName, isWithin, roleHues } from "@/core/directory";
import { readDirectoryFile, writeDirectoryCsv, writeDirectoryJson } from "@/core/directoryFile";
import { say, term } from "@/core/messages";
import { directory, elements, processes, uses, versions } from "@/data/schema";
import { lock, type Transaction } from "../kernel/act";
import { inEveryHeadWith } from "../kernel/everyHead";
import { insertRows } from "../kernel/manyRows";
import { stepsOfRole } from "../kernel/stepsOfRole";
import { needsFreeId } from "../kernel/takenIds";
import { notFound, query, UseCaseError, useCase } from "../kernel/useCase";
import { needsUnused, stepName, usesOf } from "../kernel/usesOf";

/** All entries, each with how often it is used. */
export const openDirectory = query(terms.openDirectory, async ({ db }) => {
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

export const createEntry = useCase(terms.createEntry, async ({ db }, input) => {
  await lock(db, "directory");
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
  await needsFreeId(db, directory, entry.id);
  await db.insert(directory).values(entry);
  return { id: entry.id, name: entry.name, hue: entry.hue, existed: false };
});

/** Changes an entry. A new name is written into every head that uses it. */
export const changeEntry = useCase(terms.changeEntry, async (context, { id: entryId, ...fields }) => {
  const { db } = context;
  await lock(db, "directory");
  const all = await db.select().from(directory).where(isNull(directory.deletedAt));
  const before = all.find((row) => row.id === entryId);
  if (!before) throw notFound("This entry");
  if (fields.unit != null && isWithin(all as DirectoryEntry[], fields.unit, entryId))
    throw new UseCaseError("unit-in-itself", "A unit cannot be part of itself, or of a unit that is part of it.");
  if (Object.keys(fields).length === 0) return { versions: [] };
  await db.update(directory).set(fields).where(eq(directory.id, entryId));
  if (fields.name === undefined || fields.name === before.name) return { versions: [] };
  const command = { type: "renameEntry", entry: entryId, from: before.name, name: fields.name } as const;
  return { versions: (await inEveryHeadWith(context, entryId, command)).map(({ version }) => version) };
});

/** Makes two entries one: whatever uses the one that goes uses the one that stays; what that lacks it takes from the other. */
export const mergeEntries = useCase(terms.mergeEntries, async (context, input) => {
  const { db } = context;
  await lock(db, "directory");
  const rows = await db
    .select()
    .from(directory)
    .where(and(inArray(directory.id, [input.from, input.into]), isNull(directory.deletedAt)));
  const [from, into] = [input.from, input.into].map((wanted) => rows.find((row) => row.id === wanted));
  if (!from || !into || from === into) throw notFound("One of these entries");
  if (from.kind !== into.kind)
    throw new UseCaseError(
      "other-kind",
      say`A ${term(from.kind)} and a ${term(into.kind)} are two things; only two of a kind can be one.`,
    );
  const command = {
    type: "mergeEntry",
    from: { entry: from.id, name: from.name },
    into: { entry: into.id, name: into.name },
  } as const;
  const batches = await inEveryHeadWith(context, from.id, command);
  const within = await db.select({ id: directory.id }).from(directory).where(eq(directory.unit, from.id));
  await db
    .update(directory)
    .set({
      description: into.description || from.description,
      unit: into.unit ?? (from.unit === into.id ? null : from.unit),
      headcount: into.headcount ?? from.headcount,
      costPerHour: into.costPerHour ?? from.costPerHour,
      hoursPerWeek: into.hoursPerWeek ?? from.hoursPerWeek,
    })
    .where(eq(directory.id, into.id));
  await db.update(directory).set({ unit: into.id }).where(eq(directory.unit, from.id));
  await db.update(directory).set({ deletedAt: context.now() }).where(eq(directory.id, from.id));
  const { description, unit, headcount, costPerHour, hoursPerWeek } = into;
  return {
    versions: batches.map(({ version }) => version),
    before: {
      gone: [from.id],
      made: [],
      changed: [
        { id: into.id, fields: { description, unit, headcount, costPerHour, hoursPerWeek } },
        ...within.map(({ id }) => ({ id, fields: { unit: from.id } })),
      ],
      batches,
    },
  };
});

/** The directory as a file: CSV for a spreadsheet, or JSON. */
export const exportDirectory = query(terms.exportDirectory, async ({ db }, { format }) => {
  const rows = (await db
    .select()
    .from(directory)
    .where(isNull(directory.deletedAt))
    .orderBy(asc(directory.kind), asc(directory.name))) as DirectoryEntry[];
  return { text: format === "csv" ? writeDirectoryCsv(rows) : writeDirectoryJson(rows) };
});

/** Takes over entries of a file: new ones are made, known ones (same kind and name) get what the file says and they lack or differ in. */
export const importDirectory = useCase(terms.importDirectory, async ({ db }, { text }) => {
  const read = readDirectoryFile(text);
  if (!read.ok) {
    const [first, ...more] = read.problems;
    throw new UseCaseError(
      "unreadable",
      more.length > 0
        ? say`${first?.said ?? ""} (and ${more.length} more) Nothing was taken over.`
        : say`${first?.said ?? ""} Nothing was taken over.`,
      422,
      read.problems,
    );
  }
  await lock(db, "directory");
  const rows = await db.select().from(directory).where(isNull(directory.deletedAt));
  const key = (kind: string, name: string) => `${kind}\n${foldedName(name)}`;
  const known = new Map(rows.map((row) => [key(row.kind, row.name), row.id]));
  let roles = rows.filter((row) => row.kind === "role").length;
  const made: (typeof directory.$inferInsert)[] = [];
  const changes: { id: string; fields: Partial<typeof directory.$inferInsert> }[] = [];
  for (const { kind, name, unit: _, hue, description, ...figures } of read.value) {
    const given = Object.fromEntries(Object.entries(figures).filter(([, value]) => value !== null));
    const id = known.get(key(kind, name));
    if (id !== undefined)
      changes.push({ id, fields: { ...given, ...(description && { description }), ...(hue && { hue }) } });
    else {
      const entry = { id: `${kind}-${nanoid(8)}`, kind, name, description, ...figures };
      known.set(key(kind, name), entry.id);
      made.push({ ...entry, hue: hue ?? (kind === "role" ? (roleHues[roles++ % roleHues.length] as string) : null) });
    }
  }
  await insertRows(db, directory, made);
  // Units last: a file may name one before it says what it is.
  const all = (await db.select().from(directory).where(isNull(directory.deletedAt))) as DirectoryEntry[];
  for (const { kind, name, unit } of read.value) {
    if (unit === null) continue;
    const [self, within] = [known.get(key(kind, name)) as string, known.get(key("unit", unit))];
    if (within === undefined || isWithin(all, within, self)) continue;
    changes.push({ id: self, fields: { unit: within } });
    const at = all.findIndex((entry) => entry.id === self);
    if (at >= 0) all[at] = { ...(all[at] as DirectoryEntry), unit: within };
  }
  const before = new Map<string, { [field: string]: unknown }>();
  for (const { id, fields } of changes) {
    if (Object.keys(fields).length === 0) continue;
    await db.update(directory).set(fields).where(eq(directory.id, id));
    const row = rows.find((one) => one.id === id);
    if (!row) continue;
    const was = Object.fromEntries(Object.keys(fields).map((field) => [field, row[field as keyof typeof row]]));
    before.set(id, { ...before.get(id), ...was });
  }
  const changed = [...before].map(([id, fields]) => ({ id, fields }));
  return {
    made: made.length,
    known: read.value.length - made.length,
    before: { gone: [], made: made.map(({ id }) => id), changed, batches: [] },
  };
});

export const deleteEntry = useCase(terms.deleteEntry, async ({ db, now }, { id: entryId }) => {
  await lock(db, "directory");
  await needsUnused(db, [entryId]);
  const gone = await db
    .update(directory)
    .set({ deletedAt: now() })
    .where(and(eq(directory.id, entryId), isNull(directory.deletedAt)))
    .returning();
  if (gone.length === 0) throw notFound("This entry");
  return {};
});

export const restoreEntry = useCase(terms.restoreEntry, async ({ db }, { id: entryId }) => {
  await lock(db, "directory");
  await db.update(directory).set({ deletedAt: null }).where(eq(directory.id, entryId));
  return {};
});

export const whereUsed = query(terms.whereUsed, async ({ db }, { id: entryId }) => {
  const named = await usesOf(db, entryId);
  return { uses: [...named, ...(await lanesSteps(db, entryId, named))] };
});

/** Steps that a role does because it has their lane; they name it nowhere themselves. */
async function lanesSteps(db: Transaction, role: string, named: readonly UseRow[]): Promise<UseRow[]> {
  const lanes = new Map(named.filter(({ how }) => how === "lane").map((use) => [use.version, use]));
  if (lanes.size === 0) return [];
  const told = new Set(named.map(({ version, element }) => `${version} ${element}`));
  const found: UseRow[] = [];
  for (const [version, ids] of await stepsOfRole(db, role)) {
    const lane = lanes.get(version);
    const wanted = ids.filter((id) => !told.has(`${version} ${id}`));
    if (!lane || wanted.length === 0) continue;
    const rows = await db
      .select({ element: elements.element, elementName: stepName })
      .from(elements)
      .where(and(eq(elements.version, version), inArray(elements.element, wanted)))
      .orderBy(asc(stepName));
    for (const row of rows) found.push({ ...lane, ...row, how: "by its lane" });
  }
  return found;
}
