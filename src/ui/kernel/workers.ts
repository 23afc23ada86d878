import { proxy, type Remote, wrap } from "comlink";
import type { Model } from "@/core/model";
import type { Jobs, Tell } from "@/jobs";
import { HandingOver } from "@/jobs/handover";
import type { JobWorker } from "@/jobs/worker";

/** A worker of this page, and what it was handed: a model that has changed is handed over as its changes. */
export class PageWorker {
  readonly #own: Worker;
  readonly #remote: Remote<JobWorker>;
  /** Who waits for an answer, which never comes from a worker that broke. */
  readonly #waiting = new Set<(reason: Error) => void>();
  #handing = new HandingOver();
  isBroken = false;

  constructor(own: Worker) {
    this.#own = own;
    this.#remote = wrap<JobWorker>(own);
    own.addEventListener("error", () => {
      this.isBroken = true;
      for (const refuse of [...this.#waiting]) refuse(new TypeError("The worker broke."));
    });
  }

  run(name: keyof Jobs, models: { readonly [name: string]: Model }, input: unknown, tell?: Tell): Promise<unknown> {
    const handed = this.#handing.hand(models);
    let refuse: (reason: Error) => void;
    return new Promise((resolve, reject) => {
      refuse = reject;
      this.#waiting.add(refuse);
      this.#remote.run(name, handed, input, ...(tell ? [proxy(tell)] : [])).then(resolve, reject);
    }).finally(() => this.#waiting.delete(refuse));
  }

  /** Whatever it holds now, the next job is handed whole models. */
  forget(): void {
    this.#handing = new HandingOver();
  }

  end(): void {
    this.#own.terminate();
  }
}

/** Workers with nothing to do that are kept for whatever comes next. */
const keptAtRest = 2;

/**
 * The workers of a page: to begin one takes longer than most of what it is asked for. Whoever has long work takes one that rests, or
 * begins one where none does, and gives it back when it is done.
 */
export class Workers {
  readonly #begin: () => Worker;
  readonly #resting: PageWorker[] = [];

  constructor(begin: () => Worker) {
    this.#begin = begin;
  }

  take(): PageWorker {
    // The last that rested: it most likely holds the model it is asked about.
    for (let worker = this.#resting.pop(); worker; worker = this.#resting.pop()) if (!worker.isBroken) return worker;
    return this.takeNew();
  }

  /** One that is begun now, so that those that rest are there for others. */
  takeNew(): PageWorker {
    return new PageWorker(this.#begin());
  }

  giveBack(worker: PageWorker): void {
    if (worker.isBroken || this.#resting.length >= keptAtRest) worker.end();
    else this.#resting.push(worker);
  }
}

export const pageWorkers = new Workers(
  () => new Worker(new URL("../../jobs/worker.ts", import.meta.url), { type: "module" }),
);
