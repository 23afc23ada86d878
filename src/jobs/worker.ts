/** The worker of the browser: any job by its name, on models it keeps a copy of. */
import { expose } from "comlink";
import { type Handed, Held } from "./handover";
import { type Jobs, jobIn, jobModules, type Tell } from "./index";

const held = new Held();

const worker = {
  async run(
    name: keyof Jobs,
    handed: readonly (readonly [string, Handed])[],
    input: unknown,
    tell?: Tell,
  ): Promise<unknown> {
    // Taken in the order in which they were handed, before anything is waited for.
    const models = held.take(handed);
    const job = await jobIn(jobModules, name);
    return job(models, input as never, (share) => tell?.(share));
  },
};
export type JobWorker = typeof worker;

expose(worker);
