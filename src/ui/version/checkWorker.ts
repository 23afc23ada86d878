import type { Remote } from "comlink";
import type { CheckOptions, Finding } from "@/core/check";
import { type Model, toStored } from "@/core/model";
import type { CheckWorker } from "@/workers/check";

/** A worker that looks at one model at a time; what is asked for a newer model calls off what was asked before. */
export class CheckInWorker {
  #own: Worker | undefined;
  #remote: Remote<CheckWorker> | undefined;
  #isBusy = false;

  async findings(what: keyof CheckWorker, model: Model, options: CheckOptions): Promise<Finding[]> {
    if (this.#isBusy) this.stop();
    const { wrap } = await import("comlink");
    this.#own ??= new Worker(new URL("../../workers/check.ts", import.meta.url), { type: "module" });
    this.#remote ??= wrap<CheckWorker>(this.#own);
    this.#isBusy = true;
    const found = await this.#remote[what](toStored(model), options);
    this.#isBusy = false;
    return found;
  }

  stop(): void {
    this.#own?.terminate();
    this.#own = undefined;
    this.#remote = undefined;
    this.#isBusy = false;
  }
}
