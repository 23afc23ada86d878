import type { Model } from "@/core/model";
import type { InputOf, Jobs, OutputOf, Tell } from "@/jobs";
import { isForPeople } from "./wordsOf";
import { type PageWorker, pageWorkers, type Workers } from "./workers";

export interface JobOptions {
  /** Calls off what was asked before and is not answered yet; that answer never comes. */
  readonly isAlone?: boolean;
  readonly tell?: Tell;
}

/**
 * Long work away from the page one works on, in a worker of the page that is taken with the first job and given back when all that was
 * asked is answered. One that was stopped or broke, as when its script cannot be fetched, is not used again.
 */
export class JobRunner {
  readonly #workers: Workers;
  readonly #keeps: boolean;
  #worker: PageWorker | undefined;
  #asked = 0;

  /** `keeps`: its worker is not given back, since one job builds on what another left there, as on a log that was read. */
  constructor({ keeps = false, workers = pageWorkers }: { readonly keeps?: boolean; readonly workers?: Workers } = {}) {
    this.#keeps = keeps;
    this.#workers = workers;
  }

  async run<Name extends keyof Jobs>(
    name: Name,
    models: { readonly [name: string]: Model },
    input: InputOf<Jobs, Name>,
    { isAlone = false, tell }: JobOptions = {},
  ): Promise<OutputOf<Jobs, Name>> {
    const callsOff = isAlone && this.#asked > 0;
    if (callsOff) this.stop();
    // What was called off once takes long: the next will too, and a worker at rest is left for what does not.
    this.#worker ??= callsOff ? this.#workers.takeNew() : this.#workers.take();
    const worker = this.#worker;
    this.#asked++;
    // What is told comes by a way of its own, and may come when the answer is there already, or the work was called off.
    let isOver = false;
    const tellMeanwhile = (share: number) => {
      if (!isOver && worker === this.#worker) tell?.(share);
    };
    try {
      return (await worker.run(name, models, input, tell && tellMeanwhile)) as OutputOf<Jobs, Name>;
    } catch (error) {
      // The next job is handed whole models; by another one where this one broke.
      if (worker === this.#worker) {
        if (!isForPeople(error) && this.#asked === 1) this.stop();
        else worker.forget();
      }
      throw error;
    } finally {
      isOver = true;
      // What was asked of a worker that was stopped since does not count any more.
      if (worker === this.#worker && --this.#asked === 0 && !this.#keeps) this.#giveBack(worker);
    }
  }

  #giveBack(worker: PageWorker): void {
    this.#worker = undefined;
    this.#workers.giveBack(worker);
  }

  stop(): void {
    this.#worker?.end();
    this.#worker = undefined;
    this.#asked = 0;
  }
}
