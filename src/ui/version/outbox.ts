import { createStore, del, get, keys, set, type UseStore } from "idb-keyval";
import { nanoid } from "nanoid";
import type { Command } from "@/core/commands";

/** Commands that the server has not acknowledged, kept in the browser so that a crash of either side loses nothing. */
export interface PendingBatch {
  readonly batch: string;
  readonly label: string;
  readonly commands: readonly Command[];
  /** What was there before is kept as a revision, before this. */
  readonly keep?: string;
}

let opened: UseStore | undefined;
/** Opened once: opening takes longer than the writing. */
const store = () => {
  opened ??= createStore("lucid-lane", "outbox");
  return opened;
};

const lockOf = (owner: string) => `lucid-lane window ${owner}`;
/** Outboxes of this page that are in use; others of the browser are told by the locks they hold. */
const inUse = new Set<string>();

/** The outbox of one open version. Each has its own, so that two on one version, in one window or in two, never overwrite each other's. */
export interface Outbox {
  /** What windows that are gone had not sent yet; it is this one's from now on. */
  readonly read: () => Promise<PendingBatch[]>;
  readonly write: (batches: readonly PendingBatch[]) => Promise<void>;
  /** Gives it up: what is in it then is read by the next one. */
  readonly close: () => void;
}

export function openOutbox(version: string): Outbox {
  const owner = nanoid();
  const keyOf = `${version} ${owner}`;
  inUse.add(owner);
  let letGo = () => {};
  // While it is in use it holds a lock by its name: that tells it from one that was left behind.
  if (typeof navigator !== "undefined")
    void navigator.locks
      ?.request(
        lockOf(owner),
        () =>
          new Promise<void>((resolve) => {
            letGo = resolve;
          }),
      )
      .catch(() => undefined);
  let writing: Promise<void> = Promise.resolve();
  const write = (batches: readonly PendingBatch[]): Promise<void> => {
    // One after another, so that the last one written is the last one said.
    writing = writing.then(async () => {
      try {
        if (batches.length === 0) await del(keyOf, store());
        else await set(keyOf, batches, store());
      } catch {
        // Without IndexedDB (a private window, say) editing still works; only a crash before saving would lose something.
      }
    });
    return writing;
  };
  return {
    write,
    read: async () => {
      try {
        const held =
          typeof navigator === "undefined"
            ? undefined
            : (await navigator.locks?.query())?.held?.map(({ name }) => name);
        const open = new Set(held);
        const left: PendingBatch[] = [];
        for (const key of await keys<string>(store())) {
          const [of, other = ""] = key.split(" ");
          if (of !== version || other === owner || inUse.has(other) || open.has(lockOf(other))) continue;
          left.push(...(((await get(key, store())) as PendingBatch[] | undefined) ?? []));
          // It stands under the new name before it is gone under the old one.
          await set(keyOf, left, store());
          await del(key, store());
        }
        return left;
      } catch {
        return [];
      }
    },
    close: () => {
      inUse.delete(owner);
      letGo();
    },
  };
}
