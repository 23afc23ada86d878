import { and, asc, count, desc, eq, inArray, isNull } from "drizzle-orm";
import { comments as terms } from "@/contract";
import type { MyThread, ThreadRow } from "@/contract/comments";
import { say } from "@/core/messages";
import { type KeptSaid, members, processes, threads, versions } from "@/data/schema";
import { lock, type Transaction } from "../kernel/act";
import { needsFreeId } from "../kernel/takenIds";
import { type Context, notFound, query, UseCaseError, useCase } from "../kernel/useCase";

type Row = typeof threads.$inferSelect;

/** What members are called, by their ids. */
async function namesOf(db: Transaction): Promise<ReadonlyMap<string, string>> {
  const rows = await db.select({ id: members.id, name: members.name }).from(members);
  return new Map(rows.map(({ id, name }) => [id, name]));
}

const told = (
  { id, about, said, assigned, resolvedBy, resolvedAt }: Row,
  names: ReadonlyMap<string, string>,
): ThreadRow => ({
  id,
  about,
  said: said.map(({ guest, ...one }) => ({ ...one, name: guest ?? names.get(one.member) ?? "" })),
  assigned,
  resolved: resolvedAt === null ? null : { name: names.get(resolvedBy ?? "") ?? "", at: resolvedAt },
});

export const listThreads = query(terms.listThreads, async ({ db }, { version }) => {
  const rows = await db
    .select()
    .from(threads)
    .where(and(eq(threads.version, version), isNull(threads.deletedAt)))
    .orderBy(asc(threads.at), asc(threads.id));
  const names = await namesOf(db);
  return { threads: rows.map((row) => told(row, names)) };
});

/** What is still talked about in a version, as a document tells it. */
export async function openThreads(db: Transaction, version: string) {
  const rows = await db
    .select()
    .from(threads)
    .where(and(eq(threads.version, version), isNull(threads.deletedAt), isNull(threads.resolvedAt)))
    .orderBy(asc(threads.at), asc(threads.id));
  const names = await namesOf(db);
  return rows.map(({ about, said }) => ({
    about: about.words,
    said: said.map(({ member, guest, at, text }) => ({ name: guest ?? names.get(member) ?? "", at, text })),
  }));
}

/** How many threads are open in some versions. */
export async function openThreadCounts(db: Transaction, of: readonly string[]): Promise<ReadonlyMap<string, number>> {
  if (of.length === 0) return new Map();
  const rows = await db
    .select({ version: threads.version, open: count() })
    .from(threads)
    .where(and(inArray(threads.version, [...of]), isNull(threads.deletedAt), isNull(threads.resolvedAt)))
    .groupBy(threads.version);
  return new Map(rows.map(({ version, open }) => [version, open]));
}

/** So much is said in one thread. */
const mostSaid = 500;

export const startThread = useCase(terms.startThread, async (context, { version, thread, said, about, ...more }) => {
  const { db, member, asked } = context;
  await lock(db, "version", [version]);
  const [known] = await db.select({ version: threads.version }).from(threads).where(eq(threads.id, thread));
  // Asked once more after the answer was lost.
  if (known?.version === version) return {};
  await needsFreeId(db, threads, thread);
  const first = contribution(context, said, more);
  await db.insert(threads).values({
    ...{ id: thread, origin: thread, version, about, said: [first], assigned: more.assigned },
    ...{ member: member.id, at: asked },
  });
  return {};
});

const contribution = (
  { member, asked }: Context,
  id: string,
  { text, mentions }: { readonly text: string; readonly mentions: readonly string[] },
): KeptSaid => ({
  ...{ id, member: member.id, at: asked, text, mentions, editedAt: null },
  ...(member.isGuest && { guest: member.name }),
});

/** A thread of the version, to be changed: two at once come one after the other. */
async function opened({ db }: Context, { version, thread }: { readonly version: string; readonly thread: string }) {
  await lock(db, "version", [version]);
  const [row] = await db
    .select()
    .from(threads)
    .where(and(eq(threads.id, thread), eq(threads.version, version), isNull(threads.deletedAt)));
  if (!row) throw notFound("This thread");
  return row;
}

export const answerThread = useCase(terms.answerThread, async (context, { said, text, mentions, ...of }) => {
  const row = await opened(context, of);
  if (row.said.some(({ id }) => id === said)) return {};
  if (row.said.length >= mostSaid)
    throw new UseCaseError("too-long", say`This thread has ${mostSaid} contributions. Begin another one.`, 409);
  const next = [...row.said, contribution(context, said, { text, mentions })];
  // Whoever goes on with what was closed opens it again.
  await context.db
    .update(threads)
    .set({ said: next, resolvedAt: null, resolvedBy: null })
    .where(eq(threads.id, row.id));
  return {};
});

export const editSaid = useCase(terms.editSaid, async (context, { said, text, mentions, ...of }) => {
  const row = await opened(context, of);
  const before = row.said.find(({ id }) => id === said);
  if (!before) throw notFound("This contribution");
  if (before.member !== context.member.id)
    throw new UseCaseError("not-yours", "Only who said something can say it otherwise. Answer it instead.", 403);
  const next = row.said.map((one) => (one === before ? { ...one, text, mentions, editedAt: context.now() } : one));
  await context.db.update(threads).set({ said: next }).where(eq(threads.id, row.id));
  return { before: { text: before.text, mentions: before.mentions } };
});

export const settleThread = useCase(terms.settleThread, async (context, { isResolved, ...of }) => {
  const row = await opened(context, of);
  const settled = isResolved
    ? { resolvedAt: context.now(), resolvedBy: context.member.id }
    : { resolvedAt: null, resolvedBy: null };
  await context.db.update(threads).set(settled).where(eq(threads.id, row.id));
  return {};
});

export const assignThread = useCase(terms.assignThread, async (context, { assigned, ...of }) => {
  const row = await opened(context, of);
  if (assigned !== null) {
    const [known] = await context.db.select({ id: members.id }).from(members).where(eq(members.id, assigned));
    if (!known) throw notFound("This member");
  }
  await context.db.update(threads).set({ assigned }).where(eq(threads.id, row.id));
  return { before: row.assigned };
});

export const deleteThread = useCase(terms.deleteThread, async (context, of) => {
  const row = await opened(context, of);
  if (row.member !== context.member.id)
    throw new UseCaseError("not-yours", "Only who began a thread can delete it. Close it instead.", 403);
  await context.db.update(threads).set({ deletedAt: context.now() }).where(eq(threads.id, row.id));
  return {};
});

export const restoreThread = useCase(terms.restoreThread, async ({ db, member }, { version, thread }) => {
  await lock(db, "version", [version]);
  await db
    .update(threads)
    .set({ deletedAt: null })
    .where(and(eq(threads.id, thread), eq(threads.version, version), eq(threads.member, member.id)));
  return {};
});

/** More than these are not told at once, the latest first. */
const mostMine = 200;

export const myThreads = query(terms.myThreads, async ({ db, member }): Promise<{ threads: MyThread[] }> => {
  const rows = await db
    .select({ thread: threads, versionName: versions.name, process: processes.name })
    .from(threads)
    .innerJoin(versions, eq(versions.id, threads.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(
      and(
        isNull(threads.deletedAt),
        isNull(threads.resolvedAt),
        isNull(versions.deletedAt),
        isNull(processes.deletedAt),
        inArray(versions.kind, ["as-is", "to-be"]),
      ),
    )
    .orderBy(desc(threads.at), desc(threads.id));
  const names = await namesOf(db);
  const isMine = ({ assigned, said }: Row) =>
    assigned === member.id || said.some(({ mentions }) => mentions.includes(member.id));
  return {
    threads: rows
      .filter(({ thread }) => isMine(thread))
      .slice(0, mostMine)
      .map(({ thread, versionName, process }) => ({
        ...told(thread, names),
        version: thread.version,
        versionName,
        process,
      })),
  };
});
