import { type Said, term } from "@/core/messages";
import type { Model } from "@/core/model";
import type { InputOf, Jobs, OfLog, OutputOf } from "@/jobs";
import { notHeld } from "@/jobs/ofLog";
import { type JobOptions, JobRunner } from "../kernel/jobRunner";
import { text, worded } from "../messages";

/** Jobs on a log: those that are given one. */
type OnLog = {
  readonly [Name in keyof Jobs]: InputOf<Jobs, Name> extends OfLog ? Name : never;
}[keyof Jobs];

/** Long work on one log. The worker holds it; one that was stopped, and begun anew, is handed the log once more. */
export class LogRunner {
  readonly #runner = new JobRunner({ keeps: true });
  #packed: Promise<Uint8Array> | undefined;

  constructor(
    readonly log: string,
    private readonly fetchPacked: () => Promise<Uint8Array>,
  ) {}

  async run<Name extends OnLog>(
    name: Name,
    models: { readonly [name: string]: Model },
    input: Omit<InputOf<Jobs, Name>, "log" | "packed">,
    options: JobOptions = {},
  ): Promise<OutputOf<Jobs, Name>> {
    const asked = { ...input, log: this.log };
    try {
      return await this.#runner.run(name, models, asked as InputOf<Jobs, Name>, options);
    } catch (error) {
      if (!(error instanceof Error) || error.message !== notHeld) throw error;
      this.#packed ??= this.fetchPacked();
      const packed = await this.#packed.catch((reason) => {
        // Asked once more the next time.
        this.#packed = undefined;
        throw reason;
      });
      return this.#runner.run(name, models, { ...asked, packed } as unknown as InputOf<Jobs, Name>, options);
    }
  }

  stop(): void {
    this.#runner.stop();
  }
}

/** What was kept of a log, from the server. */
export async function fetchLog(version: string, log: string): Promise<Uint8Array> {
  const response = await fetch(`/api/logs?${new URLSearchParams({ version, log })}`);
  if (!response.ok) {
    const body = (await response.json().catch(() => ({}))) as { error?: { message: string; said?: Said } };
    const words = body.error && worded(body.error.said ?? term(body.error.message));
    throw new Error(words ?? text.shell.answeredWith(response.status));
  }
  return new Uint8Array(await response.arrayBuffer());
}
