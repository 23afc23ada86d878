import { and, asc, eq, gt, inArray } from "drizzle-orm";
import { nanoid } from "nanoid";
import { linksOf } from "@/core/brief";
import { entryUses } from "@/core/directory";
import { replacementEdits } from "@/core/merge";
import {
  applyEdits,
  attributesOf,
  type Edit,
  type Element,
  isFlowNode,
  linksWith,
  type Model,
  nameOf,
  toStored,
  trustStored,
  wordFor,
} from "@/core/model";
import type { Database } from "@/data/database";
import { elements, heads, log, uses, wordLinks } from "@/data/schema";
import { type Context, notFound } from "./useCase";

export interface Head {
  readonly version: string;
  readonly sequence: number;
  readonly model: Model;
}

/** A snapshot is written again after this many batches, so that opening never replays more. */
const batchesBetweenSnapshots = 40;

// Models of heads in use. Only a help: the sequence in the database says whether they still hold.
const shared = globalThis as unknown as { laneHeads?: Map<string, Head> };
const remembered = () => {
  shared.laneHeads ??= new Map();
  return shared.laneHeads;
};
const remember = (head: Head) => {
  const heads = remembered();
  heads.delete(head.version);
  heads.set(head.version, head);
  if (heads.size > 24) heads.delete(heads.keys().next().value as string);
};
export const forgetHeads = () => remembered().clear();

export type Transaction = Parameters<Parameters<Database["transaction"]>[0]>[0];

/** What a version holds now. */
export async function loadHead(db: Database | Transaction, version: string): Promise<Head> {
  const [row] = await db
    .select({ sequence: heads.sequence, snapshotSequence: heads.snapshotSequence })
    .from(heads)
    .where(eq(heads.version, version));
  if (!row) throw notFound("This version");
  const known = remembered().get(version);
  if (known?.sequence === row.sequence) return known;
  let model: Model;
  let from: number;
  if (known && known.sequence >= row.snapshotSequence && known.sequence < row.sequence)
    [model, from] = [known.model, known.sequence];
  else {
    const [stored] = await db.select({ snapshot: heads.snapshot }).from(heads).where(eq(heads.version, version));
    if (!stored) throw notFound("This version");
    [model, from] = [trustStored(stored.snapshot), row.snapshotSequence];
  }
  const batches = await db
    .select({ edits: log.edits })
    .from(log)
    .where(and(eq(log.version, version), gt(log.sequence, from)))
    .orderBy(asc(log.sequence));
  for (const { edits } of batches) {
    const applied = applyEdits(model, edits as readonly Edit[]);
    if (!applied.ok)
      throw new Error(`The log of version ${version} does not fit its snapshot: ${applied.problems[0]?.message}`);
    model = applied.value;
  }
  const head = { version, sequence: row.sequence, model };
  remember(head);
  return head;
}

/** Writes one batch into the log, moves the head on, and renews what is searched by, in the caller's transaction. */
export async function writeBatch(
  transaction: Transaction,
  context: Context,
  version: string,
  done: { model: Model; edits: readonly Edit[]; sequence: number; batch: string; label: string; commands: unknown },
): Promise<void> {
  const at = context.now();
  await transaction.insert(log).values({
    version,
    sequence: done.sequence,
    batch: done.batch,
    label: done.label,
    commands: done.commands,
    edits: done.edits,
    member: context.member.id,
    at,
  });
  const snapshot =
    done.sequence % batchesBetweenSnapshots === 0
      ? { snapshot: toStored(done.model), snapshotSequence: done.sequence }
      : {};
  await transaction
    .update(heads)
    .set({ sequence: done.sequence, changedAt: at, ...snapshot })
    .where(eq(heads.version, version));
  await renewIndex(transaction, version, done.model, touchedBy(done.edits));
  remember({ version, sequence: done.sequence, model: done.model });
}

/** Puts another state into a version's head, as one batch; nothing is written where it holds that state already. */
export async function replaceHead(
  transaction: Transaction,
  context: Context,
  version: string,
  wanted: Model,
  label: string,
): Promise<void> {
  const head = await loadHead(transaction, version);
  const edits = replacementEdits(head.model, wanted);
  if (edits.length === 0) return;
  const applied = applyEdits(head.model, edits);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  await writeBatch(transaction, context, version, {
    model: applied.value,
    edits,
    sequence: head.sequence + 1,
    batch: nanoid(),
    label,
    commands: [{ type: "edits", label, edits: [] }],
  });
}

function touchedBy(edits: readonly Edit[]): Set<string> {
  const touched = new Set<string>();
  for (const edit of edits) if (edit.table === "elements") touched.add(edit.kind === "set" ? edit.id : edit.record.id);
  return touched;
}

/** Names and uses of a head. With `touched`, only elements among these are written; uses are few and made anew. */
export async function renewIndex(
  db: Database | Transaction,
  version: string,
  model: Model,
  touched?: ReadonlySet<string>,
): Promise<void> {
  if (touched?.size === 0) return;
  const named = [...(touched ?? [...model.elements].map((element) => element.id))].flatMap((id) => {
    const element = model.elements.get(id);
    if (!element || element.type === "dataObject") return [];
    const [name, words] = [nameOf(model, id), wordsAbout(element)];
    const called = typeof element.calledElement === "string" ? element.calledElement : null;
    // Flow nodes are kept without a name too: one may ask for all timers, or all calls.
    return name || words || called || isFlowNode(element.type)
      ? [{ version, element: id, name, type: wordFor(element.type), words, called }]
      : [];
  });
  if (touched)
    await db.delete(elements).where(and(eq(elements.version, version), inArray(elements.element, [...touched])));
  else await db.delete(elements).where(eq(elements.version, version));
  for (let at = 0; at < named.length; at += 1000) await db.insert(elements).values(named.slice(at, at + 1000));
  await db.delete(uses).where(eq(uses.version, version));
  const found = entryUses(model).map((use) => ({
    version,
    ...use,
    elementName: nameOf(model, use.element) || wordFor(model.elements.get(use.element)?.type ?? ""),
  }));
  for (let at = 0; at < found.length; at += 1000) await db.insert(uses).values(found.slice(at, at + 1000));
  await db.delete(wordLinks).where(eq(wordLinks.version, version));
  const links = [...linksOf(model)].flatMap(([mark, taken]) => taken.map((element) => ({ version, mark, element })));
  for (let at = 0; at < links.length; at += 1000) await db.insert(wordLinks).values(links.slice(at, at + 1000));
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
export async function createHead(
  transaction: Database | Transaction,
  context: Context,
  version: string,
  model: Model,
): Promise<void> {
  await transaction
    .insert(heads)
    .values({ version, sequence: 0, snapshotSequence: 0, snapshot: toStored(model), changedAt: context.now() });
  await renewIndex(transaction, version, model);
}
