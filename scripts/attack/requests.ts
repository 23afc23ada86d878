import { spawn } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { request } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { hostileInputs } from "../../src/server/testing/fuzz";
import { pause, type Tries } from "./tries";

const port = 4_391;

interface Answer {
  readonly status: number;
  readonly text: string;
}

function ask(
  path: string,
  options: { method?: string; headers?: Record<string, string>; body?: string | AsyncIterable<Buffer> } = {},
): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const { method = "POST", headers = {}, body } = options;
    const asked = request(
      { host: "127.0.0.1", port, path, method, headers: { host: `localhost:${port}`, ...headers } },
      (answer) => {
        let text = "";
        answer.on("data", (chunk: Buffer) => {
          if (text.length < 100_000) text += chunk.toString();
        });
        answer.on("end", () => resolve({ status: answer.statusCode ?? 0, text }));
      },
    );
    asked.on("error", reject);
    if (typeof body === "string" || body === undefined) asked.end(body);
    else
      void (async () => {
        for await (const chunk of body) if (!asked.write(chunk)) await new Promise((go) => asked.once("drain", go));
        asked.end();
      })().catch(() => undefined);
  });
}

async function* endless(megabytes: number): AsyncGenerator<Buffer> {
  const chunk = Buffer.alloc(1024 * 1024, 0x20);
  for (let at = 0; at < megabytes; at++) yield chunk;
}

const json = { "content-type": "application/json" };
/** Requests that are not what a page of ours sends, and the answers they may get. */
const wrong: readonly [what: string, ask: () => Promise<Answer>, statuses: readonly number[]][] = [
  ["a foreign name", () => ask("/", { method: "GET", headers: { host: "evil.example" } }), [403]],
  [
    "a foreign name for data",
    () => ask("/api/do/openHome", { headers: { ...json, host: "evil.example" }, body: "{}" }),
    [403],
  ],
  [
    "a foreign origin",
    () => ask("/api/do/openHome", { headers: { ...json, origin: "http://evil.example" }, body: "{}" }),
    [403],
  ],
  [
    "an origin of another port",
    () => ask("/api/do/openHome", { headers: { ...json, origin: "http://localhost:1" }, body: "{}" }),
    [403],
  ],
  ["a sandboxed page", () => ask("/api/do/openHome", { headers: { ...json, origin: "null" }, body: "{}" }), [403]],
  [
    "another site's fetch",
    () => ask("/api/backup", { method: "GET", headers: { "sec-fetch-site": "cross-site" } }),
    [403],
  ],
  ["a form", () => ask("/api/do/openHome", { headers: { "content-type": "text/plain" }, body: "{}" }), [415]],
  ["no type", () => ask("/api/do/openHome", { body: "{}" }), [415]],
  ["no JSON", () => ask("/api/do/openHome", { headers: json, body: "{" }), [400]],
  ["JSON that is no UTF-8", () => ask("/api/do/openHome", { headers: json, body: '"\ud800' }), [400]],
  [
    "500 MB in chunks as JSON",
    () => ask("/api/do/openHome", { headers: { ...json, "transfer-encoding": "chunked" }, body: endless(500) }),
    [413],
  ],
  [
    "500 MB in chunks as a file",
    () => ask("/api/files?name=a.txt", { headers: { "transfer-encoding": "chunked" }, body: endless(500) }),
    [413],
  ],
  [
    "500 MB in chunks to be opened",
    () =>
      ask("/api/import?area=area-accounts&name=a.bpmn", {
        headers: { "transfer-encoding": "chunked" },
        body: endless(500),
      }),
    [413],
  ],
  [
    "600 MB in chunks to be restored",
    () => ask("/api/restore", { headers: { "transfer-encoding": "chunked" }, body: endless(600) }),
    [413],
  ],
  ["a use case there is not", () => ask("/api/do/constructor", { headers: json, body: "{}" }), [404]],
  [
    "a revision that is no number",
    () => ask("/api/export?version=complaint-as-is&format=bpmn&revision=x", { method: "GET" }),
    [400, 404],
  ],
  [
    "a name with a line break",
    () => ask("/api/export?version=complaint-as-is&format=bpmn&name=a%0d%0ab", { method: "GET" }),
    [200],
  ],
  ["a name that is half a character", () => ask("/api/files?id=%ed%a0%80", { method: "GET" }), [400, 404]],
];

/** JSON of an input; one nested too deep to be written that way is sent as a text that is. */
function textOf(input: unknown): string | undefined {
  try {
    return JSON.stringify(input);
  } catch {
    return `{"version": ${"[".repeat(20_000)}${"]".repeat(20_000)}}`;
  }
}

/** A server of its own under hostile requests: nothing it does not foresee, and it goes on. */
export async function requests(): Promise<Tries> {
  const server = spawn(
    process.execPath,
    ["node_modules/next/dist/bin/next", "start", "-p", String(port), "-H", "127.0.0.1"],
    {
      env: { ...process.env, LANE_DATA: mkdtempSync(join(tmpdir(), "lane-requests-")), HOST: "127.0.0.1" },
      stdio: "ignore",
    },
  );
  const failures: string[] = [];
  let tries = 0;
  try {
    for (let waited = 0; ; waited++) {
      const home = await ask("/api/do/openHome", { headers: json, body: "{}" }).catch(() => undefined);
      if (home?.status === 200) break;
      if (waited > 600) throw new Error("the server does not answer");
      await pause(100);
    }
    for (const [what, send, statuses] of wrong) {
      tries++;
      const answer = await send().catch((error: NodeJS.ErrnoException) => ({
        status: error.code === "ECONNRESET" || error.code === "EPIPE" ? 413 : 0,
        text: String(error),
      }));
      if (!statuses.includes(answer.status)) failures.push(`${what}: answered ${answer.status}`);
    }
    for (const { name, input } of hostileInputs()) {
      tries++;
      const body = textOf(input);
      const answer = await ask(`/api/do/${name}`, { headers: json, body: body ?? "" });
      if (answer.status >= 500 || answer.status === 0)
        failures.push(`${name} ${String(body).slice(0, 120)}: answered ${answer.status}`);
    }
    const home = await ask("/api/do/openHome", { headers: json, body: "{}" });
    if (home.status !== 200) failures.push(`Home afterwards: ${home.status}`);
  } finally {
    const gone = new Promise((resolve) => server.once("exit", resolve));
    server.kill("SIGTERM");
    await gone;
  }
  return { what: "hostile requests", tries, failures };
}
