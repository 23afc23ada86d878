import { and, desc, eq, inArray, isNull, lt, sql } from "drizzle-orm";
import { evidence as terms } from "@/contract";
import { type LogRow, mostLogBytes, type OpenedLogRow } from "@/contract/evidence";
import { say } from "@/core/messages";
import { logs, members, versions } from "@/data/schema";
import { lock, type Transaction } from "../kernel/act";
import { needsFreeId } from "../kernel/takenIds";
import { type Context, notFound, query, UseCaseError, useCase } from "../kernel/useCase";

const columns = {
  id: logs.id,
  name: logs.name,
  facts: logs.facts,
  bytes: sql<number>`length(${logs.content})`,
  member: members.name,
  at: logs.at,
};
const told = <Row extends { readonly member: string | null }>(row: Row) => ({ ...row, member: row.member ?? "" });

/** The versions of the process that one is of: a log of any of them is evidence for all. */
async function siblings(db: Transaction, version: string) {
  const [own] = await db
    .select({ process: versions.process })
    .from(versions)
    .where(and(eq(versions.id, version), isNull(versions.deletedAt)));
  if (!own) throw notFound("This version");
  return db.select({ id: versions.id, kind: versions.kind }).from(versions).where(eq(versions.process, own.process));
}

const ids = (rows: readonly { readonly id: string }[]) => rows.map(({ id }) => id);

/** A log of the process, that is there. */
export const thatLog = async (db: Transaction, version: string, log: string) =>
  and(eq(logs.id, log), inArray(logs.version, ids(await siblings(db, version))), isNull(logs.deletedAt));

export const listLogs = query(terms.listLogs, async ({ db }, { version }): Promise<{ logs: LogRow[] }> => {
  const rows = await db
    .select(columns)
    .from(logs)
    .leftJoin(members, eq(members.id, logs.member))
    .where(and(inArray(logs.version, ids(await siblings(db, version))), isNull(logs.deletedAt)))
    .orderBy(desc(logs.at), desc(logs.id));
  return { logs: rows.map(told) };
});

export const openLog = query(terms.openLog, async ({ db }, { version, log }): Promise<OpenedLogRow> => {
  const [row] = await db
    .select({ ...columns, steps: logs.steps, judged: logs.judged })
    .from(logs)
    .leftJoin(members, eq(members.id, logs.member))
    .where(await thatLog(db, version, log));
  if (!row) throw notFound("This log");
  const by = await db
    .select({ id: members.id, name: members.name })
    .from(members)
    .where(
      inArray(
        members.id,
        row.judged.map(({ member }) => member),
      ),
    );
  const names = new Map(by.map(({ id, name }) => [id, name]));
  return {
    ...told(row),
    judged: row.judged.map((one) => ({ ...one, member: names.get(one.member) ?? "" })),
  };
});

export const logContent = query(terms.logContent, async ({ db }, { version, log }) => {
  const [row] = await db
    .select({ name: logs.name, content: logs.content })
    .from(logs)
    .where(await thatLog(db, version, log));
  if (!row) throw notFound("This log");
  return { name: row.name, bytes: new Uint8Array(row.content) };
});

/** So long the content of a log that was deleted is kept, in milliseconds. */
const keptDeleted = 30 * 24 * 3_600_000;

export const keepLog = useCase(terms.keepLog, async ({ db, member, asked }, { version, log, name, facts, bytes }) => {
  if (bytes.length > mostLogBytes)
    throw new UseCaseError(
      "too-large",
      say`This log is larger than the ${mostLogBytes / 1024 / 1024} MB that are kept.`,
      413,
    );
  await lock(db, "version", [version]);
  const own = await siblings(db, version);
  const [known] = await db.select({ version: logs.version }).from(logs).where(eq(logs.id, log));
  // Asked once more after the answer was lost.
  if (known && ids(own).includes(known.version)) return { log };
  await needsFreeId(db, logs, log);
  const [last] = await db
    .select({ steps: logs.steps })
    .from(logs)
    .where(and(inArray(logs.version, ids(own)), isNull(logs.deletedAt)))
    .orderBy(desc(logs.at))
    .limit(1);
  // What was deleted a month ago is brought again by nobody: its content goes for good.
  const longAgo = new Date(Date.parse(asked) - keptDeleted).toISOString();
  await db.delete(logs).where(and(inArray(logs.version, ids(own)), lt(logs.deletedAt, longAgo)));
  const kept = own.find(({ kind }) => kind === "as-is")?.id ?? version;
  const said = { id: log, version: kept, name, facts, content: Buffer.from(bytes), steps: last?.steps ?? {} };
  await db.insert(logs).values({ ...said, judged: [], member: member.id, at: asked });
  return { log };
});

export const deleteLog = useCase(terms.deleteLog, async ({ db, now }, { version, log }) => {
  await lock(db, "version", [version]);
  const gone = await db
    .update(logs)
    .set({ deletedAt: now() })
    .where(await thatLog(db, version, log))
    .returning({ id: logs.id });
  if (gone.length === 0) throw notFound("This log");
  return {};
});

export const restoreLog = useCase(terms.restoreLog, async ({ db }, { version, log }) => {
  await db
    .update(logs)
    .set({ deletedAt: null })
    .where(and(eq(logs.id, log), inArray(logs.version, ids(await siblings(db, version)))));
  return {};
});

/** What is kept beside a log, to be changed: two at once come one after the other. */
async function beside({ db }: Context, { version, log }: { readonly version: string; readonly log: string }) {
  await lock(db, "version", ids(await siblings(db, version)));
  const [row] = await db
    .select({ steps: logs.steps, judged: logs.judged })
    .from(logs)
    .where(await thatLog(db, version, log));
  if (!row) throw notFound("This log");
  return row;
}

export const sayStep = useCase(terms.sayStep, async (context, { activity, steps, ...of }) => {
  const { steps: said } = await beside(context, of);
  const { [activity]: before = null, ...rest } = said;
  await context.db
    .update(logs)
    .set({ steps: steps === null ? rest : { ...rest, [activity]: steps } })
    .where(eq(logs.id, of.log));
  return { before };
});

export const judgeDifference = useCase(terms.judgeDifference, async (context, { key, judged, ...of }) => {
  const { judged: all } = await beside(context, of);
  const before = all.find((one) => one.key === key);
  const rest = all.filter((one) => one !== before);
  const { member, now } = context;
  const next = judged === null ? rest : [...rest, { key, ...judged, member: member.id, at: now() }];
  await context.db.update(logs).set({ judged: next }).where(eq(logs.id, of.log));
  return { before: before ? { as: before.as, note: before.note } : null };
});
