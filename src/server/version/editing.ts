import { and, asc, eq, gt } from "drizzle-orm";
import { inVersion } from "@/contract";
import type { AppliedBatch, Since } from "@/contract/version";
import type { Command } from "@/core/commands";
import { meet } from "@/core/merge";
import { together } from "@/core/messages";
import { applyEdits, type Edit, type Model } from "@/core/model";
import { heads, log, versions } from "@/data/schema";
import { performAll } from "@/jobs/perform";
import { lock, type Transaction } from "../kernel/act";
import { needsGeneration } from "../kernel/generation";
import { type Head, loadHead, shortLabel, stateOf, writeBatch } from "../kernel/heads";
import { keepBefore, keepRestedRevision } from "../kernel/revisions";
import { type Context, notFound, query, UseCaseError, useCase } from "../kernel/useCase";
import { workedOut } from "../kernel/workedOut";

/**
 * Performs a batch of commands on a version's head, all or none, and makes it durable before answering. Commands say what is
 * wanted, not what was there; on a head that has moved on they are performed anew and refused where they no longer fit.
 */
export const applyCommands = useCase(inVersion.applyCommands, async (context, request): Promise<AppliedBatch> => {
  const { db } = context;
  // Nobody renames what the directory calls things while a name from it is written.
  await lock(db, "directory", [""], "in common");
  await needsGeneration(db, request.generation);
  await lock(db, "version", [request.version]);
  const [version] = await db
    .select({ deletedAt: versions.deletedAt })
    .from(versions)
    .where(eq(versions.id, request.version));
  if (!version || version.deletedAt) throw notFound("This version");
  await keepRestedRevision(context, request.version);
  const head = await loadHead(db, request.version);
  const [sent] = await db
    .select({ sequence: log.sequence })
    .from(log)
    .where(and(eq(log.version, request.version), eq(log.batch, request.batch)));
  let sequence = head.sequence;
  const remarks: string[] = [];
  if (!sent) {
    const done = await performed(context, head, request.commands);
    remarks.push(...done.remarks);
    if (request.base < head.sequence && meet(done.edits, await editsSince(db, request.version, request.base)))
      throw new UseCaseError(
        "met",
        "Somebody else has changed the same thing since. Both changes are shown to you, to take theirs or keep yours.",
        409,
      );
    if (request.keep !== undefined) await keepBefore(context, request.version, shortLabel(request.keep));
    ({ sequence } = await writeBatch(context, head, {
      ...done,
      batch: request.batch,
      label: request.label ?? done.label,
      commands: request.commands,
    }));
  }
  return { sequence, since: await sinceThen(db, request.version, request.base), remarks };
});

/** What was done to a version after a state, in order. */
async function sinceThen(db: Transaction, version: string, base: number): Promise<Since["since"]> {
  const rows = await db
    .select({ batch: log.batch, edits: log.edits, label: log.label })
    .from(log)
    .where(and(eq(log.version, version), gt(log.sequence, base)))
    .orderBy(asc(log.sequence));
  return rows as Since["since"];
}

const editsSince = async (db: Transaction, version: string, base: number) =>
  (await sinceThen(db, version, base)).flatMap(({ edits }) => edits);

/** What others did to a version after a state that one knows: what an open window asks for again and again. */
export const changesSince = query(
  inVersion.changesSince,
  async ({ db }, { version, base, generation }): Promise<Since> => {
    await needsGeneration(db, generation);
    const [head] = await db.select({ sequence: heads.sequence }).from(heads).where(eq(heads.version, version));
    if (!head) throw notFound("This version");
    return { sequence: head.sequence, since: head.sequence === base ? [] : await sinceThen(db, version, base) };
  },
);

/** Commands that place a whole page anew take long on a large one, and so does a long list of any. */
const isLong = (model: Model, commands: readonly Command[]) =>
  commands.length > 40 || (model.shapes.size > 40 && commands.some(({ type }) => type === "tidy"));

/** What commands come to on a head: at once where that is quick, else in a thread. */
async function performed(
  context: Context,
  head: Head,
  commands: readonly Command[],
): Promise<{ model: Model; edits: readonly Edit[]; label: string; remarks: readonly string[] }> {
  const { model } = head;
  const done = isLong(model, commands)
    ? await workedOut(context, "performAll", stateOf(head), { model }, { commands })
    : await performAll({ model }, { commands }, () => {});
  if ("refused" in done)
    throw new UseCaseError("refused", together(done.refused.map(({ said }) => said)), 409, done.refused);
  const applied = applyEdits(model, done.edits);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return { model: applied.value, ...done };
}
