import { proxy, type Remote, wrap } from "comlink";
import type { Model } from "@/core/model";
import type { InputOf, Jobs, OutputOf, Tell } from "@/jobs";
import { HandingOver } from "@/jobs/handover";
import type { JobWorker } from "@/jobs/worker";
import { isForPeople } from "./wordsOf";

export interface JobOptions {
  /** Calls off what was asked before and is not answered yet; that answer never comes. */
  readonly isAlone?: boolean;
  readonly tell?: Tell;
}

/**
 * Long work away from the page one works on: a worker that is started with the first job, and anew with the next one after it was
 * stopped or broke, as when its script cannot be fetched. It keeps a copy of the models it was given, so that a model that has changed
 * is handed over as its changes.
 */
export class JobRunner {
  readonly #start: () => Worker;
  #own: Worker | undefined;
  #remote: Remote<JobWorker> | undefined;
  /** Rejects when the worker itself breaks; its jobs would never be answered. */
  #broken: Promise<never> | undefined;
  #handing = new HandingOver();
  #asked = 0;

  constructor(start: () => Worker = jobWorker) {
    this.#start = start;
  }

  async run<Name extends keyof Jobs>(
    name: Name,
    models: { readonly [name: string]: Model },
    input: InputOf<Jobs, Name>,
    { isAlone = false, tell }: JobOptions = {},
  ): Promise<OutputOf<Jobs, Name>> {
    if (isAlone && this.#asked > 0) this.stop();
    this.#asked++;
    const remote = this.#remote ?? this.#begin();
    // What is told comes by a way of its own, and may come when the answer is there already.
    let isOver = false;
    const tellMeanwhile = (share: number) => {
      if (!isOver) tell?.(share);
    };
    try {
      const done = remote.run(name, this.#handing.hand(models), input, ...(tell ? [proxy(tellMeanwhile)] : []));
      return (await Promise.race([done, this.#broken])) as OutputOf<Jobs, Name>;
    } catch (error) {
      // Whatever it holds now, the next job is handed whole models; by another one where this one broke.
      if (remote === this.#remote) {
        if (!isForPeople(error) && this.#asked === 1) this.stop();
        else this.#handing = new HandingOver();
      }
      throw error;
    } finally {
      isOver = true;
      // What was asked of a worker that was stopped since does not count any more.
      if (remote === this.#remote) this.#asked--;
    }
  }

  #begin(): Remote<JobWorker> {
    const own = this.#start();
    this.#own = own;
    this.#broken = new Promise((_, reject) =>
      own.addEventListener("error", () => reject(new TypeError("The worker broke."))),
    );
    this.#broken.catch(() => undefined);
    this.#remote = wrap<JobWorker>(own);
    return this.#remote;
  }

  stop(): void {
    this.#own?.terminate();
    this.#own = undefined;
    this.#remote = undefined;
    this.#handing = new HandingOver();
    this.#asked = 0;
  }
}

const jobWorker = () => new Worker(new URL("../../jobs/worker.ts", import.meta.url), { type: "module" });
