import { type Remote, wrap } from "comlink";
import type { CheckWorker } from "@/workers/check";
import type { LayoutWorker } from "@/workers/layout";
import type { WalksWorker } from "@/workers/walks";

/** A worker that is started with the first question, and anew with the next one after it was stopped. */
export class OwnWorker<Api> {
  readonly #start: () => Worker;
  #own: Worker | undefined;
  #remote: Remote<Api> | undefined;
  #asked = 0;

  constructor(start: () => Worker) {
    this.#start = start;
  }

  /** `isAlone`: calls off what was asked before and is not answered yet; that answer never comes. */
  async ask<Answer>(question: (remote: Remote<Api>) => Promise<Answer>, isAlone = false): Promise<Answer> {
    if (isAlone && this.#asked > 0) this.stop();
    this.#asked++;
    this.#own ??= this.#start();
    this.#remote ??= wrap<Api>(this.#own);
    const remote = this.#remote;
    try {
      return await question(remote);
    } finally {
      // What was asked of a worker that was stopped since does not count any more.
      if (remote === this.#remote) this.#asked--;
    }
  }

  stop(): void {
    this.#own?.terminate();
    this.#own = undefined;
    this.#remote = undefined;
    this.#asked = 0;
  }
}

export const checkWorker = (): OwnWorker<CheckWorker> =>
  new OwnWorker(() => new Worker(new URL("../../workers/check.ts", import.meta.url), { type: "module" }));
export const layoutWorker = (): OwnWorker<LayoutWorker> =>
  new OwnWorker(() => new Worker(new URL("../../workers/layout.ts", import.meta.url), { type: "module" }));
export const walksWorker = (): OwnWorker<WalksWorker> =>
  new OwnWorker(() => new Worker(new URL("../../workers/walks.ts", import.meta.url), { type: "module" }));
