import { existsSync } from "node:fs";
import { availableParallelism } from "node:os";
import { join } from "node:path";
import Piscina from "piscina";
import { say } from "@/core/messages";
import type { InputOf, OutputOf } from "@/jobs";
import type { ServerJobs, ThreadRequest } from "@/jobs/thread";
import { UseCaseError } from "./useCaseError";

/** The threads' one file, bundled by scripts/threads.mjs. */
const threadFile = () =>
  process.env.LANE_THREADS ?? join(/* turbopackIgnore: true */ process.cwd(), ".lane/thread.mjs");

// Routes are bundled apart from each other; what they share stands on the global object.
const shared = globalThis as unknown as { laneThreads?: Piscina };

/** Whether there are threads: a command in the shell may run where nothing was built, and keeps nobody waiting. */
export const hasThreads = (): boolean => existsSync(threadFile());

/** More would wait for longer than anybody does. */
const mostWaiting = 500;

function threads(): Piscina {
  if (shared.laneThreads) return shared.laneThreads;
  const filename = threadFile();
  if (!existsSync(filename)) throw new Error(`${filename} is missing: run "npm run build".`);
  shared.laneThreads = new Piscina({
    filename,
    minThreads: 0,
    maxThreads: Math.max(1, Math.min(4, availableParallelism())),
    idleTimeout: 30_000,
    maxQueue: mostWaiting,
    // A job that wants more than that ends alone; the server goes on.
    resourceLimits: { maxOldGenerationSizeMb: 2048 },
  });
  return shared.laneThreads;
}

/** A job takes no longer than this; whoever waits is told. */
const mostMilliseconds = 120_000;

/**
 * Does long work in a thread of its own, so that nobody else waits for it. Models are given as JSON text of what is stored. Called off
 * by `signal`, which ends the thread; ended too when it takes too long or wants too much memory, which is told in words.
 */
export async function inThread<Name extends keyof ServerJobs>(
  name: Name,
  models: { readonly [name: string]: string },
  input: InputOf<ServerJobs, Name>,
  signal?: AbortSignal,
): Promise<OutputOf<ServerJobs, Name>> {
  const request: ThreadRequest = { name, models, input };
  const timeout = AbortSignal.timeout(mostMilliseconds);
  try {
    return await threads().run(request, { signal: signal ? AbortSignal.any([signal, timeout]) : timeout });
  } catch (error) {
    const { name: kind, code, message } = error as Error & { code?: string };
    if (signal?.aborted) throw new UseCaseError("stopped", "It was cancelled; nothing was kept.");
    if (timeout.aborted || kind === "AbortError")
      throw new UseCaseError(
        "too-long",
        say`This took longer than ${mostMilliseconds / 1000} seconds and was ended. Nothing was changed. A smaller or less tangled model takes less.`,
        422,
      );
    if (code === "ERR_WORKER_OUT_OF_MEMORY")
      throw new UseCaseError(
        "too-large",
        "This wants more memory than there is for one piece of work. Nothing was changed. Take a smaller model or file.",
        422,
      );
    if (/queue/i.test(message ?? ""))
      throw new UseCaseError("busy", "The server is busy with other long work. Try again in a moment.", 503);
    throw error;
  }
}

/** Ends the threads; the next job starts them anew. */
export async function endThreads(): Promise<void> {
  const pool = shared.laneThreads;
  shared.laneThreads = undefined;
  await pool?.destroy();
}
