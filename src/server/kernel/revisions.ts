import { and, desc, eq } from "drizzle-orm";
import { fromStored, type Model, toStored } from "@/core/model";
import { heads, revisions } from "@/data/schema";
import { lock } from "./act";
import { DamagedVersion, loadHead, tryHead } from "./heads";
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

export async function loadRevision(context: Context, version: string, number: number): Promise<Model> {
  const [row] = await context.db
    .select({ model: revisions.model })
    .from(revisions)
    .where(and(eq(revisions.version, version), eq(revisions.number, number)));
  if (!row) throw notFound(`Revision ${number}`);
  const opened = fromStored(row.model);
  if (!opened.ok)
    throw new UseCaseError(
      "damaged",
      `Revision ${number} cannot be read (${opened.problems[0]?.message}). Choose an older one, or restore a backup.`,
      422,
    );
  return opened.value;
}
