import { and, asc, eq, gt } from "drizzle-orm";
import { z } from "zod";
import { type Command, commandSchema, perform } from "@/core/commands";
import type { Edit, Model } from "@/core/model";
import { heads, log, versions } from "@/data/schema";
import { loadHead, writeBatch } from "./heads";
import { keepRestedRevision } from "./revisions";
import { notFound, UseCaseError, useCase } from "./useCase";

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
    version: z.string(),
    batch: z.string().min(1).max(100),
    base: z.number().int().min(0),
    // A pasted list of thousands of rows is one gesture.
    commands: z.array(commandSchema).min(1).max(60_000),
    label: z.string().max(300).optional(),
  }),
  async (context, request): Promise<AppliedBatch> => {
    const { db } = context;
    const [version] = await db
      .select({ deletedAt: versions.deletedAt })
      .from(versions)
      .where(eq(versions.id, request.version));
    if (!version || version.deletedAt) throw notFound("This version");
    await keepRestedRevision(context, request.version);
    return db.transaction(async (transaction) => {
      // The row is locked, so that batches of several processes come one after another.
      await transaction
        .select({ version: heads.version })
        .from(heads)
        .where(eq(heads.version, request.version))
        .for("update");
      const head = await loadHead(transaction, request.version);
      const [sent] = await transaction
        .select({ sequence: log.sequence })
        .from(log)
        .where(and(eq(log.version, request.version), eq(log.batch, request.batch)));
      let sequence = head.sequence;
      const remarks: string[] = [];
      if (!sent) {
        const done = performAll(head.model, request.commands);
        sequence = head.sequence + 1;
        remarks.push(...done.remarks);
        await writeBatch(transaction, context, request.version, {
          ...done,
          sequence,
          batch: request.batch,
          label: request.label ?? done.label,
          commands: request.commands,
        });
      }
      const rows = await transaction
        .select({ batch: log.batch, edits: log.edits, label: log.label })
        .from(log)
        .where(and(eq(log.version, request.version), gt(log.sequence, request.base)))
        .orderBy(asc(log.sequence));
      return { sequence, since: rows as AppliedBatch["since"], remarks };
    });
  },
);

/** What others did to a version after a state that one knows: what an open window asks for again and again. */
export const changesSince = useCase(
  z.object({ version: z.string(), base: z.number().int().min(0) }),
  async ({ db }, { version, base }): Promise<Pick<AppliedBatch, "sequence" | "since">> => {
    const rows = await db
      .select({ sequence: log.sequence, batch: log.batch, edits: log.edits, label: log.label })
      .from(log)
      .where(and(eq(log.version, version), gt(log.sequence, base)))
      .orderBy(asc(log.sequence));
    const since = rows.map(({ batch, edits, label }) => ({ batch, edits, label })) as AppliedBatch["since"];
    return { sequence: rows.at(-1)?.sequence ?? base, since };
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
    current = done.value.model;
    edits.push(...done.value.edits);
    labels.push(done.value.label);
    remarks.push(...done.value.remarks);
  }
  return { model: current, edits, label: labels[0] ?? "", remarks };
}
