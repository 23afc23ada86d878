import { spawn } from "node:child_process";

type Answer = { readonly id: string; readonly output?: unknown; readonly code?: string; readonly message?: string };

/** Another process of the application on the same workspace; see `peer.ts`. */
export interface Peer {
  readonly run: <Output = unknown>(name: string, input: unknown) => Promise<Output>;
  readonly ready: Promise<void>;
  readonly pid: number;
  readonly kill: () => Promise<void>;
}

/** What Node is asked to run for a program of this folder: bundled where that was done before, which starts faster. */
export const programOf = (name: "peer" | "editForever" | "sendOnce"): readonly string[] =>
  process.env.LANE_PROGRAMS
    ? [`${process.env.LANE_PROGRAMS}/${name}.mjs`]
    : ["--import", "tsx", `src/server/testing/${name}.ts`];

export function startPeer(env: { readonly [name: string]: string } = {}): Peer {
  const child = spawn(process.execPath, programOf("peer"), {
    env: { ...process.env, LANE_DEMO: "none", ...env },
    stdio: ["pipe", "pipe", "inherit"],
  });
  const waiting = new Map<string, (answer: Answer) => void>();
  let text = "";
  child.stdout.on("data", (chunk: Buffer) => {
    text += chunk.toString();
    const lines = text.split("\n");
    text = lines.pop() ?? "";
    for (const line of lines) {
      const answer = JSON.parse(line, (_, field) =>
        field !== null && typeof field === "object" && typeof field.base64 === "string"
          ? new Uint8Array(Buffer.from(field.base64, "base64"))
          : field,
      ) as Answer;
      waiting.get(answer.id)?.(answer);
      waiting.delete(answer.id);
    }
  });
  // What is half written when it is killed is answered by its end.
  child.stdin.on("error", () => undefined);
  const isGone = () => child.exitCode !== null || child.signalCode !== null;
  const gone = { code: "gone", message: "the process is gone" };
  child.on("exit", () => {
    for (const [id, tell] of waiting) tell({ id, ...gone });
  });
  const told = (id: string) =>
    new Promise<unknown>((resolve, reject) =>
      waiting.set(id, ({ output, code, message }) =>
        code === undefined ? resolve(output) : reject(Object.assign(new Error(message), { code })),
      ),
    );
  let count = 0;
  return {
    ready: told("ready") as Promise<void>,
    pid: child.pid ?? 0,
    run: async (name, input) => {
      if (isGone()) throw Object.assign(new Error(gone.message), { code: gone.code });
      const id = String(count++);
      const answer = told(id);
      const line = JSON.stringify({ id, name, input }, (_, field) =>
        field instanceof Uint8Array ? { base64: Buffer.from(field).toString("base64") } : field,
      );
      child.stdin.write(`${line}\n`);
      return (await answer) as never;
    },
    kill: async () => {
      if (isGone()) return;
      const ended = new Promise((resolve) => child.once("exit", resolve));
      child.kill("SIGKILL");
      await ended;
    },
  };
}
