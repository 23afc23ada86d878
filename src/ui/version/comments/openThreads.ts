import type { About, ThreadRow } from "@/contract/comments";

/** How many threads are open about each thing of a kind, by its key. O(threads). */
export function openThreads(threads: readonly ThreadRow[], kind: About["kind"]): ReadonlyMap<string, number> {
  const open = new Map<string, number>();
  for (const { about, resolved } of threads)
    if (about.kind === kind && resolved === null) open.set(about.key, (open.get(about.key) ?? 0) + 1);
  return open;
}
