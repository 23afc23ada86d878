import { createHash } from "node:crypto";
import { type Model, toStored } from "@/core/model";
import type { InputOf, OutputOf } from "@/jobs";
import type { ServerJobs } from "@/jobs/thread";
import { inThread } from "./threads";

interface Work<Name extends keyof ServerJobs> {
  readonly key: string;
  readonly name: Name;
  readonly models: { readonly [name: string]: Model };
  readonly input: InputOf<ServerJobs, Name>;
}

/** Ends an act that needs to know what takes long to work out; it is begun again when that is known. */
export class NotWorkedOut extends Error {
  constructor(readonly work: Work<keyof ServerJobs>) {
    super(`${work.name} is not worked out yet.`);
  }
}

// What was worked out, the latest last; and what is being worked out, so that ten who ask wait for one.
const shared = globalThis as unknown as {
  laneResults?: Map<string, unknown>;
  laneWork?: Map<string, Promise<unknown>>;
};
const results = () => {
  shared.laneResults ??= new Map();
  return shared.laneResults;
};
const underWay = () => {
  shared.laneWork ??= new Map();
  return shared.laneWork;
};
const mostResults = 64;

export const forgetResults = () => results().clear();

/**
 * What a job comes to on one state, inside an act. `state` names it: the same name means the same models and the same answer. Where it
 * is not known yet, the act is ended without a trace, the job done in a thread with nothing held meanwhile, and the act begun again, on
 * the state of then; so an act is always one short transaction on one state. Where others change that state again and again, the act
 * at last keeps what it holds and waits.
 */
export async function workedOut<Name extends keyof ServerJobs>(
  { waits }: { readonly waits: boolean },
  name: Name,
  state: readonly unknown[],
  models: { readonly [name: string]: Model },
  input: InputOf<ServerJobs, Name>,
  /** What tells this input from others, where it holds bytes that a name stands for. */
  told: unknown = input,
): Promise<OutputOf<ServerJobs, Name>> {
  const key = createHash("sha1")
    .update(JSON.stringify([name, state, told]))
    .digest("base64");
  const known = results();
  if (known.has(key)) return known.get(key) as OutputOf<ServerJobs, Name>;
  const work = { key, name, models, input } as unknown as Work<keyof ServerJobs>;
  if (!waits) throw new NotWorkedOut(work);
  return (await workOut(work)) as OutputOf<ServerJobs, Name>;
}

/** Does the work an act waits for. */
export function workOut({ key, name, models, input }: Work<keyof ServerJobs>): Promise<unknown> {
  const begun = underWay().get(key);
  if (begun) return begun;
  const texts = Object.fromEntries(
    Object.entries(models).map(([slot, model]) => [slot, JSON.stringify(toStored(model))]),
  );
  const work = inThread(name, texts, input)
    .then((result) => {
      const known = results();
      known.set(key, result);
      if (known.size > mostResults) known.delete(known.keys().next().value as string);
      return result;
    })
    .finally(() => underWay().delete(key));
  underWay().set(key, work);
  return work;
}
