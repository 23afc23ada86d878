/** The worker of the browser: any job by its name, on models it keeps a copy of. */
import { expose } from "comlink";
import { type Handed, Held } from "./handover";
import { jobs, type Tell } from "./index";

const held = new Held();

const worker = {
  run(name: keyof typeof jobs, handed: readonly (readonly [string, Handed])[], input: unknown, tell?: Tell): unknown {
    const models = held.take(handed);
    return jobs[name](models, input as never, (share) => tell?.(share));
  },
};
export type JobWorker = typeof worker;

expose(worker);
