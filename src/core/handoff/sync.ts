import { readBpmn, writeBpmn } from "../bpmn";
import { type MergeConflict, type MergeOptions, mergeModels, spelledLike } from "../merge";
import type { Model } from "../model";
import { reviseText, sameInformation } from "../xml";

/** How a model and its build copy stand to each other since they were last the same. */
export const syncStates = ["in step", "model changed", "build copy changed", "both changed"] as const;
export type SyncState = (typeof syncStates)[number];

/** A conflict with a name of its own, so that it can be decided. */
export interface SyncConflict extends Omit<MergeConflict, "isText"> {
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

/** Whether two models say the same, drawings and foreign content included; prefixes, layout of the text, order without meaning aside. */
export function sameContent(one: Model, other: Model): boolean {
  if (one === other) return true;
  return sameInformation(writeBpmn(one), writeBpmn(spelledLike(other, one)), isUnordered);
}

/**
 * Which side changed since the last sync, by content and not by date: a side that was only written anew has not.
 * @param base what both were after the last sync. O(size of all three).
 */
export function syncState(base: Model, model: Model, build: Model): SyncState {
  if (sameContent(model, build)) return "in step";
  const isOurs = !sameContent(base, model);
  const isTheirs = !sameContent(base, build);
  if (isOurs && isTheirs) return "both changed";
  return isOurs ? "model changed" : "build copy changed";
}

/**
 * Brings a model and its build copy together: what either side changed since the last sync is in, what both changed differently is a
 * conflict, and stays as the model has it unless it is decided otherwise (see `mergeModels`). The copy's text stays as its developers
 * wrote it but for what changed. O(size of all three).
 */
export function syncModels(base: Model, model: Model, build: BuildCopyText, options: MergeOptions = {}): Synced {
  const state = syncState(base, model, build.model);
  if (state === "in step" || state === "build copy changed")
    return { state, model: build.model, conflicts: [], text: build.text, isRewritten: false };
  const [from, ours] = [spelledLike(base, build.model), spelledLike(model, build.model)];
  const { model: merged, conflicts } = mergeModels(from, ours, build.model, options);
  const both = { ...merged, form: build.model.form };
  return { state, model: both, conflicts, ...written(build, both) };
}

/** The build copy's text with the content of a model. */
function written(build: BuildCopyText, model: Model): { readonly text: string; readonly isRewritten: boolean } {
  const after = writeBpmn(model);
  const text = reviseText(build.text, writeBpmn(build.model), after);
  // A text of a kind that nobody foresaw is better written anew than wrong.
  return holds(text, after) ? { text, isRewritten: false } : { text: after, isRewritten: true };
}

function holds(text: string, after: string): boolean {
  const read = readBpmn(text);
  return read.ok && sameInformation(writeBpmn(read.value), after, () => true);
}
