import { readBpmn, writeBpmn } from "../bpmn";
import { alignedTo, type MergeConflict, type MergeOptions, mergeModels, spelledLike } from "../merge";
import type { Model } from "../model";
import { reviseText, type SourceElement, sourceTree, TreeKeys } from "../xml";

/** How a model and its build copy stand to each other since they were last the same. */
export const syncStates = ["in step", "model changed", "build copy changed", "both changed"] as const;
export type SyncState = (typeof syncStates)[number];

/** A conflict with a name of its own, so that it can be decided. */
export interface SyncConflict extends MergeConflict {
  readonly key: string;
}

/** A change in words. */
export interface SyncChange {
  readonly key: string;
  readonly words: string;
}

export interface BuildCopyText {
  /** The file as its developers wrote it, without a byte-order mark. */
  readonly text: string;
  readonly model: Model;
}

export interface Synced {
  readonly state: SyncState;
  /** What both shall become. */
  readonly model: Model;
  readonly conflicts: readonly MergeConflict[];
  /** The developers' own text with only what changed. */
  readonly text: string;
  /** Whether that could not be done, so that the text is written anew. */
  readonly isRewritten: boolean;
}

/** Where BPMN gives the order of children no meaning. Source: BPMN 2.0, chapters 8 and 10 (from memory); lanes are read from the top. */
const unordered = new Set([
  "definitions",
  "collaboration",
  "process",
  "subProcess",
  "adHocSubProcess",
  "transaction",
  "BPMNPlane",
]);
const isUnordered = ({ local }: { readonly local: string }) => unordered.has(local);

/** A model as its file has it: what its content is held against others by. */
class Content {
  readonly written: string;
  readonly tree: SourceElement;
  constructor(model: Model) {
    this.written = writeBpmn(model);
    this.tree = sourceTree(this.written);
  }
}

/** Whether two models say the same, drawings and foreign content included; prefixes, layout of the text, order without meaning aside. */
export function sameContent(one: Model, other: Model): boolean {
  if (one === other) return true;
  const keys = new TreeKeys(isUnordered);
  return keys.of(new Content(one).tree) === keys.of(new Content(spelledLike(other, one)).tree);
}

/**
 * Which side changed since the last sync, by content and not by date: a side that was only written anew has not.
 * @param base what both were after the last sync. O(size of all three).
 */
export function syncState(base: Model, model: Model, build: Model): SyncState {
  const [last, ours] = [spelledLike(base, build), spelledLike(model, build)];
  return stateOf(new Content(last), base === model ? undefined : new Content(ours), new Content(build));
}

/** @param ours undefined where the model is what it was */
function stateOf(last: Content, ours: Content | undefined, theirs: Content): SyncState {
  const keys = new TreeKeys(isUnordered);
  const [was, copy] = [keys.of(last.tree), keys.of(theirs.tree)];
  const is = ours ? keys.of(ours.tree) : was;
  if (is === copy) return "in step";
  if (is === was) return "build copy changed";
  return copy === was ? "model changed" : "both changed";
}

/**
 * Brings a model and its build copy together: what either side changed since the last sync is in, what both changed differently is a
 * conflict, and stays as the model has it unless it is decided otherwise (see `mergeModels`). The copy's text stays as its developers
 * wrote it but for what changed. O(size of all three).
 */
export function syncModels(base: Model, model: Model, build: BuildCopyText, options: MergeOptions = {}): Synced {
  const [from, ours] = [spelledLike(base, build.model), spelledLike(model, build.model)];
  const theirs = new Content(build.model);
  const state = stateOf(new Content(from), base === model ? undefined : new Content(ours), theirs);
  if (state === "in step" || state === "build copy changed")
    return { state, model: alignedTo(build.model, ours), conflicts: [], text: build.text, isRewritten: false };
  const { model: merged, conflicts } = mergeModels(alignedTo(from, ours), ours, alignedTo(build.model, ours), options);
  const both = { ...merged, form: build.model.form };
  return { state, model: both, conflicts, ...revised(build.text, theirs, new Content(both)) };
}

/** The build copy's text with other content. */
function revised(
  text: string,
  before: Content,
  after: Content,
): { readonly text: string; readonly isRewritten: boolean } {
  const next = reviseText(text, before.tree, after.tree);
  // A text of a kind that nobody foresaw is better written anew than wrong.
  return holds(next, after) ? { text: next, isRewritten: false } : { text: after.written, isRewritten: true };
}

/** Whether a text holds some content: as it stands, or as it is read. */
function holds(text: string, content: Content): boolean {
  const keys = new TreeKeys(() => true);
  const wanted = keys.of(content.tree);
  if (keys.of(sourceTree(text)) === wanted) return true;
  const read = readBpmn(text);
  return read.ok && keys.of(new Content(read.value).tree) === wanted;
}
