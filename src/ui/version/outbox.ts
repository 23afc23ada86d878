import { createStore, del, get, set, type UseStore } from "idb-keyval";
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

export async function readOutbox(version: string): Promise<PendingBatch[]> {
  try {
    return ((await get(version, store())) as PendingBatch[] | undefined) ?? [];
  } catch {
    // Without IndexedDB (a private window, say) editing still works; only a crash before saving would lose something.
    return [];
  }
}

export async function writeOutbox(version: string, batches: readonly PendingBatch[]): Promise<void> {
  try {
    if (batches.length === 0) await del(version, store());
    else await set(version, batches, store());
  } catch {
    // As above.
  }
}
