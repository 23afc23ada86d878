import { type Edit, sameJson } from "../model";

/** Fields that only follow from other changes, or that are merged part by part: two changes of one never overwrite each other. */
const joined = new Set(["order", "incoming", "outgoing", "flowNodeRef", "categoryValueRef", "spelling"]);

/**
 * Whether edits of two people, made on one state, are about the same thing: the same field of an element or figure set to different
 * values, or an element taken out by one that the other changed. Performed one after another, the later would overwrite the earlier
 * without a word. Places on a page are not looked at: the later one stays, as people expect of a shared drawing. O(edits).
 */
export function meet(mine: readonly Edit[], theirs: readonly Edit[]): boolean {
  const set = new Map<string, unknown>();
  const whole = new Map<string, "insert" | "remove">();
  const touched = new Set<string>();
  for (const edit of theirs) {
    if (edit.table !== "elements" && edit.table !== "figures") continue;
    if (edit.kind === "set") {
      if (joined.has(edit.field)) continue;
      const id = `${edit.table} ${edit.id}`;
      set.set(`${id} ${edit.field}`, edit.to);
      touched.add(id);
    } else {
      const id = `${edit.table} ${edit.record.id}`;
      whole.set(id, edit.kind);
      touched.add(id);
    }
  }
  // What both came to in the end is compared; on the way there mine may have passed something else.
  const last = new Map<string, unknown>();
  for (const edit of mine) {
    if (edit.table !== "elements" && edit.table !== "figures") continue;
    if (edit.kind === "set") {
      if (joined.has(edit.field)) continue;
      const id = `${edit.table} ${edit.id}`;
      if (whole.has(id)) return true;
      last.set(`${id} ${edit.field}`, edit.to);
    } else {
      const id = `${edit.table} ${edit.record.id}`;
      const isBothGone = edit.kind === "remove" && whole.get(id) === "remove";
      if (touched.has(id) && !isBothGone) return true;
    }
  }
  for (const [field, to] of last) if (set.has(field) && !sameJson(set.get(field), to)) return true;
  return false;
}
