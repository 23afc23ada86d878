import { and, asc, eq, gt, lte } from "drizzle-orm";
import { type Edit, fromStored, type Model, ok, type Result, type StoredModel, trustStored } from "@/core/model";
import { log } from "@/data/schema";
import type { Transaction } from "./act";
import { hasThreads, inThread } from "./threads";

export interface LoggedBatch {
  readonly sequence: number;
  readonly batch: string;
  readonly form: number;
  readonly edits: readonly Edit[];
}

/** What the log holds between two sequences. It only grows, so it belongs to any state that names its last sequence. */
export async function batchesOf(db: Transaction, version: string, after: number, upTo: number): Promise<LoggedBatch[]> {
  const rows = await db
    .select({ sequence: log.sequence, batch: log.batch, form: log.form, edits: log.edits })
    .from(log)
    .where(and(eq(log.version, version), gt(log.sequence, after), lte(log.sequence, upTo)))
    .orderBy(asc(log.sequence));
  return rows as unknown as LoggedBatch[];
}

/** Stored models of more letters are read in a thread: what takes longer than a moment keeps nobody waiting. */
const readAtOnce = 60_000;

/** A stored model, as the text the database has it in, with what was done to it since. */
export async function openStored(text: string, batches: readonly LoggedBatch[]): Promise<Result<Model>> {
  if (text.length <= readAtOnce || !hasThreads()) return fromStored(JSON.parse(text), { edits: batches });
  const opened = await inThread("openedModel", {}, { snapshot: text, edits: JSON.stringify(batches) });
  return "problem" in opened
    ? { ok: false, problems: opened.problem ? [opened.problem] : [] }
    : ok(trustStored(JSON.parse(opened.model) as StoredModel));
}
