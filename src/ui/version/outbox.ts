import { createStore, del, get, keys, set, type UseStore } from "idb-keyval";
import { nanoid } from "nanoid";
import type { Command } from "@/core/commands";

/** Commands that the server has not acknowledged, kept in the browser so that a crash of either side loses nothing. */
export interface PendingBatch {
  readonly batch: string;
  readonly label: string;
  readonly commands: readonly Command[];
}

let opened: UseStore | undefined;
/** Opened once: opening takes longer than the writing. */
const store = () => {
  opened ??= createStore("lucid-lane", "outbox");
  return opened;
};

/** Each window has an outbox of its own, so that two on one version do not overwrite each other's. */
const thisWindow = nanoid();
const keyOf = (version: string) => `${version} ${thisWindow}`;
const lockOf = (owner: string) => `lucid-lane window ${owner}`;

/** While a window is open it holds a lock by its name: that tells its outbox from one that was left behind. */
let held = false;
function holdLock(): void {
  if (held || typeof navigator === "undefined" || !navigator.locks) return;
  held = true;
  void navigator.locks.request(lockOf(thisWindow), () => new Promise<void>(() => {}));
}

/** What windows that are gone had not sent yet; it is this window's from now on. */
export async function readOutbox(version: string): Promise<PendingBatch[]> {
  holdLock();
  try {
    const open = new Set((await navigator.locks?.query())?.held?.map((lock) => lock.name));
    const left: PendingBatch[] = [];
    for (const key of await keys<string>(store())) {
      const [of, owner = ""] = key.split(" ");
      if (of !== version || owner === thisWindow || open.has(lockOf(owner))) continue;
      left.push(...(((await get(key, store())) as PendingBatch[] | undefined) ?? []));
      await del(key, store());
    }
    if (left.length > 0) await set(keyOf(version), left, store());
    return left;
  } catch {
    // Without IndexedDB (a private window, say) editing still works; only a crash before saving would lose something.
    return [];
  }
}

export async function writeOutbox(version: string, batches: readonly PendingBatch[]): Promise<void> {
  try {
    if (batches.length === 0) await del(keyOf(version), store());
    else await set(keyOf(version), batches, store());
  } catch {
    // As above.
  }
}
