import { and, asc, eq, gt, inArray, lte } from "drizzle-orm";
import { nanoid } from "nanoid";
import { linksOf } from "@/core/brief";
import { entryUses } from "@/core/directory";
import { replacementEdits } from "@/core/merge";
import {
  applyEdits,
  attributesOf,
  calledProcessOf,
  currentSchemaVersion,
  type Edit,
  type Element,
  fromStored,
  isFlowNode,
  linksWith,
  type Model,
  nameOf,
  toStored,
  wordFor,
} from "@/core/model";
import { elements, heads, log, uses, wordLinks } from "@/data/schema";
import { afterCommit, lock, type Transaction } from "./kernel/act";
import { type Context, notFound, UseCaseError } from "./useCase";

export interface Head {
  readonly version: string;
  readonly sequence: number;
  /** The name of the last batch: the same sequence with another batch is another state. */
  readonly batch: string;
  readonly model: Model;
}

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
export const forgetHeads = () => remembered().clear();

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
      snapshot: heads.snapshot,
      snapshotSequence: heads.snapshotSequence,
      sequence: heads.sequence,
      batch: heads.batch,
    })
    .from(heads)
    .where(eq(heads.version, version));
  if (!stored) throw notFound("This version");
  const { snapshot, snapshotSequence, sequence, batch } = stored;
  const batches = await batchesOf(db, version, snapshotSequence, sequence);
  const opened = fromStored(snapshot, { edits: batches });
  if (!opened.ok) throw new DamagedVersion(version, opened.problems[0]?.message ?? "");
  return { version, sequence, batch, model: opened.value };
}

interface LoggedBatch {
  readonly sequence: number;
  readonly batch: string;
  readonly form: number;
  readonly edits: readonly Edit[];
}

/** What the log holds between two sequences. It only grows, so it belongs to any state that names its last sequence. */
async function batchesOf(db: Transaction, version: string, after: number, upTo: number): Promise<LoggedBatch[]> {
  const rows = await db
    .select({ sequence: log.sequence, batch: log.batch, form: log.form, edits: log.edits })
    .from(log)
    .where(and(eq(log.version, version), gt(log.sequence, after), lte(log.sequence, upTo)))
    .orderBy(asc(log.sequence));
  return rows as unknown as LoggedBatch[];
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
  return db.transaction((savepoint) => loadHead(savepoint as Transaction, version)).catch(damaged);
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
    .set({ sequence, batch, changedAt: at, ...snapshotOf(model, sequence) })
    .where(eq(heads.version, version));
  await renewIndex(db, version, undefined, model);
  const head = { version, sequence, batch, model };
  remember(db, head);
  return head;
}

function touchedBy(edits: readonly Edit[]): Set<string> {
  const touched = new Set<string>();
  for (const edit of edits) if (edit.table === "elements") touched.add(edit.kind === "set" ? edit.id : edit.record.id);
  return touched;
}

/** What an element is found by; undefined where it is not to be found. */
function foundBy(model: Model, id: string) {
  const element = model.elements.get(id);
  if (!element || element.type === "dataObject") return undefined;
  const [name, words] = [nameOf(model, id), wordsAbout(element)];
  const called = typeof element.calledElement === "string" ? element.calledElement : null;
  const calledProcess = calledProcessOf(element)?.process ?? null;
  // Flow nodes are kept without a name too: one may ask for all timers, or all calls.
  return name || words || called || isFlowNode(element.type) || element.type === "process"
    ? { element: id, name, type: wordFor(element.type), words, called, calledProcess }
    : undefined;
}

/** Computed once for a model: what is "after" for one edit is "before" for the next. */
function once<Value>(of: (model: Model) => Value): (model: Model) => Value {
  const known = new WeakMap<Model, Value>();
  return (model) => {
    const value = known.get(model) ?? of(model);
    known.set(model, value);
    return value;
  };
}
const usesIn = once((model) =>
  entryUses(model).map((use) => ({
    ...use,
    elementName: nameOf(model, use.element) || wordFor(model.elements.get(use.element)?.type ?? ""),
  })),
);
const marksIn = once((model) =>
  [...linksOf(model)].flatMap(([mark, taken]) => taken.map((element) => ({ mark, element }))),
);

/** Rows by the element they are about, and the elements whose rows are no longer what they were. */
function changedRows<Row extends { readonly element: string }>(before: readonly Row[], after: readonly Row[]) {
  const byElement = (rows: readonly Row[]) => {
    const lists = new Map<string, Row[]>();
    for (const row of rows) lists.set(row.element, [...(lists.get(row.element) ?? []), row]);
    return lists;
  };
  const [old, now] = [byElement(before), byElement(after)];
  const changed = [...new Set([...old.keys(), ...now.keys()])].filter(
    (id) => JSON.stringify(old.get(id)) !== JSON.stringify(now.get(id)),
  );
  return { gone: changed.filter((id) => old.has(id)), rows: changed.flatMap((id) => now.get(id) ?? []) };
}

/**
 * What a head is searched by: names and words, uses of the directory, marks of the brief. Only rows that differ from those of the
 * state before are written (none of it known: all anew), so that a small change stays a small write.
 */
export async function renewIndex(
  db: Transaction,
  version: string,
  before: Model | undefined,
  after: Model,
  touched: ReadonlySet<string> = new Set([...after.elements].map((element) => element.id)),
): Promise<void> {
  if (before && touched.size === 0) return;
  const rowsOf = (model: Model | undefined) => (model ? [...touched].flatMap((id) => foundBy(model, id) ?? []) : []);
  const found = changedRows(rowsOf(before), rowsOf(after));
  const used = changedRows(before ? usesIn(before) : [], usesIn(after));
  const marked = changedRows(before ? marksIn(before) : [], marksIn(after));
  const many = <Item>(items: readonly Item[]) =>
    Array.from({ length: Math.ceil(items.length / 1000) }, (_, at) => items.slice(at * 1000, at * 1000 + 1000));
  if (!before)
    for (const table of [elements, uses, wordLinks]) await db.delete(table).where(eq(table.version, version));
  for (const [table, { gone }] of [
    [elements, found],
    [uses, used],
    [wordLinks, marked],
  ] as const)
    for (const ids of many(gone))
      await db.delete(table).where(and(eq(table.version, version), inArray(table.element, [...ids])));
  for (const rows of many(found.rows)) await db.insert(elements).values(rows.map((row) => ({ version, ...row })));
  for (const rows of many(used.rows)) await db.insert(uses).values(rows.map((row) => ({ version, ...row })));
  for (const rows of many(marked.rows)) await db.insert(wordLinks).values(rows.map((row) => ({ version, ...row })));
}

/** What is written about an element besides its name. */
function wordsAbout(element: Element): string {
  const condition = element.conditionExpression as { readonly text: string } | undefined;
  return [
    ...(element.documentation ?? []).map((one) => one.text),
    condition?.text ?? "",
    ...attributesOf(element).map((one) => `${one.name}: ${one.value}`),
    ...linksWith(element).map((link) => link.title),
  ]
    .filter((words) => words.trim() !== "")
    .join("\n")
    .slice(0, 20_000);
}

/** A new version's first head. */
export async function createHead({ db, now }: Context, version: string, model: Model): Promise<void> {
  await db.insert(heads).values({ version, sequence: 0, batch: nanoid(), changedAt: now(), ...snapshotOf(model, 0) });
  await renewIndex(db, version, undefined, model);
}
