import { eq } from "drizzle-orm";
import { entryUses } from "@/core/directory";
import {
  attributesOf,
  calledProcessOf,
  type Edit,
  type Element,
  isFlowNode,
  linksWith,
  type Model,
  nameOf,
  referencesOf,
  wordFor,
  wordsOf,
} from "@/core/model";
import { elements, uses, wordLinks } from "@/data/schema";
import type { Transaction } from "./act";
import { briefSummaryLapses } from "./lapse";
import { deleteRows, insertRows } from "./manyRows";

/** The elements that edits are about. */
export function touchedBy(edits: readonly Edit[]): Set<string> {
  const touched = new Set<string>();
  for (const edit of edits) if (edit.table === "elements") touched.add(edit.kind === "set" ? edit.id : edit.record.id);
  return touched;
}

/** What an element is found by; undefined where it is not to be found. */
function foundBy(model: Model, element: Element) {
  if (element.type === "dataObject") return undefined;
  const { id } = element;
  const [name, words] = [nameOf(model, id), wordsAbout(element)];
  const called = typeof element.calledElement === "string" ? element.calledElement : null;
  const calledProcess = calledProcessOf(element)?.process ?? null;
  // Flow nodes are kept without a name too: one may ask for all timers, or all calls. So are lanes, for what they use.
  return name || words || called || isFlowNode(element.type) || element.type === "process" || element.type === "lane"
    ? { element: id, name, type: wordFor(element.type), words, called, calledProcess }
    : undefined;
}

/** Where what changed is named itself, or names others, in a state: what uses of the directory may have changed with it. */
function* sourcesOf(model: Model, touched: ReadonlySet<string>): Iterable<Element> {
  const seen = new Set<string>();
  for (const id of touched) {
    const element = model.elements.get(id);
    if (!element) continue;
    for (const source of [id, ...referencesOf(element).map(([target]) => target)]) {
      const found = seen.has(source) ? undefined : model.elements.get(source);
      seen.add(source);
      if (found) yield found;
    }
  }
}

/** Rows that one state has and the other has not. */
function differing<Row>(rows: readonly Row[], others: readonly Row[]): Row[] {
  const there = new Set(others.map((row) => JSON.stringify(row)));
  return rows.filter((row) => !there.has(JSON.stringify(row)));
}

/**
 * What a head is searched by: names and words, uses of the directory, marks of the brief. Only rows about what was touched are looked at,
 * and only those that differ from the state before are written (none of it known: all anew): a small change is a small work in a model
 * of any size.
 */
export async function renewIndex(
  db: Transaction,
  version: string,
  before: Model | undefined,
  after: Model,
  touched: ReadonlySet<string> = new Set([...after.elements].map((element) => element.id)),
): Promise<void> {
  if (before && touched.size === 0) return;
  const states = [before, after].map((model) => {
    if (!model) return { found: [], used: [], marked: [] };
    const here = [...touched].flatMap((id) => model.elements.get(id) ?? []);
    return {
      found: here.flatMap((element) => foundBy(model, element) ?? []),
      used: entryUses(model, sourcesOf(model, touched)),
      marked: here.flatMap((element) => [...new Set(wordsOf(element))].map((mark) => ({ mark, element: element.id }))),
    };
  });
  const [old, now] = states as [(typeof states)[number], (typeof states)[number]];
  if (!before)
    for (const table of [elements, uses, wordLinks]) await db.delete(table).where(eq(table.version, version));
  const ofVersion = <Row extends object>(rows: readonly Row[]) => rows.map((row) => ({ version, ...row }));
  const unmarked = ofVersion(differing(old.marked, now.marked));
  const marked = ofVersion(differing(now.marked, old.marked));
  const gone = differing(old.found, now.found).map(({ element }) => ({ version, element }));
  const unused = differing(old.used, now.used).map(({ entry, element, how }) => ({ version, entry, element, how }));
  await deleteRows(db, elements, gone);
  await deleteRows(db, uses, unused);
  await deleteRows(db, wordLinks, unmarked);
  await insertRows(db, elements, ofVersion(differing(now.found, old.found)));
  await insertRows(db, uses, ofVersion(differing(now.used, old.used)));
  await insertRows(db, wordLinks, marked);
  if (unmarked.length + marked.length > 0) await briefSummaryLapses(db, version);
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
