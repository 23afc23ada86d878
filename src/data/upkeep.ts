import type { LocalDatabase } from "./local/client";

/** So many writes leave enough behind (old rows of heads, of what is searched by) to be worth putting to use again. */
const writesBetween = 300;
/** After so long without a write nobody is kept waiting. */
const restMilliseconds = 3_000;

/**
 * A server vacuums by itself; a database in a folder has nobody who does. Without it every edit leaves the row it replaced behind, and
 * the files grow with each of them.
 * @returns to be called after each write
 */
export function upkeepOf(client: LocalDatabase): { readonly wrote: () => void; readonly stop: () => Promise<void> } {
  let writes = 0;
  let waiting: ReturnType<typeof setTimeout> | undefined;
  let running: Promise<unknown> = Promise.resolve();
  const run = () => {
    writes = 0;
    running = client
      .exec("vacuum")
      .catch((error: Error) => console.error(`The database could not be tidied: ${error.message}`));
  };
  return {
    wrote: () => {
      writes++;
      if (writes < writesBetween) return;
      clearTimeout(waiting);
      // Under steady work there is no rest; then it is done all the same, now and then.
      if (writes > writesBetween * 10) run();
      else {
        waiting = setTimeout(run, restMilliseconds);
        waiting.unref();
      }
    },
    stop: async () => {
      clearTimeout(waiting);
      await running;
    },
  };
}
