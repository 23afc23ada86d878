import { closeDatabase } from "@/data/database";
import { backgroundDone } from "../kernel/background";
import { endThreads } from "../kernel/threads";
import { endTicking } from "../live/ticking";

/**
 * Ends the server when it is told to, by whatever means a terminal or a service manager has. What is acknowledged is stored already;
 * closing writes the rest of the database's own books and frees the data folder.
 */
export function stopOnSignals(): void {
  let isStopping = false;
  const stop = () => {
    if (isStopping) return;
    isStopping = true;
    endTicking();
    backgroundDone()
      .then(closeDatabase)
      .then(endThreads)
      .catch((error: Error) => console.error(`The database did not close: ${error.message}`))
      .finally(() => process.exit(0));
  };
  for (const signal of ["SIGTERM", "SIGINT", "SIGHUP"] as const) process.on(signal, stop);
}
