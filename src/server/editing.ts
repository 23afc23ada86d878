import { and, asc, eq, gt } from "drizzle-orm";
import { z } from "zod";
import { type Command, commandSchema, perform } from "@/core/commands";
import { meet } from "@/core/merge";
import { type Edit, type Model, newFault } from "@/core/model";
import { heads, log, versions } from "@/data/schema";
import { needsGeneration } from "./generation";
import { loadHead, shortLabel, writeBatch } from "./heads";
import { lock, type Transaction } from "./kernel/act";
import { id, sequenceNumber } from "./kernel/inputs";
import { keepBefore, keepRestedRevision } from "./revisions";
import { notFound, query, UseCaseError, useCase } from "./useCase";

export interface AppliedBatch {
  readonly sequence: number;
  /** Everything between the sender's base and now, the sender's own edits included, in order. */
  readonly since: readonly { readonly batch: string; readonly edits: readonly Edit[]; readonly label: string }[];
  readonly remarks: readonly string[];
}

/**
 * Performs a batch of commands on a version's head, all or none, and makes it durable before answering. Commands say what is
 * wanted, not what was there; on a head that has moved on they are performed anew and refused where they no longer fit.
 */
export const applyCommands = useCase(
  z.object({
    version: id,
    batch: z.string().min(1).max(100),
    base: sequenceNumber,
    generation: sequenceNumber.optional(),
    // A pasted list of thousands of rows is one gesture.
    commands: z.array(commandSchema).min(1).max(60_000),
    /** What the sender calls it; lists show as much of it as fits. */
    label: z.string().max(100_000).optional(),
    /** For what is large: what was there before is kept as a revision, before this. */
    keep: z.string().trim().min(1).max(5_000).optional(),
  }),
  async (context, request): Promise<AppliedBatch> => {
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
      const done = performAll(head.model, request.commands);
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
  },
);

/** What was done to a version after a state, in order. */
async function sinceThen(db: Transaction, version: string, base: number): Promise<AppliedBatch["since"]> {
  const rows = await db
    .select({ batch: log.batch, edits: log.edits, label: log.label })
    .from(log)
    .where(and(eq(log.version, version), gt(log.sequence, base)))
    .orderBy(asc(log.sequence));
  return rows as AppliedBatch["since"];
}

const editsSince = async (db: Transaction, version: string, base: number) =>
  (await sinceThen(db, version, base)).flatMap(({ edits }) => edits);

/** What others did to a version after a state that one knows: what an open window asks for again and again. */
export const changesSince = query(
  z.object({ version: id, base: sequenceNumber, generation: sequenceNumber.optional() }),
  async ({ db }, { version, base, generation }): Promise<Pick<AppliedBatch, "sequence" | "since">> => {
    await needsGeneration(db, generation);
    const [head] = await db.select({ sequence: heads.sequence }).from(heads).where(eq(heads.version, version));
    if (!head) throw notFound("This version");
    return { sequence: head.sequence, since: head.sequence === base ? [] : await sinceThen(db, version, base) };
  },
);

function performAll(
  model: Model,
  commands: readonly Command[],
): { model: Model; edits: Edit[]; label: string; remarks: string[] } {
  const edits: Edit[] = [];
  const labels: string[] = [];
  const remarks: string[] = [];
  let current = model;
  for (const command of commands) {
    const done = perform(current, command);
    if (!done.ok) {
      throw new UseCaseError("refused", done.problems.map((problem) => problem.message).join(" "), 409, done.problems);
    }
    const fault = newFault(current, done.value.model, done.value.edits);
    if (fault) throw new UseCaseError("refused", fault.message, 409);
    current = done.value.model;
    edits.push(...done.value.edits);
    labels.push(done.value.label);
    remarks.push(...done.value.remarks);
  }
  return { model: current, edits, label: labels[0] ?? "", remarks };
}
