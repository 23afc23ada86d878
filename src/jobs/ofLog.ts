import type { LogFilter } from "@/core/evidence";

/** A log that this worker holds, or is handed now, compressed as it is kept; which of its traces are looked at. */
export interface OfLog {
  readonly log: string;
  readonly packed?: Uint8Array;
  readonly filters: readonly LogFilter[];
}

/** Asked of a worker that does not hold the log, which is to be handed over then. */
export const notHeld = "This worker does not hold the log.";
