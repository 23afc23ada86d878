import { eq, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import { replacementEdits } from "@/core/merge";
import { applyEdits, currentSchemaVersion, type Edit, type Model, toStored } from "@/core/model";
import { heads, log } from "@/data/schema";
import { afterCommit, lock, savepoint, type Transaction } from "./act";
import { contentChanged } from "./events";
import { contentLapses } from "./lapse";
import { renewIndex, touchedBy } from "./searchIndex";
import { batchesOf, type LoggedBatch, openStored } from "./storedModels";
import { type Context, notFound, UseCaseError } from "./useCase";
import { forgetResults } from "./workedOut";

export interface Head {
  readonly version: string;
  readonly sequence: number;
  /** The name of the last batch: the same sequence with another batch is another state. */
  readonly batch: string;
  readonly model: Model;
}

/** The name of what a head holds: the same name is the same content. */
export const stateOf = ({ version, sequence, batch }: Omit<Head, "model">): readonly (string | number)[] => [
  version,
  sequence,
  batch,
];

/** A snapshot is written again after this many batches at the latest, so that opening never replays more. */
const mostBatchesBetweenSnapshots = 500;

// Models of heads in use. Only a help: sequence and batch in the database say whether they still hold.
const shared = globalThis as unknown as { laneHeads?: Map<string, Head> };
const remembered = () => {
  shared.laneHeads ??= new Map();
  return shared.laneHeads;
};
const remember = (db: Transaction, head: Head) =>
  afterCommit(db, () => {
    const heads = remembered();
    heads.delete(head.version);
    heads.set(head.version, head);
    if (heads.size > 24) heads.delete(heads.keys().next().value as string);
  });
export function forgetHeads(): void {
  remembered().clear();
  forgetResults();
}

/** A version whose stored content cannot be read: it is told, and stops nothing else. */
export class DamagedVersion extends UseCaseError {
  constructor(
    readonly version: string,
    reason: string,
    options?: ErrorOptions,
  ) {
    super(
      "damaged",
      `What this version holds cannot be read (${reason}). Open it to put back the last revision of it that opens, or restore a backup.`,
      422,
      [],
      options,
    );
  }
}

/** What a version holds now: one state, whatever is written meanwhile. */
export async function loadHead(db: Transaction, version: string): Promise<Head> {
  const [row] = await db
    .select({ sequence: heads.sequence, batch: heads.batch, snapshotSequence: heads.snapshotSequence })
    .from(heads)
    .where(eq(heads.version, version));
  if (!row) throw notFound("This version");
  const known = remembered().get(version);
  if (known?.sequence === row.sequence && known.batch === row.batch) return known;
  const later =
    known && known.sequence >= row.snapshotSequence && known.sequence < row.sequence
      ? await laterThan(db, known, row)
      : undefined;
  const head = later ?? (await fromSnapshot(db, version));
  remember(db, head);
  return head;
}

/** What a known state has become; undefined where it is not of this version's past, as after a restore. */
async function laterThan(
  db: Transaction,
  known: Head,
  row: { readonly sequence: number; readonly batch: string },
): Promise<Head | undefined> {
  const batches = await batchesOf(db, known.version, known.sequence - 1, row.sequence);
  const [first, ...since] = batches;
  if (first?.batch !== known.batch || since.at(-1)?.batch !== row.batch) return undefined;
  const model = replayed(known.version, known.model, since);
  return { version: known.version, ...row, model };
}

async function fromSnapshot(db: Transaction, version: string): Promise<Head> {
  const [stored] = await db
    .select({
      snapshot: sql<string>`${heads.snapshot}::text`,
      snapshotSequence: heads.snapshotSequence,
      sequence: heads.sequence,
      batch: heads.batch,
    })
    .from(heads)
    .where(eq(heads.version, version));
  if (!stored) throw notFound("This version");
  const { snapshot, snapshotSequence, sequence, batch } = stored;
  const batches = await batchesOf(db, version, snapshotSequence, sequence);
  const opened = await openStored(snapshot, batches);
  if (!opened.ok) throw new DamagedVersion(version, opened.problems[0]?.message ?? "");
  return { version, sequence, batch, model: opened.value };
}

function replayed(version: string, from: Model, batches: readonly LoggedBatch[]): Model {
  let model = from;
  for (const { edits, sequence } of batches) {
    const applied = applyEdits(model, edits);
    if (!applied.ok) throw new DamagedVersion(version, `change ${sequence}: ${applied.problems[0]?.message}`);
    model = applied.value;
  }
  return model;
}

/**
 * The heads of versions, and in the place of one that cannot be read the reason: for lists, which one bad version must not stop.
 * Where the database itself fails on one, a savepoint keeps the others readable.
 */
export async function tryHead(db: Transaction, version: string): Promise<Head | DamagedVersion> {
  const damaged = (error: unknown) => {
    if (error instanceof DamagedVersion) return error;
    const { code } = (error as { cause?: { code?: unknown } }).cause ?? {};
    if (typeof code === "string" && /^(XX00.|22P02|22021)$/.test(code))
      return new DamagedVersion(version, "its place in the database is damaged", { cause: error as Error });
    throw error;
  };
  if (remembered().has(version)) return loadHead(db, version).catch(damaged);
  return savepoint(db, (part) => loadHead(part, version)).catch(damaged);
}

/** Writes one batch into the log, moves the head on, and renews what is searched by. The version is locked by the caller. */
export async function writeBatch(
  context: Context,
  head: Head,
  done: { model: Model; edits: readonly Edit[]; batch: string; label: string; commands: unknown },
): Promise<Head> {
  const { db } = context;
  const { version } = head;
  const [at, sequence] = [context.now(), head.sequence + 1];
  await db.insert(log).values({
    version,
    sequence,
    batch: done.batch,
    form: currentSchemaVersion,
    label: shortLabel(done.label),
    commands: done.commands,
    edits: done.edits,
    member: context.member.id,
    at,
  });
  const [row] = await db
    .select({ bytes: heads.snapshotBytes, logged: heads.loggedBytes, from: heads.snapshotSequence })
    .from(heads)
    .where(eq(heads.version, version));
  const logged = (row?.logged ?? 0) + JSON.stringify(done.edits).length;
  // What is replayed when a version is opened is never larger than the version itself, and so a snapshot costs no more than the log.
  const isDue = logged > (row?.bytes ?? 0) || sequence - (row?.from ?? 0) >= mostBatchesBetweenSnapshots;
  const snapshot = isDue ? snapshotOf(done.model, sequence) : { loggedBytes: logged };
  await db
    .update(heads)
    .set({ sequence, batch: done.batch, changedAt: at, ...snapshot })
    .where(eq(heads.version, version));
  await renewIndex(db, version, head.model, done.model, touchedBy(done.edits));
  await contentLapses(db, version);
  contentChanged(db, version, sequence);
  const next = { version, sequence, batch: done.batch, model: done.model };
  remember(db, next);
  return next;
}

/** What is to be said of a batch in lists and menus: whole names would make it as long as a note can be. */
export const shortLabel = (label: string) => (label.length > 200 ? `${[...label].slice(0, 199).join("")}…` : label);

/** The smallest snapshot that waits for its log to outgrow it: below, one would be written with every edit. */
const leastSnapshotBytes = 16_000;

const snapshotOf = (model: Model, sequence: number) => {
  const snapshot = toStored(model);
  return {
    snapshot,
    snapshotSequence: sequence,
    snapshotBytes: Math.max(leastSnapshotBytes, JSON.stringify(snapshot).length),
    loggedBytes: 0,
  };
};

/** Puts another state into a version's head, as one batch; nothing is written where it holds that state already. */
export async function replaceHead(context: Context, version: string, wanted: Model, label: string): Promise<Head> {
  await lock(context.db, "version", [version]);
  const head = await tryHead(context.db, version);
  if (head instanceof DamagedVersion) return replaceDamaged(context, version, wanted, label);
  const edits = replacementEdits(head.model, wanted);
  if (edits.length === 0) return head;
  const applied = applyEdits(head.model, edits);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  const commands = [{ type: "edits", label, edits: [] }];
  return writeBatch(context, head, { model: applied.value, edits, batch: nanoid(), label, commands });
}

/** What cannot be read is not built on: the wanted state is the new snapshot, and the log says so. */
async function replaceDamaged(context: Context, version: string, model: Model, label: string): Promise<Head> {
  const { db } = context;
  const [row] = await db.select({ sequence: heads.sequence }).from(heads).where(eq(heads.version, version));
  if (!row) throw notFound("This version");
  const [sequence, batch, at] = [row.sequence + 1, nanoid(), context.now()];
  const commands = [{ type: "edits", label, edits: [] }];
  await db.insert(log).values({
    version,
    sequence,
    batch,
    form: currentSchemaVersion,
    label,
    commands,
    edits: [],
    member: context.member.id,
    at,
  });
  await db
    .update(heads)
    .set({ sequence, batch, changedAt: at, damaged: null, ...snapshotOf(model, sequence) })
    .where(eq(heads.version, version));
  await renewIndex(db, version, undefined, model);
  await contentLapses(db, version);
  contentChanged(db, version, sequence);
  const head = { version, sequence, batch, model };
  remember(db, head);
  return head;
}

/** A new version's first head. */
export async function createHead({ db, now }: Context, version: string, model: Model): Promise<void> {
  await db.insert(heads).values({ version, sequence: 0, batch: nanoid(), changedAt: now(), ...snapshotOf(model, 0) });
  await renewIndex(db, version, undefined, model);
}
