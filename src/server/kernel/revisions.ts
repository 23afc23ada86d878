import { and, desc, eq, sql } from "drizzle-orm";
import { say } from "@/core/messages";
import { type Model, toStored } from "@/core/model";
import { heads, revisions } from "@/data/schema";
import { afterCommit, lock } from "./act";
import { inBackground } from "./background";
import { compact } from "./compaction";
import { DamagedVersion, loadHead, tryHead } from "./heads";
import { batchesOf, openStored } from "./storedModels";
import { type Context, notFound, UseCaseError } from "./useCase";

const restMilliseconds = 10 * 60 * 1000;

/**
 * Keeps the head as a revision, in the act that has read it: what is kept is what the act saw. After rest, only what has changed since
 * the last one. Gives the number that holds the head's state.
 */
export async function keepRevision(context: Context, version: string, reason: string): Promise<number> {
  await lock(context.db, "version", [version]);
  const head = await loadHead(context.db, version);
  const last = await lastRevision(context, version);
  if (last && last.sequence === head.sequence && reason === "rest") return last.number;
  const number = (last?.number ?? 0) + 1;
  await context.db.insert(revisions).values({
    version,
    number,
    reason,
    sequence: head.sequence,
    model: toStored(head.model),
    member: context.member.id,
    at: context.now(),
  });
  afterCommit(context.db, () => inBackground(`compact ${version}`, () => compact(version)));
  return number;
}

/** Keeps what a version holds before something large is done to it, unless the last revision holds it already. */
export async function keepBefore(context: Context, version: string, what: string): Promise<void> {
  await lock(context.db, "version", [version]);
  const head = await tryHead(context.db, version);
  if (head instanceof DamagedVersion) return;
  const last = await lastRevision(context, version);
  if (!last || last.sequence < head.sequence) await keepRevision(context, version, `before ${what}`);
}

/** The number that the next revision of a version gets. */
export const nextRevision = async (context: Context, version: string): Promise<number> =>
  ((await lastRevision(context, version))?.number ?? 0) + 1;

async function lastRevision(context: Context, version: string) {
  const [last] = await context.db
    .select({ number: revisions.number, sequence: revisions.sequence })
    .from(revisions)
    .where(eq(revisions.version, version))
    .orderBy(desc(revisions.number))
    .limit(1);
  return last;
}

/** After ten minutes of rest, what was there becomes a revision before the next change comes. */
export async function keepRestedRevision(context: Context, version: string): Promise<void> {
  await lock(context.db, "version", [version]);
  if ((await tryHead(context.db, version)) instanceof DamagedVersion) return;
  const [head] = await context.db
    .select({ sequence: heads.sequence, changedAt: heads.changedAt })
    .from(heads)
    .where(eq(heads.version, version));
  if (!head || head.sequence === 0) return;
  if (Date.parse(context.now()) - Date.parse(head.changedAt) < restMilliseconds) return;
  const last = await lastRevision(context, version);
  if (!last || last.sequence < head.sequence) await keepRevision(context, version, "rest");
}

/** A kept state: as it was stored, or made anew from an older one and what the log says was done since. */
export async function loadRevision({ db }: Context, version: string, number: number): Promise<Model> {
  const stored = async (wanted: number) => {
    const [row] = await db
      .select({
        sequence: revisions.sequence,
        builtOn: revisions.builtOn,
        model: sql<string | null>`${revisions.model}::text`,
      })
      .from(revisions)
      .where(and(eq(revisions.version, version), eq(revisions.number, wanted)));
    return row;
  };
  const row = await stored(number);
  if (!row) throw notFound(say`Revision ${number}`);
  let base: typeof row | undefined = row;
  // What it was made from may have been left to the log as well, which two processes at once once did. Each is older than the one before.
  for (let at = number; base && base.model === null && base.builtOn !== null && base.builtOn < at; ) {
    at = base.builtOn;
    base = await stored(at);
  }
  const damaged = (reason: string | undefined) =>
    new UseCaseError(
      "damaged",
      say`Revision ${number} cannot be read (${reason ?? "?"}). Choose an older one, or restore a backup.`,
      422,
    );
  if (!base || base.model === null) throw damaged("what it is made from is missing");
  const since = base === row ? [] : await batchesOf(db, version, base.sequence, row.sequence);
  if (since.length !== row.sequence - base.sequence) throw damaged("changes before it are missing");
  const opened = await openStored(base.model, since);
  if (!opened.ok) throw damaged(opened.problems[0]?.message);
  return opened.value;
}
