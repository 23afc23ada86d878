/** What a network does to one question: nothing, lose it on the way there, or lose the answer on the way back. */
export type Fate = "well" | "lost" | "unanswered";

export interface Answer {
  readonly status: number;
  readonly body: unknown;
}

const delay = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Stands between a page and a server, in place of `fetch`: slow in turns, and at times without luck. */
export class Network {
  /** What becomes of the next questions; afterwards all goes well. */
  readonly fates: Fate[] = [];
  #asked = 0;

  constructor(private readonly server: (useCase: string, input: never) => Answer) {}

  readonly fetch = async (path: string, { body }: { body: string }) => {
    const fate = this.fates.shift() ?? "well";
    await delay(20 + 70 * (this.#asked++ % 3));
    if (fate === "lost") throw new TypeError("no network");
    const answer = this.server(path.slice("/api/do/".length), JSON.parse(body) as never);
    await delay(15);
    if (fate === "unanswered") throw new TypeError("no network");
    return { ok: answer.status === 200, status: answer.status, json: async () => structuredClone(answer.body) };
  };
}
